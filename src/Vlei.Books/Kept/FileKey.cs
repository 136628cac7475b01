namespace Vlei.Books.Kept;

/// <summary>What a key of a kept file holds.</summary>
public enum FileKeyKind
{
    /// <summary>A text.</summary>
    Text,

    /// <summary>A text, or a list of texts.</summary>
    Texts,

    /// <summary>Yes or no.</summary>
    Flag,

    /// <summary>A whole number, or a text.</summary>
    Number,
}

/// <summary>A key that a kept file may have: the readers, the schemas and the guide have them from one list.</summary>
/// <param name="Name">The key.</param>
/// <param name="Kind">What it holds.</param>
/// <param name="Meaning">What it means, in a sentence.</param>
public sealed record FileKey(string Name, FileKeyKind Kind, string Meaning)
{
    /// <summary>The only words that it takes; none where it takes others.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>Whether it must be there.</summary>
    public bool IsRequired { get; init; }
}
