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
    private readonly PostingStore _postings;
    private readonly Standing _standing;
    private readonly Lazy<DateRange?> _extent;
    private readonly Lazy<IReadOnlyList<Account>> _accounts;
    private readonly Lazy<IReadOnlyList<Budget>> _budgets;
    private readonly Lazy<IReadOnlyList<IReadOnlyDictionary<string, string>>> _tagSets;
    private readonly Dictionary<PostingField, IReadOnlyList<NamedRecord>> _records = [];
    private readonly Lazy<IReadOnlyList<Settlement>> _settlements;
    private readonly Lazy<IReadOnlyDictionary<int, DateOnly>> _dueDays;
    private readonly Lazy<Statement> _document;
    private readonly Lazy<Statement> _lineMemo;
    private readonly Lazy<Statement> _settlement;

    private LedgerReader(Database database, long revision, bool isEarlier)
    {
        (_database, Revision) = (database, revision);
        _standing = isEarlier ? new Standing(revision) : Standing.Now;
        _postings = isEarlier ? EarlierPostings.Open(database, revision) : new PostingStore(database);
        _extent = new Lazy<DateRange?>(FindExtent);
        _accounts = new Lazy<IReadOnlyList<Account>>(() => AccountRows.Read(database, _standing));
        _budgets = new Lazy<IReadOnlyList<Budget>>(ReadBudgets);
        _settlements = new Lazy<IReadOnlyList<Settlement>>(ReadSettlements);
        _dueDays = new Lazy<IReadOnlyDictionary<int, DateOnly>>(ReadDueDays);
        _tagSets = new Lazy<IReadOnlyList<IReadOnlyDictionary<string, string>>>(() => Columns.TagSets.Read(database));
        _document = new Lazy<Statement>(() => database.Prepare(
            "SELECT k.id, d.kind, d.date, d.number, d.memo FROM documents d JOIN documents_keys k ON k.key = d.key "
            + $"WHERE d.key = ? AND {_standing.Of("d")}"));
        _lineMemo = new Lazy<Statement>(() => database.Prepare(
            "SELECT l.memo FROM documents d JOIN lines l ON l.document = d.key AND l.added = d.added "
            + $"WHERE d.key = ? AND l.line = ? AND {_standing.Of("d")}"));
        _settlement = new Lazy<Statement>(() => database.Prepare("SELECT \"from\", \"to\" FROM settlements WHERE key = ?"));
    }

    /// <inheritdoc/>
    public long Revision { get; }

    /// <inheritdoc/>
    public IReadOnlyList<Account> Accounts => _accounts.Value;

    /// <inheritdoc/>
    public DateRange? Extent => _extent.Value;

    /// <inheritdoc/>
    public IReadOnlyList<Budget> Budgets => _budgets.Value;

    /// <inheritdoc/>
    public IReadOnlyDictionary<int, DateOnly> DueDays => _dueDays.Value;

    /// <inheritdoc/>
    public IReadOnlyList<Settlement> Settlements => _settlements.Value;

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
        _postings.Sums(basis, YearMonth.Of(range.From), YearMonth.Of(range.To));

    /// <inheritdoc/>
    public PostingMonth ReadMonth(AccountingBasis basis, YearMonth month, IReadOnlyCollection<PostingField> fields)
    {
        var columns = fields.Distinct().Select(field => (field, Column: _postings.Column(basis, month, field))).ToList();
        return new PostingMonth(columns.Count == 0 ? 0 : columns[0].Column.Length, columns);
    }

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
    public DocumentText Document(int key)
    {
        var statement = _document.Value.Bind(1, key);
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
    public string LineMemo(int document, int line)
    {
        var statement = _lineMemo.Value.Bind(1, document).Bind(2, line);
        var memo = statement.Step() ? statement.Text(0) : "";
        statement.Reset();
        return memo;
    }

    /// <inheritdoc/>
    public int SettledWith(int settlement, int document)
    {
        var statement = _settlement.Value.Bind(1, settlement);
        if (!statement.Step())
        {
            throw StoreProblem.Damaged($"settlement {settlement} is not there");
        }

        var (from, to) = (statement.Int(0), statement.Int(1));
        statement.Reset();
        return from == document ? to : from;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var statement in new[] { _document, _lineMemo, _settlement }.Where(statement => statement.IsValueCreated))
        {
            statement.Value.Dispose();
        }

        _postings.Dispose();
        _database.Dispose();
    }

    private static LedgerReader Open(Book book, Func<long, long?> revisionOf)
    {
        var database = Database.OpenToRead(book.RecordsPath);
        try
        {
            var last = database.Number("SELECT coalesce(max(revision), 0) FROM imports");
            var revision = revisionOf(last) ?? last;
            return new LedgerReader(database, revision, revision != last);
        }
        catch
        {
            database.Dispose();
            throw;
        }
    }

    private DateRange? FindExtent()
    {
        var months = _postings.Months(AccountingBasis.Accrual);
        if (months.Count == 0)
        {
            return null;
        }

        var first = _postings.Column(AccountingBasis.Accrual, months[0], PostingField.Day)[0];
        var last = _postings.Column(AccountingBasis.Accrual, months[^1], PostingField.Day)[^1];
        return new DateRange(months[0].First.AddDays((int)first - 1), months[^1].First.AddDays((int)last - 1));
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
                statement.IsNull(3) ? none : Columns.TagSets.Parse(statement.Text(3))));
        }

        return records;
    }

    // What says only after how many days it is due is due that long after its date.
    private Dictionary<int, DateOnly> ReadDueDays()
    {
        var days = new Dictionary<int, DateOnly>();
        using var statement = _database.Prepare(
            "SELECT d.key, coalesce(d.due, date(d.date, '+' || d.terms_days || ' days')) FROM documents d "
            + $"WHERE {_standing.Of("d")} AND (d.due IS NOT NULL OR d.terms_days IS NOT NULL)");
        while (statement.Step())
        {
            if (IsoText.TryDay(statement.Bytes(1), out var day))
            {
                days[statement.Int(0)] = day;
            }
        }

        return days;
    }

    private List<Settlement> ReadSettlements()
    {
        var settlements = new List<Settlement>();
        using var statement = _database.Prepare(
            "SELECT s.key, s.\"from\", s.\"to\", s.amount, max(coalesce(s.date, f.date), f.date, t.date) FROM settlements s "
            + $"JOIN documents f ON f.key = s.\"from\" AND {_standing.Of("f")} JOIN documents t ON t.key = s.\"to\" AND {_standing.Of("t")} "
            + $"WHERE {_standing.Of("s")} ORDER BY s.key");
        while (statement.Step())
        {
            _ = IsoText.TryDay(statement.Bytes(4), out var effective);
            settlements.Add(new Settlement(
                statement.Int(0), statement.Int(1), statement.Int(2), new Amount(statement.Number(3)), effective));
        }

        return settlements;
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

            var amount = new Amount(statement.Number(2));
            budgets.Add(new Budget(
                YearMonth.Of(first), statement.Int(0), creditPositive.Contains(statement.Int(0)) ? -amount : amount,
                statement.Int(3), statement.Int(4)));
        }

        return budgets;
    }
}
