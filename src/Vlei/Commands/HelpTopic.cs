namespace Vlei.Commands;

/// <summary>
/// What is explained apart from commands: a text with paragraphs, headings that end in a colon, and below them names, each with
/// what it means behind two blanks.
/// </summary>
/// <param name="Name">The word that it is asked for by.</param>
/// <param name="Line">What it explains, in a line.</param>
internal sealed record HelpTopic(string Name, string Line)
{
    private const string Command = "vlei ";

    /// <summary>All topics, in the order in which a person needs them.</summary>
    public static IReadOnlyList<HelpTopic> All { get; } =
    [
        new("periods", "How days and periods are written"),
        new("selecting", "Which records: lists, ranges, patterns, conditions"),
        new("comparing", "Earlier periods, budgets, shares"),
        new("columns", "Which columns, groups and totals"),
        new("formulas", "Columns that are reckoned"),
        new("looks", "Numbers, pages, charts, terminals"),
        new("formats", "What a report can be written as"),
        new("files", "What is in a book, and where"),
        new("statuses", "Exit statuses; what deliveries and findings are"),
    ];

    /// <summary>Writes it.</summary>
    public void Write(HelpPage page)
    {
        using var stream = typeof(HelpTopic).Assembly.GetManifestResourceStream($"topics/{Name}.txt")!;
        using var reader = new StreamReader(stream);
        foreach (var part in reader.ReadToEnd().Split("\n\n", StringSplitOptions.RemoveEmptyEntries))
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
