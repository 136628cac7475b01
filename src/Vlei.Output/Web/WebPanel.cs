using System.Globalization;
using Vlei.Output.Overview;

namespace Vlei.Output.Web;

/// <summary>A panel on a web page: its figures as a small table, its bars and lines as drawings (SVG).</summary>
internal static class WebPanel
{
    private const int LineWidth = 120, LineHeight = 26;

    /// <summary>Writes a panel.</summary>
    /// <param name="text">Where to.</param>
    /// <param name="panel">The panel.</param>
    /// <param name="report">The id of its report on the page; nothing where that is not there.</param>
    public static void Write(TextWriter text, PanelWords panel, string? report)
    {
        var title = PageText.Of(panel.Title);
        text.WriteLine(report is null ? $"<section><h2>{title}</h2>" : $"<section><h2><a href=\"#{report}\">{title}</a></h2>");
        text.WriteLine(panel.When.Length > 0 ? $"<p class=\"when\">{PageText.Of(panel.When)}</p>" : "");
        if (panel.Figures.Count > 0)
        {
            WriteFigures(text, panel);
        }

        foreach (var (said, command) in panel.Said)
        {
            text.WriteLine($"<p>{PageText.Of(said)}{(command.Length > 0 ? $"<br><code>{PageText.Of(command)}</code>" : "")}</p>");
        }

        text.WriteLine(panel.Panel.Command.Length > 0 ? $"<p class=\"command\"><code>{PageText.Of(panel.Panel.Command)}</code></p>" : "");
        text.WriteLine("</section>");
    }

    private static void WriteFigures(TextWriter text, PanelWords panel)
    {
        text.Write("<table>");
        if (panel.Figures[0].Changes is { Count: > 0 } against)
        {
            var headings = against.Select(change => $"<th class=\"n\">{PageText.Of(change.Against)}</th>");
            text.WriteLine($"<thead><tr><td></td><td></td>{string.Concat(headings)}</tr></thead>");
        }

        text.WriteLine("<tbody>");
        foreach (var line in panel.Figures)
        {
            var sign = line.IsBelow ? "n below" : "n";
            text.Write($"<tr><th>{PageText.Of(line.Label)}</th><td class=\"{sign}\">{PageText.Of(line.Figure)}</td>");
            foreach (var change in line.Changes)
            {
                text.Write($"<td class=\"n change\">{PageText.Of(change.Words)}</td>");
            }

            text.WriteLine($"{Drawn(line)}</tr>");
        }

        text.WriteLine("</tbody></table>");
    }

    private static string Drawn(PanelFigure line)
    {
        if (line.Line.Bar is not { } bar)
        {
            return line.Line.Series.Count > 1 ? $"<td class=\"line\">{Spark(line.Line.Series)}</td>" : "";
        }

        var width = (bar == 0 ? 0 : Math.Max(1, Math.Abs(bar) * 100)).ToString("0.#", CultureInfo.InvariantCulture);
        return $"<td class=\"bar\"><span{(bar < 0 ? " class=\"below\"" : "")} style=\"width:{width}%\"></span></td>";
    }

    private static string Spark(IReadOnlyList<long?> series)
    {
        var (least, most) = (Math.Min(0, series.Min() ?? 0), Math.Max(0, series.Max() ?? 0));
        string HeightOf(long units)
        {
            var share = most == least ? 0 : ((double)units - least) / ((double)most - least);
            return (LineHeight - 2 - ((LineHeight - 4) * share)).ToString("0.#", CultureInfo.InvariantCulture);
        }

        var points = string.Join(' ', from point in series.Index()
                                      where point.Item is not null
                                      let across = (double)LineWidth * point.Index / (series.Count - 1)
                                      select $"{across.ToString("0.#", CultureInfo.InvariantCulture)},{HeightOf(point.Item!.Value)}");
        return $"<svg viewBox=\"0 0 {LineWidth} {LineHeight}\" aria-hidden=\"true\">"
            + $"<line x1=\"0\" x2=\"{LineWidth}\" y1=\"{HeightOf(0)}\" y2=\"{HeightOf(0)}\"/><polyline points=\"{points}\"/></svg>";
    }
}
