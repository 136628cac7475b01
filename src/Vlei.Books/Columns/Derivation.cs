using System.Runtime.InteropServices;
using Vlei.Books.Store;
using Vlei.Core.Basis;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;

namespace Vlei.Books.Columns;

/// <summary>
/// Makes the derived columns from the records: for some documents after an import, for all of them to rebuild or to
/// prove. The documents pass through one by one; what is kept of each is its date and its control items.
/// </summary>
internal sealed class Derivation
{
    private readonly IStoreReading _store;
    private readonly Standing _standing;
    private readonly TagSets _tags;
    private readonly Action<string, long> _progress;
    private readonly IDocumentsAtHand? _atHand;
    private readonly DateOnly[] _dates;
    private readonly ValuesByKey<Settlement> _settlements;
    private readonly List<Posting> _accrual = [];
    private readonly List<Posting> _cash = [];
    private readonly List<Release> _releases = [];
    private MonthBuckets<Posting>? _accrualMonths;
    private MonthBuckets<Posting>? _cashMonths;
    private MonthBuckets<ControlItem>? _itemMonths;
    private DocumentTextsWriter? _texts;
    private long _done;

    /// <summary>Loads the settlements that stand, and the dates of all documents.</summary>
    /// <param name="store">The records.</param>
    /// <param name="tags">Gives numbers to what lines are tagged with.</param>
    /// <param name="oldestFirst">Whether settlements are computed where the records have none.</param>
    /// <param name="progress">Is told now and then what is going on and how many documents are through.</param>
    /// <param name="standing">Which versions of the records are seen.</param>
    /// <param name="atHand">Documents that have just come in, which are written as they pass through; none where nothing is given.</param>
    public Derivation(
        IStoreReading store, TagSets tags, bool oldestFirst, Action<string, long> progress, Standing standing = default,
        IDocumentsAtHand? atHand = null)
    {
        (_store, _tags, _progress, _standing, _atHand) = (store, tags, progress, standing, atHand);
        _dates = new DateOnly[store.LastKey(RecordTables.Documents) + 1];
        ControlItems = new ItemsOfDocuments(_dates.Length);
        LoadDates();
        LoadSettlements(oldestFirst);
        _settlements = new ValuesByKey<Settlement>(
            _dates.Length, Settlements.SelectMany(settlement => new[] { settlement.From, settlement.To }, (settlement, document) =>
                (document.Value, settlement)));
    }

    /// <summary>
    /// The number of the way in which months are derived. It is one higher with every change after which the same records give
    /// other months; those of a book that were derived in another way are made anew.
    /// </summary>
    public const int Format = 3;

    /// <summary>The settlements that stand, in the order of the records.</summary>
    public List<Settlement> Settlements { get; } = [];

    /// <summary>The control items of the documents that passed through and have settlements, by document.</summary>
    public ItemsOfDocuments ControlItems { get; }

    /// <summary>
    /// Works out everything that rests on the touched documents and those that they are settled with, and puts it into the
    /// store.
    /// </summary>
    /// <param name="months">The months.</param>
    /// <param name="touched">
    /// The documents that are not as they were, or whose settlements are not; all where nothing is named: the months are empty then.
    /// </param>
    public void Run(WritableDerivedMonths months, HashSet<int>? touched)
    {
        // A settlement is checked against all others of both its documents, and those lie one step further.
        var affected = touched is null ? null : WithPartners(WithPartners(touched));
        _accrualMonths = new MonthBuckets<Posting>(months, DerivedKind.Accrual, DerivedColumns.Postings, affected);
        _cashMonths = new MonthBuckets<Posting>(months, DerivedKind.Cash, DerivedColumns.Postings, affected);
        _itemMonths = new MonthBuckets<ControlItem>(months, DerivedKind.Items, DerivedColumns.Items, affected);
        _texts = new DocumentTextsWriter(months, affected);
        PassThrough(affected);

        // What each has held is let go of before the next takes memory to put its months in order.
        _texts.Complete();
        _itemMonths.Complete();
        _itemMonths = null;
        _accrualMonths.Complete();
        _accrualMonths = null;
        _cashMonths.Complete();
        _cashMonths = null;
        var applications = new MonthBuckets<Application>(months, DerivedKind.Applications, DerivedColumns.Applications, touched);
        foreach (var settlement in Settlements)
        {
            if (touched?.Contains(settlement.From.Value) != false || touched.Contains(settlement.To.Value))
            {
                applications.Add(ApplicationsOf(settlement));
            }
        }

        applications.Complete();
    }

    // The documents and those that they are settled with.
    private HashSet<int> WithPartners(HashSet<int> documents)
    {
        var all = new HashSet<int>(documents);
        foreach (var settlement in Settlements)
        {
            if (documents.Contains(settlement.From.Value) || documents.Contains(settlement.To.Value))
            {
                all.Add(settlement.From.Value);
                all.Add(settlement.To.Value);
            }
        }

        return all;
    }

    // None where the documents have nothing in common, which the rules of settlements tell of.
    private Application[] ApplicationsOf(Settlement settlement) =>
        ControlItems.Of(settlement.From) is { } from && ControlItems.Of(settlement.To) is { } to
        && SettlementBook.Match(from, to, out var left, out var right) == SettlementFault.None
            ? [new Application(
                settlement.Key, settlement.Effective, settlement.Amount, left.Account, left.Document, left.Contact, right.Document,
                right.Contact)]
            : [];

