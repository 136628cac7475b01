using System.Runtime.InteropServices;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>One document on one control account with one contact: what can be open, and be settled.</summary>
/// <param name="Document">The key of the document.</param>
/// <param name="Account">The key of the control account.</param>
/// <param name="Contact">The key of the contact, 0 for none.</param>
/// <param name="Total">What the document puts there; debit positive.</param>
/// <param name="Date">The document's date.</param>
/// <param name="Due">The day by which it should be settled; its date where nothing else is said.</param>
/// <param name="Kind">The number of the document's kind.</param>
[StructLayout(LayoutKind.Auto)]
public readonly record struct ControlItem(
    DocumentKey Document, AccountKey Account, ContactKey Contact, Amount Total, DateOnly Date = default, DateOnly Due = default,
    int Kind = 0)
{
    /// <summary>
    /// The items of a document, one for each control account and contact that it has lines for. Throws
    /// <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    /// <param name="lines">The document's lines.</param>
    /// <param name="isControl">Whether an account is a control account, by its key.</param>
    /// <param name="document">What all its items have in common; account, contact and total are not looked at.</param>
    public static List<ControlItem> Of(IReadOnlyList<Line> lines, Func<AccountKey, bool> isControl, ControlItem document)
    {
        var items = new ControlItems();
        foreach (var line in lines)
        {
            if (isControl(line.Account))
            {
                items.Add(document with { Account = line.Account, Contact = line.Contact, Total = line.Amount, Kind = line.Kind });
            }
        }

        return items.All;
    }
}

/// <summary>A settlement, and which items of its two documents it joins: both on one account, on opposite sides of it.</summary>
/// <param name="Settlement">The key of the settlement; the order of keys is the order of the records.</param>
/// <param name="Day">The day that it takes effect: the latest of its own date and both documents' dates.</param>
/// <param name="Amount">How much; positive.</param>
/// <param name="Account">The key of the control account.</param>
/// <param name="From">The key of one document.</param>
/// <param name="FromContact">The contact that it has there.</param>
/// <param name="To">The key of the other document.</param>
/// <param name="ToContact">The contact that it has there.</param>
public readonly record struct Application(
    SettlementKey Settlement, DateOnly Day, Amount Amount, AccountKey Account, DocumentKey From, ContactKey FromContact, DocumentKey To,
    ContactKey ToContact);
