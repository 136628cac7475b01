using System.Globalization;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>The number formats of figures, and the numbers that cells hold.</summary>
internal static class CellFormats
{
    // Workbooks count days from the end of 1899, so that what they take for 29 February 1900 has a number too.
    private static readonly int DayZero = new DateOnly(1899, 12, 30).DayNumber;

    /// <summary>The number format of a figure; changes are marked as up, down or same.</summary>
    public static string Of(ReportWords words, ReportRow row, int column)
    {
        var described = words.Report.Columns[column];
        var kind = row.KindIn(described);
        var number = kind switch
        {
            ColumnKind.Money => WithDecimals(words.Look, words.MoneyDecimals) + new string(',', words.Look.ScaleDigits / 3),
            ColumnKind.Date => DateFormat(words.Look.Dates ?? words.Language.DatePattern),
            ColumnKind.Percent => "0.0%",
            ColumnKind.Ratio => WithDecimals(words.Look, 2),
            ColumnKind.Quantity => WithDecimals(words.Look, DecimalsOf(Figures.Exact(words.Report, row, column)!)),
            _ => WithDecimals(words.Look, 0),
        };
        return kind == ColumnKind.Percent && row.InsteadOfMoney is not null && described.IsChange ? "0.0\" pts\""
            : kind is not (ColumnKind.Money or ColumnKind.Quantity or ColumnKind.Count) ? number
            : described.IsChange ? $"{number}\" ▲\";{Negative(words.Look, number, "\" ▼\"")};{number}\" =\""
            : words.Look.Negatives switch { NegativeStyle.Minus => number, NegativeStyle.Brackets => $"{number}_);({number})", _ => $"{number}_-;{number}\\-" };
    }

    /// <summary>The number that a cell holds: a percentage as a fraction of one, a day as the number of days since the end of 1899.</summary>
    public static string Value(Report report, ReportRow row, int column, long units) => row.KindIn(report.Columns[column]) switch
    {
        ColumnKind.Date => (units - DayZero).ToString(CultureInfo.InvariantCulture),
        ColumnKind.Percent when !(row.InsteadOfMoney is not null && report.Columns[column].IsChange) => DecimalText.Write(units, Percentage.Decimals + 2),
        _ => Figures.Exact(report, row, column)!,
    };

    private static string Negative(ReportLook look, string number, string mark) => look.Negatives switch
    {
        NegativeStyle.Brackets => $"({number}){mark}",
        NegativeStyle.TrailingMinus => $"{number}\\-{mark}",
        _ => $"\\-{number}{mark}",
    };

    private static string WithDecimals(ReportLook look, int decimals) =>
        $"{(look.Thousands == "" ? "0" : "#,##0")}{(decimals == 0 ? "" : $".{new string('0', decimals)}")}";

    // Marks stand for themselves only behind a stroke.
    private static string DateFormat(string? pattern) => string.Concat((pattern ?? "yyyy-MM-dd").Select(letter =>
        char.IsAsciiLetter(letter) ? char.ToLowerInvariant(letter).ToString() : $"\\{letter}"));

    private static int DecimalsOf(string number) => number.IndexOf('.', StringComparison.Ordinal) is >= 0 and var point ? number.Length - point - 1 : 0;
}
