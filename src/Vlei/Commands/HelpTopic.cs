namespace Vlei.Commands;

/// <summary>
/// What is explained apart from commands: a line that says what it is about, then a text with paragraphs, headings that end in a
/// colon, and below them names, each with what it means behind two blanks.
/// </summary>
internal sealed class HelpTopic
{
    private const string Command = "vlei ";

    private readonly string[] _parts;

    private HelpTopic(string[] parts) => _parts = parts;

    /// <summary>The words that topics are asked for by, in the order in which a person needs them.</summary>
    public static IReadOnlyList<string> Names { get; } =
        ["periods", "selecting", "comparing", "columns", "formulas", "looks", "formats", "files", "statuses"];

    /// <summary>What it explains, in a line.</summary>
    public string Line => _parts[0];

    /// <summary>One of them, in a language that Vlei comes with.</summary>
    /// <param name="name">One of the names.</param>
    /// <param name="language">The code of the language.</param>
    public static HelpTopic Of(string name, string language)
    {
        using var stream = typeof(HelpTopic).Assembly.GetManifestResourceStream($"topics/{language}/{name}.txt")!;
        using var reader = new StreamReader(stream);
        return new HelpTopic(reader.ReadToEnd().Split("\n\n", StringSplitOptions.RemoveEmptyEntries));
    }

    /// <summary>Writes it.</summary>
    public void Write(HelpPage page)
    {
        foreach (var part in _parts.Skip(1))
        {
            var lines = part.TrimEnd('\n').Split('\n');
            if (!lines[0].EndsWith(':'))
            {
                page.Paragraph(part.TrimEnd('\n'));
            }
            else if (lines[1].TrimStart().StartsWith(Command, StringComparison.Ordinal))
            {
                page.CommandLines(lines[0], [.. lines[1..].Select(line => line.Trim())]);
            }
            else
            {
                page.Pairs(lines[0], [.. lines[1..].Select(line => line.Trim().Split("  ", 2)).Select(
                    parts => (parts[0], parts is [_, var meaning] ? meaning.Trim() : ""))]);
            }
        }
    }
}
