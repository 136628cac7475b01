using System.Globalization;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>The text of a kept report's file, as it is written and changed.</summary>
public static class ReportText
{
    /// <summary>A new file.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="from">What it is made from.</param>
    public static string New(string name, string from) => $"""
        # vlei show {name}
        # Keys are options of vlei show, and what the report is; vlei schema report says what each of them means.

        from = {TomlEdit.Quoted(from)}

        """;

    /// <summary>The text with what the report is: its title, question, subject and the like.</summary>
    /// <param name="text">The text.</param>
    /// <param name="path">The file, for messages.</param>
    /// <param name="key">One of <see cref="ReportFile.Own"/>.</param>
    /// <param name="values">Its values; a switch has <c>true</c>.</param>
    public static string With(string text, string path, FileKey key, IReadOnlyList<string> values) =>
        TomlEdit.With(text, path, key.Name, ValueOf(key, values));

    /// <summary>The value of a key as TOML writes it.</summary>
    internal static string ValueOf(FileKey key, IReadOnlyList<string> values) => key.Kind switch
    {
        FileKeyKind.Flag => values[^1],
        FileKeyKind.Number when int.TryParse(values[^1], NumberStyles.None, CultureInfo.InvariantCulture, out var number) =>
            number.ToString(CultureInfo.InvariantCulture),
        FileKeyKind.Texts when values.Count != 1 => TomlEdit.Quoted(values),
        _ => TomlEdit.Quoted(values[^1]),
    };

    /// <summary>The text without a key.</summary>
    public static string Without(string text, string path, string key) => TomlEdit.Without(text, path, key);

    /// <summary>The text of a copy under another name, which is no favourite yet.</summary>
    public static string Copied(string text, string path, string name, string copy) =>
        Renamed(TomlEdit.Without(text, path, "favourite"), name, copy);

    /// <summary>The text under another name.</summary>
    public static string Renamed(string text, string name, string other) =>
        text.StartsWith($"# vlei show {name}\n", StringComparison.Ordinal) ? $"# vlei show {other}\n{text[(text.IndexOf('\n') + 1)..]}"
            : text;

    /// <summary>The text with other options: those that are not as they were are set, those that are gone are taken out.</summary>
    /// <param name="text">The text.</param>
    /// <param name="path">The file, for messages.</param>
    /// <param name="own">The options that it has.</param>
    /// <param name="wanted">Those that it is to have.</param>
    public static string WithOptions(
        string text, string path, IReadOnlyDictionary<string, IReadOnlyList<string>> own,
        IReadOnlyDictionary<string, IReadOnlyList<string>> wanted)
    {
        foreach (var gone in own.Keys.Where(name => wanted.GetValueOrDefault(name, []).Count == 0))
        {
            text = TomlEdit.Without(text, path, gone);
        }

        foreach (var option in ReportOptions.All.Where(option => wanted.GetValueOrDefault(option.Name, []).Count > 0))
        {
            // A file is seen from where its name is kept, which is elsewhere where it is copied to.
            if (LookFiles.IsOfFile(option.Name) || !own.TryGetValue(option.Name, out var was) || !was.SequenceEqual(wanted[option.Name]))
            {
                text = With(text, path, ReportFile.Keys.First(key => key.Name == option.Name), wanted[option.Name]);
            }
        }

        return text;
    }
}
