using UglyToad.PdfPig.Outline.Destinations;
using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>
/// The rows of a report on its pages: how high they are, what is written of them, and where it stands, for what leads there.
/// </summary>
internal sealed class PageRows
{
    /// <summary>How much room there is between headings and rows.</summary>
    public const double BelowHeadings = 2;

    private const double AboveTotal = 2;
    private const double LastRuleGap = 1.6;
    private const double Thin = 0.5;
    private const double Thick = 0.9;
    private const double Hair = 0.01;
    private const int Guide = 0xDDE3E8;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly PageText _text;
    private readonly PageColumns _columns;
    private readonly double _left;
    private readonly double _room;
    private readonly List<(string Title, int Page, double FromBottom)> _headings = [];
    private readonly Dictionary<int, ExplicitDestination> _starts = [];
    private readonly List<(CellPlace Cell, ReportRow Row, PageArea Area)> _leads = [];

    /// <summary>Measures them.</summary>
    /// <param name="words">The report.</param>
    /// <param name="text">Its text.</param>
    /// <param name="columns">Its columns, as wide as they are to be.</param>
    /// <param name="left">Where on the page it begins.</param>
    /// <param name="room">How much room there is across.</param>
    public PageRows(ReportWords words, PageText text, PageColumns columns, double left, double room)
    {
        (_words, _report, _text, _columns, _left, _room) = (words, words.Report, text, columns, left, room);
        HeadingHeight = text.LineHeight * columns.Shown.Select(column => HeadingLines(column).Count).DefaultIfEmpty(0).Max();
    }

    /// <summary>How high the headings of the columns are.</summary>
    public double HeadingHeight { get; }

    /// <summary>Where headings of the outermost level are.</summary>
    public IReadOnlyList<(string Title, int Page, double FromBottom)> Headings => _headings;

    /// <summary>Where rows with a heading begin, by their places.</summary>
    public IReadOnlyDictionary<int, ExplicitDestination> Starts => _starts;

    /// <summary>Of which rows it is kept where they stand.</summary>
    public required KeptPlaces Kept { get; init; }

    /// <summary>Where the labels of rows stand.</summary>
    public IEnumerable<(ReportRow Row, PageArea Area)> Labels =>
        _leads.Where(lead => lead.Cell.Column < 0).Select(lead => (lead.Row, lead.Area));

    /// <summary>How many lines a row has.</summary>
    public int LinesOf(ReportRow row)
    {
        var (face, lines) = (_text.FaceOf(row), LabelLines(row).Count);
        foreach (var column in _columns.Shown)
        {
            if (_columns.IsText(column) && _words.Readable(row, column) is { Length: > 0 } text)
            {
                lines = Math.Max(lines, LinesOf(face, text, column).Count);
            }
        }

        return lines;
    }

    /// <summary>How high so many lines of a row are.</summary>
    public double HeightOf(ReportRow row, int lines)
    {
        const double Between = 1.5;
        return (lines * _text.LineHeight) + Between + (RowLook.Of(row).IsTotal ? AboveTotal : 0) + (row.Kind == RowKind.GrandTotal ? 2 : 0);
    }

    /// <summary>Has figures lead on, and what stands before them (column -1), where they lead somewhere.</summary>
    public void Lead(Func<CellPlace, ReportRow, ExplicitDestination?> targetOf)
    {
        foreach (var (cell, row, area) in _leads)
        {
            if (targetOf(cell, row) is { } target)
            {
                area.Sheet.Link(area.Left, area.Right, area.Top, area.Bottom, target);
            }
        }
    }

    /// <summary>Where the rows stand whose figures lead on, by their places.</summary>
    public Dictionary<int, ExplicitDestination> LeadingRows() => _leads.DistinctBy(lead => lead.Cell.Row)
        .ToDictionary(lead => lead.Cell.Row, lead => Sheet.PlaceOn(lead.Area.Sheet.Number, lead.Area.Sheet.Height - lead.Area.Top));

    /// <summary>Writes the headings of columns below that height. Gives where the rows begin.</summary>
    public double WriteHeadings(Sheet sheet, IReadOnlyList<int> band, double top)
    {
        if (band.Count == 0)
        {
            return top;
        }

        var (bottom, end) = (top + HeadingHeight, _left);
        foreach (var (column, left, right) in _columns.Places(band, _left))
        {
            var lines = HeadingLines(column);
            for (var line = 0; line < lines.Count; line++)
            {
                WriteAt(
                    sheet, _text.Bold, lines[line], column, left, right,
                    bottom - ((lines.Count - 1 - line) * _text.LineHeight) - (0.3 * _text.Size));
            }

            end = right;
        }

        sheet.Rule(_left, end, bottom, Thick);
        return bottom + BelowHeadings;
    }

