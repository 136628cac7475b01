using System.Collections.Concurrent;
using Tomlyn.Syntax;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>Finds and reads layout files: those of a book, and the standard ones, which are such files too.</summary>
public static class LayoutFile
{
    private const string Folder = "layouts/";

    // Read once: a group of reports is made for hundreds of books.
    private static readonly ConcurrentDictionary<string, LayoutText> Standard = new(StringComparer.Ordinal);

    private static readonly string[] Keys = ["statement", "title"];

    private static readonly string[] RowKeys =
    [
        "key", "label", "under", "accounts", "except", "rest", "each", "heading", "sign", "computed", "formula", "show",
        "only-with", "whole-only", "tax-codes", "side", "part",
    ];

    private static readonly string[] Signs = ["debit", "credit"];

    private static readonly string[] TaxSides = ["sales", "purchases"];

    private static readonly string[] TaxParts = ["base", "tax"];

    private static readonly string[] Shows = ["money", "percent", "ratio"];

    /// <summary>
    /// The layout of that name: of the book's folder <c>layouts</c>, else a standard one; or the file of that path, where
    /// it ends in <c>.toml</c>. Throws a <see cref="ProblemException"/> where there is none, or where it is not as it
    /// should be.
    /// </summary>
    /// <param name="name">The name, or the path of a file.</param>
    /// <param name="library">Where layouts are kept.</param>
    public static LayoutText Find(string name, Library library)
    {
        var isPath = name.EndsWith(KeptFile.Ending, StringComparison.Ordinal);
        var path = isPath ? name : library.Find(KeptKind.Layout, name)?.Path;
        if (path is not null && File.Exists(path))
        {
            return Read(KeptFile.Read(path), path);
        }

        if (Standard.TryGetValue(name, out var known))
        {
            return known;
        }

        if (StandardText(name) is not { } standard)
        {
            throw new ProblemException(
                ProblemKind.NotFound, isPath ? $"There is no file {name}." : $"There is no layout {name}.",
                Suggestion.DidYouMean(name, library.All(KeptKind.Layout).Select(file => file.Name))
                    ?? "Write it to layouts/NAME.toml in the book's folder; vlei layout writes the standard ones to start from.");
        }

        return Standard[name] = Read(standard, name + KeptFile.Ending);
    }

    /// <summary>The names of the standard layouts.</summary>
    public static IReadOnlyList<string> StandardNames => StandardFiles.NamesIn(Folder);

    /// <summary>The text of a standard layout, to start one's own from; nothing where there is none of that name.</summary>
    public static string? StandardText(string name) => StandardFiles.TextOf(Folder, name);

    private static LayoutText Read(string text, string path)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadData);
        var head = toml.Known(toml.Document.KeyValues, Keys);
        var rows = new List<LayoutRowText>();
        foreach (var table in toml.Document.Tables)
        {
            if (table is not TableArraySyntax || table.Name?.ToString().Trim() != "row")
            {
                throw toml.Wrong(table.Span, $"there is no table {table.Name}.", "Write a row as [[row]].");
            }

            rows.Add(RowOf(toml, table));
        }

        return new LayoutText(path, toml.Text(head, "statement") ?? throw toml.Missing("statement"), toml.Text(head, "title"), rows);
    }

    private static LayoutRowText RowOf(TomlText toml, TableSyntaxBase table)
    {
        var values = toml.Known(table.Items, RowKeys);
        var isOfTax = values.ContainsKey("tax-codes") || values.ContainsKey("side") || values.ContainsKey("part");
        var key = toml.Text(values, "key") ?? throw toml.Wrong(table.Span, "the row has no key.", "Add a line: key = \"…\".");
        return new LayoutRowText
        {
            Place = toml.PlaceOf(table.Span),
            Key = char.IsAsciiLetter(key[0]) && key.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.') ? key
                : throw toml.Wrong(
                    values["key"].Span, $"\"{key}\" is no key.", "Start with a letter; letters, digits, - _ and . may follow."),
            Label = toml.Text(values, "label") ?? throw toml.Wrong(table.Span, $"row {key} has no label.", "Add a line: label = \"…\"."),
            Under = toml.Text(values, "under"),
            Accounts = toml.Texts(values, "accounts"),
            Except = toml.Texts(values, "except"),
            IsRest = toml.Flag(values, "rest", otherwise: false),
            TaxCodes = toml.Texts(values, "tax-codes"),
            Side = OneOf(toml, values, "side", TaxSides),
            Part = OneOf(toml, values, "part", TaxParts),
            IsEach = toml.Flag(values, "each", otherwise: !isOfTax),
            HasHeading = toml.Flag(values, "heading", otherwise: !isOfTax),
            Sign = OneOf(toml, values, "sign", Signs),
            Computed = toml.Text(values, "computed"),
            Formula = toml.Text(values, "formula"),
            Show = OneOf(toml, values, "show", Shows) ?? Shows[0],
            OnlyWith = toml.Texts(values, "only-with"),
            IsOfWhole = toml.Flag(values, "whole-only", otherwise: false),
        };
    }

    private static string? OneOf(TomlText toml, Dictionary<string, KeyValueSyntax> values, string key, string[] words) =>
        toml.Text(values, key) is not { } word || words.Contains(word) ? toml.Text(values, key)
        : throw toml.Wrong(
            values[key].Span, $"{key} is not \"{word}\".",
            Suggestion.DidYouMean(word, words) ?? $"It is {Suggestion.Listed(words, "or")}.");
}
