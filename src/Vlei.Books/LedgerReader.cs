using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books;

/// <summary>A book's records as reports read them, as of the moment it was opened.</summary>
public sealed class LedgerReader : ILedger, IDisposable
{
    private readonly Database _database;
    private readonly PostingStore _postings;
    private readonly Lazy<DateRange?> _extent;
    private readonly Lazy<IReadOnlyList<Account>> _accounts;

    private LedgerReader(Database database)
    {
        _database = database;
        _postings = new PostingStore(database);
        _extent = new Lazy<DateRange?>(FindExtent);
        _accounts = new Lazy<IReadOnlyList<Account>>(() => AccountRows.Read(database));
        Revision = database.Number("SELECT coalesce(max(revision), 0) FROM imports");
    }

    /// <inheritdoc/>
    public long Revision { get; }

    /// <inheritdoc/>
    public IReadOnlyList<Account> Accounts => _accounts.Value;

    /// <inheritdoc/>
    public DateRange? Extent => _extent.Value;

    /// <summary>Opens the records of a book. Throws a problem where they cannot be read.</summary>
    public static LedgerReader Open(Book book) => new(Database.OpenToRead(book.RecordsPath));

    /// <inheritdoc/>
    public IEnumerable<(YearMonth Month, AccountSum[] Sums)> MonthSums(AccountingBasis basis, DateRange range) =>
        _postings.Sums(basis, YearMonth.Of(range.From), YearMonth.Of(range.To));

    /// <inheritdoc/>
    public MonthOfPostings ReadMonth(AccountingBasis basis, YearMonth month) => new(
        [.. _postings.Column(basis, month, PostingColumn.Day).Select(day => (byte)day)],
        [.. _postings.Column(basis, month, PostingColumn.Account).Select(account => (int)account)],
        _postings.Column(basis, month, PostingColumn.Amount));

    /// <inheritdoc/>
    public void Dispose()
    {
        _postings.Dispose();
        _database.Dispose();
    }

    private DateRange? FindExtent()
    {
        var months = _postings.Months(AccountingBasis.Accrual);
        if (months.Count == 0)
        {
            return null;
        }

        var first = _postings.Column(AccountingBasis.Accrual, months[0], PostingColumn.Day)[0];
        var last = _postings.Column(AccountingBasis.Accrual, months[^1], PostingColumn.Day)[^1];
        return new DateRange(months[0].First.AddDays((int)first - 1), months[^1].First.AddDays((int)last - 1));
    }
}
