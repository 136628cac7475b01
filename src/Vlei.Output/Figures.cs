using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>Figures as text, for people and for machines.</summary>
internal static class Figures
{
    private const int PercentDecimalsShown = 1;
    private const int RatioDecimalsShown = 2;
    private const int QuantityDecimals = 6;

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

    /// <summary>
    /// For people, with thousands apart, percentages to one decimal, plain numbers to two: <c>-1,234.50</c>, <c>27.6</c>.
    /// </summary>
    public static string Readable(Report report, ReportRow row, int column)
    {
        if (row.Cells[column].Units is not { } units)
        {
            return row.Cells[column].Words ?? "";
        }

        const int TenThousandthsToTenths = 1000;
        const int TenThousandthsToHundredths = 100;
        return row.KindIn(report.Columns[column]) switch
        {
            ColumnKind.Money => Grouped(units, report.Currency.Decimals),
            ColumnKind.Date => PeriodText.Iso(DateOnly.FromDayNumber((int)units)),
            ColumnKind.Count => Grouped(units, 0),
            ColumnKind.Quantity => Trimmed(Grouped(units, QuantityDecimals)),
            ColumnKind.Ratio => Grouped(Rounding.Divide(units, TenThousandthsToHundredths), RatioDecimalsShown),
            _ => Grouped(Rounding.Divide(units, TenThousandthsToTenths), PercentDecimalsShown)
                + (row.InsteadOfMoney is null ? "" : report.Columns[column].IsChange ? " pts" : " %"),
        };
    }

    private static string Trimmed(string number) => number.TrimEnd('0').TrimEnd('.');

    private static string Grouped(long units, int decimals)
    {
        const int DigitsTogether = 3;
        var plain = DecimalText.Write(units, decimals);
        var grouped = new StringBuilder(plain, plain.Length + (plain.Length / DigitsTogether));
        var first = units < 0 ? 1 : 0;
        for (var place = (decimals == 0 ? plain.Length : plain.Length - decimals - 1) - DigitsTogether; place > first; place -= DigitsTogether)
        {
            grouped.Insert(place, ',');
        }

        return grouped.ToString();
    }
}
