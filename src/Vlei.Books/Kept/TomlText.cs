using Tomlyn;
using Tomlyn.Parsing;
using Tomlyn.Syntax;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>
/// A TOML file as its tree, so that whatever is wrong with it is told with its place. What a file may say is a matter of
/// its reader; what it may not say is refused here.
/// </summary>
public sealed class TomlText
{
    private const int LongestKey = 60;

    private readonly string _path;
    private readonly ProblemKind _kind;

    private TomlText(string path, ProblemKind kind, DocumentSyntax document) => (_path, _kind, Document) = (path, kind, document);

    /// <summary>The tree.</summary>
    public DocumentSyntax Document { get; }

    /// <summary>Reads TOML. Throws a <see cref="ProblemException"/> of that kind where it is none.</summary>
    public static TomlText Parse(string text, string path, ProblemKind kind)
    {
        var document = ParseWithin(text, path, kind);
        var toml = new TomlText(path, kind, document);
        return document.HasErrors
            ? throw toml.Wrong(
                document.Diagnostics.First().Span, document.Diagnostics.First().Message,
                "Write it as TOML has it: key = \"value\".")
            : toml;
    }

    // Everything else that is wrong is told by the tree; into brackets the parser does not go without end.
    private static DocumentSyntax ParseWithin(string text, string path, ProblemKind kind)
    {
        try
        {
            return SyntaxParser.Parse(text, path);
        }
        catch (TomlException tooDeep)
        {
            throw new ProblemException(
                kind, $"{path}:{DeepestLine(text)}: there are too many brackets within each other.",
                "Nothing here needs more than two.", tooDeep);
        }
    }

    private static int DeepestLine(string text)
    {
        var (depth, line, deepest, at) = (0, 1, 0, 1);
        foreach (var letter in text)
        {
            depth += letter is '[' or '{' ? 1 : letter is ']' or '}' && depth > 0 ? -1 : 0;
            line += letter == '\n' ? 1 : 0;
            (deepest, at) = depth > deepest ? (depth, line) : (deepest, at);
        }

        return at;
    }

    /// <summary>The values by their keys. Throws where a key is not among the known ones, or is there twice.</summary>
    public Dictionary<string, KeyValueSyntax> Known(IEnumerable<KeyValueSyntax> pairs, IReadOnlyList<string> keys)
    {
        var values = new Dictionary<string, KeyValueSyntax>(StringComparer.Ordinal);
        foreach (var pair in pairs)
        {
            var key = pair.Key!.ToString().Trim();
            if (!keys.Contains(key))
            {
                throw Wrong(
                    pair.Span, $"there is no key {(key.Length > LongestKey ? $"{key[..LongestKey]}…" : key)}.",
                    Suggestion.DidYouMean(key, keys) ?? $"Expected {Suggestion.Listed(keys, "and")}.");
            }

            if (!values.TryAdd(key, pair))
            {
                throw Wrong(pair.Span, $"the key {key} is there twice.", "Take one of them out.");
            }
        }

        return values;
    }

    /// <summary>
    /// The values of the keys before any table. Throws where there is another key, or a table that such a file does not have.
    /// </summary>
    public Dictionary<string, KeyValueSyntax> Head(
        IReadOnlyList<FileKey> keys, Func<TableSyntaxBase, bool>? isKnown = null) => Document.Tables
            .FirstOrDefault(table => isKnown?.Invoke(table) != true) is { } table
        ? throw Wrong(
            table.Span, $"there is no table {table.Name}.", "Write every key as a line of its own, without brackets around a name.")
        : Known(Document.KeyValues, [.. keys.Select(key => key.Name)]);

    /// <summary>A text; nothing where the key is not there.</summary>
    public string? Text(Dictionary<string, KeyValueSyntax> values, string key) =>
        !values.TryGetValue(key, out var pair) ? null
        : pair.Value is StringValueSyntax { Value: { Length: > 0 } text } ? text
        : throw Wrong(pair.Value!.Span, $"{key} is no text.", $"Write it in quotes: {key} = \"…\".");

    /// <summary>Some texts; none where the key is not there.</summary>
    public IReadOnlyList<string> Texts(Dictionary<string, KeyValueSyntax> values, string key)
    {
        if (!values.TryGetValue(key, out var pair))
        {
            return [];
        }

        return pair.Value is StringValueSyntax { Value: { } alone } ? [alone] : pair.Value is ArraySyntax array
            && array.Items.All(item => item.Value is StringValueSyntax)
            ? [.. array.Items.Select(item => ((StringValueSyntax)item.Value!).Value!)]
            : throw Wrong(pair.Value!.Span, $"{key} is no list of texts.", $"Write {key} = [\"…\", \"…\"].");
    }

    /// <summary>Yes or no.</summary>
    public bool Flag(Dictionary<string, KeyValueSyntax> values, string key, bool otherwise) =>
        !values.TryGetValue(key, out var pair) ? otherwise
        : pair.Value is BooleanValueSyntax flag ? flag.Value
        : throw Wrong(pair.Value!.Span, $"{key} is neither true nor false.", $"Write {key} = true, or {key} = false.");

    /// <summary>What is wrong at a place of the file.</summary>
    public ProblemException Wrong(SourceSpan at, string message, string? advice) => new(_kind, $"{PlaceOf(at)}: {message}", advice);

    /// <summary>A key that must be there and is not.</summary>
    public ProblemException Missing(string key) => new(_kind, $"{_path}: the key {key} is missing.", $"Add a line: {key} = \"…\".");

    /// <summary>A place of the file in words.</summary>
    public string PlaceOf(SourceSpan at) => $"{_path}:{at.Start.Line + 1}:{at.Start.Column + 1}";
}
