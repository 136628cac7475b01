using UglyToad.PdfPig.Outline.Destinations;
using UglyToad.PdfPig.Writer;
using Vlei.Core.Reports;
using Vlei.Output.Charts;

namespace Vlei.Output.Pages;

/// <summary>
/// A report on pages: its title and what must be known of it, then rows until a page is full. Every page has the headings of
/// the columns, and says what it is of; a total is never alone on a page, and a heading never the last thing on one.
/// </summary>
internal sealed class PagedReport
{
    private const double Margin = 42;
    private const double FootHeight = 30;
    private const double NumberWidth = 90;
    private const int MostFootLines = 2;
    private const double AboveTotal = 2;
    private const double RunningHeadHeight = 26;
    private const double LastRuleGap = 1.6;
    private const double Thin = 0.5;
    private const double Thick = 0.9;

    private readonly PdfDocumentBuilder _document;
    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly PageText _text;
    private readonly PageColumns _columns;
    private readonly IReadOnlyList<IReadOnlyList<int>> _bands;
    private readonly double _width;
    private readonly double _height;
    private readonly double _headingHeight;
    private readonly List<WaitingRow> _waiting = [];
    private readonly List<Sheet> _sheets = [];
    private readonly List<(string Title, int Page, double FromBottom)> _headings = [];
    private readonly Dictionary<int, ExplicitDestination> _rows = [];
    private readonly List<(CellPlace Cell, ReportRow Row, PageArea Area)> _leads = [];
    private double _top;

    /// <summary>Makes its pages.</summary>
    public PagedReport(PdfDocumentBuilder document, ReportWords words, PageText text)
    {
        (_document, _words, _report, _text) = (document, words, words.Report, text);
        _columns = new PageColumns(words, text);
        var paper = Paper.Of(words.Look);
        var isWide = words.Look.Turn is { } turn ? turn == PaperTurn.Landscape : _columns.Whole > paper.Width - (2 * Margin);
        (_width, _height) = isWide ? (paper.Height, paper.Width) : (paper.Width, paper.Height);
        _columns.Narrow(Room);
        _bands = _columns.Bands(Room);
        _headingHeight = _text.LineHeight * _columns.Shown.Select(column => HeadingLines(column).Count).DefaultIfEmpty(0).Max();
        AddRows();
        AddFoot();
    }

    /// <summary>Its pages.</summary>
    public IReadOnlyList<Sheet> Sheets => _sheets;

    /// <summary>Where its headings of the outermost level are.</summary>
    public IReadOnlyList<(string Title, int Page, double FromBottom)> Headings => _headings;

    /// <summary>Its title.</summary>
    public string Title => _report.Title;

    /// <summary>Where rows with a heading begin, by their places.</summary>
    public IReadOnlyDictionary<int, ExplicitDestination> Rows => _rows;

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

    private double Room => _width - (2 * Margin);

    private double Bottom => _height - Margin - FootHeight;

    /// <summary>Writes what stands at the foot of each page, once their number is known.</summary>
    /// <param name="pages">How many pages the document has.</param>
    public void AddFeet(int pages)
    {
        var foot = $"{(_words.Look.Footer is { } own ? $"{own} – " : "")}{_report.Book}: {_report.Title}, {_report.PeriodInWords}. {_words.InWhat}.";
        foreach (var sheet in _sheets)
        {
            var number = _words.Language.Say("Page {0} of {1}", $"{sheet.Number}", $"{pages}");
            var lines = _text.Lines(_text.Regular, foot, Room - NumberWidth).Take(MostFootLines).ToList();
            var top = _height - Margin - (MostFootLines * _text.LineHeight);
            sheet.Rule(Margin, _width - Margin, top, Thin);
            for (var line = 0; line < lines.Count; line++)
            {
                sheet.Text(_text.Regular, lines[line], _text.Size - 1, Margin, top + ((line + 1) * _text.LineHeight));
            }

            sheet.TextEndingAt(_text.Regular, number, _text.Size - 1, _width - Margin, top + _text.LineHeight);
        }
    }

    private void AddRows()
    {
        StartFirstPage();
        var (used, place, above) = (_top + _headingHeight, 0, (ReportRow?)null);
        foreach (var row in _report.Rows)
        {
            used = AddRow(row, place++, ReportWords.HasRule(row, above), used);
            above = row;
        }

        Emit(_waiting.Count);
    }

