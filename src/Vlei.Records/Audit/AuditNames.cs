namespace Vlei.Records.Audit;

/// <summary>
/// Names of the OECD's Standard Audit File for Tax, version 2.0, and what is written where it leaves the words to the writer.
/// </summary>
internal static class AuditNames
{
    /// <summary>The namespace of its elements.</summary>
    public const string Space = "urn:OECD:StandardAuditFile-Tax:2.00";

    /// <summary>The root.</summary>
    public const string Root = "AuditFile";

    /// <summary>The one journal of all entries.</summary>
    public const string Journal = "GL";

    /// <summary>The analysis type of a project.</summary>
    public const string Project = "PROJECT";

    /// <summary>The analysis type of a department.</summary>
    public const string Department = "DEPARTMENT";

    /// <summary>The analysis type of an item.</summary>
    public const string Item = "ITEM";

    /// <summary>The analysis type of a quantity.</summary>
    public const string Quantity = "QUANTITY";

    /// <summary>The analysis type of a price.</summary>
    public const string UnitPrice = "UNIT-PRICE";

    /// <summary>What analysis types of tags begin with.</summary>
    public const string Tag = "TAG.";

    /// <summary>Kinds of documents that are listed as sales.</summary>
    public static IReadOnlyList<string> Sales { get; } = ["invoice", "credit-note", "cash-sale"];

    /// <summary>Kinds of documents that are listed as purchases.</summary>
    public static IReadOnlyList<string> Purchases { get; } = ["bill", "supplier-credit", "purchase-return", "expense"];
}
