using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>A book's records as reports read them, as of the moment it was opened, or as an earlier import left them.</summary>
public sealed class LedgerReader : ILedger, IDisposable
{
    private static readonly RecordField IdField = FieldOfDocuments("id");
    private static readonly RecordField KindField = FieldOfDocuments("kind");
    private static readonly RecordField DateField = FieldOfDocuments("date");
    private static readonly RecordField NumberField = FieldOfDocuments("number");
    private static readonly RecordField MemoField = FieldOfDocuments("memo");

    private readonly IStoreReading _store;
    private readonly DerivedMonths _derived;
    private readonly Standing _standing;
    private readonly Lazy<DateRange?> _extent;
    private readonly Lazy<IReadOnlyList<Account>> _accounts;
    private readonly Lazy<IReadOnlyList<Budget>> _budgets;
    private readonly Lazy<IReadOnlyList<IReadOnlyDictionary<string, string>>> _tagSets;
    private readonly Lazy<bool> _hasComputedSettlements;
    private readonly Lazy<Dictionary<SettlementKey, (DocumentKey From, DocumentKey To)>> _settlements;
    private readonly Lazy<IReadOnlyList<Promise>> _promises;
    private readonly Lazy<IReadOnlyList<FindingMark>> _marks;
    private readonly Dictionary<RecordTable, RecordNames> _names = [];
    private readonly Dictionary<RecordTable, List<(int Key, IReadOnlyDictionary<string, string> Tags)>> _tagged = [];

    private readonly DocumentTexts _texts;

    private LedgerReader(Book book, IStoreReading store, long revision)
    {
        var isEarlier = revision != store.State.Revision;
        (_store, Revision) = (store, revision);
        _standing = isEarlier ? new Standing(revision) : Standing.Now;
        var tags = new Lazy<Columns.TagSets>(() => new Columns.TagSets(store));
        _derived = new DerivedMonths(isEarlier ? EarlierMonths.Of(store, tags.Value, revision) : store);
        _texts = new DocumentTexts(_derived);
        _extent = new Lazy<DateRange?>(FindExtent);
        _accounts = new Lazy<IReadOnlyList<Account>>(() => AccountRows.Read(store, _standing));
        _budgets = new Lazy<IReadOnlyList<Budget>>(ReadBudgets);
        _hasComputedSettlements = new Lazy<bool>(() => store.State.Made.OldestFirst && !HasAny(RecordTables.Settlements));
        _marks = new Lazy<IReadOnlyList<FindingMark>>(() => MarkFile.Read(book));
        _promises = new Lazy<IReadOnlyList<Promise>>(() => PromiseFile.Read(book).Select(Known).OfType<Promise>().ToList());
        _settlements = new Lazy<Dictionary<SettlementKey, (DocumentKey From, DocumentKey To)>>(ReadSettlements);
        _tagSets = new Lazy<IReadOnlyList<IReadOnlyDictionary<string, string>>>(() => tags.Value.ByKey());
    }

    /// <inheritdoc/>
    public long Revision { get; }

    /// <inheritdoc/>
    public IReadOnlyList<Account> Accounts => _accounts.Value;

    /// <inheritdoc/>
    public bool HasComputedSettlements => _hasComputedSettlements.Value;

    /// <inheritdoc/>
    public IEnumerable<DocumentVersion> DocumentVersions() => RecordChanges.VersionsUpTo(_store, Revision);

    /// <inheritdoc/>
    public IReadOnlyList<FindingMark> Marks => _marks.Value;

    /// <inheritdoc/>
    public IReadOnlyList<Promise> Promises => _promises.Value;

    /// <inheritdoc/>
    public DateRange? Extent => _extent.Value;

    /// <inheritdoc/>
    public IReadOnlyList<Budget> Budgets => _budgets.Value;

    /// <inheritdoc/>
    public IReadOnlyList<IReadOnlyDictionary<string, string>> TagSets => _tagSets.Value;

    /// <summary>Opens the records of a book as they are. Throws a problem where they cannot be read.</summary>
    public static LedgerReader Open(Book book) => Open(book, _ => null);

