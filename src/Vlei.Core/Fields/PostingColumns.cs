using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>What the columns of postings are called in the blocks of tables.</summary>
public static class PostingColumns
{
    /// <summary>The name of a column.</summary>
    public static string NameOf(PostingField field) => field switch
    {
        PostingField.TaxCode => "tax-code",
        PostingField.TaxPart => "tax-part",
        _ => Enum.GetName(field)!.ToLowerInvariant(),
    };
}
