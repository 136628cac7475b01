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
    private const int LeastTextWidth = 10;
    private const int MostUnbrokenWidth = 16;
    private const int MostHeadingWidth = 20;
    private const long MostKept = 32 << 20;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly Surface _look;
    private readonly TextWriter _text;
    private readonly IReadOnlyList<int[]> _blocks;
    private readonly int[] _widths;
    private readonly bool[] _summed;
    private readonly bool[] _isText;
    private readonly ColumnAlign[] _aligns;
    private readonly int _labelWidth;
    private readonly TextRows _rows;

    // What stands in each column of a line that is no row, or a part of one.
    private readonly TextCell[] _cells;
    private char[] _line = [];

    private TextReport(ReportWords words, TextWriter text, Surface look)
    {
        var report = words.Chart is not { } chart ? words.Report : ChartColumn.AddTo(words.Report, chart, look.Ascii);
        words = words.With(report);
        (_words, _report, _text, _look) = (words, report, text, look);
        (_widths, _cells) = (new int[report.Columns.Count], new TextCell[report.Columns.Count]);
        _rows = new TextRows(words, look.Ascii, MostKept);
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
        var (label, leastLabel) = (0, 0);
        bool[] counts = [.. _report.Columns.Select(column => column.Kind == ColumnKind.Count)];
        foreach (var (row, text) in _rows.Measured())
        {
            if (!StandsAlone(text))
            {
                var (width, indent) = (text.Label.Width, TextRows.IndentOf(row.Level).Length);
                label = Math.Max(label, width);
                leastLabel = indent + width <= leastLabel ? leastLabel
                    : Math.Max(leastLabel, indent + DisplayText.LongestWord(text.Label.Text));
            }

            for (var column = 0; column < _widths.Length; column++)
            {
                speaks[column] = speaks[column] || _words.Speaks(row, column);
                _summed[column] |= counts[column] && text.Look.IsTotal && row.Cells[column].Units is not null;
                var cell = text.Cells[column];
                if (!cell.IsNew)
                {
                    continue;
                }

                _widths[column] = Math.Max(_widths[column], cell.Width);
                least[column] = !_isText[column] ? Math.Max(least[column], _widths[column])
                    : cell.Width <= least[column] || least[column] >= MostUnbrokenWidth ? least[column]
                    : Math.Max(least[column], Math.Min(DisplayText.LongestWord(cell.Text), MostUnbrokenWidth));
            }
        }

        return (label, leastLabel);
    }

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream, Surface look)
    {
        using var writer = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), 1 << 12, leaveOpen: true);
        var text = new TextReport(words, writer, look);
        text.AddTitle();
        foreach (var columns in text._blocks)
        {
            text.AddBlock(columns);
        }

        text.AddWords(words.Report.Foot);
        text.AddChecks();
    }

    // It has words alone, and may be as wide as the page.
    private static bool StandsAlone(TextRow row) => row.Look.Kind == RowKind.Heading && HasNothing(row);

    private static bool HasNothing(TextRow row) => Array.TrueForAll(row.Cells, cell => cell.Text.Length == 0);

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
        foreach (var words in _report.Narrowed.Concat(_report.Notes).Concat(_words.NoChart is { } why ? [why] : []))
        {
            foreach (var line in Lines(DisplayText.Harmless(words, _look.Ascii)))
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
        RowLook? above = null;
        foreach (var row in _rows.All())
        {
            if (IsElsewhere(row, columns))
            {
                continue;
            }

            if (row.Look.Kind == RowKind.Heading && above is { Kind: not RowKind.Heading })
            {
                AddLine("");
            }

            if (row.Look.HasRule(above))
            {
                AddRule(columns, _look.Ascii ? '-' : '─');
            }

            AddRow(row, columns);
            if (row.Look.Kind == RowKind.GrandTotal)
            {
                AddRule(columns, _look.Ascii ? '=' : '═');
            }

            above = row.Look;
        }
    }

    // What totals come to is told once, in the blocks that have it.
    private bool IsElsewhere(TextRow row, int[] columns) => _blocks.Count > 1 && row.Look.IsTotal
        && Array.TrueForAll(columns, column => row.Cells[column].Text.Length == 0) && !HasNothing(row);

    private void AddHeadings(int[] columns)
    {
        var lines = columns.ToDictionary(column => column, column => Wrapped(Heading(column), _widths[column]));
        var height = lines.Values.Max(heading => heading.Count);
        for (var line = 0; line < height; line++)
        {
            foreach (var column in columns)
            {
                _cells[column] = TextCell.Of(LineOf(lines[column], line - height + lines[column].Count));
            }

            AddColumns(TextCell.Of(""), _cells, columns, TextStyle.Heading);
        }
    }

    private void AddRow(TextRow row, int[] columns)
    {
        var (indent, style) = (TextRows.IndentOf(row.Look.Level), row.Look.IsStrong ? TextStyle.Strong : TextStyle.Plain);
        if (StandsAlone(row))
        {
            var width = Math.Max(1, (_look.Width ?? int.MaxValue) - indent.Length);
            foreach (var line in DisplayText.Wrap(row.Label.Text.TrimStart(), width))
            {
                AddLine(Styled(indent + line, style));
            }

            return;
        }

        var fits = row.Label.Width <= _labelWidth;
        foreach (var column in columns)
        {
            fits &= row.Cells[column].Width <= _widths[column];
        }

        // Most rows fit into one line.
        if (fits)
        {
            AddColumns(row.Label, row.Cells, columns, style);
            return;
        }

        var labels = row.Label.Width <= _labelWidth
            ? [row.Label.Text]
            : DisplayText.Wrap(row.Label.Text.TrimStart(), _labelWidth - indent.Length).Select(line => indent + line).ToList();
        var texts = new List<string>[_widths.Length];
        var height = labels.Count;
        foreach (var column in columns)
        {
            texts[column] = Wrapped(row.Cells[column].Text, _widths[column]);
            height = Math.Max(height, texts[column].Count);
        }

        // Figures stand beside the last line of a label, words beside its first.
        for (var line = 0; line < height; line++)
        {
            foreach (var column in columns)
            {
                var part = TextCell.Of(LineOf(texts[column], _isText[column] ? line : line - labels.Count + 1));
                _cells[column] = part with { IsBelow = row.Cells[column].IsBelow };
            }

            AddColumns(TextCell.Of(LineOf(labels, line)), _cells, columns, style);
        }
    }

    private static List<string> Wrapped(string text, int width) =>
        DisplayText.Width(text) <= width ? [text] : [.. DisplayText.Wrap(text, width)];

    private static string LineOf(List<string> lines, int line) => line >= 0 && line < lines.Count ? lines[line] : "";

    private void AddRule(int[] columns, char rule)
    {
        foreach (var column in columns)
        {
            var width = _summed[column] ? _widths[column] : 0;
            _cells[column] = new TextCell(new string(rule, width), width, IsBelow: false);
        }

        AddColumns(TextCell.Of(""), _cells, columns, TextStyle.Plain);
    }

    // Figures below nothing look so.
    private void AddColumns(TextCell label, TextCell[] cells, int[] columns, TextStyle style)
    {
        var below = style == TextStyle.Strong ? TextStyle.StrongBelow : TextStyle.Below;
        var most = RoomFor(label) + _labelWidth + 1;
        foreach (var column in columns)
        {
            most += RoomFor(cells[column]) + _widths[column] + TextColumns.Gap;
        }

        _line = _line.Length < most ? new char[most] : _line;
        var rest = _line.AsSpan();
        Put(ref rest, 0, label.Text, style);
        var blanks = Math.Max(0, _labelWidth - label.Width);
        foreach (var column in columns)
        {
            ref readonly var cell = ref cells[column];
            var padding = Math.Max(0, _widths[column] - cell.Width);
            var before = _aligns[column] switch { ColumnAlign.Left => 0, ColumnAlign.Center => padding / 2, _ => padding };
            blanks += TextColumns.Gap + before;
            if (cell.Text.Length > 0)
            {
                Put(ref rest, blanks, cell.Text, cell.IsBelow ? below : style);
                blanks = 0;
            }

            blanks += padding - before;
        }

        rest[0] = '\n';
        _text.Write(_line, 0, _line.Length - rest.Length + 1);
    }

    private int RoomFor(in TextCell cell) => cell.Text.Length + (_look.Colour ? TextStyles.MostCodes : 0);

    private void Put(ref Span<char> line, int blanks, string text, TextStyle style)
    {
        var styled = Styled(text, style);
        line[..blanks].Fill(' ');
        styled.CopyTo(line[blanks..]);
        line = line[(blanks + styled.Length)..];
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