    /// <summary>
    /// Opens the records of a book as they stood when the import of that number was the last one.
    /// Throws a <see cref="ProblemException"/> where there is no such import.
    /// </summary>
    public static LedgerReader Open(Book book, long revision) => Open(book, last => revision >= 0 && revision <= last
        ? revision
        : throw new ProblemException(
            ProblemKind.NotFound, $"There is no revision {revision}.",
            last == 0 ? "Nothing has been imported yet." : $"The book has revisions up to {last}; vlei changes lists them."));

    /// <inheritdoc/>
    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> MonthSums(AccountingBasis basis, DateRange range) =>
        _derived.Sums((DerivedKind)basis, YearMonth.Of(range.From), YearMonth.Of(range.To));

    /// <inheritdoc/>
    public PostingMonth ReadMonth(
        AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields, PostingArrays? arrays = null)
    {
        var count = _derived.Count((DerivedKind)basis, month);
        return new PostingMonth(count, fields.Distinct().Select(field =>
        {
            var column = arrays?.For(field, count) ?? GC.AllocateUninitializedArray<long>(count);
            _derived.Column((DerivedKind)basis, month, DerivedColumns.Postings.Columns[(int)field].Name, column.AsSpan(0, count));
            return (field, column);
        }));
    }

    /// <inheritdoc/>
    public long[] ReadSome(AccountingBasis basis, YearMonth month, PostingField field, int[] places) =>
        _derived.Column((DerivedKind)basis, month, DerivedColumns.Postings.Columns[(int)field].Name, places);

    /// <summary>
    /// What accounts stand at as a trial balance of a day shows them, accrual and debit positive; accounts at zero are left out.
    /// </summary>
    /// <param name="day">The day at whose end they do.</param>
    /// <param name="calendar">When fiscal years begin.</param>
    /// <param name="without">Documents that are not counted.</param>
    public IReadOnlyDictionary<AccountKey, Amount> BalancesAt(
        DateOnly day, FiscalCalendar calendar, params IReadOnlyCollection<DocumentKey> without)
    {
        var balances = AccountBalances.At(_derived, Accounts, day, calendar);
        var shown = new AccountsOfYear(Accounts, day, calendar);
        foreach (var (document, date) in without.Select(document => (document, DateOf(document))).Where(own => own.Item2 <= day))
        {
            using var lines = _store.Rows(new RecordQuery(RecordTables.Lines, "account", "amount")
            {
                Standing = _standing, Keys = [document.Value],
            });
            while (lines.Next())
            {
                shown.Add(balances, new AccountKey(lines.Int(0)), date, -new Amount(lines.Number(1)));
            }
        }

        return balances;
    }

    /// <inheritdoc/>
    public ItemColumns ControlItems(DateOnly until, IReadOnlySet<AccountKey>? accounts = null) =>
        new ItemMonths(_derived, MonthsUntil(DerivedKind.Items, until), WantedOf(accounts)).Until(until);

    /// <inheritdoc/>
    public IEnumerable<List<Application>> Applications(DateOnly until, IReadOnlySet<AccountKey>? accounts = null)
    {
        var (rows, wanted) = (new List<Application>(), WantedOf(accounts));
        foreach (var month in MonthsUntil(DerivedKind.Applications, until))
        {
            rows.Clear();
            _derived.Read(DerivedKind.Applications, month, DerivedColumns.Applications, rows, wanted);

            // The last month may go beyond the day.
            while (rows.Count > 0 && rows[^1].Day > until)
            {
                rows.RemoveAt(rows.Count - 1);
            }

            yield return rows;
        }
    }

    /// <inheritdoc/>
    public (DocumentKey From, DocumentKey To) DocumentsOf(SettlementKey settlement) =>
        _settlements.Value.TryGetValue(settlement, out var documents)
        ? documents
        : throw StoreProblem.Damaged($"settlement {settlement} is not there");

    /// <inheritdoc/>
    public RecordNames Names(RecordTable table)
    {
        if (!_names.TryGetValue(table, out var names))
        {
            _names[table] = names = NameColumns.Read(_derived, table);
        }

        return names;
    }

