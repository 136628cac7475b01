namespace Vlei.Books.Kept;

/// <summary>What a person keeps under a name, as a text file.</summary>
/// <param name="Word">What one is called.</param>
/// <param name="Folder">The folder of such files.</param>
public sealed record KeptKind(string Word, string Folder)
{
    /// <summary>Reports: a standard one, or a table, with options of its own.</summary>
    public static KeptKind Report { get; } = new("report", "reports");

    /// <summary>Selections: what is taken and what is left out.</summary>
    public static KeptKind Selection { get; } = new("selection", "selections");

    /// <summary>Groups: reports that are produced together.</summary>
    public static KeptKind Group { get; } = new("group", "groups");

    /// <summary>Layouts of statements.</summary>
    public static KeptKind Layout { get; } = new("layout", "layouts");

    /// <summary>Pages of panels.</summary>
    public static KeptKind Page { get; } = new("page", "pages");

    /// <summary>Maps of other programs' files.</summary>
    public static KeptKind Map { get; } = new("map", "maps");

    /// <summary>Lists of words that such files have.</summary>
    public static KeptKind Words { get; } = new("list of words", "words");

    /// <summary>All kinds.</summary>
    public static IReadOnlyList<KeptKind> All { get; } = [Report, Selection, Group, Layout, Page, Map, Words];
}
