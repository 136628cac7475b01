using Vlei.Books.Store;
using Vlei.Core.Calendar;

namespace Vlei.Books.Columns;

/// <summary>The derived months where they can be written.</summary>
internal sealed class WritableDerivedMonths(IWritableMonths months) : DerivedMonths(months)
{
    /// <summary>Whether nothing is derived from documents yet.</summary>
    public bool IsEmpty => Enum.GetValues<DerivedKind>().All(kind => kind == DerivedKind.Names || CountsOf(kind).Count == 0);

    /// <summary>Puts a month's rows, in order, in the place of what was there; without any, the month goes.</summary>
    public void Write<T>(DerivedKind kind, YearMonth month, ReadOnlySpan<T> rows, DerivedColumns<T> shape)
    {
        List<MonthColumn> columns =
            [.. shape.Columns.Zip(shape.Pack(rows), (column, data) => new MonthColumn(column.Name, data, Checksum(data)))];
        Put(kind, month, rows.Length, shape.Sums?.Invoke(rows) ?? [], columns);
    }

    /// <summary>Puts columns that are packed already in the place of what was there; without any rows, it goes.</summary>
    public void Write(DerivedKind kind, YearMonth place, int rows, IReadOnlyList<(string Name, byte[] Data)> columns) =>
        Put(kind, place, rows, [], [.. columns.Select(column => new MonthColumn(column.Name, column.Data, Checksum(column.Data)))]);

    /// <summary>Throws all of it away.</summary>
    public void Clear()
    {
        months.ClearMonths();
        foreach (var kind in Enum.GetValues<DerivedKind>())
        {
            CountsOf(kind).Clear();
        }
    }

    private void Put(DerivedKind kind, YearMonth month, int count, byte[] sums, IReadOnlyList<MonthColumn> columns)
    {
        months.PutMonth(kind, new MonthHead(month, count, sums, Checksum(sums)), columns);
        if (count > 0)
        {
            CountsOf(kind)[month] = count;
        }
        else
        {
            CountsOf(kind).Remove(month);
        }
    }
}
