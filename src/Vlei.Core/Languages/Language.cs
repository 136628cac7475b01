using Vlei.Core.Problems;

namespace Vlei.Core.Languages;

/// <summary>
/// A language that reports can be in: its phrases for those of the program, which are English, and how it writes numbers and
/// days. Each is one file of the kind that translators' programs know (PO, GNU gettext), whose header says the latter.
/// </summary>
public sealed class Language
{
    private const string Folder = "languages/";
    private const string Ending = ".po";

    private readonly PhraseBook _phrases;

    private Language(string code, PhraseBook phrases, DateWords dates)
    {
        (Code, _phrases, Dates) = (code, phrases, dates);
        Thousands = phrases.Header("X-Thousands") is { Length: > 0 } mark ? mark == "space" ? "\u00a0" : mark : ",";
        DecimalMark = phrases.Header("X-Decimal-Mark") is { Length: > 0 } point ? point : ".";
        DatePattern = phrases.Header("X-Date");
    }

    /// <summary>The language that the program speaks by itself.</summary>
    public static Language English { get; } = new("en", PhraseBook.Empty, DateWords.English);

    /// <summary>The codes of the languages that are part of the program.</summary>
    public static IReadOnlyList<string> Standard =>
    [
        English.Code, .. typeof(Language).Assembly.GetManifestResourceNames()
            .Where(name => name.StartsWith(Folder, StringComparison.Ordinal))
            .Select(name => name[Folder.Length..^Ending.Length]).Order(StringComparer.Ordinal),
    ];

    /// <summary>Its code, of ISO 639-1.</summary>
    public string Code { get; }

    /// <summary>What stands between thousands.</summary>
    public string Thousands { get; }

    /// <summary>What stands before decimals.</summary>
    public string DecimalMark { get; }

    /// <summary>How it writes a day in numbers; nothing for ISO 8601.</summary>
    public string? DatePattern { get; }

    /// <summary>How it writes days in words.</summary>
    public DateWords Dates { get; }

    /// <summary>The standard language of that code; nothing where there is none.</summary>
    public static Language? Find(string code)
    {
        if (code == English.Code)
        {
            return English;
        }

        using var stream = typeof(Language).Assembly.GetManifestResourceStream($"{Folder}{code}{Ending}");
        if (stream is null)
        {
            return null;
        }

        using var reader = new StreamReader(stream);
        return Read(code, reader.ReadToEnd(), $"{code}{Ending}");
    }

    /// <summary>
    /// Reads a file of phrases. Throws a <see cref="ProblemException"/> that names the line where it is not as it should be.
    /// </summary>
    public static Language Read(string code, string text, string path)
    {
        var phrases = PhraseBook.Read(text, path);
        return new Language(code, phrases, DateWords.Read(phrases.Header, path));
    }

    /// <summary>A phrase of the program in this language; what it does not know stays as it is.</summary>
    public string Say(string english) => this == English || english.Length == 0 ? english : _phrases.Find(english, Dates) ?? english;

    /// <summary>A phrase with what belongs into its places <c>{0}</c>, <c>{1}</c> …</summary>
    public string Say(string english, params ReadOnlySpan<string> values)
    {
        var phrase = _phrases.Exact(english) ?? english;
        for (var place = 0; place < values.Length; place++)
        {
            phrase = phrase.Replace($"{{{place}}}", values[place], StringComparison.Ordinal);
        }

        return phrase;
    }

    /// <summary>Whether a phrase is known, by itself or as a pattern.</summary>
    public bool Knows(string english) => this == English || _phrases.Find(english, Dates) is not null;
}