    // A row that is higher than what is left of its page goes on to the next one; one that is higher than any page is
    // broken. Gives how far the page is used then.
    private double AddRow(ReportRow row, int place, bool hasRule, double used)
    {
        const int LeastLines = 3;
        var (lines, written) = (LinesOf(row), 0);
        while (true)
        {
            var isFresh = used <= Margin + RunningHeadHeight + _headingHeight;
            var room = (int)((Bottom - used - HeightOf(row, 0)) / _text.LineHeight);
            var isBroken = lines - written > room && (_waiting.Count == 0 || lines - written > LinesOnPage(row)) && (room >= LeastLines || isFresh);
            if (lines - written <= room || isBroken)
            {
                var part = Math.Min(lines - written, Math.Max(1, room));
                var height = HeightOf(row, part);
                _waiting.Add(new WaitingRow(row, place, height, hasRule && written == 0, written, part));
                (used, written) = (used + height, written + part);
            }

            if (written == lines)
            {
                return used;
            }

            if (_waiting.Count > 0)
            {
                Emit(_waiting.Count - (isBroken ? 0 : MovedWith(row)));
            }

            StartPage();
            used = _top + _headingHeight + _waiting.Sum(waiting => waiting.Height);
        }
    }

    private int LinesOnPage(ReportRow row) => (int)((Bottom - Margin - RunningHeadHeight - _headingHeight - HeightOf(row, 0)) / _text.LineHeight);

    private static bool IsTotal(ReportRow row) => row.Kind is RowKind.Total or RowKind.Result or RowKind.GrandTotal;

    // What goes to the next page with a row: a total takes what it adds up last, a heading does not stay behind.
    private int MovedWith(ReportRow next)
    {
        var moved = 0;
        while (moved < _waiting.Count - 1 && moved < _waiting.Count / 2 + 1
            && (IsTotal(moved == 0 ? next : _waiting[^moved].Row) || _waiting[^(moved + 1)].Row.Kind == RowKind.Heading))
        {
            moved++;
        }

        return moved;
    }

    // The first page of a band is written on already where the title stands; those of the other bands begin anew.
    private void Emit(int count)
    {
        var (first, top) = (_sheets.Count - 1, _top);
        for (var band = 0; band < _bands.Count; band++)
        {
            if (band > 0)
            {
                StartPage();
            }

            var sheet = _sheets[first + band];
            _top = WriteHeadings(sheet, _bands[band], band == 0 ? top : _top);
            for (var place = 0; place < count; place++)
            {
                WriteRow(sheet, _waiting[place], _bands[band], isFirstBand: band == 0);
            }
        }

        _waiting.RemoveRange(0, count);
    }

    private void StartFirstPage()
    {
        var sheet = new Sheet(_document, _width, _height);
        _sheets.Add(sheet);
        const double TitleSize = 16;
        const double TitleHeight = 20;
        var title = new PageText(_text.Regular, _text.Bold, TitleSize);
        _top = Margin;
        var room = Room - (_words.Look.Logo is { } logo ? sheet.Logo(logo, _width - Margin, Margin) : 0);
        foreach (var line in title.Lines(_text.Bold, _report.Title, room))
        {
            sheet.Text(_text.Bold, line, TitleSize, Margin, _top += TitleHeight, _words.Look.Accent);
        }

        _top += 3;
        WriteParagraphs(_words.Head.Select(line => (line, false)));
        _top += _report.AddressedTo.Count > 0 ? _text.LineHeight : 0;
        WriteParagraphs(_report.AddressedTo.Select(line => (line, false)));
        _top += _text.LineHeight;
        if (_words.Chart is { } chart)
        {
            WriteChart(chart);
        }
    }

    // As wide as the page, but no more than half as high: there is something to be read below it.
    private void WriteChart(ReportChart chart)
    {
        var (width, height) = ChartDrawing.SizeOf(chart);
        var scale = Math.Min(Room / width, (_height - (2 * Margin)) / 2 / height);
        if (_top + (height * scale) > Bottom)
        {
            StartPage();
        }

        _sheets[^1].Png(ChartDrawing.Png(_words), Margin, _top, width * scale, height * scale);
        _top += (height * scale) + _text.LineHeight;
    }

    private void StartPage()
    {
        var sheet = new Sheet(_document, _width, _height);
        _sheets.Add(sheet);
        sheet.Text(_text.Bold, _text.Lines(_text.Bold, $"{_report.Book}: {_report.Title}", Room)[0], _text.Size, Margin, Margin + _text.Size);
        _top = Margin + RunningHeadHeight;
    }

    private void WriteParagraphs(IEnumerable<(string Text, bool IsBold)> paragraphs)
    {
        foreach (var (text, isBold) in paragraphs)
        {
            var face = isBold ? _text.Bold : _text.Regular;
            foreach (var line in _text.Lines(face, text, Room))
            {
                if (_top + _text.LineHeight > Bottom)
                {
                    StartPage();
                }

                _sheets[^1].Text(face, line, _text.Size, Margin, _top += _text.LineHeight);
            }
        }
    }

    private double WriteHeadings(Sheet sheet, IReadOnlyList<int> band, double top)
    {
        if (band.Count == 0)
        {
            return top;
        }

        var bottom = top + _headingHeight;
        foreach (var (column, left, right) in _columns.Places(band, Margin))
        {
            var lines = HeadingLines(column);
            for (var line = 0; line < lines.Count; line++)
            {
                WriteAt(sheet, _text.Bold, lines[line], column, left, right, bottom - ((lines.Count - 1 - line) * _text.LineHeight) - (0.3 * _text.Size));
            }
        }

        sheet.Rule(Margin, RightOf(band), bottom, Thick);
        return bottom + 2;
    }

