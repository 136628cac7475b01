using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>
/// How wide the columns of a report are on paper, and which of them stand beside each other: what does not fit goes on to
/// further pages, with the labels of the rows again.
/// </summary>
internal sealed class PageColumns
{
    private const double LeastGap = 12;
    private const double MostGap = 30;
    private const double TightGap = 8;
    private const double IndentPerLevel = 10;
    private const double MostLabel = 230;
    private const double MostText = 170;
    private const double MostHeading = 78;
    private const double LeastText = 60;
    private const double LeastLabel = 90;
    private const double Hair = 0.01;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly PageText _text;
    private readonly double[] _widths;
    private readonly double[] _natural;

    /// <summary>Measures a report.</summary>
    public PageColumns(ReportWords words, PageText text)
    {
        var report = words.Report;
        (_words, _report, _text) = (words, report, text);
        _widths = new double[report.Columns.Count];
        var speaks = new bool[report.Columns.Count];
        foreach (var row in report.Rows)
        {
            var face = text.FaceOf(row);
            Label = Math.Max(Label, RowLook.IsEmpty(row) ? 0 : Math.Min(MostLabel, IndentOf(row) + text.Width(face, row.Label)));
            for (var column = 0; column < _widths.Length; column++)
            {
                var (figure, mark) = words.FigureAndMark(row, column);
                _widths[column] = Math.Max(
                    _widths[column], (figure.Length == 0 ? 0 : text.Width(face, figure)) + (mark is null ? 0 : text.MarkWidth));
                speaks[column] = speaks[column] || words.Speaks(row, column);
            }
        }

        double[] natural = [.. _widths];
        Shown = [.. Enumerable.Range(0, _widths.Length).Where(column => speaks[column])];
        foreach (var column in Shown)
        {
            var least = IsText(column) ? Math.Min(_widths[column], MostText) : _widths[column];
            _widths[column] = words.WidthOf(column) is { } letters ? letters * Letter : Math.Max(least, HeadingWidth(column));
        }

        _natural = natural;

        Label = words.LabelWidth is { } own ? own * Letter : Label;
    }

    // As wide as a digit, which most letters are about.
    private double Letter => _text.Width(_text.Regular, "0");

    /// <summary>The columns that are shown.</summary>
    public IReadOnlyList<int> Shown { get; }

    /// <summary>How wide the labels are.</summary>
    public double Label { get; private set; }

    /// <summary>How much room there is between columns.</summary>
    public double Gap { get; private set; } = LeastGap;

    /// <summary>How wide everything is beside each other.</summary>
    public double Whole => Label + Shown.Sum(column => Gap + _widths[column]);

    /// <summary>How wide a column is.</summary>
    public double WidthOf(int column) => _widths[column];

    /// <summary>How far a row's label is indented.</summary>
    public static double IndentOf(ReportRow row) => row.Level * IndentPerLevel;

    /// <summary>Whether a column holds words, or is as narrow as a person wants it, so that what is in it is broken into lines.</summary>
    public bool IsText(int column) => _report.Columns[column].Kind == ColumnKind.Text || _words.WidthOf(column) is not null;

    /// <summary>
    /// Makes headings of figures, gaps, then labels and columns of words narrower, as far as they go, so that everything fits beside
    /// each other.
    /// </summary>
    public void Narrow(double room)
    {
        foreach (var column in Shown.Where(column => !IsText(column) && Whole > room))
        {
            _widths[column] = Math.Max(_natural[column], LongestWord(column));
        }

        Gap = Math.Clamp(Gap - ((Whole - room) / Math.Max(1, Shown.Count)), TightGap, Gap);
        var words = Shown.Where(column => IsText(column) && _widths[column] > LeastText).ToList();
        var excess = Whole - room;
        var labels = Math.Max(0, Label - LeastLabel);
        var spare = words.Sum(column => _widths[column] - LeastText) + labels;
        if (excess <= 0 || spare <= 0)
        {
            return;
        }

        var part = Math.Min(1, excess / spare);
        Label -= labels * part;
        words.ForEach(column => _widths[column] -= (_widths[column] - LeastText) * part);
    }

    /// <summary>
    /// Spreads what fits beside each other over the whole room, unless a person has said how wide columns are: words are broken no
    /// further than they must be, then columns stand further apart, and labels take what is left.
    /// </summary>
    public void Fill(double room)
    {
        if (Shown.Count == 0 || Whole > room || _words.Look.Widths.Count > 0)
        {
            return;
        }

        foreach (var column in Shown.Where(column => IsText(column) && _natural[column] > _widths[column]))
        {
            _widths[column] += Math.Min(_natural[column] - _widths[column], Math.Max(0, room - Whole));
        }

        Gap += Math.Min((room - Whole) / 2 / Shown.Count, MostGap - LeastGap);
        var words = Shown.Where(IsText).ToList();
        var rest = room - Whole;
        words.ForEach(column => _widths[column] += rest / words.Count);
        Label += words.Count == 0 ? rest : 0;
    }

    /// <summary>
    /// The columns that stand beside each other, page after page; those that belong together stay together where they fit.
    /// </summary>
    public IReadOnlyList<IReadOnlyList<int>> Bands(double room)
    {
        var (bands, band, left) = (new List<IReadOnlyList<int>>(), new List<int>(), room - Label + Hair);
        foreach (var together in Together())
        {
            var width = together.Sum(column => Gap + _widths[column]);
            if (width > left && band.Count > 0)
            {
                bands.Add(band);
                (band, left) = ([], room - Label + Hair);
            }

            foreach (var column in together)
            {
                if (Gap + _widths[column] > left && band.Count > 0)
                {
                    bands.Add(band);
                    (band, left) = ([], room - Label + Hair);
                }

                band.Add(column);
                left -= Gap + _widths[column];
            }
        }

        return band.Count > 0 || bands.Count == 0 ? [.. bands, band] : bands;
    }

    /// <summary>The right edges of the columns of a band.</summary>
    public IEnumerable<(int Column, double Left, double Right)> Places(IReadOnlyList<int> band, double left)
    {
        left += Label;
        foreach (var column in band)
        {
            yield return (column, left + Gap, left + Gap + _widths[column]);
            left += Gap + _widths[column];
        }
    }

    private double HeadingWidth(int column)
    {
        var heading = _report.Columns[column].Heading;
        var whole = _text.Width(_text.Bold, heading);
        return whole <= MostHeading ? whole : Math.Max(MostHeading, LongestWord(column));
    }

    private double LongestWord(int column) =>
        _report.Columns[column].Heading.Split(' ').Max(word => _text.Width(_text.Bold, word));

    private List<List<int>> Together()
    {
        var all = new List<List<int>>();
        foreach (var column in Shown)
        {
            if (all.Count == 0 || _report.Columns[column].Tie == ColumnTie.None)
            {
                all.Add([]);
            }

            all[^1].Add(column);
        }

        return all;
    }
}
