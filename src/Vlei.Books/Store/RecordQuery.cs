using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>Which rows of a table are asked for, and what of them.</summary>
/// <param name="Table">The table.</param>
/// <param name="Columns">
/// What is asked for: names of the table's fields, of its id, or of the columns below. A line's <c>document</c> is its key.
/// </param>
internal sealed record RecordQuery(RecordTable Table, params IReadOnlyList<string> Columns)
{
    /// <summary>The number by which a record is known; of tables other than lines.</summary>
    public const string Key = "key";

    /// <summary>The import that added the version.</summary>
    public const string Added = "added";

    /// <summary>The import that replaced it; nothing while it stands.</summary>
    public const string Replaced = "replaced";

    /// <summary>By what it is known to be the same; of tables other than lines.</summary>
    public const string Hash = "hash";

    /// <summary>The tags of a record, as <see cref="TagText"/> writes them.</summary>
    public const string Tags = "tags";

    /// <summary>Which versions are seen: those that stand, or stood.</summary>
    public Standing Standing { get; init; }

    /// <summary>Whether every version is seen that was ever there.</summary>
    public bool AllVersions { get; init; }

    /// <summary>The keys of the records that are asked for, ascending; of lines, of their documents. All where nothing is named.</summary>
    public IReadOnlyList<int>? Keys { get; init; }

    /// <summary>A field of text, or the id, that must be just that.</summary>
    public (string Column, string Value)? Where { get; init; }

    /// <summary>How many records are asked for at most.</summary>
    public int? Most { get; init; }
}
