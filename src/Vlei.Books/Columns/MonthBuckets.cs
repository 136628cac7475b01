using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// Gathers the new postings of some documents by basis and month, and merges them into the store: what the months held
/// of those documents goes, the rest stays. It empties itself into the store when it holds too much, so that its memory
/// has a bound however many documents there are.
/// </summary>
internal sealed class MonthBuckets(PostingStore store, HashSet<int>? affected, int most = 250_000)
{
    private readonly Dictionary<(AccountingBasis, YearMonth), List<Posting>> _buckets = [];
    private readonly HashSet<(AccountingBasis, YearMonth)> _cleansed = [];
    private int _held;

    /// <summary>Takes postings of one basis.</summary>
    public void Add(AccountingBasis basis, List<Posting> postings)
    {
        var (month, bucket) = (default(YearMonth), default(List<Posting>));
        foreach (var posting in postings)
        {
            var own = YearMonth.Of(posting.Day);
            if (bucket is null || own != month)
            {
                month = own;
                if (!_buckets.TryGetValue((basis, month), out bucket))
                {
                    _buckets[(basis, month)] = bucket = [];
                }
            }

            bucket.Add(posting);
        }

        _held += postings.Count;
        if (_held > most)
        {
            Flush();
        }
    }

    /// <summary>Brings the store up to date.</summary>
    public void Complete()
    {
        Flush();
        if (affected is null)
        {
            return;
        }

        foreach (var basis in Enum.GetValues<AccountingBasis>())
        {
            foreach (var month in store.Months(basis))
            {
                if (!_cleansed.Contains((basis, month))
                    && store.Column(basis, month, PostingField.Document).Any(document => affected.Contains((int)document)))
                {
                    Merge(basis, month, []);
                }
            }
        }
    }

    private void Flush()
    {
        foreach (var ((basis, month), bucket) in _buckets)
        {
            Merge(basis, month, bucket);
        }

        _buckets.Clear();
        _held = 0;
    }

    private void Merge(AccountingBasis basis, YearMonth month, List<Posting> added)
    {
        var first = _cleansed.Add((basis, month));
        var old = store.Read(basis, month);
        var postings = new List<Posting>(old.Length + added.Count);
        foreach (ref readonly var posting in old.AsSpan())
        {
            if (!first || affected?.Contains(posting.Document) != true)
            {
                postings.Add(posting);
            }
        }

        postings.AddRange(added);
        var sorted = SortedByDay(postings);
        store.Write(basis, month, sorted);
    }

    // Postings come in the order of documents, so after a stable sort by day almost all stand where they should, and
    // moving each back to its place costs next to nothing.
    private static Posting[] SortedByDay(List<Posting> postings)
    {
        const int DaysInMonth = 31;
        var places = new int[DaysInMonth + 2];
        foreach (var posting in postings)
        {
            places[posting.Day.Day + 1]++;
        }

        for (var day = 1; day < places.Length; day++)
        {
            places[day] += places[day - 1];
        }

        var sorted = new Posting[postings.Count];
        foreach (var posting in postings)
        {
            sorted[places[posting.Day.Day]++] = posting;
        }

        for (var index = 1; index < sorted.Length; index++)
        {
            var posting = sorted[index];
            var place = index;
            for (; place > 0 && PostingColumn.Compare(sorted[place - 1], posting) > 0; place--)
            {
                sorted[place] = sorted[place - 1];
            }

            sorted[place] = posting;
        }

        return sorted;
    }
}
