using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>What was set against an item.</summary>
/// <param name="With">The place of the other item.</param>
/// <param name="Day">The day that it took effect.</param>
/// <param name="Amount">How much; positive.</param>
public readonly record struct AppliedItem(int With, DateOnly Day, Amount Amount);

/// <summary>
/// Everything that documents put on the control accounts of one type up to a day, and what was set against what. Amounts
/// are as owners see them: what is owed to us, or by us, is positive; receipts, payments and credits are negative. Items
/// are known by their places, which are in the order of dates and documents.
/// </summary>
public sealed class ControlHistory
{
    private static readonly ConditionalWeakTable<ILedger, Dictionary<AccountType, ControlHistory>> Read = [];

    private readonly ILedger _ledger;
    private readonly ItemColumns _items;
    private readonly List<(int Owed, int Against, DateOnly Day, Amount Amount)> _applied;
    private readonly Lazy<ValuesByKey<AppliedItem>> _appliedTo;
    private readonly Lazy<ILookup<ContactKey, int>> _ofContacts;

    // By the key of a document, one more than the place of its only item, or less than 0 the same of the first of several, which
    // stand together; 0 where it has none.
    private readonly int[] _firstOf;
    private Tuple<DateOnly, ImmutableArray<Amount>>? _open;

    private ControlHistory(ILedger ledger, AccountType type, DateOnly until)
    {
        (_ledger, Type, Until) = (ledger, type, until);
        Accounts = [.. ledger.Accounts.Where(account => account.Type == type)];
        var accounts = Accounts.Select(account => account.Key).ToHashSet();
        _items = ledger.ControlItems(until, accounts);
        if (type == AccountType.Payable)
        {
            foreach (ref var total in _items.Totals)
            {
                total = -total;
            }
        }

        // Hardly any item is settled more than once.
        _applied = new(_items.Count / 2);
        _firstOf = FirstOfEach(_items.Documents);
        var isOwed = new bool[_items.Count];
        for (var place = 0; place < isOwed.Length; place++)
        {
            isOwed[place] = _items.Totals[place].Sign > 0;
        }

        foreach (var part in ledger.Applications(until, accounts))
        {
            AddApplied(CollectionsMarshal.AsSpan(part), isOwed);
        }

        _appliedTo = new Lazy<ValuesByKey<AppliedItem>>(() => new ValuesByKey<AppliedItem>(_items.Count, AppliedOfBoth()));
        _ofContacts = new Lazy<ILookup<ContactKey, int>>(() => Enumerable.Range(0, _items.Count).ToLookup(item => _items[item].Contact));
    }

    /// <summary>Receivable or payable.</summary>
    public AccountType Type { get; }

    /// <summary>The last day that it knows of.</summary>
    public DateOnly Until { get; }

    /// <summary>The control accounts.</summary>
    public IReadOnlyList<Account> Accounts { get; }

    /// <summary>How many items there are.</summary>
    public int Count => _items.Count;

    /// <summary>The items, as columns; their totals as owners see them.</summary>
    public ItemColumns Items => _items;

    /// <summary>The item at a place.</summary>
    public ItemAt this[int item] => _items[item];

    /// <summary>
    /// Reads it, or gives the one that was read last of the same records: statements of account are thousands of reports of one
    /// day. Throws <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    public static ControlHistory Of(ILedger ledger, AccountType type, DateOnly until)
    {
        var read = Read.GetOrCreateValue(ledger);
        lock (read)
        {
            return read.TryGetValue(type, out var known) && known.Until == until ? known
                : read[type] = new ControlHistory(ledger, type, until);
        }
    }

    /// <summary>The items of a contact, in their order.</summary>
    public IEnumerable<int> OfContact(ContactKey contact) => _ofContacts.Value[contact];

    /// <summary>A sum on the control accounts, debit positive, as owners see it; and the other way round.</summary>
    public Amount Natural(Amount amount) => Type == AccountType.Payable ? -amount : amount;