    private void PassThrough(HashSet<int>? affected)
    {
        var accounts = AccountRows.Read(_store, _standing);
        var cash = new CashPostings(accounts.ToDictionary(
            account => account.Key, account => AccountTypes.ClassOf(account.Type)));
        foreach (var document in InOrder(affected, isWritten: true))
        {
            _texts!.Add(document);
            Add(ItemOf(document), document.Lines, cash);
        }
    }

    // In the order of their keys, wherever they come from: the months are put in order with next to no work then.
    private IEnumerable<DerivedDocument> InOrder(HashSet<int>? affected, bool isWritten)
    {
        if (_atHand is null)
        {
            return DerivedDocument.Read(_store, _standing, affected is null ? null : [.. affected.Order()], _tags);
        }

        var keys = (affected?.Order() ?? Enumerable.Range(0, _dates.Length).Where(key => _dates[key] != default)).ToList();
        return Merged(
            _atHand.Documents([.. keys.Where(_atHand.Has)], _tags, isWritten),
            DerivedDocument.Read(_store, _standing, [.. keys.Where(key => !_atHand.Has(key))], _tags));
    }

    private static IEnumerable<DerivedDocument> Merged(IEnumerable<DerivedDocument> one, IEnumerable<DerivedDocument> other)
    {
        using var left = one.GetEnumerator();
        using var right = other.GetEnumerator();
        var (hasLeft, hasRight) = (left.MoveNext(), right.MoveNext());
        while (hasLeft || hasRight)
        {
            if (hasLeft && (!hasRight || left.Current.Key < right.Current.Key))
            {
                yield return left.Current;
                hasLeft = left.MoveNext();
            }
            else
            {
                yield return right.Current;
                hasRight = right.MoveNext();
            }
        }
    }

    private ControlItem ItemOf(DerivedDocument document)
    {
        var date = _dates[document.Key];
        return new ControlItem(
            new DocumentKey(document.Key), default, default, Amount.Zero, date, DueOf(date, document.DueDay, document.DueAfter));
    }

    // What says only after how many days it is due is due that long after its date.
    private static DateOnly DueOf(DateOnly date, DateOnly? due, int? termsDays) => due ?? date.AddDays(termsDays ?? 0);

    private void Add(ControlItem document, List<Line> lines, CashPostings cash)
    {
        if (lines.Count == 0)
        {
            return;
        }

        const int Often = 8192;
        if (++_done % Often == 0)
        {
            _progress("deriving postings", _done);
        }

        _accrual.Clear();
        foreach (var line in lines)
        {
            _accrual.Add(new Posting(document.Date, document.Document, line));
        }

        var items = ControlItem.Of(lines, account => cash.ClassOf(account) == AccountClass.Control, document);
        _itemMonths!.Add(CollectionsMarshal.AsSpan(items));
        _releases.Clear();
        foreach (var settlement in _settlements.Of(document.Document.Value))
        {
            _releases.Add(new Release(settlement.Key, settlement.Effective, settlement.Amount));
        }

        if (_releases.Count > 0)
        {
            ControlItems.Add(document.Document, items);
        }

        _cash.Clear();
        cash.Add(
            document.Document, document.Date, CollectionsMarshal.AsSpan(lines), CollectionsMarshal.AsSpan(_releases), _cash);
        _accrualMonths!.Add(CollectionsMarshal.AsSpan(_accrual));
        _cashMonths!.Add(CollectionsMarshal.AsSpan(_cash));
    }

    private DateOnly EffectiveDate(int one, int other, DateOnly? date)
    {
        var (from, to) = (DateOf(one), DateOf(other));
        var later = from > to ? from : to;
        return date > later ? date.Value : later;
    }

    // In damaged records a settlement may be of a document that there is not.
    private DateOnly DateOf(int document) => document < _dates.Length ? _dates[document] : default;

    private void LoadDates()
    {
        using var rows = _store.Rows(new RecordQuery(RecordTables.Documents, RecordQuery.Key, "date") { Standing = _standing });
        while (rows.Next())
        {
            _ = IsoText.TryDay(rows.Bytes(1), out var date);
            _dates[rows.Int(0)] = date;
        }

        for (var key = 0; _atHand is not null && key < _dates.Length; key++)
        {
            _dates[key] = _atHand.Has(key) ? _atHand.DateOf(key) : _dates[key];
        }
    }

    private void LoadSettlements(bool oldestFirst)
    {
        using (var rows = _store.Rows(new RecordQuery(RecordTables.Settlements, RecordQuery.Key, "from", "to", "amount", "date")
        {
            Standing = _standing,
        }))
        {
            while (rows.Next())
            {
                Settlements.Add(new Settlement(
                    new SettlementKey(rows.Int(0)), new DocumentKey(rows.Int(1)), new DocumentKey(rows.Int(2)),
                    new Amount(rows.Number(3)),
                    EffectiveDate(rows.Int(1), rows.Int(2), IsoText.TryDay(rows.Bytes(4), out var date) ? date : null)));
            }
        }

        if (Settlements.Count == 0 && oldestFirst)
        {
            Settlements.AddRange(ComputeSettlements());
        }
    }

    private IReadOnlyList<Settlement> ComputeSettlements()
    {
        var types = AccountRows.Read(_store, _standing).ToDictionary(account => account.Key, account => account.Type);
        bool IsControl(AccountKey account) => AccountTypes.ClassOf(types[account]) == AccountClass.Control;
        var items = new List<ControlItem>();
        foreach (var document in InOrder(null, isWritten: false))
        {
            items.AddRange(ControlItem.Of(document.Lines, IsControl, ItemOf(document))
                .OrderBy(item => item.Account).ThenBy(item => item.Contact));
        }

        return OldestFirst.Settle(items, account => types[account] == AccountType.Payable);
    }
}
