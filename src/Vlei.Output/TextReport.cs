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
    private const int Gap = 2;
    private const int IndentPerLevel = 2;
    private const int LeastLabelWidth = 16;
    private const int LeastTextWidth = 10;
    private const int MostUnbrokenWidth = 16;
    private const int MostLoneWidth = 40;
    private const int MostHeadingWidth = 20;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly Surface _look;
    private readonly TextWriter _text;
    private readonly int[] _shown;
    private readonly int[] _widths;
    private readonly int[] _least;
    private readonly bool[] _summed;
    private readonly int _labelWidth;

    // The rows are gone through twice, once for widths and once to write them: nothing is kept of them between.
    private TextReport(ReportWords words, TextWriter text, Surface look)
    {
        var report = words.Chart is not { } chart ? words.Report : ChartColumn.AddTo(words.Report, chart, look.Ascii);
        words = words.With(report);
        (_words, _report, _text, _look) = (words, report, text, look);
        _widths = new int[report.Columns.Count];
        _least = new int[_widths.Length];
        _summed = [.. report.Columns.Select(column => column.Kind is not (ColumnKind.Text or ColumnKind.Date or ColumnKind.Count))];
        var speaks = new bool[_widths.Length];
        foreach (var row in report.Rows)
        {
            _labelWidth = Math.Max(_labelWidth, RowLook.StandsAlone(row) ? 0 : DisplayText.Width(LabelOf(row)));
            for (var column = 0; column < _widths.Length; column++)
            {
                var figure = Figure(row, column);
                _widths[column] = Math.Max(_widths[column], DisplayText.Width(figure));
                _least[column] = Math.Max(
                    _least[column], IsText(column) ? Math.Min(LongestWord(figure), MostUnbrokenWidth) : _widths[column]);
                speaks[column] |= words.Speaks(row, column);
                _summed[column] |= _report.Columns[column].Kind == ColumnKind.Count && RowLook.IsTotal(row)
                    && row.Cells[column].Units is not null;
            }
        }

        _shown = [.. Enumerable.Range(0, _widths.Length).Where(column => speaks[column])];
        for (var column = 0; column < _widths.Length; column++)
        {
            // A long name above figures is broken into lines, rather than keeping the figures apart.
            _widths[column] = Math.Max(_widths[column], Math.Min(DisplayText.Width(Heading(column)), MostHeadingWidth));
            _least[column] = Math.Max(Math.Max(_least[column], IsText(column) ? LeastTextWidth : 0), LongestWord(Heading(column)));

            // A figure is never broken, however narrow its column is wanted.
            if (words.WidthOf(column) is { } wanted)
            {
                _widths[column] = IsText(column) ? wanted : Math.Max(wanted, _least[column]);
                _least[column] = Math.Min(_least[column], _widths[column]);
            }
        }

        _labelWidth = words.LabelWidth ?? _labelWidth;

        if (look.Width is { } width && _shown.Length > 0)
        {
            Narrow(width);
            _labelWidth = Math.Min(_labelWidth, Math.Max(LeastLabelWidth, width - Gap - _shown.Max(column => _widths[column])));
        }
    }

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream, Surface look)
    {
        using var writer = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), leaveOpen: true);
        var text = new TextReport(words, writer, look);
        text.AddTitle();
        foreach (var columns in text.Blocks())
        {
            text.AddBlock(columns);
        }

        text.AddWords(words.Report.Foot);
        text.AddChecks();
    }

    // A heading has the whole line to itself.
    private bool IsText(int column) => _report.Columns[column].Kind == ColumnKind.Text;

    private string LabelOf(ReportRow row) =>
        new string(' ', IndentPerLevel * row.Level) + DisplayText.Harmless(row.Label, _look.Ascii);

    private string Heading(int column) => DisplayText.Harmless(_report.Columns[column].Heading, _look.Ascii);

    private string Figure(ReportRow row, int column) => _words.Figure(row, column, _look.Ascii);

    // Headings and words are broken into more lines where that keeps a table in one block, the widest first. Where it does
    // not, it is broken into blocks anyway, and only what would fill a line by itself gives way.
    private void Narrow(int width)
    {
        bool IsTooWide() => _labelWidth + _shown.Sum(column => _widths[column] + Gap) > width;
        if (_labelWidth + _shown.Sum(column => Math.Min(_widths[column], _least[column]) + Gap) > width)
        {
            foreach (var column in _shown.Where(IsText))
            {
                _widths[column] = Math.Min(_widths[column], Math.Max(_least[column], Math.Min(MostLoneWidth, width - _labelWidth - Gap)));
            }

            return;
        }

        foreach (var column in _shown.Where(column => !IsText(column) && IsTooWide()))
        {
            _widths[column] = Math.Min(_widths[column], _least[column]);
        }

        while (IsTooWide())
        {
            _widths[_shown.Where(IsText).MaxBy(column => _widths[column] - _least[column])]--;
        }
    }

    private static int LongestWord(string text) => text.Split(' ').Max(DisplayText.Width);

    private void AddTitle()
    {
        AddLine(Styled(DisplayText.Harmless(_report.Book, _look.Ascii), bold: true));
        AddLine(Styled(DisplayText.Harmless(_report.Title, _look.Ascii), bold: true));
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

    // Which columns stand beside each other: as many as fit, and at least one; a column stays with what it is about.
    private List<int[]> Blocks()
    {
        var blocks = new List<int[]>();
        for (var first = 0; first < _shown.Length;)
        {
            var (used, count) = (_labelWidth, 0);
            while (first + count < _shown.Length
                && (count == 0 || _look.Width is not { } width || used + Gap + _widths[_shown[first + count]] <= width))
            {
                used += Gap + _widths[_shown[first + count]];
                count++;
            }

            if (first + count < _shown.Length)
            {
                count = BreakAfter(first, count);
            }

            blocks.Add(_shown[first..(first + count)]);
            first += count;
        }

        return blocks;
    }

    // Best before something of its own; else before a comparison, unless that leaves most of the line empty.
    private int BreakAfter(int first, int count)
    {
        int Last(ColumnTie tie) => Enumerable.Range(1, count).LastOrDefault(next => _report.Columns[_shown[first + next]].Tie == tie);
        return Last(ColumnTie.None) is > 0 and var own ? own
            : Last(ColumnTie.Compared) is var compared && 2 * compared >= count ? compared
            : count;
    }

    private void AddBlock(int[] columns)
    {
        if (_report.Rows.Count == 0)
        {
            return;
        }

        AddLine("");
        AddHeadings(columns);
        ReportRow? above = null;
        foreach (var row in _report.Rows)
        {
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

    private void AddHeadings(int[] columns)
    {
        var lines = columns.ToDictionary(column => column, column => Wrapped(Heading(column), _widths[column]));
        var height = lines.Values.Max(heading => heading.Count);
        for (var line = 0; line < height; line++)
        {
            AddColumns("", columns, column => LineOf(lines[column], line - height + lines[column].Count), bold: true);
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
                AddLine(Styled(indent + line, bold));
            }

            return;
        }

        var labels = DisplayText.Width(label) <= _labelWidth
            ? [label]
            : DisplayText.Wrap(label.TrimStart(), _labelWidth - indent.Length).Select(line => indent + line).ToList();
        var texts = new List<string>[_widths.Length];
        var height = labels.Count;
        foreach (var column in columns)
        {
            texts[column] = Wrapped(Figure(row, column), _widths[column]);
            height = Math.Max(height, texts[column].Count);
        }

        // Figures stand beside the last line of a label, words beside its first.
        for (var line = 0; line < height; line++)
        {
            AddColumns(LineOf(labels, line), columns, column => IsText(column)
                ? LineOf(texts[column], line)
                : LineOf(texts[column], line - labels.Count + 1), bold);
        }
    }

    private static List<string> Wrapped(string text, int width) =>
        DisplayText.Width(text) <= width ? [text] : [.. DisplayText.Wrap(text, width)];

    private static string LineOf(List<string> lines, int line) => line >= 0 && line < lines.Count ? lines[line] : "";

    private void AddRule(int[] columns, char rule) => AddColumns(
        "", columns, column => _summed[column] ? new string(rule, _widths[column]) : "", bold: false);

    private void AddColumns(string label, int[] columns, Func<int, string> textOf, bool bold)
    {
        var line = new StringBuilder(label).Append(' ', Math.Max(0, _labelWidth - DisplayText.Width(label)));
        foreach (var column in columns)
        {
            var text = textOf(column);
            var padding = Math.Max(0, _widths[column] - DisplayText.Width(text));
            var before = _words.AlignOf(column) switch { ColumnAlign.Left => 0, ColumnAlign.Center => padding / 2, _ => padding };
            line.Append(' ', Gap + before).Append(text).Append(' ', padding - before);
        }

        AddLine(Styled(line.ToString().TrimEnd(), bold));
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
                AddLine(Styled(line, bold: isFailed));
            }
        }
    }

    private string Styled(string text, bool bold) => bold && _look.Bold && text.Length > 0 ? $"\e[1m{text}\e[0m" : text;

    private void AddLine(string line)
    {
        _text.Write(line);
        _text.Write('\n');
    }
}
