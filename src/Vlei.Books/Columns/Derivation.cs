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
    private readonly Database _database;
    private readonly Standing _standing;
    private readonly TagRows _tags;
    private readonly Action<string, long> _progress;
    private readonly Dictionary<int, DateOnly> _dates = [];
    private readonly Dictionary<int, List<Settlement>> _settlements = [];
    private readonly List<Posting> _accrual = [];
    private readonly List<Posting> _cash = [];
    private readonly List<Release> _releases = [];
    private MonthBuckets<Posting>? _accrualMonths;
    private MonthBuckets<Posting>? _cashMonths;
    private MonthBuckets<ControlItem>? _itemMonths;
    private long _done;

    /// <summary>Loads the settlements that stand, and the dates of all documents.</summary>
    public Derivation(Database database, Action<string, long> progress, Standing standing = default)
    {
        (_database, _progress, _standing, _tags) = (database, progress, standing, new TagRows(database));
        LoadDates();
        LoadSettlements();
    }

    /// <summary>Makes all derived columns anew.</summary>
    public static void Rebuild(Database database, Action<string, long> progress)
    {
        using var store = new DerivedStore(database);
        store.Clear();
        new Derivation(database, progress).Run(store, null, null);
    }

    /// <summary>Whether settlements are to be computed where the records have none.</summary>
    public static bool IsOldestFirst(Database database) => database.Number("SELECT oldest_first FROM derived_how") != 0;

    /// <summary>Makes everything anew where it was made another way than the book now asks for.</summary>
    public static void Adopt(Database database, bool oldestFirst, Action<string, long> progress)
    {
        if (IsOldestFirst(database) != oldestFirst)
        {
            database.Execute($"UPDATE derived_how SET oldest_first = {(oldestFirst ? 1 : 0)}");
            Rebuild(database, progress);
        }
    }

    /// <summary>The settlements that stand, in the order of the records.</summary>
    public List<Settlement> Settlements { get; } = [];

    /// <summary>The control items of the documents that passed through and have settlements, by document.</summary>
    public Dictionary<int, List<ControlItem>> ControlItems { get; } = [];

    /// <summary>
    /// Works out everything that rests on the touched documents and those that they are settled with, and puts it into the
    /// store.
    /// </summary>
    /// <param name="store">The store.</param>
    /// <param name="touched">The documents that are not as they were, or whose settlements are not; all where nothing is named.</param>
    /// <param name="stale">The documents of which the store may hold something else; none where it is empty.</param>
    public void Run(DerivedStore store, HashSet<int>? touched, HashSet<int>? stale)
    {
        // A settlement is checked against all others of both its documents, and those lie one step further.
        var affected = touched is null ? null : WithPartners(WithPartners(touched));
        var staleRows = affected ?? stale;
        _accrualMonths = new MonthBuckets<Posting>(store, DerivedKind.Accrual, DerivedColumns.Postings, staleRows);
        _cashMonths = new MonthBuckets<Posting>(store, DerivedKind.Cash, DerivedColumns.Postings, staleRows);
        _itemMonths = new MonthBuckets<ControlItem>(store, DerivedKind.Items, DerivedColumns.Items, staleRows);
        PassThrough(affected);
        _accrualMonths.Complete();
        _cashMonths.Complete();
        _itemMonths.Complete();
        var applications = new MonthBuckets<Application>(store, DerivedKind.Applications, DerivedColumns.Applications, touched ?? stale);
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
        ControlItems.TryGetValue(settlement.From.Value, out var from) && ControlItems.TryGetValue(settlement.To.Value, out var to)
        && SettlementBook.Match(from, to, out var left, out var right) == SettlementFault.None
            ? [new Application(
                settlement.Key, settlement.Effective, settlement.Amount, left.Account, left.Document, left.Contact, right.Document,
                right.Contact)]
            : [];

    private void PassThrough(HashSet<int>? affected)
    {
        var accounts = AccountRows.Read(_database, _standing);
        var cash = new CashPostings(accounts.ToDictionary(
            account => account.Key, account => AccountTypes.ClassOf(account.Type)));
        if (affected is not null)
        {
            _database.Execute("CREATE TEMP TABLE affected(document INTEGER PRIMARY KEY)");
            using var insert = _database.Prepare("INSERT INTO affected(document) VALUES (?)");
            foreach (var document in affected)
            {
                insert.Bind(1, document).Run();
            }
        }

        var lines = new List<Line>();
        var (current, kind, tags) = (default(ControlItem), 0, "");
        using (var statement = _database.Prepare(
            "SELECT d.key, l.line, l.account, l.amount, l.contact, l.item, l.project, l.department, l.tags, d.kind, d.tags, "
            + "d.due, d.terms_days, l.quantity, l.tax_code, l.tax_part "
            + (affected is null ? "FROM documents d " : "FROM affected a JOIN documents d ON d.key = a.document ")
            + $"JOIN lines l ON l.document = d.key AND l.added = d.added WHERE {_standing.Of("d")} ORDER BY d.key, l.line"))
        {
            while (statement.Step())
            {
                if (statement.Int(0) != current.Document.Value)
                {
                    Add(current, lines, cash);
                    lines.Clear();
                    (current, kind, tags) = (DocumentOf(statement, 11), DocumentKinds.NumberOf(statement.Text(9)), statement.Text(10));
                }

                lines.Add(new Line(
                    statement.Int(1), new AccountKey(statement.Int(2)), new Amount(statement.Number(3)), new ContactKey(statement.Int(4)),
                    statement.Int(5), statement.Int(6), statement.Int(7), kind,
                    _tags.KeyOf(tags, statement.IsNull(8) ? "" : statement.Text(8)), statement.Number(13), statement.Int(14),
                    statement.IsNull(14) ? TaxPart.None : statement.Bytes(15).SequenceEqual("tax"u8) ? TaxPart.Tax : TaxPart.Base));
            }
        }

        Add(current, lines, cash);
        if (affected is not null)
        {
            _database.Execute("DROP TABLE affected");
        }
    }

    // What says only after how many days it is due is due that long after its date.
    private ControlItem DocumentOf(Statement row, int due)
    {
        var date = _dates[row.Int(0)];
        var last = IsoText.TryDay(row.Bytes(due), out var said) ? said : row.IsNull(due + 1) ? date : date.AddDays(row.Int(due + 1));
        return new ControlItem(new DocumentKey(row.Int(0)), default, default, Amount.Zero, date, last);
    }

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
        _itemMonths!.Add(items);
        _releases.Clear();
        if (_settlements.TryGetValue(document.Document.Value, out var settlements))
        {
            ControlItems[document.Document.Value] = items;
            foreach (var settlement in settlements)
            {
                _releases.Add(new Release(settlement.Key, settlement.Effective, settlement.Amount));
            }
        }

        _cash.Clear();
        cash.Add(
            document.Document, document.Date, CollectionsMarshal.AsSpan(lines), CollectionsMarshal.AsSpan(_releases), _cash);
        _accrualMonths!.Add(_accrual);
        _cashMonths!.Add(_cash);
    }

    private DateOnly EffectiveDate(int one, int other, DateOnly? date)
    {
        var (from, to) = (_dates.GetValueOrDefault(one), _dates.GetValueOrDefault(other));
        var later = from > to ? from : to;
        return date > later ? date.Value : later;
    }

    private void LoadDates()
    {
        using var statement = _database.Prepare($"SELECT d.key, d.date FROM documents d WHERE {_standing.Of("d")}");
        while (statement.Step())
        {
            _ = IsoText.TryDay(statement.Bytes(1), out var date);
            _dates.Add(statement.Int(0), date);
        }
    }

    private void LoadSettlements()
    {
        using var statement = _database.Prepare(
            $"SELECT s.key, s.\"from\", s.\"to\", s.amount, s.date FROM settlements s WHERE {_standing.Of("s")} ORDER BY s.key");
        while (statement.Step())
        {
            var settlement = new Settlement(
                new SettlementKey(statement.Int(0)), new DocumentKey(statement.Int(1)), new DocumentKey(statement.Int(2)),
                new Amount(statement.Number(3)), EffectiveDate(
                    statement.Int(1), statement.Int(2), IsoText.TryDay(statement.Bytes(4), out var date) ? date : null));
            Settlements.Add(settlement);
        }

        if (Settlements.Count == 0 && IsOldestFirst(_database))
        {
            Settlements.AddRange(ComputeSettlements());
        }

        foreach (var settlement in Settlements)
        {
            AddTo(settlement.From, settlement);
            AddTo(settlement.To, settlement);
        }
    }

    private IReadOnlyList<Settlement> ComputeSettlements()
    {
        var types = AccountRows.Read(_database, _standing).ToDictionary(account => account.Key, account => account.Type);
        var control = types.Where(type => AccountTypes.ClassOf(type.Value) == AccountClass.Control).Select(type => type.Key);
        var items = new List<ControlItem>();
        using var statement = _database.Prepare(
            "SELECT d.key, l.account, l.contact, sum(l.amount), d.due, d.terms_days FROM documents d "
            + "JOIN lines l ON l.document = d.key AND l.added = d.added "
            + $"WHERE {_standing.Of("d")} AND l.account "
            + $"IN ({string.Join(',', control)}) GROUP BY d.key, l.account, l.contact ORDER BY d.key");
        while (statement.Step())
        {
            items.Add(DocumentOf(statement, 4) with
            {
                Account = new AccountKey(statement.Int(1)),
                Contact = new ContactKey(statement.Int(2)),
                Total = new Amount(statement.Number(3)),
            });
        }

        return OldestFirst.Settle(items, account => types[account] == AccountType.Payable);
    }

    private void AddTo(DocumentKey document, Settlement settlement)
    {
        if (!_settlements.TryGetValue(document.Value, out var settlements))
        {
            _settlements.Add(document.Value, settlements = new List<Settlement>(1));
        }

        settlements.Add(settlement);
    }
}
