using System.Globalization;
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
    public static string? Exact(Report report, ReportRow row, int column)
    {
        Span<char> room = stackalloc char[DecimalText.Longest];
        return row.Cells[column] is { Units: { } units } ? Exact(report, row, column, units, room).ToString() : row.Cells[column].Words;
    }

    /// <summary>The same of a figure that has a number, in some room for <see cref="DecimalText.Longest"/> characters.</summary>
    public static ReadOnlySpan<char> Exact(Report report, ReportRow row, int column, long units, Span<char> room)
    {
        var kind = row.KindIn(report.Columns[column]);
        if (kind == ColumnKind.Date)
        {
            _ = DateOnly.FromDayNumber((int)units).TryFormat(room, out var length, "O", CultureInfo.InvariantCulture);
            return room[..length];
        }

        ReadOnlySpan<char> number = room[..DecimalText.Write(units, DecimalsOf(kind, report.Currency), room)];
        return kind == ColumnKind.Quantity ? number.TrimEnd('0').TrimEnd('.') : number;
    }

    private static int DecimalsOf(ColumnKind kind, Currency currency) => kind switch
    {
        ColumnKind.Money => currency.Decimals,
        ColumnKind.Count => 0,
        ColumnKind.Quantity => QuantityDecimals,
        _ => Percentage.Decimals,
    };
}
