using System.Text;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>A report as Markdown (CommonMark with the tables that most readers know).</summary>
internal static class MarkdownReport
{
    // What would be taken for markup wherever it stands.
    private const string Marks = "\\`*_[]<>|~&$#";

    // What is so where a line begins with it only: lists, rules, and headings by the line below.
    private const string MarksOfLines = "+-=";

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream)
    {
        var report = words.Report;
        using var text = new StreamWriter(stream, new UTF8Encoding(false), leaveOpen: true) { NewLine = "\n" };
        text.WriteLine($"# {Escaped(report.Title)}");
        text.WriteLine();
        var head = words.Head.SkipLast(report.Narrowed.Count + report.Notes.Count).ToList();
        WriteLines(text, head);
        foreach (var line in words.Head.Skip(head.Count))
        {
            WriteLines(text, [line]);
        }

        WriteLines(text, report.AddressedTo);
        WriteTable(text, words);
        WriteLines(text, report.Foot);
        foreach (var (line, _) in words.Foot.Skip(report.Foot.Count))
        {
            WriteLines(text, [line]);
        }
    }

    private static void WriteTable(StreamWriter text, ReportWords words)
    {
        var report = words.Report;
        if (report.Rows.Count == 0)
        {
            return;
        }

        var shown = words.ShownColumns();
        text.WriteLine($"| |{string.Concat(shown.Select(column => $" {Escaped(report.Columns[column].Heading)} |"))}");
        text.WriteLine("|---|" + string.Concat(shown.Select(column => words.AlignOf(column) switch
        {
            ColumnAlign.Left => "---|",
            ColumnAlign.Right => "---:|",
            _ => ":---:|",
        })));
        foreach (var row in report.Rows)
        {
            var bold = RowLook.Of(row).IsStrong ? "**" : "";
            text.Write($"| {string.Concat(Enumerable.Repeat("&emsp;", row.Level))}{Marked(Escaped(row.Label), bold)} |");
            foreach (var column in shown)
            {
                text.Write($" {Marked(Escaped(words.Figure(row, column, ascii: false)), bold)} |");
            }

            text.WriteLine();
        }

        text.WriteLine();
    }

    private static string Marked(string text, string bold) => text.Length == 0 ? "" : $"{bold}{text}{bold}";

    // A paragraph, whose lines stay lines.
    private static void WriteLines(StreamWriter text, IReadOnlyList<string> lines)
    {
        if (lines.Count > 0)
        {
            text.WriteLine(string.Join("\\\n", lines.Select(LineOf)));
            text.WriteLine();
        }
    }

    // A line that begins as a list, numbered or not, or as the rule below a heading would be one.
    private static string LineOf(string line)
    {
        var text = Escaped(line);
        var mark = text.AsSpan().IndexOfAnyExceptInRange('0', '9');
        return mark switch
        {
            0 when MarksOfLines.Contains(text[0]) => $"\\{text}",
            > 0 when text.AsSpan(mark) is "." or ")" or ['.' or ')', ' ', ..] => text.Insert(mark, "\\"),
            _ => text,
        };
    }

    private static string Escaped(string text) => string.Concat(DisplayText.Harmless(text, ascii: false).Trim().Select(letter =>
        Marks.Contains(letter) ? $"\\{letter}" : $"{letter}"));
}
