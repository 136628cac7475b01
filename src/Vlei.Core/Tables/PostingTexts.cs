using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>What lists show of postings besides sums: their documents, contacts, accounts and notes.</summary>
internal sealed class PostingTexts(ILedger ledger)
{
    private readonly Dictionary<int, DocumentText> _documents = [];
    private readonly Lazy<Dictionary<int, string>> _contacts = new(() =>
        ledger.Records(PostingField.Contact).ToDictionary(contact => contact.Key, contact => contact.Name));

    private readonly Dictionary<int, Account> _accounts = ledger.Accounts.ToDictionary(account => account.Key);

    /// <summary>The columns of a posting; on the cash basis with the document that released it.</summary>
    public static IReadOnlyList<ReportColumn> Columns(bool withAccount, bool withRelease) =>
    [
        new("date", "Date", ColumnKind.Date),
        new("kind", "Kind", ColumnKind.Text),
        new("number", "Number", ColumnKind.Text),
        new("contact", "Contact", ColumnKind.Text),
        .. withAccount ? new[] { new ReportColumn("account", "Account", ColumnKind.Text) } : [],
        new("memo", "Memo", ColumnKind.Text),
        .. withRelease ? new[] { new ReportColumn("settled-by", "Settled by", ColumnKind.Text) } : [],
    ];

    /// <summary>The cells of those columns.</summary>
    public IEnumerable<Cell> CellsOf(PostingEntry entry, bool withAccount, bool withRelease)
    {
        var document = DocumentOf(entry);
        var memo = entry.Source == PostingSource.Budget ? "" : ledger.LineMemo(entry.Place.Document, entry.Place.Line);
        yield return Cell.Of(entry.Place.Day);
        yield return Cell.Of(document.Kind);
        yield return Cell.Of(document.Number);
        yield return Cell.Of(entry.Contact == 0 ? "" : _contacts.Value.GetValueOrDefault(entry.Contact, ""));
        if (withAccount)
        {
            yield return Cell.Of($"{_accounts[entry.Account].Code} {_accounts[entry.Account].Name}");
        }

        yield return Cell.Of(memo.Length > 0 ? memo : document.Memo);
        if (withRelease)
        {
            yield return Cell.Of(ReleaseOf(entry));
        }
    }

    /// <summary>The cells of those columns, for an open document or what was set against it.</summary>
    public IEnumerable<Cell> CellsOf(int document, int contact, DateOnly day, bool withAccount, bool withRelease)
    {
        var text = DocumentOf(document);
        return
        [
            Cell.Of(day), Cell.Of(text.Kind), Cell.Of(text.Number),
            Cell.Of(contact == 0 ? "" : _contacts.Value.GetValueOrDefault(contact, "")),
            .. withAccount ? new[] { Cell.Empty } : [], Cell.Of(text.Memo), .. withRelease ? new[] { Cell.Empty } : [],
        ];
    }

    /// <summary>The id of a document.</summary>
    public string IdOf(int document) => DocumentOf(document).Id;

    /// <summary>The id of the document.</summary>
    public string IdOf(PostingEntry entry) => DocumentOf(entry).Id;

    /// <summary>The key of a posting's row: its document, its line, and the number of the settlement that released it.</summary>
    public string KeyOf(PostingEntry entry) => entry.Place.Settlement == 0
        ? $"{IdOf(entry)}/{entry.Place.Line}"
        : $"{IdOf(entry)}/{entry.Place.Line}@{entry.Place.Settlement}";

    private string ReleaseOf(PostingEntry entry) => entry.Place.Settlement == 0
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

    private DocumentText DocumentOf(int key)
    {
        if (!_documents.TryGetValue(key, out var document))
        {
            _documents[key] = document = ledger.Document(key);
        }

        return document;
    }
}
