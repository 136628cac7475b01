using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>Figures as text for machines.</summary>
internal static class Figures
{
    /// <summary>The decimals of a quantity.</summary>
    public const int QuantityDecimals = 6;

    /// <summary>The names of the kinds of columns.</summary>
    public static string NameOf(ColumnKind kind) => kind switch
    {
        ColumnKind.Money => "money",
        ColumnKind.Percent => "percent",
        ColumnKind.Ratio => "ratio",
        ColumnKind.Quantity => "quantity",
        ColumnKind.Date => "date",
        ColumnKind.Count => "count",
        _ => "text",
    };

    /// <summary>The kind of that name.</summary>
    public static ColumnKind KindOf(string name) => Enum.GetValues<ColumnKind>().First(kind => NameOf(kind) == name);

    /// <summary>With exactly the decimals of its kind and nothing else: <c>-1234.50</c>; nothing where it is empty.</summary>
    public static string? Exact(Report report, ReportRow row, int column) => row.Cells[column].Units is not { } units
        ? row.Cells[column].Words
        : row.KindIn(report.Columns[column]) switch
        {
            ColumnKind.Money => DecimalText.Write(units, report.Currency.Decimals),
            ColumnKind.Date => PeriodText.Iso(DateOnly.FromDayNumber((int)units)),
            ColumnKind.Count => DecimalText.Write(units, 0),
            ColumnKind.Quantity => Trimmed(DecimalText.Write(units, QuantityDecimals)),
            _ => DecimalText.Write(units, Percentage.Decimals),
        };

    private static string Trimmed(string number) => number.TrimEnd('0').TrimEnd('.');
}
