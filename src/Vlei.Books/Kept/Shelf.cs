using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>A folder with folders of what is kept: that of a book, or a library that serves many.</summary>
/// <param name="Word">What it is to the person: <c>book</c>, <c>library</c> or <c>user</c>.</param>
/// <param name="Folder">Where it is.</param>
public sealed record Shelf(string Word, string Folder)
{
    /// <summary>The word of a library.</summary>
    public const string OfLibrary = "library";

    /// <summary>
    /// All files of a kind, by name. Throws a <see cref="ProblemException"/> where two names differ by capitals alone: on
    /// another computer they would be one file.
    /// </summary>
    public IReadOnlyList<KeptFile> All(KeptKind kind)
    {
        var folder = Path.Combine(Folder, kind.Folder);
        if (!Directory.Exists(folder))
        {
            return [];
        }

        var files = Directory.EnumerateFiles(folder, "*" + KeptFile.Ending)
            .Select(path => new KeptFile(kind, Path.GetFileNameWithoutExtension(path), path, this))
            .OrderBy(file => file.Name, StringComparer.Ordinal).ToList();
        var clash = files.GroupBy(file => file.Name, StringComparer.OrdinalIgnoreCase).FirstOrDefault(same => same.Count() > 1)?.ToList();
        return clash is null ? files : throw new ProblemException(
            ProblemKind.BadData, $"{folder} has both {clash[0].Name} and {clash[1].Name}, which are one name.", "Rename one of the files.");
    }

    /// <summary>
    /// Where a file of that name is to be written. Throws a <see cref="ProblemException"/> where the name is no good, or where
    /// there is one that differs by capitals alone.
    /// </summary>
    public KeptFile Place(KeptKind kind, string name)
    {
        KeptFile.CheckName(kind, name);
        var known = All(kind).FirstOrDefault(file => file.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
        return known is null || known.Name == name
            ? new KeptFile(kind, name, Path.Combine(Folder, kind.Folder, name + KeptFile.Ending), this)
            : throw new ProblemException(
                ProblemKind.Usage, $"There is a {kind.Word} {known.Name} already, which differs by capitals alone.",
                $"Write {known.Name}, or take another name.");
    }
}
