using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>One line of a document, as the computation needs it; texts stay in the store.</summary>
/// <param name="Number">Its place in the document, from 1.</param>
/// <param name="Account">The key of its account.</param>
/// <param name="Amount">Debit positive.</param>
/// <param name="Contact">The key of its contact, 0 for none.</param>
/// <param name="Item">The key of its item, 0 for none.</param>
/// <param name="Project">The key of its project, 0 for none.</param>
/// <param name="Department">The key of its department, 0 for none.</param>
/// <param name="Kind">The number of its document's kind.</param>
/// <param name="Tags">The key of its tags and its document's, 0 for none.</param>
/// <param name="Quantity">How much of the item, in millionths of its unit; 0 where nothing is said.</param>
/// <param name="TaxCode">The key of its tax code, 0 for none.</param>
/// <param name="TaxPart">What it is to that tax.</param>
public readonly record struct Line(
    int Number, AccountKey Account, Amount Amount, ContactKey Contact = default, int Item = 0, int Project = 0, int Department = 0,
    int Kind = 0, int Tags = 0, long Quantity = 0, int TaxCode = 0, TaxPart TaxPart = TaxPart.None);

/// <summary>What a line is to the tax of its code.</summary>
public enum TaxPart
{
    /// <summary>Nothing: it has no tax code.</summary>
    None,

    /// <summary>What the tax is counted from.</summary>
    Base,

    /// <summary>The tax itself.</summary>
    Tax,
}

/// <summary>A settlement as one of its two documents sees it.</summary>
/// <param name="Key">The key of the settlement; the order of keys is the order of the records.</param>
/// <param name="Effective">The day it takes effect: the latest of its own date and both documents' dates.</param>
/// <param name="Amount">What is settled; positive.</param>
public readonly record struct Release(SettlementKey Key, DateOnly Effective, Amount Amount);

/// <summary>One posting on one account on one day, on either basis.</summary>
/// <param name="Day">The day it counts.</param>
/// <param name="Document">The key of the document behind it.</param>
/// <param name="Line">The line behind it: account, contact, item and the rest. Its amount is what is posted.</param>
/// <param name="Settlement">On the cash basis, the settlement that released it; 0 for none.</param>
public readonly record struct Posting(DateOnly Day, DocumentKey Document, Line Line, SettlementKey Settlement = default);