    /// <summary>What is open of each item at the end of a day: of the sign of its total, or zero.</summary>
    public ImmutableArray<Amount> OpenAt(DateOnly day)
    {
        if (_open is { } known && known.Item1 == day)
        {
            return known.Item2;
        }

        var open = new Amount[_items.Count];
        _items.Totals[.._items.CountUntil(day)].CopyTo(open);
        foreach (ref readonly var applied in CollectionsMarshal.AsSpan(_applied))
        {
            if (applied.Day <= day)
            {
                open[applied.Owed] -= applied.Amount;
                open[applied.Against] += applied.Amount;
            }
        }

        _open = Tuple.Create(day, ImmutableCollectionsMarshal.AsImmutableArray(open));
        return _open.Item2;
    }

    /// <summary>What was set against an item up to the last day, in the order in which it took effect.</summary>
    public ArraySegment<AppliedItem> AppliedTo(int item) => _appliedTo.Value.Of(item);

    /// <summary>
    /// An item as a trace lists it, with what was set against it up to a day; without that, as it was posted.
    /// </summary>
    /// <param name="item">Its place.</param>
    /// <param name="day">The day; nothing for what it was at first.</param>
    /// <param name="sign">1, or -1 for what is taken away.</param>
    public OriginItem OriginOf(int item, DateOnly? day, int sign = 1)
    {
        var (document, total) = (_items[item], sign < 0 ? -_items[item].Total : _items[item].Total);
        return new OriginItem(document.Document, document.Contact, document.Date, total,
        [
            .. AppliedTo(item).Where(applied => applied.Day <= day).Select(applied => new OriginSettlement(
                _items[applied.With].Document, applied.Day, total.Sign < 0 ? applied.Amount : -applied.Amount)),
        ]);
    }

    /// <summary>What was set against an item up to a day, as a trace lists it: with the sign of the item itself.</summary>
    public OriginItem AppliedOf(int item, DateOnly day, int sign)
    {
        var whole = OriginOf(item, day, -sign);
        return whole with { Total = Amount.Zero };
    }

    /// <summary>What each item has in debits and in credits, both positive, as they were posted within some days.</summary>
    public (Amount Debit, Amount Credit)[] PostedIn(DateRange days)
    {
        var posted = new (Amount Debit, Amount Credit)[_items.Count];
        var accounts = Accounts.Select(account => (long)account.Key.Value).ToHashSet();
        PostingField[] fields =
            [PostingField.Day, PostingField.Account, PostingField.Amount, PostingField.Document, PostingField.Contact];
        var arrays = new PostingArrays();
        foreach (var (month, _) in _ledger.MonthSums(AccountingBasis.Accrual, days))
        {
            var (postings, within) = (_ledger.ReadMonth(AccountingBasis.Accrual, month, fields, arrays), days.Intersect(month.Range));
            var end = postings.FirstFrom(within.To.Day + 1);
            for (var posting = postings.FirstFrom(within.From.Day); posting < end; posting++)
            {
                if (accounts.Contains(postings[PostingField.Account][posting])
                    && PlaceOf(
                        (DocumentKey)postings[PostingField.Document][posting], (AccountKey)postings[PostingField.Account][posting],
                        (ContactKey)postings[PostingField.Contact][posting]) is >= 0 and var place)
                {
                    var amount = new Amount(postings[PostingField.Amount][posting]);
                    posted[place] = amount.Sign > 0 ? (posted[place].Debit + amount, posted[place].Credit)
                        : (posted[place].Debit, posted[place].Credit - amount);
                }
            }
        }

        return posted;
    }

    /// <summary>Which items the filter takes any posting of; nothing where it takes all.</summary>
    public bool[]? TakenBy(Selection filter)
    {
        if (filter.IsEverything)
        {
            return null;
        }

        PostingField[] known = [PostingField.Account, PostingField.Contact, PostingField.Kind];
        return filter.Columns is { } columns && columns.All(known.Contains)
            ? filter.TakenOf(new PostingMonth(_items.Count,
            [
                (PostingField.Account, Widened(_items.Accounts)),
                (PostingField.Contact, Widened(_items.Contacts)),
                (PostingField.Kind, Widened(_items.Kinds)),
            ]))
            : TakenByPostings(filter);
    }

