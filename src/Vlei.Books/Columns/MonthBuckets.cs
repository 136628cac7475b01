using System.Runtime.InteropServices;
using Vlei.Books.Store;
using Vlei.Core.Calendar;

namespace Vlei.Books.Columns;

/// <summary>
/// Gathers new rows of one kind by month, and merges them into those that are there: what the months held of stale documents goes,
/// the rest stays. When it holds too much it empties itself into the store, or, where rows are of so many months, or months so large,
/// that each would be merged again and again, packs them first, so that its memory has a bound however many documents there are.
/// </summary>
internal sealed class MonthBuckets<T>(
    WritableDerivedMonths store, DerivedKind kind, DerivedColumns<T> shape, HashSet<int>? stale, int most = 24_000)
{
    private const int FewMonths = 6;
    private const int MostPacked = 32 << 20;

    private readonly Dictionary<YearMonth, List<T>> _buckets = [];
    private readonly Dictionary<YearMonth, List<PackedRows<T>>> _packed = [];
    private readonly HashSet<YearMonth> _cleansed = [];

    // Used again for each month: they are large, and new ones cost more than what is done with them.
    private readonly Stack<List<T>> _spare = [];
    private readonly List<T> _rows = [];
    private T[] _sorted = [];
    private int _held;
    private long _heldPacked;

    /// <summary>Takes rows.</summary>
    public void Add(ReadOnlySpan<T> rows)
    {
        var (month, bucket) = (default(YearMonth), default(List<T>));
        foreach (ref readonly var row in rows)
        {
            var own = YearMonth.Of(shape.DayOf(row));
            if (bucket is null || own != month)
            {
                month = own;
                if (!_buckets.TryGetValue(month, out bucket))
                {
                    _buckets[month] = bucket = _spare.TryPop(out var spare) ? spare : [];
                }
            }

            bucket.Add(row);
        }

        _held += rows.Length;
        if (_held <= most)
        {
            return;
        }

        if (_heldPacked < MostPacked && (_buckets.Count > FewMonths || IsDearToMerge()))
        {
            Pack();
        }
        else
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

    // Whether months would be written anew for fewer rows than were put into them before: a large month for each small part of it.
    private bool IsDearToMerge() =>
        _buckets.Keys.Where(_cleansed.Contains).Sum(month => store.Count(kind, month)) >= _held;

    private void Flush()
    {
        foreach (var month in _packed.Keys.Union(_buckets.Keys).ToList())
        {
            Merge(month, _buckets.GetValueOrDefault(month) ?? []);
        }

        Empty();
        _packed.Clear();
        (_held, _heldPacked) = (0, 0);
    }

    private void Pack()
    {
        foreach (var (month, bucket) in _buckets)
        {
            var packed = new PackedRows<T>(bucket, shape);
            (_packed.TryGetValue(month, out var before) ? before : _packed[month] = []).Add(packed);
            _heldPacked += packed.Size;
        }

        Empty();
        _held = 0;
    }

    private void Empty()
    {
        foreach (var bucket in _buckets.Values)
        {
            bucket.Clear();
            _spare.Push(bucket);
        }

        _buckets.Clear();
    }

    private void Merge(YearMonth month, List<T> added)
    {
        _rows.Clear();
        store.Read(kind, month, shape, _rows);
        if (_cleansed.Add(month) && stale is not null)
        {
            _rows.RemoveAll(row => shape.RestsOn(row, stale));
        }

        _packed.GetValueOrDefault(month)?.ForEach(packed => packed.AddTo(_rows, month));
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
        var rows = CollectionsMarshal.AsSpan(_rows);
        foreach (ref readonly var row in rows)
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
        foreach (ref readonly var row in rows)
        {
            sorted[places[shape.DayOf(row).Day]++] = row;
        }

        for (var index = 1; index < sorted.Length; index++)
        {
            if (shape.Order(sorted[index - 1], sorted[index]) <= 0)
            {
                continue;
            }

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
