using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>A column of what postings and documents say, with where its cells come from.</summary>
/// <param name="Shown">The column.</param>
/// <param name="OfPosting">What a posting says in it.</param>
/// <param name="OfDocument">What an open document says in it, or what was set against one.</param>
internal sealed record PostingTextColumn(ReportColumn Shown, Func<PostingEntry, Cell> OfPosting, Func<OriginItem, Cell> OfDocument);

/// <summary>What lists show of postings besides sums: their documents, contacts, accounts and notes.</summary>
internal sealed class PostingTexts(ILedger ledger)
{
    private (DocumentKey Key, DocumentText Text)? _last;
    private readonly Lazy<RecordNames> _contacts = new(() => ledger.Names(RecordTables.Contacts));

    private readonly Dictionary<AccountKey, Account> _accounts = ledger.Accounts.ToDictionary(account => account.Key);

    /// <summary>The columns of a posting; on the cash basis with the document that released it.</summary>
    public IReadOnlyList<PostingTextColumn> Columns(bool withAccount, bool withRelease) =>
    [
        new(new("date", "Date", ColumnKind.Date), entry => Cell.Of(entry.Place.Day), item => Cell.Of(item.Date)),
        new(
            new("kind", "Kind", ColumnKind.Text), entry => Cell.Of(DocumentOf(entry).Kind),
            item => Cell.Of(DocumentOf(item.Document).Kind)),
        new(
            new("number", "Number", ColumnKind.Text), entry => Cell.Of(DocumentOf(entry).Number),
            item => Cell.Of(DocumentOf(item.Document).Number)),
        new(
            new("contact", "Contact", ColumnKind.Text), entry => Cell.Of(ContactName(entry.Contact)),
            item => Cell.Of(ContactName(item.Contact))),
        .. withAccount ? new PostingTextColumn[] { new(
            new("account", "Account", ColumnKind.Text),
            entry => Cell.Of($"{_accounts[entry.Account].Code} {_accounts[entry.Account].Name}"), _ => Cell.Empty) } : [],
        new(new("memo", "Memo", ColumnKind.Text), entry => Cell.Of(MemoOf(entry)), item => Cell.Of(DocumentOf(item.Document).Memo)),
        .. withRelease ? new PostingTextColumn[] { new(
            new("settled-by", "Settled by", ColumnKind.Text), entry => Cell.Of(ReleaseOf(entry)), _ => Cell.Empty) } : [],
    ];

    /// <summary>The id of a document.</summary>
    public string IdOf(DocumentKey document) => DocumentOf(document).Id;

    /// <summary>The id of the document.</summary>
    public string IdOf(PostingEntry entry) => DocumentOf(entry).Id;

    /// <summary>The key of a posting's row: its document, its line, and the number of the settlement that released it.</summary>
    public string KeyOf(PostingEntry entry) => entry.Place.Settlement.IsNone
        ? $"{IdOf(entry)}/{entry.Place.Line}"
        : $"{IdOf(entry)}/{entry.Place.Line}@{entry.Place.Settlement.Value}";

    private string ContactName(ContactKey contact) => contact.IsNone ? "" : _contacts.Value.NameOf(contact.Value);

    private string MemoOf(PostingEntry entry)
    {
        var memo = entry.Source == PostingSource.Budget ? "" : ledger.LineMemo(entry.Place.Document, entry.Place.Line);
        return memo.Length > 0 ? memo : DocumentOf(entry).Memo;
    }

    private string ReleaseOf(PostingEntry entry) => entry.Place.Settlement.IsNone
        ? ""
        : ledger.DocumentsOf(entry.Place.Settlement) is var (from, to) && from == entry.Place.Document
            ? DocumentOf(to).Id
            : DocumentOf(from).Id;

    private DocumentText DocumentOf(PostingEntry entry)
    {
        if (entry.Source != PostingSource.Budget)
        {
            return DocumentOf(entry.Place.Document);
        }

        return new DocumentText($"budget {YearMonth.Of(entry.Place.Day)}", "budget", "", "");
    }

    // All that is said of a posting is asked for one after the other.
    private DocumentText DocumentOf(DocumentKey key)
    {
        if (_last?.Key != key)
        {
            _last = (key, ledger.Document(key));
        }

        return _last!.Value.Text;
    }
}
