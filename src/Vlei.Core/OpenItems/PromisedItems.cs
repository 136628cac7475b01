using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>What has become of a promise or a dispute.</summary>
public enum PromiseState
{
    /// <summary>Its day has not passed, and not all of it is paid.</summary>
    Pending,

    /// <summary>It was paid by its day.</summary>
    Kept,

    /// <summary>Its day has passed, and not all of it was paid by then.</summary>
    Broken,

    /// <summary>A dispute of what is still open.</summary>
    Disputed,

    /// <summary>A dispute of what is no longer open.</summary>
    Settled,

    /// <summary>It was taken back.</summary>
    Withdrawn,
}

/// <summary>A promise or a dispute as it stands at the end of a day.</summary>
/// <param name="Promise">The promise.</param>
/// <param name="Item">The place of the item that it is about.</param>
/// <param name="State">What has become of it.</param>
/// <param name="Paid">What was paid on it, by its day and by that day.</param>
/// <param name="Standing">What of it is still expected, or disputed.</param>
public sealed record PromisedItem(Promise Promise, int Item, PromiseState State, Amount Paid, Amount Standing);

/// <summary>The promises and disputes of items, as they stand at the end of a day.</summary>
public sealed class PromisedItems
{
    private readonly ControlHistory _history;
    private readonly DateOnly _day;
    private readonly DateOnly _known;
    private readonly ILookup<int, PromisedItem> _byItem;

    /// <summary>Works them out.</summary>
    /// <param name="ledger">The records.</param>
    /// <param name="history">The items.</param>
    /// <param name="day">The day.</param>
    /// <param name="known">Up to which day what was noted is known; the same, where it is nothing.</param>
    public PromisedItems(ILedger ledger, ControlHistory history, DateOnly day, DateOnly? known = null)
    {
        (_history, _day, _known) = (history, day, known > day ? known.Value : day);
        var noted = ledger.Promises.Where(promise => promise.Noted <= _known).ToList();
        var items = noted.Count == 0 ? [] : Enumerable.Range(0, history.Count)
            .Where(item => history[item].Total.Sign > 0)
            .GroupBy(item => history[item].Document)
            .ToDictionary(group => group.Key, group => group.First());
        var paid = new Dictionary<Promise, Amount>();
        foreach (var ofItem in noted.Where(IsPaidFor).Where(promise => items.ContainsKey(promise.Document))
            .GroupBy(promise => items[promise.Document]))
        {
            AddPaid(ofItem.Key, [.. ofItem.OrderBy(promise => promise.By).ThenBy(promise => promise.Number)], paid);
        }

        All = [.. noted.Where(promise => items.ContainsKey(promise.Document))
            .Select(promise => Standing(promise, items[promise.Document], paid.GetValueOrDefault(promise)))];
        _byItem = All.ToLookup(promised => promised.Item);
    }

    /// <summary>All of them, in the order of their numbers.</summary>
    public IReadOnlyList<PromisedItem> All { get; }

    /// <summary>Those of an item.</summary>
    public IEnumerable<PromisedItem> Of(int item) => _byItem[item];

    /// <summary>What is promised of an item and still expected.</summary>
    public Amount Promised(int item) => Sum(item, PromiseState.Pending);

    /// <summary>What is disputed of an item and still open.</summary>
    public Amount Disputed(int item) => Sum(item, PromiseState.Disputed);

    /// <summary>Adds a column for what is promised and one for what is disputed, where anything was noted.</summary>
    internal void AddColumns(FigureColumns<OwnFigure<ItemRow>> columns)
    {
        if (All.Count > 0)
        {
            Add("promised", "Promised", Promised);
            Add("disputed", "Disputed", Disputed);
        }

        void Add(string key, string heading, Func<int, Amount> of) =>
            columns.Add(
                ReportColumn.Sum(key, heading) with { IsLeftOutWhenIdle = true, IsNoted = true }, ItemFigure.Sum(heading, _history, of));
    }

    /// <summary>What stands of an item, or was broken, in a few words; empty for nothing.</summary>
    public string InWords(int item) => string.Join("; ", Of(item).Select(promised => promised.State switch
    {
        PromiseState.Pending => $"by {PeriodText.Iso(promised.Promise.By!.Value)}{NotedLater(promised.Promise)}",
        PromiseState.Broken => $"broken {PeriodText.Iso(promised.Promise.By!.Value)}",
        PromiseState.Disputed => (promised.Promise.Note.Length > 0 ? $"disputed: {promised.Promise.Note}" : "disputed")
            + NotedLater(promised.Promise),
        _ => "",
    }).Where(words => words.Length > 0));

    // What became known after the day that is looked at says when.
    private string NotedLater(Promise promise) => promise.Noted > _day ? $", noted {PeriodText.Iso(promise.Noted)}" : "";

    private Amount Sum(int item, PromiseState state) => Of(item).Where(promised => promised.State == state)
        .Aggregate(Amount.Zero, (sum, promised) => sum + promised.Standing);

    private bool IsPaidFor(Promise promise) => !promise.IsDispute && promise.StandsAt(_known);

    // What was set against a document after a promise was noted, less what promises with earlier days have taken of that.
    private void AddPaid(int item, IReadOnlyList<Promise> promises, Dictionary<Promise, Amount> paid)
    {
        for (var place = 0; place < promises.Count; place++)
        {
            var promise = promises[place];
            var taken = promises.Take(place).Aggregate(Amount.Zero, (sum, earlier) =>
                sum + Most(Amount.Zero, paid[earlier] - Most(Amount.Zero, earlier.Open - promise.Open)));
            var set = promise.Open - OpenAt(item, promise.By < _day ? promise.By!.Value : _day);
            paid[promise] = Least(promise.Amount, Most(Amount.Zero, set - taken));
        }
    }

    private PromisedItem Standing(Promise promise, int item, Amount paid)
    {
        var open = OpenAt(item, _day);
        if (!promise.StandsAt(_known))
        {
            return new PromisedItem(promise, item, PromiseState.Withdrawn, Amount.Zero, Amount.Zero);
        }

        if (promise.IsDispute)
        {
            return new PromisedItem(
                promise, item, open.IsZero ? PromiseState.Settled : PromiseState.Disputed, Amount.Zero, Least(promise.Amount, open));
        }

        var passed = promise.By < _day;
        return paid == promise.Amount ? new PromisedItem(promise, item, PromiseState.Kept, paid, Amount.Zero)
            : passed ? new PromisedItem(promise, item, PromiseState.Broken, paid, Amount.Zero)
            : new PromisedItem(promise, item, PromiseState.Pending, paid, Least(promise.Amount - paid, open));
    }

    /// <summary>
    /// What of a document is open at the end of a day and can be promised or disputed: nothing where it is not open there.
    /// </summary>
    public static Amount OpenOf(ILedger ledger, DocumentKey document, DateOnly day)
    {
        foreach (var type in new[] { AccountType.Receivable, AccountType.Payable })
        {
            var history = ControlHistory.Of(ledger, type, day);
            var open = history.OpenAt(day);
            for (var item = 0; item < history.Count; item++)
            {
                if (history[item].Document == document && history[item].Total.Sign > 0)
                {
                    return open[item];
                }
            }
        }

        return Amount.Zero;
    }

    private Amount OpenAt(int item, DateOnly day) => _history.AppliedTo(item).Where(applied => applied.Day <= day)
        .Aggregate(_history[item].Total, (open, applied) => open - applied.Amount);

    private static Amount Least(Amount one, Amount other) => one < other ? one : other;

    private static Amount Most(Amount one, Amount other) => one > other ? one : other;
}
