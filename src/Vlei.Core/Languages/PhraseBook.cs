using System.Collections.Concurrent;
using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Core.Languages;

/// <summary>
/// Phrases and what they are in another language, from a PO file (GNU gettext). A phrase may have places: <c>{0}</c> for any
/// words, which are looked up in turn, and <c>{day0}</c> for days, months and years alone.
/// </summary>
internal sealed class PhraseBook
{
    private const string Identifier = "msgid";
    private const string Translation = "msgstr";

    private readonly Dictionary<string, string> _exact;
    private readonly ConcurrentDictionary<string, string?> _found = [];
    private readonly List<PhrasePattern> _patterns;
    private readonly Dictionary<string, string> _header = [];

    private PhraseBook(Dictionary<string, string> exact)
    {
        _exact = exact;
        foreach (var line in exact.GetValueOrDefault("", "").Split('\n').Where(line => line.Contains(':', StringComparison.Ordinal)))
        {
            var at = line.IndexOf(':', StringComparison.Ordinal);
            _header[line[..at].Trim()] = line[(at + 1)..].Trim();
        }

        _patterns = [.. exact.Select(phrase => phrase.Key.Contains('{', StringComparison.Ordinal) && phrase.Value.Length > 0
            ? new PhrasePattern(phrase.Key, phrase.Value) : null).OfType<PhrasePattern>().OrderByDescending(pattern => pattern.Letters)];
    }

    /// <summary>One without phrases.</summary>
    public static PhraseBook Empty { get; } = new([]);

    /// <summary>A line of its header; nothing where it is not there.</summary>
    public string? Header(string name) => _header.GetValueOrDefault(name);

    /// <summary>What a phrase is; nothing where it is not known.</summary>
    public string? Exact(string phrase) => _exact.TryGetValue(phrase, out var known) && known.Length > 0 && phrase.Length > 0 ? known
        : null;

    /// <summary>What a phrase is, by itself, as a day, or as a pattern; nothing where it is not known.</summary>
    public string? Find(string phrase, DateWords dates)
    {
        if (!_found.TryGetValue(phrase, out var found))
        {
            found = Exact(phrase) ?? (phrase.Any(char.IsAsciiLetter) ? dates.Say(phrase) : null);
            for (var place = 0; place < _patterns.Count && found is null; place++)
            {
                found = _patterns[place].Say(phrase, dates, inner => Find(inner, dates));
            }

            _found[phrase] = found;
        }

        return found;
    }

    /// <summary>Reads a file. Throws a <see cref="ProblemException"/> that names the line where it is not as it should be.</summary>
    public static PhraseBook Read(string text, string path)
    {
        var (phrases, identifier, current) = (new Dictionary<string, string>(), (StringBuilder?)null, (StringBuilder?)null);
        var number = 0;
        foreach (var line in text.Split('\n').Select(line => line.Trim()))
        {
            number++;
            if (line.StartsWith(Identifier, StringComparison.Ordinal))
            {
                Keep();
                identifier = current = new StringBuilder(Quoted(line[Identifier.Length..]));
            }
            else if (line.StartsWith(Translation, StringComparison.Ordinal) && identifier is not null)
            {
                current = new StringBuilder(Quoted(line[Translation.Length..]));
            }
            else if (line.StartsWith('"') && current is not null)
            {
                current.Append(Quoted(line));
            }
            else if (line.Length > 0 && !line.StartsWith('#'))
            {
                throw Wrong("it is no line of such a file.");
            }
        }

        Keep();
        return new PhraseBook(phrases);

        void Keep()
        {
            if (identifier?.ToString() is { } phrase && !AreClosed(phrase))
            {
                throw Wrong($"\"{phrase}\" has a bracket that is not closed.");
            }

            if (identifier is not null && current is not null && current != identifier
                && !phrases.TryAdd(identifier.ToString(), current.ToString()))
            {
                throw Wrong($"\"{identifier}\" is there twice.");
            }
        }

        string Quoted(string quoted) => quoted.Trim() is ['"', .. var inner, '"'] ? Unescaped(inner)
            : throw Wrong("there are no quotes around the text.");

        ProblemException Wrong(string what) => new(
            ProblemKind.BadConfiguration, $"{path}:{number}: {what}",
            "Write msgid \"English\" and below it msgstr \"…\", as PO files have it.");
    }

    private static bool AreClosed(string phrase)
    {
        var depth = 0;
        return phrase.All(letter => (depth += letter switch { '{' => 1, '}' => -1, _ => 0 }) is 0 or 1) && depth == 0;
    }

    // A stroke that stands for itself is set aside, so that it begins nothing with what follows it.
    private static string Unescaped(string text) => text.Replace("\\\\", "\0", StringComparison.Ordinal)
        .Replace("\\n", "\n", StringComparison.Ordinal).Replace("\\\"", "\"", StringComparison.Ordinal).Replace('\0', '\\');
}
