using System.Text;
using Vlei.Output.Charts;

namespace Vlei.Output.Overview;

/// <summary>A page as text: panels side by side as the width allows, each with the command that shows all of it.</summary>
internal sealed class TextPage
{
    private const int LeastPanel = 46, MostPanel = 64, UsualWidth = 100, Between = 3;
    private const int BarWidth = 12, LeastLabel = 10;

    private readonly Surface _surface;
    private readonly int _panel;
    private readonly int _across;

    private TextPage(Surface surface)
    {
        _surface = surface;
        var width = surface.Width ?? UsualWidth;
        _across = Math.Max(1, (width + Between) / (LeastPanel + Between));
        _panel = Math.Min(MostPanel, (width - ((_across - 1) * Between)) / _across);
    }

    /// <summary>Writes the page.</summary>
    public static void Write(PageWords words, Stream stream, Surface surface)
    {
        var page = new TextPage(surface);
        using var text = new StreamWriter(stream, new UTF8Encoding(false), leaveOpen: true) { NewLine = "\n" };
        text.WriteLine(page.Styled(page.Clean(words.Page.Book), TextStyle.Strong));
        text.WriteLine(page.Styled(page.Clean(words.Title), TextStyle.Strong));
        text.WriteLine(page.Clean(words.Day));
        foreach (var row in words.Panels.Chunk(page._across))
        {
            text.WriteLine();
            page.WriteRow(text, [.. row.Select(panel => page.Lines(panel))]);
        }
    }

    private void WriteRow(StreamWriter text, List<List<string>> panels)
    {
        for (var line = 0; line < panels.Max(panel => panel.Count); line++)
        {
            var whole = new StringBuilder();
            var at = 0;
            foreach (var (place, panel) in panels.Index())
            {
                var shown = line < panel.Count ? panel[line] : "";
                whole.Append(' ', shown.Length == 0 ? 0 : (place * (_panel + Between)) - at).Append(shown);
                at = shown.Length == 0 ? at : (place * (_panel + Between)) + WidthOf(shown);
            }

            text.WriteLine(whole.ToString());
        }
    }

    private List<string> Lines(PanelWords panel)
    {
        var title = Clean(panel.Title);
        var when = Clean(panel.When);
        var isBeside = DisplayText.Width(title) + 2 + DisplayText.Width(when) <= _panel;
        List<string> lines =
        [
            Styled(title, TextStyle.Strong) + (isBeside && when.Length > 0 ? $"  {Styled(when, TextStyle.Quiet)}" : ""),
            .. isBeside || when.Length == 0 ? [] : Wrapped(when).Select(line => Styled(line, TextStyle.Quiet)),
            new string(_surface.Ascii ? '-' : '─', _panel),
        ];
        lines.AddRange(Figures(panel));
        foreach (var (said, command) in panel.Said)
        {
            lines.AddRange(Wrapped(Clean(said)));
            lines.AddRange(command.Length == 0 ? [] : Wrapped(Clean(command)).Select(line => Styled($"  {line}", TextStyle.Heading)));
        }

        lines.AddRange(panel.Panel.Command.Length == 0 ? []
            : Wrapped(Clean(panel.Panel.Command)).Select(line => Styled(line, TextStyle.Heading)));
        return lines;
    }

    private IEnumerable<string> Figures(PanelWords panel)
    {
        if (panel.Figures.Count == 0)
        {
            yield break;
        }

        var figure = panel.Figures.Max(line => DisplayText.Width(line.Figure));
        var against = panel.Figures[0].Changes.Select(change => Clean(change.Against)).ToList();
        var changes = against.Select((heading, place) => Math.Max(
            DisplayText.Width(heading), panel.Figures.Max(line => DisplayText.Width(line.Changes[place].Words)))).ToList();
        var drawn = panel.Figures.Select(DrawnOf).ToList();
        var rest = drawn.Max(DisplayText.Width);
        var label = Math.Max(LeastLabel, _panel - figure - 2 - changes.Sum(width => width + 2) - (rest == 0 ? 0 : rest + 2));
        label = Math.Min(label, Math.Max(LeastLabel, panel.Figures.Max(line => DisplayText.Width(Clean(line.Label)))));
        if (against.Count > 0)
        {
            var headings = against.Select((heading, place) => $"  {Right(heading, changes[place])}");
            yield return Styled(new string(' ', label + 2 + figure) + string.Concat(headings), TextStyle.Quiet);
        }

        foreach (var (place, line) in panel.Figures.Index())
        {
            var labels = DisplayText.Wrap(Clean(line.Label), label).ToList();
            foreach (var above in labels.SkipLast(1))
            {
                yield return above;
            }

            var moved = string.Concat(line.Changes.Select((change, at) =>
                $"  {Right(Clean(change.Words), changes[at])}"));
            var style = line.IsBelow ? TextStyle.StrongBelow : TextStyle.Strong;
            yield return (Left(labels[^1], label) + "  " + Styled(Right(Clean(line.Figure), figure), style) + moved
                + (drawn[place].Length == 0 ? ""
                    : $"  {Styled(drawn[place], line.Line.Bar < 0 ? TextStyle.Below : TextStyle.Bar)}")).TrimEnd();
        }
    }

    private string DrawnOf(PanelFigure line) => line.Line.Series.Count > 0 ? TextDrawing.Line(line.Line.Series, _surface.Ascii)
        : line.Line.Bar is { } bar ? TextDrawing.Bar(Math.Abs(bar), BarWidth, _surface.Ascii) : "";

    private IEnumerable<string> Wrapped(string text) => DisplayText.Wrap(text, _panel - 2);

    private string Clean(string text) => DisplayText.Harmless(_surface.Ascii
        ? text.Replace('▲', '^').Replace('▼', 'v').Replace('–', '-') : text, _surface.Ascii);

    private static string Left(string text, int width) => text + new string(' ', Math.Max(0, width - DisplayText.Width(text)));

    private static string Right(string text, int width) => new string(' ', Math.Max(0, width - DisplayText.Width(text))) + text;

    private string Styled(string text, TextStyle style) => text.In(style, _surface.Colour);

    // What a terminal obeys takes no place on it.
    private static int WidthOf(string styled)
    {
        var plain = new StringBuilder();
        for (var place = 0; place < styled.Length; place++)
        {
            if (styled[place] == '\e')
            {
                place = styled.IndexOf('m', place);
                continue;
            }

            plain.Append(styled[place]);
        }

        return DisplayText.Width(plain.ToString());
    }
}
