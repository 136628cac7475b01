using System.Buffers;
using System.Text;
using Vlei.Core.Reports;
using Vlei.Output.Charts;

namespace Vlei.Output;

/// <summary>
/// A report as text that people like to read: a title block, figures that line up, a rule above each total and a double
/// one under the last. Columns that do not fit beside each other go into further blocks; nothing is ever cut.
/// </summary>
internal sealed class TextReport
{
    private const int IndentPerLevel = 2;
    private const int LeastTextWidth = 10;
    private const int MostUnbrokenWidth = 16;
    private const int MostHeadingWidth = 20;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly Surface _look;
    private readonly TextWriter _text;
    private readonly ArrayBufferWriter<char> _line = new();
    private readonly IReadOnlyList<int[]> _blocks;
    private readonly int[] _widths;
    private readonly bool[] _summed;
    private readonly bool[] _isText;
    private readonly ColumnAlign[] _aligns;
    private readonly int _labelWidth;

    // What stands in each column of the line that is written next, and how many places that takes.
    private readonly string[] _texts;
    private readonly int[] _places;
    private readonly CellTexts _cells;

    // The rows are gone through twice, once for widths and once to write them: nothing is kept of them between.
    private TextReport(ReportWords words, TextWriter text, Surface look)
    {
        var report = words.Chart is not { } chart ? words.Report : ChartColumn.AddTo(words.Report, chart, look.Ascii);
        words = words.With(report);
        (_words, _report, _text, _look) = (words, report, text, look);
        (_widths, _texts, _places) = (
            new int[report.Columns.Count], new string[report.Columns.Count], new int[report.Columns.Count]);
        _cells = new CellTexts(words, look.Ascii);
        _isText = [.. report.Columns.Select(column => column.Kind == ColumnKind.Text)];
        _aligns = [.. Enumerable.Range(0, _widths.Length).Select(words.AlignOf)];
        _summed = [.. report.Columns.Select(column => column.Kind is not (ColumnKind.Text or ColumnKind.Date or ColumnKind.Count))];
        var (least, speaks) = (new int[_widths.Length], new bool[_widths.Length]);
        var (label, leastLabel) = Measure(least, speaks);
        int[] all = [.. Enumerable.Range(0, _widths.Length).Where(column => speaks[column])];
        for (var column = 0; column < _widths.Length; column++)
        {
            // A long name above figures is broken into lines, rather than keeping the figures apart.
            _widths[column] = Math.Max(_widths[column], Math.Min(DisplayText.Width(Heading(column)), MostHeadingWidth));
            least[column] = Math.Max(
                Math.Max(least[column], _isText[column] ? LeastTextWidth : 0), DisplayText.LongestWord(Heading(column)));

            // A figure is never broken, however narrow its column is wanted.
            if (words.WidthOf(column) is { } wanted)
            {
                _widths[column] = _isText[column] ? wanted : Math.Max(wanted, least[column]);
                least[column] = Math.Min(least[column], _widths[column]);
            }
        }

        var placed = new TextColumns(
            words.LabelWidth ?? label, words.LabelWidth ?? leastLabel,
            [.. all.Select(column => new TextColumn(_widths[column], least[column], _isText[column], report.Columns[column].Tie))],
            look.Width);
        _labelWidth = placed.LabelWidth;
        _blocks = [.. placed.Blocks.Select(block => block.Select(place => all[place]).ToArray())];
        foreach (var (place, column) in all.Index())
        {
            _widths[column] = placed.Widths[place];
        }
    }

