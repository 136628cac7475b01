namespace Vlei.Core.Ledger;

/// <summary>The kinds of documents: what people filter and count by. What a document does follows from its lines alone.</summary>
public static class DocumentKinds
{
    /// <summary>Their names as record sets write them.</summary>
    public static IReadOnlyList<string> Names { get; } =
    [
        "invoice", "credit-note", "receipt", "refund", "cash-sale", "bill", "supplier-credit", "purchase-return",
        "payment", "expense", "deposit", "transfer", "journal", "opening",
    ];

    /// <summary>The number of a kind: its place among the names, from 1; 0 where there is no such kind.</summary>
    public static int NumberOf(string name)
    {
        for (var place = 0; place < Names.Count; place++)
        {
            if (Names[place] == name)
            {
                return place + 1;
            }
        }

        return 0;
    }
}
