using System.Text;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

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
    private const int MostHeadingWidth = 20;

    private readonly Report _report;
    private readonly TextLook _look;
    private readonly StringBuilder _text = new();
    private readonly string[,] _figures;
    private readonly int[] _widths;
    private readonly string[] _labels;
    private readonly int _labelWidth;

    private TextReport(Report whole, TextLook look)
    {
        var report = WithoutIdleTexts(whole);
        (_report, _look) = (report, look);
        _figures = new string[report.Rows.Count, report.Columns.Count];
        _widths = new int[report.Columns.Count];
        for (var column = 0; column < _widths.Length; column++)
        {
            for (var row = 0; row < report.Rows.Count; row++)
            {
                var figure = _figures[row, column] = Figure(report.Rows[row], column);
                _widths[column] = Math.Max(_widths[column], DisplayText.Width(figure));
            }

            // A long name above figures is broken into lines, rather than keeping the figures apart.
            var heading = DisplayText.Width(Heading(column));
            _widths[column] = Math.Max(_widths[column], Math.Min(heading, MostHeadingWidth));
        }

        _labels = [.. report.Rows.Select(row =>
            new string(' ', IndentPerLevel * row.Level) + DisplayText.Harmless(row.Label, look.Ascii))];
        _labelWidth = _labels.Select(DisplayText.Width).DefaultIfEmpty(0).Max();
        if (look.Width is { } width && _widths.Length > 0)
        {
            if (report.Columns.Any(IsText))
            {
                NarrowTexts(width);
            }

            _labelWidth = Math.Min(_labelWidth, Math.Max(LeastLabelWidth, width - Gap - _widths.Max()));
        }
    }

    /// <summary>Writes the report.</summary>
    public static void Write(Report report, Stream stream, TextLook look)
    {
        var text = new TextReport(report, look);
        text.AddTitle();
        foreach (var (first, count) in text.Blocks())
        {
            text.AddBlock(first, count);
        }

        text.AddChecks();
        stream.Write(Encoding.UTF8.GetBytes(text._text.ToString()));
    }

    // A column of words that says nothing, or only what stands before the figures already, costs a reader a line's width.
    private static Report WithoutIdleTexts(Report report)
    {
        var shown = Enumerable.Range(0, report.Columns.Count).Where(column => !IsText(report.Columns[column])
            || report.Rows.Any(row => row.Cells[column].Words is { } words && words != row.Label)).ToList();
        return shown.Count == report.Columns.Count ? report : report with
        {
            Columns = [.. shown.Select(column => report.Columns[column])],
            Rows = [.. report.Rows.Select(row => row with { Cells = [.. shown.Select(column => row.Cells[column])] })],
        };
    }

    private static bool IsText(ReportColumn column) => column.Kind == ColumnKind.Text;

    private static bool IsFigure(ReportColumn column) => column.Kind is not (ColumnKind.Text or ColumnKind.Date or ColumnKind.Count);

    private string Heading(int column) => DisplayText.Harmless(_report.Columns[column].Heading, _look.Ascii);

    private string Figure(ReportRow row, int column)
    {
        var described = _report.Columns[column];
        var figure = DisplayText.Harmless(Figures.Readable(_report, row, column), _look.Ascii);
        if (!described.IsChange || row.KindIn(described) != ColumnKind.Money || row.Cells[column].Units is not { } units)
        {
            return figure;
        }

        var marks = _look.Ascii ? "v=^" : "▼=▲";
        return $"{figure} {marks[Math.Sign(units) + 1]}";
    }

    // A list stays in one block as long as its words can be broken into more lines; the widest give way first.
    private void NarrowTexts(int width)
    {
        var texts = Enumerable.Range(0, _widths.Length).Where(column => IsText(_report.Columns[column])).ToList();
        while (_labelWidth + _widths.Sum(column => column + Gap) > width)
        {
            var widest = texts.MaxBy(column => _widths[column]);
            if (_widths[widest] <= LeastTextWidth)
            {
                return;
            }

            _widths[widest]--;
        }
    }

    private void AddTitle()
    {
        AddLine(Styled(DisplayText.Harmless(_report.Book, _look.Ascii), bold: true));
        AddLine(Styled(DisplayText.Harmless(_report.Title, _look.Ascii), bold: true));
        AddLine(_report.PeriodInWords);
        var basis = _report.Basis == AccountingBasis.Cash ? "Cash basis" : "Accrual basis";
        AddLine($"{basis}, in {_report.Currency.Code}");
        foreach (var words in _report.Narrowed.Concat(_report.Notes).Select(words => DisplayText.Harmless(words, _look.Ascii)))
        {
            foreach (var line in Lines(words))
            {
                AddLine(line);
            }
        }
    }

    private IEnumerable<string> Lines(string words) => _look.Width is { } width ? DisplayText.Wrap(words, width) : [words];

    // Which columns stand beside each other: as many as fit, and at least one; a column stays with what it is about.
    private List<(int First, int Count)> Blocks()
    {
        var blocks = new List<(int First, int Count)>();
        for (var first = 0; first < _widths.Length;)
        {
            var (used, count) = (_labelWidth, 0);
            while (first + count < _widths.Length
                && (count == 0 || _look.Width is not { } width || used + Gap + _widths[first + count] <= width))
            {
                used += Gap + _widths[first + count];
                count++;
            }

            if (first + count < _widths.Length)
            {
                count = BreakAfter(first, count);
            }

            blocks.Add((first, count));
            first += count;
        }

        return blocks;
    }

    // Best before something of its own; else before a comparison, unless that leaves most of the line empty.
    private int BreakAfter(int first, int count)
    {
        int Last(ColumnTie tie) => Enumerable.Range(1, count).LastOrDefault(next => _report.Columns[first + next].Tie == tie);
        return Last(ColumnTie.None) is > 0 and var own ? own
            : Last(ColumnTie.Compared) is var compared && 2 * compared >= count ? compared
            : count;
    }

    private void AddBlock(int first, int count)
    {
        if (_report.Rows.Count == 0)
        {
            return;
        }

        AddLine("");
        AddHeadings(first, count);
        for (var row = 0; row < _report.Rows.Count; row++)
        {
            var kind = _report.Rows[row].Kind;
            if (kind == RowKind.Heading && row > 0 && _report.Rows[row - 1].Kind != RowKind.Heading)
            {
                AddLine("");
            }

            if (kind is RowKind.Result or RowKind.GrandTotal || (kind == RowKind.Total && AddsUp(row)))
            {
                AddRule(first, count, _look.Ascii ? '-' : '─');
            }

            AddRow(row, first, count);
            if (kind == RowKind.GrandTotal)
            {
                AddRule(first, count, _look.Ascii ? '=' : '═');
            }
        }
    }

    // Whether the rows that a total is of stand right above it, rather than being left out.
    private bool AddsUp(int row) => row > 0 && _report.Rows[row - 1] is var above
        && (above.Kind is RowKind.Account or RowKind.Record || above.Level > _report.Rows[row].Level);

    private void AddHeadings(int first, int count)
    {
        var lines = Enumerable.Range(first, count).Select(column => Wrapped(Heading(column), _widths[column])).ToList();
        var height = lines.Max(heading => heading.Count);
        for (var line = 0; line < height; line++)
        {
            AddColumns("", first, count, column => LineOf(lines[column - first], line - height + lines[column - first].Count), bold: true);
        }
    }

    private void AddRow(int row, int first, int count)
    {
        var described = _report.Rows[row];
        var indent = new string(' ', IndentPerLevel * described.Level);
        var labels = DisplayText.Width(_labels[row]) <= _labelWidth
            ? [_labels[row]]
            : DisplayText.Wrap(_labels[row].TrimStart(), _labelWidth - indent.Length).Select(line => indent + line).ToList();
        var bold = described.Kind is not (RowKind.Account or RowKind.Record);
        var texts = Enumerable.Range(first, count).Select(column => Wrapped(_figures[row, column], _widths[column])).ToList();

        // Figures stand beside the last line of a label, words beside its first.
        var height = Math.Max(labels.Count, texts.Max(text => text.Count));
        for (var line = 0; line < height; line++)
        {
            AddColumns(LineOf(labels, line), first, count, column => IsText(_report.Columns[column])
                ? LineOf(texts[column - first], line)
                : LineOf(texts[column - first], line - labels.Count + 1), bold);
        }
    }

    private static List<string> Wrapped(string text, int width) =>
        DisplayText.Width(text) <= width ? [text] : [.. DisplayText.Wrap(text, width)];

    private static string LineOf(List<string> lines, int line) => line >= 0 && line < lines.Count ? lines[line] : "";

    private void AddRule(int first, int count, char rule) => AddColumns(
        "", first, count, column => IsFigure(_report.Columns[column]) ? new string(rule, _widths[column]) : "", bold: false);

    private void AddColumns(string label, int first, int count, Func<int, string> textOf, bool bold)
    {
        var line = new StringBuilder(label).Append(' ', Math.Max(0, _labelWidth - DisplayText.Width(label)));
        for (var column = first; column < first + count; column++)
        {
            var text = textOf(column);
            var padding = Math.Max(0, _widths[column] - DisplayText.Width(text));
            line.Append(' ', Gap).Append(' ', IsText(_report.Columns[column]) ? 0 : padding).Append(text)
                .Append(' ', IsText(_report.Columns[column]) ? padding : 0);
        }

        AddLine(Styled(line.ToString().TrimEnd(), bold));
    }

    private void AddChecks()
    {
        if (_report.Checks.Count > 0)
        {
            AddLine("");
        }

        foreach (var name in _report.Checks.GroupBy(check => check.Name).Where(checks => checks.All(check => check.Ok)))
        {
            AddLine($"Checked: {name.Key}.");
        }

        foreach (var check in _report.Checks.Where(check => !check.Ok))
        {
            var where = check.Column.Length == 0 ? "" : $" ({DisplayText.Harmless(check.Column, _look.Ascii)})";
            var what = check.Fault is { } fault ? $"{check.Name}{where}: {DisplayText.Harmless(fault, _look.Ascii)}."
                : $"{check.Name}{where}: expected {Text(check.Expected)}, came to {Text(check.Actual)}.";
            foreach (var line in Lines($"CHECK FAILED: {what}"))
            {
                AddLine(Styled(line, bold: true));
            }
        }

        string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, _report.Currency.Decimals);
    }

    private string Styled(string text, bool bold) => bold && _look.Bold && text.Length > 0 ? $"\e[1m{text}\e[0m" : text;

    private void AddLine(string line) => _text.Append(line).Append('\n');
}
