using Vlei.Core.Fields;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>Reads saved selections.</summary>
public static class SelectionFile
{
    /// <summary>The keys of such a file.</summary>
    public static IReadOnlyList<FileKey> Keys { get; } =
    [
        new("title", FileKeyKind.Text, "What it is, for lists."),
        new("question", FileKeyKind.Text, "The question that it is for, for lists."),
        new("favourite", FileKeyKind.Flag, "Whether it is listed first."),
        new("only", FileKeyKind.Texts, "What is taken alone, as --only has it: \"item=Oar*\". Different fields must all hold."),
        new("except", FileKeyKind.Texts, "What is left out, as --except has it."),
        new("where", FileKeyKind.Texts, "Predicates that must hold, as --where has them; for lists."),
    ];

    /// <summary>Reads one. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.</summary>
    public static SavedSelection Read(KeptFile file) => Read(file, file.Read());

    /// <summary>The same, with other text than the file has.</summary>
    public static SavedSelection Read(KeptFile file, string text)
    {
        var toml = TomlText.Parse(text, file.Path, ProblemKind.BadData);
        var values = toml.Head(Keys);
        var selection = new SavedSelection(
            file.Name, $"selection {file.Name} ({file.Path})", toml.Texts(values, "only"), toml.Texts(values, "except"),
            toml.Texts(values, "where"))
        {
            Question = toml.Text(values, "question") ?? toml.Text(values, "title") ?? "",
            IsFavourite = toml.Flag(values, "favourite", otherwise: false),
        };
        _ = selection.Choices.Count();
        return selection.Only.Count + selection.Except.Count + selection.Where.Count > 0 ? selection : throw new ProblemException(
            ProblemKind.BadData, $"{file.Path}: the selection takes everything.", "Add a line: only = [\"contact=C0001\"].");
    }
}
