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
    public static string Of(Report report, ReportRow row, int column)
    {
        var described = report.Columns[column];
        var kind = row.KindIn(described);
        var number = kind switch
        {
            ColumnKind.Money => WithDecimals(report.Currency.Decimals),
            ColumnKind.Date => "yyyy\\-mm\\-dd",
            ColumnKind.Percent => "0.0%",
            ColumnKind.Ratio => WithDecimals(2),
            ColumnKind.Quantity => WithDecimals(DecimalsOf(Figures.Exact(report, row, column)!)),
            _ => "#,##0",
        };
        return kind == ColumnKind.Percent && row.InsteadOfMoney is not null && described.IsChange ? "0.0\" pts\""
            : described.IsChange && kind is ColumnKind.Money or ColumnKind.Quantity or ColumnKind.Count ? $"{number}\" ▲\";\\-{number}\" ▼\";{number}\" =\""
            : number;
    }

    /// <summary>The number that a cell holds: a percentage as a fraction of one, a day as the number of days since the end of 1899.</summary>
    public static string Value(Report report, ReportRow row, int column, long units) => row.KindIn(report.Columns[column]) switch
    {
        ColumnKind.Date => (units - DayZero).ToString(CultureInfo.InvariantCulture),
        ColumnKind.Percent when !(row.InsteadOfMoney is not null && report.Columns[column].IsChange) => DecimalText.Write(units, Percentage.Decimals + 2),
        _ => Figures.Exact(report, row, column)!,
    };

    private static string WithDecimals(int decimals) => decimals == 0 ? "#,##0" : $"#,##0.{new string('0', decimals)}";

    private static int DecimalsOf(string number) => number.IndexOf('.', StringComparison.Ordinal) is >= 0 and var point ? number.Length - point - 1 : 0;
}