    /// <inheritdoc/>
    public IEnumerable<(int Key, IReadOnlyDictionary<string, string> Tags)> Tagged(RecordTable table)
    {
        if (!_tagged.TryGetValue(table, out var tagged))
        {
            _tagged[table] = tagged = [];
            using var rows = _store.Rows(new RecordQuery(table, RecordQuery.Key, RecordQuery.Tags) { Standing = _standing });
            while (rows.Next())
            {
                if (!rows.IsNull(1))
                {
                    tagged.Add((rows.Int(0), Columns.TagSets.Parse(rows.Text(1))));
                }
            }
        }

        return tagged;
    }

    /// <inheritdoc/>
    public DocumentText Document(DocumentKey key)
    {
        var (stretch, row) = (_texts.StretchOf(key.Value), key.Value % DocumentStretch.Size);
        string Text(RecordField field) => stretch.Column(field)?[row].Text ?? "";
        return !stretch.Has(row) ? throw StoreProblem.Damaged($"document {key} is not there")
            : new DocumentText(Text(IdField), Text(KindField), Text(NumberField), Text(MemoField));
    }

    /// <inheritdoc/>
    public string LineMemo(DocumentKey document, int line) => _texts.Of(document.Value, line, DocumentStretch.Memo).Text ?? "";

    /// <inheritdoc/>
    public RecordValue[] OfDocuments(RecordField field, long[] documents)
    {
        var values = new RecordValue[documents.Length];
        for (var row = 0; row < values.Length; row++)
        {
            values[row] = row > 0 && documents[row] == documents[row - 1] ? values[row - 1]
                : documents[row] == 0 ? default : _texts.Of((int)documents[row], field);
        }

        return values;
    }

    /// <inheritdoc/>
    public RecordValue[] OfLines(RecordField field, long[] documents, long[] lines)
    {
        var values = new RecordValue[documents.Length];
        for (var row = 0; row < values.Length; row++)
        {
            values[row] = _texts.Of((int)documents[row], (int)lines[row], field);
        }

        return values;
    }

    /// <inheritdoc/>
    public IEnumerable<(int Key, RecordValue[] Values)> ReadRecords(RecordTable table, IReadOnlyList<RecordField> fields) =>
        RecordRows.Read(_store, _standing, table, fields);

    /// <summary>
    /// The records of a table as they came in, each with its key, or, of lines, with that of its document; one row is filled again for
    /// each.
    /// </summary>
    public IEnumerable<(int Key, RecordRow Row)> WholeRecords(RecordTable table) => RecordRows.Whole(_store, _standing, table);

    /// <inheritdoc/>
    public bool HasRecord(RecordTable table, string id) => Find(table, table.Id!, id).Count > 0;

    /// <inheritdoc/>
    public string ContactAddress(ContactKey contact)
    {
        using var rows = _store.Rows(new RecordQuery(RecordTables.Contacts, "address") { Standing = _standing, Keys = [contact.Value] });
        return rows.Next() ? rows.Text(0) : throw StoreProblem.Damaged($"contact {contact} is not there");
    }

    /// <inheritdoc/>
    public void Dispose() => _store.Dispose();

    private static LedgerReader Open(Book book, Func<long, long?> revisionOf)
    {
        var store = Upkeep.Read(book);
        try
        {
            var last = store.State.Revision;
            return new LedgerReader(book, store, revisionOf(last) ?? last);
        }
        catch
        {
            store.Dispose();
            throw;
        }
    }

    private static RecordField FieldOfDocuments(string name) => RecordTables.Documents.Fields[RecordTables.Documents.IndexOf(name)];

    private DateOnly DateOf(DocumentKey document) => IsoText.TryDay(_texts.Of(document.Value, DateField).Text ?? "", out var date)
        ? date : throw StoreProblem.Damaged($"document {document} has no day");

    private DateRange? FindExtent()
    {
        var days = new[] { DerivedKind.Accrual, DerivedKind.Cash }.SelectMany(kind =>
        {
            var months = _derived.Months(kind);
            DateOnly DayAt(YearMonth month, int row) => month.First.AddDays((int)_derived.Column(kind, month, "day", [row])[0] - 1);
            return months.Count == 0 ? Array.Empty<DateOnly>()
                : [DayAt(months[0], 0), DayAt(months[^1], _derived.Count(kind, months[^1]) - 1)];
        }).ToList();
        return days.Count == 0 ? null : new DateRange(days.Min(), days.Max());
    }

