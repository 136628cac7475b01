using Tomlyn.Syntax;
using Vlei.Books.Kept;
using Vlei.Core.Languages;
using Vlei.Core.Problems;
using Vlei.Records.Maps;

namespace Vlei.Desk.Maps;

/// <summary>
/// What files of other programs call things: the lists that ship, one per language, and those in the folders <c>words</c> of a book, its
/// library and the person, which count first.
/// </summary>
public static class WordLists
{
    private const string Folder = "words/";

    /// <summary>All of them. Throws a <see cref="ProblemException"/> where one is not as it should be.</summary>
    public static MapWords Of(Library library)
    {
        var words = new MapWords();
        foreach (var file in library.Shelves.SelectMany(shelf => shelf.All(KeptKind.Words)))
        {
            Add(words, file.Read(), file.Path);
        }

        foreach (var name in typeof(WordLists).Assembly.GetManifestResourceNames().Where(name =>
            name.StartsWith(Folder, StringComparison.Ordinal)).OrderBy(name => !name.EndsWith("en.toml", StringComparison.Ordinal)))
        {
            using var standard = new StreamReader(typeof(WordLists).Assembly.GetManifestResourceStream(name)!);
            Add(words, standard.ReadToEnd(), name);
        }

        foreach (var code in Language.Standard.Append("en").Distinct())
        {
            var dates = Language.Find(code)!.Dates;
            words.AddMonths(dates.Months);
            words.AddMonths([.. dates.ShortMonths.Select(month => month.TrimEnd('.'))]);
        }

        return words;
    }

    private static void Add(MapWords words, string text, string path)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadData);
        _ = toml.Known(toml.Document.KeyValues, []);
        foreach (var table in toml.Document.Tables)
        {
            var name = table.Name!.ToString().Trim();
            var known = MapWords.Sections.FirstOrDefault(section => section.Section == name);
            if (known.Keys is null)
            {
                throw toml.Wrong(
                    table.Span, $"there is no table {name}.",
                    Suggestion.DidYouMean(name, MapWords.Sections.Select(section => section.Section))
                    ?? $"Expected {Suggestion.Listed([.. MapWords.Sections.Select(section => section.Section)], "or")}.");
            }

            var values = toml.Known(table.Items.OfType<KeyValueSyntax>(), known.Keys);
            foreach (var key in values.Keys)
            {
                words.Add(name, key, toml.Texts(values, key));
            }
        }
    }
}
