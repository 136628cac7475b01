namespace Vlei.Core.Ledger;

/// <summary>The postings of one month, ordered by day, document, settlement and line, in columns; only those that were asked for.</summary>
public sealed class PostingMonth
{
    private readonly long[]?[] _columns = new long[]?[Enum.GetValues<PostingField>().Length];

    /// <summary>Takes the columns, each with as many numbers as there are postings; what lies behind them is not looked at.</summary>
    public PostingMonth(int count, IEnumerable<(PostingField Field, long[] Column)> columns)
    {
        Count = count;
        foreach (var (field, column) in columns)
        {
            _columns[(int)field] = column;
        }
    }

    /// <summary>How many postings there are.</summary>
    public int Count { get; }

    /// <summary>
    /// One column; longer than there are postings where its array is used again. Throws <see cref="InvalidOperationException"/> where
    /// it was not asked for.
    /// </summary>
    public long[] this[PostingField field] =>
        _columns[(int)field] ?? throw new InvalidOperationException($"The column {field} was not read.");

    /// <summary>The first posting of that day of the month or later; as many as there are where there is none.</summary>
    public int FirstFrom(int day)
    {
        var days = this[PostingField.Day];
        var (low, high) = (0, Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (days[middle] < day)
            {
                low = middle + 1;
            }
            else
            {
                high = middle;
            }
        }

        return low;
    }
}