    /// <summary>
    /// Writes a row below that height, with the columns of a band; what stands before its figures is led to from its first band.
    /// </summary>
    public void Write(Sheet sheet, PageRow part, IReadOnlyList<int> band, bool isFirstBand, double top)
    {
        var (row, face, indent, baseline) =
            (part.Row, _text.FaceOf(part.Row), PageColumns.IndentOf(part.Row),
                top + _text.Size + (RowLook.Of(part.Row).IsTotal ? AboveTotal : 0));
        if (isFirstBand && part.FirstLine == 0)
        {
            Note(part, new PageArea(sheet, _left + indent, _left + _columns.Label, top, top + part.Height));
        }

        // A quiet line below a row leads the eye from its label to its figures.
        if (part.EndsRow && !RowLook.Of(row).IsStrong && band.Count > 0)
        {
            sheet.Line(_left, top + part.Height, _columns.Places(band, _left).Last().Right, top + part.Height, Thin / 2, Guide);
        }

        WriteLines(LabelLines(row), part, line => sheet.Text(face, line.Text, _text.Size, _left + indent, baseline + line.Down));
        foreach (var (column, left, right) in _columns.Places(band, _left))
        {
            var isFigure = row.Cells[column].Units is not null;
            if (part.HasRule && isFigure && !_columns.IsText(column) && _report.Columns[column].Kind != ColumnKind.Date)
            {
                WriteRules(sheet, row, left, right, (top, top + part.Height));
            }

            if (_report.Records is not null && isFigure)
            {
                _leads.Add((new CellPlace(part.Place, column), row, new PageArea(sheet, left, right, top, top + part.Height)));
            }

            var (figure, mark) = _words.FigureAndMark(row, column);
            if (figure.Length > 0)
            {
                var end = right - (mark is null ? 0 : _text.MarkWidth);
                WriteLines(
                    LinesOf(face, figure, column), part, line => WriteAt(sheet, face, line.Text, column, left, end, baseline + line.Down));
                sheet.TextEndingAt(face, part.FirstLine == 0 ? PageText.MarkOf(mark) : "", _text.Size, right, baseline);
            }
        }
    }

    private void Note(PageRow part, PageArea area)
    {
        var fromBottom = area.Sheet.Height - area.Top;
        if (part.Row is { Kind: RowKind.Heading, Level: 0 })
        {
            _headings.Add((part.Row.Label, area.Sheet.Number, fromBottom));
            _starts[part.Place] = Sheet.PlaceOn(area.Sheet.Number, fromBottom);
        }

        if (Kept == KeptPlaces.All
            || (Kept == KeptPlaces.Leading && (part.Row.Document is not null || part.Row.Kind == RowKind.Heading)))
        {
            _leads.Add((new CellPlace(part.Place, -1), part.Row, area));
        }
    }

    private static void WriteRules(Sheet sheet, ReportRow row, double left, double right, (double Top, double Bottom) part)
    {
        sheet.Rule(left, right, part.Top + 0.5, Thin);
        if (row.Kind == RowKind.GrandTotal)
        {
            sheet.Rule(left, right, part.Bottom - 1.2, Thin);
            sheet.Rule(left, right, part.Bottom - 1.2 + LastRuleGap, Thin);
        }
    }

    private void WriteLines(IReadOnlyList<string> lines, PageRow part, Action<(string Text, double Down)> write)
    {
        for (var line = part.FirstLine; line < Math.Min(lines.Count, part.FirstLine + part.Lines); line++)
        {
            write((lines[line], (line - part.FirstLine) * _text.LineHeight));
        }
    }

    private void WriteAt(Sheet sheet, PageFace face, string text, int column, double left, double right, double baseline)
    {
        var shown = face.Shown(text);
        var free = right - left - face.Width(shown, _text.Size);
        sheet.Text(
            face, shown, _text.Size, _words.AlignOf(
                column) switch
            { ColumnAlign.Left => left, ColumnAlign.Center => left + (free / 2), _ => left + free }, baseline);
    }

    private IReadOnlyList<string> LabelLines(ReportRow row) =>
        _text.Lines(_text.FaceOf(row), row.Label, (RowLook.IsEmpty(row) ? _room : _columns.Label) - PageColumns.IndentOf(row) + Hair);

    private IReadOnlyList<string> HeadingLines(int column) =>
        _text.Lines(_text.Bold, _report.Columns[column].Heading, _columns.WidthOf(column) + Hair);

    private IReadOnlyList<string> LinesOf(PageFace face, string figure, int column) =>
        _columns.IsText(column) ? _text.Lines(face, figure, _columns.WidthOf(column) + Hair) : [face.Shown(figure)];
}
