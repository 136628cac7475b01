using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>
/// The postings of an account in a general ledger, oldest first. There may be any number: no more is kept of each than what cannot be
/// looked up.
/// </summary>
/// <param name="source">What kind of postings.</param>
/// <param name="account">The account.</param>
internal sealed class LedgerPostings(PostingSource source, AccountKey account)
{
    private readonly ManyValues<Posted> _all = new();

    // The days that have any, and the place of the first of each.
    private readonly List<DateOnly> _days = [];
    private readonly List<int> _firsts = [];

    /// <summary>How many there are.</summary>
    public int Count => _all.Count;

    /// <summary>What all of them come to; debit positive.</summary>
    public Amount Total => Count == 0 ? Amount.Zero : _all[Count - 1].Sum;

    /// <summary>
    /// Adds the next one. Throws <see cref="OverflowException"/> where the sum does not fit.
    /// </summary>
    public void Add(PostingEntry entry)
    {
        if (_days.Count == 0 || _days[^1] != entry.Place.Day)
        {
            _days.Add(entry.Place.Day);
            _firsts.Add(Count);
        }

        var place = entry.Place;
        _all.Add(new Posted(place.Document, place.Settlement, place.Line, entry.Contact, Total + entry.Amount));
    }

    /// <summary>One of them, and what those up to it come to; debit positive.</summary>
    public (PostingEntry Entry, Amount Sum) At(int place)
    {
        ref readonly var posted = ref _all[place];
        var day = _firsts.BinarySearch(place);
        var at = new PostingPlace(_days[day < 0 ? ~day - 1 : day], posted.Document, posted.Settlement, posted.Line);
        return (new PostingEntry(source, at, account, posted.Contact, posted.Sum - (place == 0 ? Amount.Zero : _all[place - 1].Sum)),
            posted.Sum);
    }

    // Its amount is the difference to the sum of the one before.
    private readonly record struct Posted(DocumentKey Document, SettlementKey Settlement, int Line, ContactKey Contact, Amount Sum);
}
