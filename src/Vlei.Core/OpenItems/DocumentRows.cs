using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.OpenItems;

/// <summary>How a document is named where it has a row of its own. Texts are fetched for the rows that are shown.</summary>
internal sealed class DocumentRows(ILedger ledger)
{
    private readonly Lazy<RecordNames> _contacts = new(() => ledger.Names(RecordTables.Contacts));

    /// <summary>The key of its row, from its contact and its id, and what stands before its figures: its number, or its id.</summary>
    public (string Key, string Label) Named(ItemAt item)
    {
        var document = ledger.Document(item.Document);
        var contact = item.Contact.IsNone ? FieldNames.None : _contacts.Value.IdOf(item.Contact.Value);
        return ($"{contact}/{document.Id}", document.Number.Length > 0 ? document.Number : document.Id);
    }

    /// <summary>The name of its contact; empty for none.</summary>
    public string ContactName(ItemAt item) => _contacts.Value.NameOf(item.Contact.Value);
}
