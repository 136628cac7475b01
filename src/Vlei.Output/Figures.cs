using System.Globalization;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>Figures as text, for people and for machines.</summary>
internal static class Figures
{
    private const int PercentDecimalsShown = 1;

    /// <summary>With exactly the decimals of its kind and nothing else: <c>-1234.50</c>; nothing where it is empty.</summary>
    public static string? Exact(Report report, ReportColumn column, Cell cell) =>
        cell.Units is { } units
            ? DecimalText.Write(units, column.Kind == ColumnKind.Money ? report.Currency.Decimals : Percentage.Decimals)
            : null;

    /// <summary>For people, with thousands apart and percentages to one decimal: <c>-1,234.50</c>, <c>27.6</c>.</summary>
    public static string Readable(Report report, ReportColumn column, Cell cell)
    {
        if (cell.Units is not { } units)
        {
            return "";
        }

        var decimals = report.Currency.Decimals;
        if (column.Kind == ColumnKind.Percent)
        {
            const int Dropped = 1000;
            decimals = PercentDecimalsShown;
            units = Rounding.Divide(units, Dropped);
        }

        var plain = DecimalText.Write(units, decimals);
        var point = decimals == 0 ? plain.Length : plain.Length - decimals - 1;
        var whole = Int128.Parse(plain.AsSpan(0, point), CultureInfo.InvariantCulture);
        var sign = units < 0 && whole == 0 ? "-" : "";
        return $"{sign}{whole.ToString("N0", CultureInfo.InvariantCulture)}{plain[point..]}";
    }
}
