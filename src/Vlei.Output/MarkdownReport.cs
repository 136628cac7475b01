using System.Text;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>A report as Markdown (CommonMark with the tables that most readers know).</summary>
internal static class MarkdownReport
{
    // What would be taken for markup; a dash, a dot or a number sign is so only where a line starts, and none does here.
    private const string Marks = "\\`*_[]<>|~&$";

    /// <summary>Writes the report.</summary>
    public static void Write(Report report, Stream stream)
    {
        using var text = new StreamWriter(stream, new UTF8Encoding(false), leaveOpen: true) { NewLine = "\n" };
        text.WriteLine($"# {Escaped(report.Title)}");
        text.WriteLine();
        WriteLines(text, [report.Book, report.PeriodInWords, ReportWords.InWhat(report)]);
        foreach (var words in report.Narrowed.Concat(report.Notes))
        {
            WriteLines(text, [words]);
        }

        WriteLines(text, report.AddressedTo);
        WriteTable(text, report);
        WriteLines(text, report.Foot);
        var checks = ReportWords.ShownChecks(report);
        foreach (var line in ReportWords.Held(checks).Concat(checks.Where(check => !check.Ok).Select(check => ReportWords.Failed(report, check))))
        {
            WriteLines(text, [line]);
        }
    }

    private static void WriteTable(StreamWriter text, Report report)
    {
        if (report.Rows.Count == 0)
        {
            return;
        }

        var shown = ReportWords.ShownColumns(report);
        text.WriteLine($"| |{string.Concat(shown.Select(column => $" {Escaped(report.Columns[column].Heading)} |"))}");
        text.WriteLine($"|---|{string.Concat(shown.Select(column => report.Columns[column].Kind == ColumnKind.Text ? "---|" : "---:|"))}");
        foreach (var row in report.Rows)
        {
            var bold = row.Kind is RowKind.Account or RowKind.Record or RowKind.Group ? "" : "**";
            text.Write($"| {string.Concat(Enumerable.Repeat("&emsp;", row.Level))}{Marked(Escaped(row.Label), bold)} |");
            foreach (var column in shown)
            {
                text.Write($" {Marked(Escaped(ReportWords.Figure(report, row, column, ascii: false)), bold)} |");
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
            text.WriteLine(string.Join("\\\n", lines.Select(Escaped)));
            text.WriteLine();
        }
    }

    private static string Escaped(string text) => string.Concat(DisplayText.Harmless(text, ascii: false).Trim().Select(letter =>
        Marks.Contains(letter) ? $"\\{letter}" : $"{letter}"));
}
