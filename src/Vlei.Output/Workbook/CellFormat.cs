using System.Globalization;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>What a cell holds.</summary>
internal enum CellKind
{
    /// <summary>A number.</summary>
    Number,

    /// <summary>A number that is shown a hundred times as large.</summary>
    Percentage,

    /// <summary>A day.</summary>
    Day,
}

/// <summary>
/// How a figure is written in its cell, and the number that the cell holds. Each kind of spreadsheet says it in its own way.
/// </summary>
/// <param name="Kind">What it is.</param>
/// <param name="Decimals">How many decimals are shown.</param>
internal readonly record struct CellFormat(CellKind Kind, int Decimals)
{
    // Spreadsheets count days from the end of 1899, so that what they take for 29 February 1900 has a number too.
    private static readonly int DayZero = new DateOnly(1899, 12, 30).DayNumber;

    /// <summary>Whether it is a change, which is marked as up, down or same.</summary>
    public bool IsChange { get; init; }

    /// <summary>Whether it is a number of points that a percentage has changed by.</summary>
    public bool IsPoints { get; init; }

    /// <summary>Whether thousands are set apart.</summary>
    public bool HasThousands { get; init; }

    /// <summary>How many digits at the end are not shown: 3 for thousands.</summary>
    public int ScaleDigits { get; init; }

    /// <summary>How a negative number looks.</summary>
    public NegativeStyle Negatives { get; init; }

    /// <summary>Whether nothing is written as a dash.</summary>
    public bool HasDash { get; init; }

    /// <summary>How a day is written; nothing for anything else.</summary>
    public string? Days { get; init; }

    /// <summary>How a figure of a report is written.</summary>
    public static CellFormat Of(ReportWords words, ReportRow row, int column)
    {
        var (described, look) = (words.Report.Columns[column], words.Look);
        var dash = look.Nil == NilStyle.Dash;
        var number = new CellFormat(CellKind.Number, 0) { HasThousands = look.Thousands != "", HasDash = dash };
        var signed = number with { IsChange = described.IsChange, Negatives = look.Negatives };
        return row.KindIn(described) switch
        {
            ColumnKind.Date => new CellFormat(CellKind.Day, 0) { Days = look.Dates ?? words.Language.DatePattern ?? "yyyy-MM-dd" },
            ColumnKind.Percent when row.InsteadOfMoney is not null && described.IsChange =>
                new CellFormat(CellKind.Number, 1) { IsPoints = true },
            ColumnKind.Percent => new CellFormat(CellKind.Percentage, 1) { HasDash = dash },
            ColumnKind.Ratio => number with { Decimals = 2 },
            ColumnKind.Money => signed with { Decimals = words.MoneyDecimals, ScaleDigits = look.ScaleDigits },
            ColumnKind.Quantity => signed with { Decimals = DecimalsOf(Figures.Exact(words.Report, row, column)!) },
            ColumnKind.Count => signed,
            _ => number,
        };
    }

    /// <summary>
    /// The number that a cell holds: a percentage as a fraction of one, a day as the number of days since the end of 1899.
    /// </summary>
    public static string Value(Report report, ReportRow row, int column, long units) => row.KindIn(report.Columns[column]) switch
    {
        ColumnKind.Date => (units - DayZero).ToString(CultureInfo.InvariantCulture),
        ColumnKind.Percent when !(row.InsteadOfMoney is not null && report.Columns[column].IsChange) =>
            DecimalText.Write(units, Percentage.Decimals + 2),
        _ => Figures.Exact(report, row, column)!,
    };

    /// <summary>The day that such a number stands for.</summary>
    public static DateOnly Day(string value) => DateOnly.FromDayNumber(DayZero + int.Parse(value, CultureInfo.InvariantCulture));

    private static int DecimalsOf(string number) => number.IndexOf('.', StringComparison.Ordinal) is >= 0 and var point
        ? number.Length - point - 1 : 0;
}