    // How wide labels and columns are, and what they can be made narrower to; which columns say something.
    private (int Label, int LeastLabel) Measure(int[] least, bool[] speaks)
    {
        var (label, leastLabel, seen) = (0, 0, new SeenFigures(_report));
        bool[] counts = [.. _report.Columns.Select(column => column.Kind == ColumnKind.Count)];
        foreach (var row in RowsAhead.Of(_report.Rows))
        {
            if (!RowLook.StandsAlone(row))
            {
                var shown = LabelOf(row);
                var (width, indent) = (DisplayText.Width(shown), IndentPerLevel * row.Level);
                label = Math.Max(label, width);
                leastLabel = indent + width <= leastLabel ? leastLabel
                    : Math.Max(leastLabel, indent + DisplayText.LongestWord(shown));
            }

            for (var column = 0; column < _widths.Length; column++)
            {
                speaks[column] = speaks[column] || _words.Speaks(row, column);
                _summed[column] |= counts[column] && RowLook.IsTotal(row) && row.Cells[column].Units is not null;
                if (!seen.IsNew(row, column) || _cells.Of(row, column, out var isKnown) is var (figure, width) && isKnown)
                {
                    continue;
                }

                _widths[column] = Math.Max(_widths[column], width);
                least[column] = !_isText[column] ? Math.Max(least[column], _widths[column])
                    : width <= least[column] || least[column] >= MostUnbrokenWidth ? least[column]
                    : Math.Max(least[column], Math.Min(DisplayText.LongestWord(figure), MostUnbrokenWidth));
            }
        }

        return (label, leastLabel);
    }

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream, Surface look)
    {
        using var writer = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), leaveOpen: true);
        var text = new TextReport(words, writer, look);
        text.AddTitle();
        foreach (var columns in text._blocks)
        {
            text.AddBlock(columns);
        }

        text.AddWords(words.Report.Foot);
        text.AddChecks();
    }

    private string LabelOf(ReportRow row) =>
        new string(' ', IndentPerLevel * row.Level) + DisplayText.Harmless(row.Label, _look.Ascii);

    private string Heading(int column) => DisplayText.Harmless(_report.Columns[column].Heading, _look.Ascii);

    private void AddTitle()
    {
        AddLine(Styled(DisplayText.Harmless(_report.Book, _look.Ascii), TextStyle.Strong));
        AddLine(Styled(DisplayText.Harmless(_report.Title, _look.Ascii), TextStyle.Strong));
        if (_words.Look.Subtitle is { } subtitle)
        {
            AddLine(DisplayText.Harmless(subtitle, _look.Ascii));
        }

        AddLine(DisplayText.Harmless(_report.PeriodInWords, _look.Ascii));
        AddLine(DisplayText.Harmless(_words.InWhat, _look.Ascii));
        AddWords(_report.AddressedTo);
        foreach (var words in _report.Narrowed.Concat(_report.Notes).Concat(_words.NoChart is { } why ? [why] : [])
            .Select(words => DisplayText.Harmless(words, _look.Ascii)))
        {
            foreach (var line in Lines(words))
            {
                AddLine(line);
            }
        }
    }

    // A paragraph of its own; a letter's lines are broken where they are said to be.
    private void AddWords(IReadOnlyList<string> words)
    {
        if (words.Count > 0)
        {
            AddLine("");
        }

        foreach (var line in words)
        {
            AddLine(DisplayText.Harmless(line, _look.Ascii));
        }
    }

    private IEnumerable<string> Lines(string words) => _look.Width is { } width ? DisplayText.Wrap(words, width) : [words];

    private void AddBlock(int[] columns)
    {
        if (_report.Rows.Count == 0)
        {
            return;
        }

        AddLine("");
        AddHeadings(columns);
        ReportRow? above = null;
        foreach (var row in RowsAhead.Of(_report.Rows))
        {
            if (IsElsewhere(row, columns))
            {
                continue;
            }

            if (row.Kind == RowKind.Heading && above is { Kind: not RowKind.Heading })
            {
                AddLine("");
            }

            if (RowLook.HasRule(row, above))
            {
                AddRule(columns, _look.Ascii ? '-' : '─');
            }

            AddRow(row, columns);
            if (row.Kind == RowKind.GrandTotal)
            {
                AddRule(columns, _look.Ascii ? '=' : '═');
            }

            above = row;
        }
    }

    // What totals come to is told once, in the blocks that have it.
    private bool IsElsewhere(ReportRow row, int[] columns) => _blocks.Count > 1 && RowLook.IsTotal(row)
        && Array.TrueForAll(columns, column => row.Cells[column] is { Units: null, Words: null }) && !RowLook.IsEmpty(row);

    private void AddHeadings(int[] columns)
    {
        var lines = columns.ToDictionary(column => column, column => Wrapped(Heading(column), _widths[column]));
        var height = lines.Values.Max(heading => heading.Count);
        for (var line = 0; line < height; line++)
        {
            foreach (var column in columns)
            {
                Put(column, LineOf(lines[column], line - height + lines[column].Count));
            }

            AddColumns("", columns, TextStyle.Heading);
        }
    }

    private void AddRow(ReportRow row, int[] columns)
    {
        var indent = new string(' ', IndentPerLevel * row.Level);
        var label = LabelOf(row);
        var bold = RowLook.IsStrong(row);
        if (RowLook.StandsAlone(row))
        {
            foreach (var line in DisplayText.Wrap(label.TrimStart(), Math.Max(1, (_look.Width ?? int.MaxValue) - indent.Length)))
            {
                AddLine(Styled(indent + line, bold ? TextStyle.Strong : TextStyle.Plain));
            }

            return;
        }

        var (style, fits) = (bold ? TextStyle.Strong : TextStyle.Plain, DisplayText.Width(label) <= _labelWidth);
        foreach (var column in columns)
        {
            (_texts[column], _places[column]) = _cells.Of(row, column, out _);
            fits &= _places[column] <= _widths[column];
        }

        // Most rows fit into one line.
        if (fits)
        {
            AddColumns(label, columns, style, row);
            return;
        }

        var labels = DisplayText.Width(label) <= _labelWidth
            ? [label]
            : DisplayText.Wrap(label.TrimStart(), _labelWidth - indent.Length).Select(line => indent + line).ToList();
        var texts = new List<string>[_widths.Length];
        var height = labels.Count;
        foreach (var column in columns)
        {
            texts[column] = Wrapped(_texts[column], _widths[column]);
            height = Math.Max(height, texts[column].Count);
        }

        // Figures stand beside the last line of a label, words beside its first.
        for (var line = 0; line < height; line++)
        {
            foreach (var column in columns)
            {
                Put(column, LineOf(texts[column], _isText[column] ? line : line - labels.Count + 1));
            }

            AddColumns(LineOf(labels, line), columns, style, row);
        }
    }

    private static List<string> Wrapped(string text, int width) =>
        DisplayText.Width(text) <= width ? [text] : [.. DisplayText.Wrap(text, width)];

    private static string LineOf(List<string> lines, int line) => line >= 0 && line < lines.Count ? lines[line] : "";

    private void AddRule(int[] columns, char rule)
    {
        foreach (var column in columns)
        {
            (_texts[column], _places[column]) = _summed[column] ? (new string(rule, _widths[column]), _widths[column]) : ("", 0);
        }

        AddColumns("", columns, TextStyle.Plain);
    }

    private void Put(int column, string text) => (_texts[column], _places[column]) = (text, DisplayText.Width(text));

    // What was put into columns, as a line; of a row's figures those below nothing look so.
    private void AddColumns(string label, int[] columns, TextStyle style, ReportRow? row = null)
    {
        _line.ResetWrittenCount();
        _line.Write(Styled(label, style));
        var blanks = Math.Max(0, _labelWidth - DisplayText.Width(label));
        foreach (var column in columns)
        {
            var padding = Math.Max(0, _widths[column] - _places[column]);
            var before = _aligns[column] switch { ColumnAlign.Left => 0, ColumnAlign.Center => padding / 2, _ => padding };
            blanks += TextColumns.Gap + before;
            if (_texts[column].Length > 0)
            {
                var isBelow = _look.Colour && row is not null && !_isText[column] && row.Cells[column].Units < 0;
                _line.GetSpan(blanks)[..blanks].Fill(' ');
                _line.Advance(blanks);
                _line.Write(
                    Styled(
                        _texts[column], !isBelow ? style : style == TextStyle.Strong ? TextStyle.StrongBelow : TextStyle.Below));
                blanks = 0;
            }

            blanks += padding - before;
        }

        _line.Write("\n");
        _text.Write(_line.WrittenSpan);
    }

    private void AddChecks()
    {
        var checks = _words.Foot.Skip(_report.Foot.Count).ToList();
        if (checks.Count > 0)
        {
            AddLine("");
        }

        foreach (var (said, isFailed) in checks)
        {
            foreach (var line in Lines(DisplayText.Harmless(said, _look.Ascii)))
            {
                AddLine(Styled(line, isFailed ? TextStyle.Failed : TextStyle.Plain));
            }
        }
    }

    private string Styled(string text, TextStyle style) => text.In(style, _look.Colour);

    private void AddLine(string line)
    {
        _text.Write(line);
        _text.Write('\n');
    }
}
