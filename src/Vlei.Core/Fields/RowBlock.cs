using Vlei.Core.Calendar;

namespace Vlei.Core.Fields;

/// <summary>
/// Rows of a table that are read together, as those of a month: a whole number per row in each column, read when it is
/// first asked for. Columns are known by the names that the table gives them.
/// </summary>
/// <param name="count">How many rows there are.</param>
/// <param name="read">Reads a column.</param>
/// <param name="behind">Another block that it is made from, which keeps columns too; nothing where there is none.</param>
public sealed class RowBlock(int count, Func<string, long[]> read, RowBlock? behind = null)
{
    private readonly Dictionary<string, long[]> _columns = new(StringComparer.Ordinal);

    /// <summary>How many rows there are.</summary>
    public int Count => count;

    /// <summary>The days that all rows lie within by the table's own date; nothing where that is not known.</summary>
    public DateRange? Dates { get; init; }

    /// <summary>The text of a row in a column of texts, where the table has any of its own.</summary>
    public Func<string, int, string>? TextOf { get; init; }

    /// <summary>
    /// Some of its rows, by their places, as a block of their own, which reads of each column what it needs and no more; nothing where
    /// that is no less work.
    /// </summary>
    public Func<int[], RowBlock>? Some { get; init; }

    /// <summary>The numbers of a column.</summary>
    public long[] this[string column]
    {
        get
        {
            if (!_columns.TryGetValue(column, out var numbers))
            {
                _columns[column] = numbers = read(column);
            }

            return numbers;
        }
    }

    /// <summary>Lets go of the columns that were read; they are read again where they are asked for again.</summary>
    public void Forget()
    {
        _columns.Clear();
        behind?.Forget();
    }
}

/// <summary>Some rows of a block, in their order.</summary>
/// <param name="block">The block.</param>
/// <param name="rows">The places of the rows, ascending; all rows where it is nothing.</param>
public sealed class RowSet(RowBlock block, int[]? rows = null)
{
    /// <summary>The block.</summary>
    public RowBlock Block => block;

    /// <summary>How many rows there are.</summary>
    public int Count => rows?.Length ?? block.Count;

    /// <summary>The places of the rows in the block; nothing for all of them.</summary>
    public int[]? Places => rows;

    /// <summary>Where a row stands in its block.</summary>
    public int PlaceOf(int row) => rows?[row] ?? row;

    /// <summary>The numbers of a column, for these rows.</summary>
    public long[] Column(string column) => rows is null ? block[column] : Gathered(block[column], rows);

    /// <summary>Those of the rows that are taken; itself where all are.</summary>
    public RowSet Where(bool[] taken)
    {
        var count = taken.AsSpan(0, Count).Count(true);
        if (count == Count)
        {
            return this;
        }

        var (places, next) = (new int[count], 0);
        for (var row = 0; next < count; row++)
        {
            if (taken[row])
            {
                places[next++] = PlaceOf(row);
            }
        }

        return new RowSet(block, places);
    }

    private static long[] Gathered(long[] column, int[] rows)
    {
        var gathered = GC.AllocateUninitializedArray<long>(rows.Length);
        for (var row = 0; row < gathered.Length; row++)
        {
            gathered[row] = column[rows[row]];
        }

        return gathered;
    }
}
