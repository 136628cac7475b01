namespace Vlei.Core.Ledger;

/// <summary>What is known of a posting without looking at its texts: a whole number each, in a column of its own.</summary>
public enum PostingField
{
    /// <summary>The day of the month, from 1.</summary>
    Day,

    /// <summary>The key of the account.</summary>
    Account,

    /// <summary>Minor units, debit positive.</summary>
    Amount,

    /// <summary>The key of the document.</summary>
    Document,

    /// <summary>On the cash basis, the key of the settlement that released it; 0 for none.</summary>
    Settlement,

    /// <summary>The place of the line in its document.</summary>
    Line,

    /// <summary>The key of the contact, 0 for none.</summary>
    Contact,

    /// <summary>The key of the item, 0 for none.</summary>
    Item,

    /// <summary>The key of the project, 0 for none.</summary>
    Project,

    /// <summary>The key of the department, 0 for none.</summary>
    Department,

    /// <summary>The kind of the document: its place in <see cref="DocumentKinds.Names"/>, from 1.</summary>
    Kind,

    /// <summary>The key of the tags that the line and its document have, 0 for none.</summary>
    Tags,

    /// <summary>How much of the item, in millionths of its unit; on the cash basis, as much of it as is settled.</summary>
    Quantity,

    /// <summary>The key of the tax code, 0 for none.</summary>
    TaxCode,

    /// <summary>What the line is to that tax: the number of a <see cref="Ledger.TaxPart"/>.</summary>
    TaxPart,
}
