using Vlei.Books.Store;
using Vlei.Core.Calendar;

namespace Vlei.Books.Columns;

/// <summary>
/// Gathers new rows of one kind by month, and merges them into those that are there: what the months held of stale documents goes,
/// the rest stays. It empties itself into the store when it holds too much, so that its
/// memory has a bound however many documents there are.
/// </summary>
internal sealed class MonthBuckets<T>(
    WritableDerivedMonths store, DerivedKind kind, DerivedColumns<T> shape, HashSet<int>? stale, int most = 125_000)
{
    private readonly Dictionary<YearMonth, List<T>> _buckets = [];
    private readonly HashSet<YearMonth> _cleansed = [];

    // Used again for each month: they are large, and new ones cost more than what is done with them.
    private readonly List<T> _rows = [];
    private T[] _sorted = [];
    private int _held;

    /// <summary>Takes rows.</summary>
    public void Add(IReadOnlyCollection<T> rows)
    {
        var (month, bucket) = (default(YearMonth), default(List<T>));
        foreach (var row in rows)
        {
            var own = YearMonth.Of(shape.DayOf(row));
            if (bucket is null || own != month)
            {
                month = own;
                if (!_buckets.TryGetValue(month, out bucket))
                {
                    _buckets[month] = bucket = [];
                }
            }

            bucket.Add(row);
        }

        _held += rows.Count;
        if (_held > most)
        {
            Flush();
        }
    }

    /// <summary>Brings the store up to date.</summary>
    public void Complete()
    {
        Flush();
        if (stale is null)
        {
            return;
        }

        foreach (var month in store.Months(kind))
        {
            if (!_cleansed.Contains(month) && shape.Documents.Any(name =>
                store.Column(kind, month, name).Any(document => stale.Contains((int)document))))
            {
                Merge(month, []);
            }
        }
    }

    private void Flush()
    {
        foreach (var (month, bucket) in _buckets)
        {
            Merge(month, bucket);
        }

        _buckets.Clear();
        _held = 0;
    }

    private void Merge(YearMonth month, List<T> added)
    {
        _rows.Clear();
        store.Read(kind, month, shape, _rows);
        if (_cleansed.Add(month) && stale is not null)
        {
            _rows.RemoveAll(row => shape.RestsOn(row, stale));
        }

        _rows.AddRange(added);
        SortByDay();
        store.Write(kind, month, _sorted.AsSpan(0, _rows.Count), shape);
    }

    // Rows come in the order of documents, so after a stable sort by day almost all stand where they should, and moving
    // each back to its place costs next to nothing.
    private void SortByDay()
    {
        const int DaysInMonth = 31;
        var places = new int[DaysInMonth + 2];
        foreach (var row in _rows)
        {
            places[shape.DayOf(row).Day + 1]++;
        }

        for (var day = 1; day < places.Length; day++)
        {
            places[day] += places[day - 1];
        }

        if (_sorted.Length < _rows.Count)
        {
            _sorted = new T[_rows.Capacity];
        }

        var sorted = _sorted.AsSpan(0, _rows.Count);
        foreach (var row in _rows)
        {
            sorted[places[shape.DayOf(row).Day]++] = row;
        }

        for (var index = 1; index < sorted.Length; index++)
        {
            var row = sorted[index];
            var place = index;
            for (; place > 0 && shape.Order(sorted[place - 1], row) > 0; place--)
            {
                sorted[place] = sorted[place - 1];
            }

            sorted[place] = row;
        }
    }
}