    /// <summary>The key of the document of that id, or of the only one of that number; nothing where there is none.</summary>
    public DocumentKey? FindDocument(string idOrNumber)
    {
        if (Find(RecordTables.Documents, "id", idOrNumber) is [var byId])
        {
            return new DocumentKey(byId);
        }

        return Find(RecordTables.Documents, "number", idOrNumber) is [var byNumber] ? new DocumentKey(byNumber) : null;
    }

    /// <summary>The ids and numbers of all documents, for suggestions.</summary>
    public IEnumerable<string> DocumentNames()
    {
        using var rows = _store.Rows(new RecordQuery(RecordTables.Documents, "id", "number") { Standing = _standing });
        while (rows.Next())
        {
            yield return rows.Text(0);
            yield return rows.Text(1);
        }
    }

    // The keys of the records that have a value, as many as show whether it is one.
    private List<int> Find(RecordTable table, string column, string value)
    {
        var keys = new List<int>();
        using var rows = _store.Rows(new RecordQuery(table, RecordQuery.Key) { Standing = _standing, Where = (column, value), Most = 2 });
        while (rows.Next())
        {
            keys.Add(rows.Int(0));
        }

        return keys;
    }

    private bool HasAny(RecordTable table)
    {
        using var rows = _store.Rows(new RecordQuery(table, RecordQuery.Key) { Standing = _standing, Most = 1 });
        return rows.Next();
    }

    private Promise? Known(PromiseRecord record) => FindDocument(record.Document) is { } document
        ? new Promise(
            record.Number, record.IsDispute, document, record.Amount, record.By, record.Open, record.Noted, record.Withdrawn, record.Note)
        : null;

    private Dictionary<SettlementKey, (DocumentKey From, DocumentKey To)> ReadSettlements()
    {
        var settlements = new Dictionary<SettlementKey, (DocumentKey From, DocumentKey To)>();
        foreach (var month in _derived.Months(DerivedKind.Applications))
        {
            long[] Column(string name) => _derived.Column(DerivedKind.Applications, month, name);
            var (keys, from, to) = (Column("settlement"), Column("from"), Column("to"));
            for (var row = 0; row < keys.Length; row++)
            {
                settlements.Add((SettlementKey)keys[row], ((DocumentKey)from[row], (DocumentKey)to[row]));
            }
        }

        return settlements;
    }

    private List<YearMonth> MonthsUntil(DerivedKind kind, DateOnly until) =>
        [.. _derived.Months(kind).Where(month => month.First <= until)];

    // By the keys of accounts; nothing where all are wanted.
    private bool[]? WantedOf(IReadOnlySet<AccountKey>? accounts)
    {
        if (accounts is null)
        {
            return null;
        }

        var wanted = new bool[Accounts.Select(account => account.Key.Value).DefaultIfEmpty().Max() + 1];
        foreach (var account in Accounts)
        {
            wanted[account.Key.Value] = accounts.Contains(account.Key);
        }

        return wanted;
    }

    private List<Budget> ReadBudgets()
    {
        var creditPositive = Accounts.Where(account => AccountTypes.IsCreditPositive(account.Type))
            .Select(account => account.Key).ToHashSet();
        var budgets = new List<Budget>();
        using var rows = _store.Rows(new RecordQuery(RecordTables.Budgets, "account", "month", "amount", "project", "department")
        {
            Standing = _standing,
        });
        while (rows.Next())
        {
            var (account, amount) = (new AccountKey(rows.Int(0)), new Amount(rows.Number(2)));
            if (!IsoText.TryMonth(rows.Bytes(1), out var month))
            {
                throw StoreProblem.Damaged($"there is no month {rows.Text(1)}");
            }

            budgets.Add(new Budget(
                month, account, creditPositive.Contains(account) ? -amount : amount, rows.Int(3), rows.Int(4)));
        }

        return budgets;
    }
}
