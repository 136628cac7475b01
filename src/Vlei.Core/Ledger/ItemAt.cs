using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>One of what documents put on control accounts, read off the columns as it is asked.</summary>
/// <param name="Columns">The columns.</param>
/// <param name="Place">Its place in them.</param>
public readonly record struct ItemAt(ItemColumns Columns, int Place)
{
    /// <summary>The key of the document.</summary>
    public DocumentKey Document => (DocumentKey)Columns.Documents[Place];

    /// <summary>The key of the control account.</summary>
    public AccountKey Account => (AccountKey)Columns.Accounts[Place];

    /// <summary>The key of the contact, 0 for none.</summary>
    public ContactKey Contact => (ContactKey)Columns.Contacts[Place];

    /// <summary>What the document puts there; debit positive, unless who has the columns changed it.</summary>
    public Amount Total => Columns.Totals[Place];

    /// <summary>The document's date.</summary>
    public DateOnly Date => DateOnly.FromDayNumber(Columns.Dates[Place]);

    /// <summary>The day by which it should be settled; its date where nothing else is said.</summary>
    public DateOnly Due => DateOnly.FromDayNumber(Columns.Dues[Place]);

    /// <summary>The number of the document's kind.</summary>
    public int Kind => Columns.Kinds[Place];
}
