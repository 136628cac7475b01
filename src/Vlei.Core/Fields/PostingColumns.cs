using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>What the columns of postings are called in the blocks of tables.</summary>
public static class PostingColumns
{
    /// <summary>The name of the column of accounts.</summary>
    public static readonly string Account = NameOf(PostingField.Account);

    private static readonly Dictionary<string, PostingField> Fields = Enum.GetValues<PostingField>().ToDictionary(NameOf);

    /// <summary>The name of a column.</summary>
    public static string NameOf(PostingField field) => field switch
    {
        PostingField.TaxCode => "tax-code",
        PostingField.TaxPart => "tax-part",
        _ => Enum.GetName(field)!.ToLowerInvariant(),
    };

    /// <summary>The column of that name; nothing where postings themselves have none.</summary>
    public static PostingField? Find(string name) => Fields.TryGetValue(name, out var field) ? field : null;

    /// <summary>The columns of those names; nothing where one of them is none, or no names are known.</summary>
    public static IReadOnlyList<PostingField>? Found(IReadOnlyList<string>? names)
    {
        var found = names?.Select(Find).OfType<PostingField>().ToList();
        return found?.Count == names?.Count ? found : null;
    }

    /// <summary>The postings of a month as rows, with the columns that were read of them.</summary>
    public static RowBlock BlockOf(PostingMonth postings) => new(postings.Count, name => postings[Fields[name]]);

    /// <summary>Accounts as rows that have nothing but an account.</summary>
    public static RowBlock BlockOf(IReadOnlyList<Account> accounts) => new(accounts.Count, name =>
        name == Account ? [.. accounts.Select(account => (long)account.Key.Value)] : new long[accounts.Count]);
}
