using Vlei.Books.Store;
using Vlei.Core.Calendar;

namespace Vlei.Books.Columns;

/// <summary>The derived months where they can be written.</summary>
internal sealed class WritableDerivedMonths(IWritableMonths months) : DerivedMonths(months)
{
    /// <summary>Whether nothing is derived yet.</summary>
    public bool IsEmpty => Enum.GetValues<DerivedKind>().All(kind => CountsOf(kind).Count == 0);

    /// <summary>Puts a month's rows, in order, in the place of what was there; without any, the month goes.</summary>
    public void Write<T>(DerivedKind kind, YearMonth month, ReadOnlySpan<T> rows, DerivedColumns<T> shape)
    {
        List<MonthColumn> columns =
            [.. shape.Columns.Zip(shape.Pack(rows), (column, data) => new MonthColumn(column.Name, data, Checksum(data)))];
        var sums = shape.Sums?.Invoke(rows) ?? [];
        months.PutMonth(kind, new MonthHead(month, rows.Length, sums, Checksum(sums)), columns);
        if (rows.Length > 0)
        {
            CountsOf(kind)[month] = rows.Length;
        }
        else
        {
            CountsOf(kind).Remove(month);
        }
    }

    /// <summary>Throws all of it away.</summary>
    public void Clear()
    {
        months.ClearMonths();
        foreach (var kind in Enum.GetValues<DerivedKind>())
        {
            CountsOf(kind).Clear();
        }
    }
}