    // What items do not know themselves, their postings do.
    private bool[] TakenByPostings(Selection filter)
    {
        var taken = new bool[_items.Count];
        var accounts = Accounts.Select(account => (long)account.Key.Value).ToHashSet();
        PostingField[] fields = [PostingField.Account, PostingField.Document, PostingField.Contact, .. filter.Columns ?? []];
        foreach (var (month, _) in _ledger.MonthSums(AccountingBasis.Accrual, new DateRange(DateOnly.MinValue, Until)))
        {
            var postings = _ledger.ReadMonth(AccountingBasis.Accrual, month, fields);
            var mask = filter.TakenOf(postings, PostingSource.Accrual, month)!;
            for (var posting = 0; posting < postings.Count; posting++)
            {
                if (mask[posting] && accounts.Contains(postings[PostingField.Account][posting])
                    && PlaceOf(
                        (DocumentKey)postings[PostingField.Document][posting], (AccountKey)postings[PostingField.Account][posting],
                        (ContactKey)postings[PostingField.Contact][posting]) is >= 0 and var place)
                {
                    taken[place] = true;
                }
            }
        }

        return taken;
    }

    private void AddApplied(ReadOnlySpan<Application> applications, bool[] isOwed)
    {
        var first = _applied.Count;
        CollectionsMarshal.SetCount(_applied, first + applications.Length);
        var applied = CollectionsMarshal.AsSpan(_applied)[first..];

        // Documents lie anywhere in memory: looked up in a loop that does nothing else, they are waited for together.
        for (var place = 0; place < applied.Length; place++)
        {
            ref readonly var application = ref applications[place];
            applied[place] = (
                _firstOf[application.From.Value] - 1, _firstOf[application.To.Value] - 1, application.Day, application.Amount);
        }

        for (var place = 0; place < applied.Length; place++)
        {
            var (from, to, day, amount) = applied[place];
            if (from < 0 || to < 0)
            {
                ref readonly var application = ref applications[place];
                from = PlaceOf(application.From, application.Account, application.FromContact);
                to = PlaceOf(application.To, application.Account, application.ToContact);
            }

            applied[place] = isOwed[from] ? (from, to, day, amount) : (to, from, day, amount);
        }
    }

    private IEnumerable<(int Item, AppliedItem Applied)> AppliedOfBoth()
    {
        foreach (var (owed, against, day, amount) in _applied)
        {
            yield return (owed, new AppliedItem(against, day, amount));
            yield return (against, new AppliedItem(owed, day, amount));
        }
    }

    private static long[] Widened(ReadOnlySpan<int> keys)
    {
        var wide = new long[keys.Length];
        for (var place = 0; place < wide.Length; place++)
        {
            wide[place] = keys[place];
        }

        return wide;
    }

    private static int[] FirstOfEach(ReadOnlySpan<int> documents)
    {
        var last = -1;
        foreach (var document in documents)
        {
            last = Math.Max(last, document);
        }

        var firsts = new int[last + 1];
        for (var place = documents.Length - 1; place >= 0; place--)
        {
            ref var first = ref firsts[documents[place]];
            first = first == 0 ? place + 1 : -(place + 1);
        }

        return firsts;
    }

    // Less than 0 for what has no item, as of later documents.
    private int PlaceOf(DocumentKey document, AccountKey account, ContactKey contact)
    {
        var first = document.Value < _firstOf.Length ? _firstOf[document.Value] : 0;
        if (first >= 0)
        {
            return first - 1;
        }

        var place = -first - 1;
        while (_items[place].Account != account || _items[place].Contact != contact)
        {
            place++;
        }

        return place;
    }
}
