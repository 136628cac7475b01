using Vlei.Output.Overview;

namespace Vlei.Output.Pages;

/// <summary>A page of panels on one sheet of paper, for the wall, or as a picture.</summary>
internal sealed class PanelSheet
{
    private const double Margin = 34, Gap = 18, TitleSize = 17, PanelTitleSize = 10.5, SmallSize = 7.5, TextSize = 8.5;
    private const double LineHeight = 12.4, BarHeight = 6.5;
    private const int Across = 3;
    private const int Soft = 0x54606B, Bad = 0xA3231B, Pale = 0xC9D3DB;

    private readonly IPaper _sheet;
    private readonly PageText _text;
    private readonly int _accent;
    private readonly double _panel;

    /// <summary>Lays the panels out.</summary>
    public PanelSheet(IPaper sheet, PageText text, PageWords words)
    {
        (_sheet, _text, _accent) = (sheet, text, words.Page.Look.Accent ?? 0x1F5F8B);
        _panel = (sheet.Width - (2 * Margin) - ((Across - 1) * Gap)) / Across;
        Write(text.Bold, words.Title, TitleSize, Margin, Margin + TitleSize, _accent);
        Write(text.Regular, $"{words.Page.Book} · {words.Day}", TextSize, Margin, Margin + TitleSize + 15, Soft);
        var tops = Enumerable.Repeat(Margin + TitleSize + 36, Across).ToArray();
        foreach (var panel in words.Panels)
        {
            // The next panel goes where there is most room, the left first.
            var column = Array.IndexOf(tops, tops.Min());
            tops[column] = Panel(panel, Margin + (column * (_panel + Gap)), tops[column]) + Gap;
        }

        Height = tops.Max() - Gap + Margin;
    }

    /// <summary>How high the sheet must be to hold them all.</summary>
    public double Height { get; }

    private double Panel(PanelWords panel, double left, double top)
    {
        Write(_text.Bold, panel.Title, PanelTitleSize, left, top + PanelTitleSize);
        top += PanelTitleSize + 10.5;
        if (panel.When.Length > 0)
        {
            foreach (var line in Lines(panel.When))
            {
                Write(_text.Regular, line, SmallSize, left, top, Soft);
                top += SmallSize + 2.5;
            }
        }

        _sheet.Line(left, top - 5.5, left + _panel, top - 5.5, 0.8, _accent);
        top = Figures(panel, left, top + 7);
        foreach (var line in panel.Said.SelectMany(said => Lines(said.Text)))
        {
            Write(_text.Regular, line, TextSize, left, top, Soft);
            top += LineHeight;
        }

        return top;
    }

    private double Figures(PanelWords panel, double left, double top)
    {
        if (panel.Figures.Count == 0)
        {
            return top;
        }

        const double ChangeWidth = 48;
        var figure = panel.Figures.Max(line => Width(_text.Bold, line.Figure));
        var changes = panel.Figures[0].Changes.Count * ChangeWidth;
        var drawn = panel.Figures.Any(line => line.Line.Series.Count > 0 || line.Line.Bar is not null) ? _panel * 0.3 : 0;
        var figureEnd = left + _panel - changes - (drawn > 0 ? drawn + 8 : 0);
        foreach (var (place, change) in panel.Figures[0].Changes.Index())
        {
            var end = figureEnd + ((place + 1) * ChangeWidth);
            EndingAt(_text.Regular, change.Against, SmallSize, end, top, Soft);
        }

        top += changes > 0 ? LineHeight : 0;
        foreach (var line in panel.Figures)
        {
            var labels = Broken(line.Label, figureEnd - figure - 6 - left);
            foreach (var above in labels.SkipLast(1))
            {
                Write(_text.Regular, above, TextSize, left, top);
                top += LineHeight;
            }

            Write(_text.Regular, labels[^1], TextSize, left, top);
            EndingAt(_text.Bold, line.Figure, TextSize, figureEnd, top, line.IsBelow ? Bad : null);
            foreach (var (place, change) in line.Changes.Index())
            {
                var shown = change.Words.Replace('▲', '↑').Replace('▼', '↓');
                EndingAt(_text.Regular, shown, TextSize, figureEnd + ((place + 1) * ChangeWidth), top);
            }

            Draw(line, figureEnd + 8, top, drawn);
            top += LineHeight;
        }

        return top;
    }

    private void Draw(PanelFigure line, double left, double baseline, double width)
    {
        if (line.Line.Bar is { } bar and not 0)
        {
            var middle = baseline - (TextSize * 0.33);
            _sheet.Line(left, middle, left + Math.Max(0.8, width * Math.Abs(bar)), middle, BarHeight, bar < 0 ? Bad : _accent);
        }

        if (line.Line.Series is not { Count: > 1 } series)
        {
            return;
        }

        var (least, most) = (Math.Min(0, series.Min() ?? 0), Math.Max(0, series.Max() ?? 0));
        double X(int place) => left + (width * place / (series.Count - 1));
        double Y(long units) => baseline + 1 - (most == least ? 0 : (LineHeight - 3) * ((double)units - least) / ((double)most - least));
        _sheet.Line(left, Y(0), left + width, Y(0), 0.4, Pale);
        for (var place = 1; place < series.Count; place++)
        {
            if (series[place - 1] is { } before && series[place] is { } here)
            {
                _sheet.Line(X(place - 1), Y(before), X(place), Y(here), 1.1, _accent);
            }
        }
    }

    private static double Width(PageFace face, string text) => face.Width(face.Shown(text), TextSize);

    private IReadOnlyList<string> Lines(string text) => Broken(text, _panel);

    private IReadOnlyList<string> Broken(string text, double width) => _text.Lines(_text.Regular, text, Math.Max(40, width));

    private void Write(PageFace face, string text, double size, double left, double baseline, int? colour = null) =>
        _sheet.Text(face, face.Shown(text), size, left, baseline, colour);

    private void EndingAt(PageFace face, string text, double size, double right, double baseline, int? colour = null) =>
        Write(face, text, size, right - face.Width(face.Shown(text), size), baseline, colour);
}
