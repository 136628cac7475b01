using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// A report as it is walked through on a screen: what stands in each cell, and how wide that is. Rows are looked at as they are
/// needed, so that a long list is there at once.
/// </summary>
public sealed class ScreenTable
{
    private const int IndentPerLevel = 2;
    private const int MostHeadingWidth = 20;
    private const int MostTextWidth = 80;
    private const int MeasuredAtFirst = 1000;

    private readonly ReportWords _words;
    private readonly bool _ascii;
    private readonly int[] _widths;
    private readonly List<ReportRow> _first = [];

    /// <summary>Looks at a report.</summary>
    /// <param name="report">The report.</param>
    /// <param name="ascii">Whether only ASCII can be shown.</param>
    public ScreenTable(Report report, bool ascii)
    {
        (_words, _ascii) = (new ReportWords(report), ascii);
        Columns = _words.ShownColumns(row =>
        {
            if (_first.Count < MeasuredAtFirst)
            {
                _first.Add(row);
            }
        });
        _widths = [.. Report.Columns.Select((_, column) =>
            DisplayText.Wrap(HeadingOf(column), MostHeadingWidth).Max(DisplayText.Width))];
        _first.ForEach(Measure);
    }

    /// <summary>The report, in its language.</summary>
    public Report Report => _words.Report;

    /// <summary>The columns that a reader is shown, by their places.</summary>
    public IReadOnlyList<int> Columns { get; }

    /// <summary>How wide labels are, as far as they were looked at.</summary>
    public int LabelWidth { get; private set; }

    /// <summary>What stands below the title, in a line each.</summary>
    public IEnumerable<string> Head => new[]
    {
        string.Join(", ", new[] { Report.PeriodInWords, _words.InWhat }.Where(words => words.Length > 0)),
        string.Join("  ", _words.Explained),
        string.Join(" ", Report.Narrowed.Concat(Report.Notes).Select(words => words.EndsWith('.') ? words : $"{words}.")),
    }.Where(line => line.Length > 0).Select(Shown);

    /// <summary>What does not hold, in a line each.</summary>
    public IEnumerable<string> Failed => _words.Failed.Select(Shown);

    /// <summary>Its title.</summary>
    public string Title => Shown(Report.Title);

    /// <summary>Whose it is.</summary>
    public string Book => Shown(Report.Book);

    /// <summary>A row.</summary>
    public ReportRow RowAt(int row) => row < _first.Count ? _first[row] : Report.Rows[row];

    /// <summary>What stands before the figures of a row.</summary>
    public string LabelOf(ReportRow row) => new string(' ', IndentPerLevel * row.Level) + Shown(row.Label);

    /// <summary>What stands in a column of a row.</summary>
    public string FigureOf(ReportRow row, int column) => _words.Figure(row, column, _ascii);

    /// <summary>What stands above a column.</summary>
    public string HeadingOf(int column) => Shown(Report.Columns[column].Heading);

    /// <summary>Whether a column holds words, which stand at its left.</summary>
    public bool IsText(int column) => _words.AlignOf(column) == ColumnAlign.Left;

    /// <summary>How wide a column is, as far as it was looked at.</summary>
    public int WidthOf(int column) => _widths[column];

    /// <summary>How a cell is set off.</summary>
    public static TextStyle StyleOf(ReportRow row, int? column)
    {
        var isBelow = column is { } place && row.Cells[place].Units < 0;
        return RowLook.Of(row).IsStrong ? isBelow ? TextStyle.StrongBelow : TextStyle.Strong : isBelow ? TextStyle.Below : TextStyle.Plain;
    }

    /// <summary>Makes the columns as wide as a row needs.</summary>
    public void Measure(ReportRow row)
    {
        LabelWidth = Math.Max(LabelWidth, DisplayText.Width(LabelOf(row)));
        foreach (var column in Columns)
        {
            var width = DisplayText.Width(FigureOf(row, column));
            _widths[column] = Math.Max(_widths[column], IsText(column) ? Math.Min(width, MostTextWidth) : width);
        }
    }

    private string Shown(string text) => DisplayText.Harmless(text, _ascii);
}