    private double RightOf(IReadOnlyList<int> band) => _columns.Places(band, Margin).Select(place => place.Right).DefaultIfEmpty(Margin + _columns.Label).Last();

    private void WriteRow(Sheet sheet, WaitingRow waiting, IReadOnlyList<int> band, bool isFirstBand)
    {
        var (row, place, height) = (waiting.Row, waiting.Place, waiting.Height);
        var (face, indent, baseline) = (_text.FaceOf(row), PageColumns.IndentOf(row), _top + _text.Size + (IsTotal(row) ? AboveTotal : 0));
        if (row.Kind == RowKind.Heading && row.Level == 0 && isFirstBand)
        {
            _headings.Add((row.Label, sheet.Number, _height - _top));
            _rows[place] = Sheet.PlaceOn(sheet.Number, _height - _top);
        }

        if (isFirstBand && row.Document is not null | row.Kind == RowKind.Heading)
        {
            _leads.Add((new CellPlace(place, -1), row, new PageArea(sheet, Margin + indent, Margin + _columns.Label, _top, _top + height)));
        }

        WriteLines(_text.Lines(face, row.Label, LabelRoom(row)), waiting, line => sheet.Text(face, line.Text, _text.Size, Margin + indent, baseline + line.Down));
        foreach (var (column, left, right) in _columns.Places(band, Margin))
        {
            var (figure, mark) = _words.FigureAndMark(row, column);
            if (waiting.HasRule && !_columns.IsText(column) && row.Cells[column].Units is not null)
            {
                sheet.Rule(left, right, _top + 0.5, Thin);
                if (row.Kind == RowKind.GrandTotal)
                {
                    sheet.Rule(left, right, _top + height - 1.2, Thin);
                    sheet.Rule(left, right, _top + height - 1.2 + LastRuleGap, Thin);
                }
            }

            if (_report.Records is not null && row.Cells[column].Units is not null)
            {
                _leads.Add((new CellPlace(place, column), row, new PageArea(sheet, left, right, _top, _top + height)));
            }

            if (figure.Length > 0)
            {
                var end = right - (mark is null ? 0 : _text.MarkWidth);
                WriteLines(LinesOf(face, figure, column), waiting, line => WriteAt(sheet, face, line.Text, column, left, end, baseline + line.Down));
                sheet.TextEndingAt(face, waiting.FirstLine == 0 ? PageText.MarkOf(mark) : "", _text.Size, right, baseline);
            }
        }

        _top += height;
    }

    private void WriteLines(IReadOnlyList<string> lines, WaitingRow part, Action<(string Text, double Down)> write)
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
        sheet.Text(face, shown, _text.Size, _words.AlignOf(column) switch { ColumnAlign.Left => left, ColumnAlign.Center => left + (free / 2), _ => left + free }, baseline);
    }

    private double LabelRoom(ReportRow row) => PageColumns.StandsAlone(row) ? Room - PageColumns.IndentOf(row) : _columns.Label - PageColumns.IndentOf(row);

    private IReadOnlyList<string> HeadingLines(int column) => _text.Lines(_text.Bold, _report.Columns[column].Heading, _columns.WidthOf(column) + 0.01);

    private IReadOnlyList<string> LinesOf(PageFace face, string figure, int column) =>
        _columns.IsText(column) ? _text.Lines(face, figure, _columns.WidthOf(column) + 0.01) : [face.Shown(figure)];

    private int LinesOf(ReportRow row)
    {
        var face = _text.FaceOf(row);
        var lines = _text.Lines(face, row.Label, LabelRoom(row) + 0.01).Count;
        foreach (var column in _columns.Shown)
        {
            if (_columns.IsText(column) && _words.Readable(row, column) is { Length: > 0 } text)
            {
                lines = Math.Max(lines, LinesOf(face, text, column).Count);
            }
        }

        return lines;
    }

    private double HeightOf(ReportRow row, int lines)
    {
        const double Between = 1.5;
        return (lines * _text.LineHeight) + Between + (IsTotal(row) ? AboveTotal : 0) + (row.Kind == RowKind.GrandTotal ? 2 : 0);
    }

    private void AddFoot()
    {
        var lines = _words.Foot.SkipLast(_words.Look.Footer is null ? 0 : 1).Concat(_text.Missing(_words.Language) is { } missing ? [(missing, false)] : []).ToList();
        _top += lines.Count > 0 ? _text.LineHeight : 0;
        WriteParagraphs(lines);
    }

    // A row, or a part of its lines, that is to be written on the page.
    private readonly record struct WaitingRow(ReportRow Row, int Place, double Height, bool HasRule, int FirstLine, int Lines);
}
