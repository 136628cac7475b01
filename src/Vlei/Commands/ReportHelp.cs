using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary>
/// All about one report: the question that it answers, where it is kept, what it looks like on this book, what it takes and shows.
/// </summary>
/// <param name="report">The report.</param>
/// <param name="reports">All reports, and the book that they are of.</param>
internal sealed class ReportHelp(ReportDefinition report, ReportsOverview reports)
{
    private const int FirstLines = 14;

    /// <summary>Tells of the report, or of the page of panels, of a name; says whether there is one.</summary>
    /// <param name="reports">All reports.</param>
    /// <param name="name">The name.</param>
    /// <param name="page">Where it is told.</param>
    public static bool Tell(ReportsOverview reports, string name, HelpPage page)
    {
        if (reports.All.FirstOrDefault(report => report.Key == name) is { } report)
        {
            new ReportHelp(report, reports).Write(page);
            return true;
        }

        if (reports.Pages.FirstOrDefault(panels => panels.Name == name) is not { } found)
        {
            return false;
        }

        PageHelp.Write(found, page);
        return true;
    }

    private void Write(HelpPage page)
    {
        page.Paragraph($"{report.Title}: {report.Question}");
        page.Paragraph($"Usage: vlei show {report.Key} [OPTION]…{Standing()}");
        var built = Built();
        if (built.Report is { } example)
        {
            FirstLinesOf(page, example);
        }
        else if (built.Why is { } why)
        {
            page.Paragraph(why);
        }

        CommandHelp.Options(page, [.. ReportOptions.All.Where(option => report.Takes(option.Name)
            && option.Question != ReportQuestion.Look)], DefaultOf);
        page.Paragraph("How it looks, and where it goes: vlei help looks, vlei help formats.");
        if (built.Report is { Columns.Count: > 0 } shown)
        {
            page.Pairs("Columns:", [.. shown.Columns.Select(column => (column.Key, column.Heading))]);
            if (report.Table is { } table)
            {
                page.Paragraph($"vlei fields {table.Name} lists what else it can show.");
            }
        }

        page.Examples([.. report.Examples.Select(example => ($"vlei show {report.Key} {example.Options}", example.Meaning))]);
    }

    // What stands where nothing else is typed.
    private string? DefaultOf(ReportOption option) =>
        report.Defaults.GetValueOrDefault(option.Name) is { Count: > 0 } own ? string.Join("; ", own)
        : option == ReportOptions.Basis && reports.Desk is { } desk ? ReportOptions.Basis.WordOf(desk.Settings.Basis)
        : null;

    private string Standing()
    {
        var lines = new StringBuilder();
        if (reports.KeptAs(report) is { } kept)
        {
            lines.Append($"\nKept in {reports.PlaceOf(report)}, from {kept.From}");
            lines.Append(reports.FixedDateOf(kept) is { } date ? $"; always {date}." : ".");
        }

        if (reports.GroupsWith(report).ToList() is { Count: > 0 } groups)
        {
            lines.Append($"\nIn {Suggestion.Listed(groups, "and")}.");
        }

        if (reports.LastOf(report) is { } last)
        {
            lines.Append($"\nLast {(last.Group is null ? "shown" : $"run in {last.Group}")} {PeriodText.Iso(last.Day)}.");
        }

        return lines.ToString();
    }

    private static void FirstLinesOf(HelpPage page, Report example)
    {
        using var text = new MemoryStream();
        ReportFormat.All[0].Write(
            example with { Checks = [] }, text,
            Terminal.Look() with { Width = page.Width, Colour = false });
        var lines = Encoding.UTF8.GetString(text.GetBuffer(), 0, (int)text.Length).Split('\n').Take(FirstLines)
            .Reverse().SkipWhile(line => line.Length == 0).Reverse();
        page.Verbatim(string.Concat(lines.Append("…").Select(line => $"  {line}".TrimEnd() + "\n")));
    }

    // What cannot be shown is said in the words of what stands in its way.
    private (Report? Report, string? Why) Built()
    {
        if (reports.Desk is not { } desk)
        {
            return (null, null);
        }

        try
        {
            using var open = desk.Open(new ReportOrder(report.Key, new Dictionary<string, IReadOnlyList<string>>()));
            var built = open.Build();
            return (built with { Rows = [.. built.Rows.Take(FirstLines)] }, null);
        }
        catch (ProblemException problem)
        {
            return (null, $"{problem.Message} {problem.Advice}");
        }
    }
}
