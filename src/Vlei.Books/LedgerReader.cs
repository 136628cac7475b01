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
    private readonly Database _database;
    private readonly DerivedStore _derived;
    private readonly Standing _standing;
    private readonly Lazy<DateRange?> _extent;
    private readonly Lazy<IReadOnlyList<Account>> _accounts;
    private readonly Lazy<IReadOnlyList<Budget>> _budgets;
    private readonly Lazy<IReadOnlyList<IReadOnlyDictionary<string, string>>> _tagSets;
    private readonly Lazy<bool> _hasComputedSettlements;
    private readonly Lazy<Dictionary<SettlementKey, (DocumentKey From, DocumentKey To)>> _settlements;
    private readonly Lazy<IReadOnlyList<Promise>> _promises;
    private readonly Lazy<IReadOnlyList<FindingMark>> _marks;
    private readonly Dictionary<PostingField, IReadOnlyList<NamedRecord>> _records = [];
    private readonly Lazy<Statement> _document;
    private readonly Lazy<Statement> _lineMemo;

    private LedgerReader(Book book, Database database, long revision, bool isEarlier)
    {
        (_database, Revision) = (database, revision);
        _standing = isEarlier ? new Standing(revision) : Standing.Now;
        _derived = isEarlier ? EarlierPostings.Open(database, revision) : new DerivedStore(database);
        _extent = new Lazy<DateRange?>(FindExtent);
        _accounts = new Lazy<IReadOnlyList<Account>>(() => AccountRows.Read(database, _standing));
        _budgets = new Lazy<IReadOnlyList<Budget>>(ReadBudgets);
        _hasComputedSettlements = new Lazy<bool>(() => Derivation.IsOldestFirst(database)
            && database.Number($"SELECT count(*) FROM settlements s WHERE {_standing.Of("s")}") == 0);
        _marks = new Lazy<IReadOnlyList<FindingMark>>(() => MarkFile.Read(book));
        _promises = new Lazy<IReadOnlyList<Promise>>(() => PromiseFile.Read(book).Select(Known).OfType<Promise>().ToList());
        _settlements = new Lazy<Dictionary<SettlementKey, (DocumentKey From, DocumentKey To)>>(ReadSettlements);
        _tagSets = new Lazy<IReadOnlyList<IReadOnlyDictionary<string, string>>>(() => TagRows.Read(database));
        _document = new Lazy<Statement>(() => database.Prepare(
            "SELECT k.id, d.kind, d.date, d.number, d.memo FROM documents d JOIN documents_keys k ON k.key = d.key "
            + $"WHERE d.key = ? AND {_standing.Of("d")}"));
        _lineMemo = new Lazy<Statement>(() => database.Prepare(
            "SELECT l.memo FROM documents d JOIN lines l ON l.document = d.key AND l.added = d.added "
            + $"WHERE d.key = ? AND l.line = ? AND {_standing.Of("d")}"));
    }

    /// <inheritdoc/>
    public long Revision { get; }

    /// <inheritdoc/>
    public IReadOnlyList<Account> Accounts => _accounts.Value;

    /// <inheritdoc/>
    public bool HasComputedSettlements => _hasComputedSettlements.Value;

    /// <inheritdoc/>
    public IEnumerable<DocumentVersion> DocumentVersions() => RecordChanges.VersionsUpTo(_database, Revision);

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
    public PostingMonth ReadMonth(AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields)
    {
        var columns = fields.Distinct().Select(field => (field, Column: _derived.Column(
            (DerivedKind)basis, month, DerivedColumns.Postings.Columns[(int)field].Name))).ToList();
        return new PostingMonth(columns.Count == 0 ? 0 : columns[0].Column.Length, columns);
    }

    /// <inheritdoc/>
    public IReadOnlyList<ControlItem> ControlItems(DateOnly until) =>
        ReadUntil(DerivedKind.Items, until, DerivedColumns.Items);

    /// <inheritdoc/>
    public IReadOnlyList<Application> Applications(DateOnly until) =>
        ReadUntil(DerivedKind.Applications, until, DerivedColumns.Applications);

    /// <inheritdoc/>
    public (DocumentKey From, DocumentKey To) DocumentsOf(SettlementKey settlement) =>
        _settlements.Value.TryGetValue(settlement, out var documents)
        ? documents
        : throw StoreProblem.Damaged($"settlement {settlement} is not there");

    /// <inheritdoc/>
    public IReadOnlyList<NamedRecord> Records(PostingField field)
    {
        if (!_records.TryGetValue(field, out var records))
        {
            _records[field] = records = ReadRecords(field switch
            {
                PostingField.Contact => "contacts",
                PostingField.Item => "items",
                PostingField.Project => "projects",
                PostingField.Department => "departments",
                _ => throw new ArgumentException($"{field} refers to no records.", nameof(field)),
            });
        }

        return records;
    }

    /// <inheritdoc/>
    public DocumentText Document(DocumentKey key)
    {
        var statement = _document.Value.Bind(1, key.Value);
        if (!statement.Step())
        {
            throw StoreProblem.Damaged($"document {key} is not there");
        }

        _ = IsoText.TryDay(statement.Bytes(2), out var date);
        var text = new DocumentText(statement.Text(0), statement.Text(1), date, statement.Text(3), statement.Text(4));
        statement.Reset();
        return text;
    }

    /// <inheritdoc/>
    public string LineMemo(DocumentKey document, int line)
    {
        var statement = _lineMemo.Value.Bind(1, document.Value).Bind(2, line);
        var memo = statement.Step() ? statement.Text(0) : "";
        statement.Reset();
        return memo;
    }

    /// <inheritdoc/>
    public IEnumerable<(int Key, RecordValue[] Values)> ReadRecords(
        RecordTable table, IReadOnlyList<RecordField> fields, IReadOnlyList<int>? keys = null) =>
        RecordRows.Read(_database, _standing, table, fields, keys);

    /// <inheritdoc/>
    public bool HasRecord(RecordTable table, string id)
    {
        using var statement = _database.Prepare(
            $"SELECT r.key FROM {table.Name}_keys k JOIN {table.Name} r ON r.key = k.key WHERE k.id = ? AND {_standing.Of("r")}");
        statement.Bind(1, id);
        return statement.Step();
    }

    /// <inheritdoc/>
    public IEnumerable<(DocumentKey Document, int Line, RecordValue[] Values)> ReadLines(
        IReadOnlyList<RecordField> fields, IReadOnlyList<DocumentKey> documents) =>
        RecordRows.ReadLines(_database, _standing, fields, documents);

    /// <inheritdoc/>
    public string ContactAddress(ContactKey contact)
    {
        using var statement = _database.Prepare($"SELECT c.address FROM contacts c WHERE c.key = ? AND {_standing.Of("c")}");
        statement.Bind(1, contact.Value);
        return statement.Step() ? statement.Text(0) : throw StoreProblem.Damaged($"contact {contact} is not there");
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var statement in new[] { _document, _lineMemo }.Where(statement => statement.IsValueCreated))
        {
            statement.Value.Dispose();
        }

        _derived.Dispose();
        _database.Dispose();
    }

    private static LedgerReader Open(Book book, Func<long, long?> revisionOf)
    {
        var database = OpenDerived(book);
        try
        {
            var last = database.Number("SELECT coalesce(max(revision), 0) FROM imports");
            var revision = revisionOf(last) ?? last;
            return new LedgerReader(book, database, revision, revision != last);
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    /// <summary>Opens the records to be read, derived as the book asks for: that may have changed since everything was derived.</summary>
    internal static Database OpenDerived(Book book)
    {
        var database = RecordsFile.OpenToRead(book.RecordsPath);
        if (Derivation.IsOldestFirst(database) == book.Settings.SettlesOldestFirst)
        {
            return database;
        }

        database.Dispose();
        using (var writer = RecordsFile.OpenToWrite(book.RecordsPath))
        {
            Derivation.Adopt(writer, book.Settings.SettlesOldestFirst, (_, _) => { });
            writer.Commit();
        }

        return RecordsFile.OpenToRead(book.RecordsPath);
    }

    private DateRange? FindExtent()
    {
        var days = new[] { DerivedKind.Accrual, DerivedKind.Cash }.SelectMany(kind =>
        {
            var months = _derived.Months(kind);
            DateOnly DayAt(YearMonth month, Index row) => month.First.AddDays((int)_derived.Column(kind, month, "day")[row] - 1);
            return months.Count == 0 ? Array.Empty<DateOnly>() : [DayAt(months[0], 0), DayAt(months[^1], ^1)];
        }).ToList();
        return days.Count == 0 ? null : new DateRange(days.Min(), days.Max());
    }

    private List<NamedRecord> ReadRecords(string table)
    {
        var (records, none) = (new List<NamedRecord>(), new SortedDictionary<string, string>());
        using var statement = _database.Prepare(
            $"SELECT r.key, k.id, r.name, r.tags FROM {table} r JOIN {table}_keys k ON k.key = r.key "
            + $"WHERE {_standing.Of("r")} ORDER BY r.key");
        while (statement.Step())
        {
            records.Add(new NamedRecord(
                statement.Int(0), statement.Text(1), statement.Text(2),
                statement.IsNull(3) ? none : TagRows.Parse(statement.Text(3))));
        }

        return records;
    }

    /// <summary>The key of the document of that id, or of the only one of that number; nothing where there is none.</summary>
    public DocumentKey? FindDocument(string idOrNumber)
    {
        using var byId = _database.Prepare(
            $"SELECT d.key FROM documents_keys k JOIN documents d ON d.key = k.key WHERE k.id = ? AND {_standing.Of("d")}");
        byId.Bind(1, idOrNumber);
        if (byId.Step())
        {
            return new DocumentKey(byId.Int(0));
        }

        using var byNumber = _database.Prepare($"SELECT d.key FROM documents d WHERE d.number = ? AND {_standing.Of("d")} LIMIT 2");
        byNumber.Bind(1, idOrNumber);
        return byNumber.Step() && byNumber.Int(0) is var key && !byNumber.Step() ? new DocumentKey(key) : null;
    }

    /// <summary>The ids and numbers of all documents, for suggestions.</summary>
    public IEnumerable<string> DocumentNames()
    {
        using var statement = _database.Prepare(
            $"SELECT k.id, d.number FROM documents_keys k JOIN documents d ON d.key = k.key WHERE {_standing.Of("d")}");
        while (statement.Step())
        {
            yield return statement.Text(0);
            yield return statement.Text(1);
        }
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

    // The last month may go beyond the day.
    private List<T> ReadUntil<T>(DerivedKind kind, DateOnly until, DerivedColumns<T> shape)
    {
        var months = _derived.Months(kind).Where(month => month.First <= until).ToList();
        var rows = new List<T>(months.Sum(month => _derived.Count(kind, month)));
        foreach (var month in months)
        {
            _derived.Read(kind, month, shape, rows);
        }

        while (rows.Count > 0 && shape.DayOf(rows[^1]) > until)
        {
            rows.RemoveAt(rows.Count - 1);
        }

        return rows;
    }

    private List<Budget> ReadBudgets()
    {
        var creditPositive = Accounts.Where(account => AccountTypes.IsCreditPositive(account.Type))
            .Select(account => account.Key).ToHashSet();
        var budgets = new List<Budget>();
        using var statement = _database.Prepare(
            $"SELECT b.account, b.month, b.amount, b.project, b.department FROM budgets b WHERE {_standing.Of("b")} ORDER BY b.key");
        while (statement.Step())
        {
            if (!IsoText.TryDay(System.Text.Encoding.UTF8.GetBytes($"{statement.Text(1)}-01"), out var first))
            {
                throw StoreProblem.Damaged($"there is no month {statement.Text(1)}");
            }

            var (account, amount) = (new AccountKey(statement.Int(0)), new Amount(statement.Number(2)));
            budgets.Add(new Budget(
                YearMonth.Of(first), account, creditPositive.Contains(account) ? -amount : amount,
                statement.Int(3), statement.Int(4)));
        }

        return budgets;
    }
}
