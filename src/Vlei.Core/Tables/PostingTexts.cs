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
    private const int AtOnce = 512;

    private static readonly IReadOnlyList<RecordField> OfDocuments = Fields(RecordTables.Documents, "id", "kind", "number", "memo");
    private static readonly IReadOnlyList<RecordField> OfLines = Fields(RecordTables.Lines, "memo");

    // What is said of the postings of a list that stand near the one that was looked at last.
    private readonly Dictionary<DocumentKey, DocumentText> _documents = [];
    private readonly Dictionary<(DocumentKey Document, int Line), string> _memos = [];
    private (PostingEntry[]? Of, int First, int Count) _near;
    private readonly Lazy<Dictionary<ContactKey, string>> _contacts = new(() =>
        ledger.Records(PostingField.Contact).ToDictionary(contact => new ContactKey(contact.Key), contact => contact.Name));

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

    /// <summary>
    /// A posting of a list. What is said of it is read together with that of those behind it: documents of one account may stand anywhere
    /// in the records.
    /// </summary>
    public PostingEntry Near(PostingEntry[] list, int place)
    {
        if (_near.Of != list || place < _near.First || place >= _near.First + _near.Count)
        {
            _near = (list, place, Math.Min(AtOnce, list.Length - place));
            Read(new ArraySegment<PostingEntry>(list, place, _near.Count));
        }

        return list[place];
    }

    /// <summary>The id of a document.</summary>
    public string IdOf(DocumentKey document) => DocumentOf(document).Id;

    /// <summary>The id of the document.</summary>
    public string IdOf(PostingEntry entry) => DocumentOf(entry).Id;

    /// <summary>The key of a posting's row: its document, its line, and the number of the settlement that released it.</summary>
    public string KeyOf(PostingEntry entry) => entry.Place.Settlement.IsNone
        ? $"{IdOf(entry)}/{entry.Place.Line}"
        : $"{IdOf(entry)}/{entry.Place.Line}@{entry.Place.Settlement.Value}";

    private string ContactName(ContactKey contact) => contact.IsNone ? "" : _contacts.Value.GetValueOrDefault(contact, "");

    private string MemoOf(PostingEntry entry)
    {
        var (document, line) = (entry.Place.Document, entry.Place.Line);
        var memo = entry.Source == PostingSource.Budget ? ""
            : _documents.ContainsKey(document) ? _memos.GetValueOrDefault((document, line), "") : ledger.LineMemo(document, line);
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

        var month = YearMonth.Of(entry.Place.Day);
        return new DocumentText($"budget {month}", "budget", month.First, "", "");
    }

    private DocumentText DocumentOf(DocumentKey key) => _documents.TryGetValue(key, out var document) ? document : ledger.Document(key);

    private void Read(IEnumerable<PostingEntry> entries)
    {
        _documents.Clear();
        _memos.Clear();
        List<DocumentKey> keys =
            [.. entries.Select(entry => entry.Place.Document).Where(document => !document.IsNone).Distinct().Order()];
        foreach (var (key, values) in ledger.ReadRecords(RecordTables.Documents, OfDocuments, [.. keys.Select(key => key.Value)]))
        {
            string Text(int field) => values[field].Text ?? "";
            _documents[new DocumentKey(key)] = new DocumentText(Text(0), Text(1), default, Text(2), Text(3));
        }

        foreach (var (document, line, values) in ledger.ReadLines(OfLines, keys))
        {
            if (values[0].Text is { Length: > 0 } memo)
            {
                _memos[(document, line)] = memo;
            }
        }
    }

    private static IReadOnlyList<RecordField> Fields(RecordTable table, params IEnumerable<string> names) =>
        [.. names.Select(name => table.Fields[table.IndexOf(name)])];
}
