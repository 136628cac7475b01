using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>One document on one control account with one contact, and what is open of it on a day.</summary>
/// <param name="Document">The key of the document.</param>
/// <param name="Account">The key of the control account.</param>
/// <param name="Contact">The key of the contact, 0 for none.</param>
/// <param name="Date">The document's date.</param>
/// <param name="Due">The day by which it should be settled; its date where nothing else is said.</param>
/// <param name="Total">What the document puts on the account; debit positive.</param>
/// <param name="Settlements">What was set against it up to the day, oldest first.</param>
public sealed record OpenItem(
    int Document, int Account, int Contact, DateOnly Date, DateOnly Due, Amount Total, IReadOnlyList<Settlement> Settlements)
{
    /// <summary>What is left of it; of the same sign as the total, or zero.</summary>
    public Amount Open => Settlements.Aggregate(
        Total, (open, settlement) => Total.Sign < 0 ? open + settlement.Amount : open - settlement.Amount);
}

/// <summary>Works out what is open on a day.</summary>
public static class OpenItemsOf
{
    private static readonly PostingField[] Needed =
        [PostingField.Day, PostingField.Account, PostingField.Amount, PostingField.Document, PostingField.Contact];

    /// <summary>
    /// The items of all accounts of a type that are not settled in full on a day, in the order of the documents' dates.
    /// Throws <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    /// <param name="ledger">The records.</param>
    /// <param name="type">Receivable or payable.</param>
    /// <param name="day">The day.</param>
    /// <param name="filter">Which postings on those accounts count.</param>
    public static IReadOnlyList<OpenItem> AsOf(ILedger ledger, AccountType type, DateOnly day, PostingFilter filter)
    {
        var (items, taken) = Items(ledger, type, day, filter);
        var settled = items.ToDictionary(item => (item.Document, item.Account, item.Contact), _ => new List<Settlement>());
        var byDocument = items.ToLookup(item => item.Document, item => new ControlItem(item.Document, item.Account, item.Contact, item.Total));
        foreach (var settlement in ledger.Settlements.Where(settlement => settlement.Effective <= day).OrderBy(settlement => settlement.Effective))
        {
            if (byDocument.Contains(settlement.From) && byDocument.Contains(settlement.To) && SettlementBook.Match(
                [.. byDocument[settlement.From]], [.. byDocument[settlement.To]], out var left, out var right) == SettlementFault.None)
            {
                settled[(left.Document, left.Account, left.Contact)].Add(settlement);
                settled[(right.Document, right.Account, right.Contact)].Add(settlement);
            }
        }

        return
        [
            .. items.Where(item => taken.Contains((item.Document, item.Account, item.Contact)))
                .Select(item => item with { Settlements = settled[(item.Document, item.Account, item.Contact)] })
                .Where(item => !item.Open.IsZero),
        ];
    }

    // All items up to the day, since any may settle another, and those of them that the filter takes.
    private static (List<OpenItem> Items, HashSet<(int, int, int)> Taken) Items(
        ILedger ledger, AccountType type, DateOnly day, PostingFilter filter)
    {
        var accounts = ledger.Accounts.Where(account => account.Type == type).Select(account => (long)account.Key).ToHashSet();
        var places = new Dictionary<(int, int, int), int>();
        var (items, taken) = (new List<OpenItem>(), new HashSet<(int, int, int)>());
        PostingField[] fields = [.. Needed.Union(filter.Columns)];
        foreach (var (month, sums) in ledger.MonthSums(AccountingBasis.Accrual, new DateRange(DateOnly.MinValue, day)))
        {
            if (!sums.Any(sum => accounts.Contains(sum.Account)))
            {
                continue;
            }

            var postings = ledger.ReadMonth(AccountingBasis.Accrual, month, fields);
            var mask = filter.TakenOf(postings);
            var end = month.Last <= day ? postings.Count : postings.FirstFrom(day.Day + 1);
            for (var posting = 0; posting < end; posting++)
            {
                if (!accounts.Contains(postings[PostingField.Account][posting]))
                {
                    continue;
                }

                var key = ((int)postings[PostingField.Document][posting], (int)postings[PostingField.Account][posting], (int)postings[PostingField.Contact][posting]);
                if (!places.TryGetValue(key, out var place))
                {
                    places[key] = place = items.Count;
                    var date = month.First.AddDays((int)postings[PostingField.Day][posting] - 1);
                    items.Add(new OpenItem(
                        key.Item1, key.Item2, key.Item3, date, ledger.DueDays.GetValueOrDefault(key.Item1, date), Amount.Zero, []));
                }

                items[place] = items[place] with { Total = items[place].Total + new Amount(postings[PostingField.Amount][posting]) };
                if (mask?[posting] != false)
                {
                    taken.Add(key);
                }
            }
        }

        return (items, taken);
    }
}
