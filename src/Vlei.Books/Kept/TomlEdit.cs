using System.Globalization;
using System.Text;
using Tomlyn.Syntax;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>
/// Changes keys of a TOML file and leaves every other letter of it as a person wrote it, comments above all.
/// </summary>
public static class TomlEdit
{
    /// <summary>The text with a key of the head, before any table, set to a value.</summary>
    /// <param name="text">The text of the file.</param>
    /// <param name="path">Its path, for messages.</param>
    /// <param name="key">The key.</param>
    /// <param name="value">The value as TOML writes it.</param>
    public static string With(string text, string path, string key, string value)
    {
        var document = TomlText.Parse(text, path, ProblemKind.BadData).Document;
        if (Find(document, key) is { } pair)
        {
            var span = pair.Value!.Span;
            return $"{text[..span.Start.Offset]}{value}{text[(span.End.Offset + 1)..]}";
        }

        var line = $"{key} = {value}\n";
        if (document.KeyValues.LastOrDefault() is { } last)
        {
            var end = EndOfLine(text, last.Span.End.Offset);
            return $"{text[..end]}{(end > 0 && text[end - 1] == '\n' ? "" : "\n")}{line}{text[end..]}";
        }

        return document.Tables.FirstOrDefault() is { } table ? $"{text[..table.Span.Start.Offset]}{line}\n{text[table.Span.Start.Offset..]}"
            : text.Length == 0 || text.EndsWith('\n') ? text + line : $"{text}\n{line}";
    }

    /// <summary>The text without a key of the head.</summary>
    public static string Without(string text, string path, string key)
    {
        if (Find(TomlText.Parse(text, path, ProblemKind.BadData).Document, key) is not { } pair)
        {
            return text;
        }

        var start = text.LastIndexOf('\n', Math.Max(0, pair.Span.Start.Offset - 1)) + 1;
        return text[..start] + text[EndOfLine(text, pair.Span.End.Offset)..];
    }

    /// <summary>A text as TOML writes it.</summary>
    public static string Quoted(string text)
    {
        var quoted = new StringBuilder("\"");
        foreach (var character in text)
        {
            quoted.Append(character switch
            {
                '"' => "\\\"",
                '\\' => "\\\\",
                '\n' => "\\n",
                < ' ' or '\u007f' => string.Create(CultureInfo.InvariantCulture, $"\\u{(int)character:X4}"),
                _ => character.ToString(),
            });
        }

        return quoted.Append('"').ToString();
    }

    /// <summary>Texts as TOML writes a list of them.</summary>
    public static string Quoted(IEnumerable<string> texts) => $"[{string.Join(", ", texts.Select(Quoted))}]";

    private static KeyValueSyntax? Find(DocumentSyntax document, string key) =>
        document.KeyValues.FirstOrDefault(pair => pair.Key!.ToString().Trim() == key);

    private static int EndOfLine(string text, int from) => text.IndexOf('\n', from) is var end and >= 0 ? end + 1 : text.Length;
}
