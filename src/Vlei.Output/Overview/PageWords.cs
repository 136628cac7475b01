using System.Globalization;
using Vlei.Core.Languages;
using Vlei.Core.Money;
using Vlei.Core.Pages;

namespace Vlei.Output.Overview;

/// <summary>A figure of a panel as people read it.</summary>
/// <param name="Label">What stands before it.</param>
/// <param name="Figure">The figure.</param>
/// <param name="IsBelow">Whether it is below nothing.</param>
/// <param name="Line">The line as it is reckoned.</param>
internal sealed record PanelFigure(string Label, string Figure, bool IsBelow, PanelLine Line)
{
    /// <summary>How it moved: against what, and in which words. Whether more is better depends on what it is.</summary>
    public IReadOnlyList<(string Against, string Words)> Changes { get; init; } = [];
}

/// <summary>A panel as people read it.</summary>
/// <param name="Panel">The panel.</param>
/// <param name="Title">Its title.</param>
/// <param name="When">The days that it is of; empty where it is of none.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="Said">What it says in words; each with the command that leads on, or nothing.</param>
internal sealed record PanelWords(
    Panel Panel, string Title, string When, IReadOnlyList<PanelFigure> Figures, IReadOnlyList<(string Text, string Command)> Said);

/// <summary>A page as people read it, in its language: every format for people says the same.</summary>
internal sealed class PageWords
{
    /// <summary>Reads a page.</summary>
    public PageWords(Page page)
    {
        Page = page;
        Language = page.Look.Language ?? Language.English;
        var numbers = new NumberLook(page.Look, Language);
        Title = Language.Say(page.Title);
        Day = numbers.WithDays(Language.Say($"As of {Core.Calendar.PeriodText.Words(page.Day)}"));
        Panels = [.. page.Panels.Select(Read)];
    }

    /// <summary>The page.</summary>
    public Page Page { get; }

    /// <summary>Its language.</summary>
    public Language Language { get; }

    /// <summary>Its title.</summary>
    public string Title { get; }

    /// <summary>The day on which it says how things stand.</summary>
    public string Day { get; }

    /// <summary>Its panels.</summary>
    public IReadOnlyList<PanelWords> Panels { get; }

    private PanelWords Read(Panel panel)
    {
        var title = Language.Say(panel.Title);
        if (panel.Report is not { } report || panel.Plan is not { } plan)
        {
            return new PanelWords(
                panel, title, "", [],
                [.. panel.Problem is { } problem ? [(problem, "")] : panel.Words.Select(said => (Language.Say(said.Text), said.Command))]);
        }

        var words = new ReportWords(report with { Look = report.Look with { Chart = null } });
        var figures = PanelLines.Of(words.Report, plan).Select(line => FigureOf(words, line)).ToList();
        var said = figures.Count == 0 ? words.Report.Notes.Take(1).DefaultIfEmpty(Language.Say("Nothing fits what is asked.")) : [];
        return new PanelWords(panel, title, words.Report.PeriodInWords, figures, [.. said.Select(text => (text, ""))]);
    }

    private static PanelFigure FigureOf(ReportWords words, PanelLine line)
    {
        var row = words.Report.Rows[line.Row];
        var isChange = words.Report.Columns[line.Column].IsChange;
        return new PanelFigure(
            line.Label, isChange ? words.Figure(row, line.Column, ascii: false) : words.Readable(row, line.Column),
            row.Cells[line.Column].Units < 0, line)
        {
            Changes = [.. line.Changes.Select(change => (change.Against, ChangeInWords(words, change)))],
        };
    }

    // Small changes to a tenth of a percent; what grew many times over needs no tenths.
    private static string ChangeInWords(ReportWords words, PanelChange change)
    {
        const long TenThousandths = 10_000, Large = 100 * TenThousandths;
        var mark = "▼=▲"[change.Sign + 1];
        return change.Percent is not { } percent ? $"{mark}"
            : Math.Abs(percent) >= Large
                ? $"{mark} {Rounding.Divide(Math.Abs(percent), TenThousandths).ToString(CultureInfo.InvariantCulture)} %"
                : $"{mark} {Tenths(words, Math.Abs(percent))} %";
    }

    private static string Tenths(ReportWords words, long percent) => string.Concat(
        DecimalText.Write(Rounding.Divide(percent, 1000), 1).Replace(".", words.DecimalMark, StringComparison.Ordinal));
}
