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
    private const double UsualMargin = 42;
    private const double FootHeight = 30;
    private const double NumberWidth = 90;
    private const double NumberSpace = 36;
    private const int MostFootLines = 2;
    private const double RunningHeadHeight = 26;
    private const double Thin = 0.5;
    private const double LeastLetterSize = 6.5;
    private const double SmallerBy = 0.5;

    private readonly PdfDocumentBuilder _document;
    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly PageText _text;
    private readonly IChartDrawer? _charts;
    private readonly PageRows _rows;
    private readonly IReadOnlyList<IReadOnlyList<int>> _bands;
    private readonly LetterSheet? _letter;
    private readonly double _besideRows;
    private readonly double _width;
    private readonly double _height;
    private readonly List<PageRow> _waiting = [];
    private readonly List<Sheet> _sheets = [];
    private double _top;

    /// <summary>Makes its pages.</summary>
    /// <param name="document">Where they are added.</param>
    /// <param name="words">The report.</param>
    /// <param name="text">Its text.</param>
    /// <param name="charts">Who draws its chart.</param>
    /// <param name="kept">Of which of its rows it is kept where they stand; where of all, numbers of pages stand at their ends.</param>
    public PagedReport(PdfDocumentBuilder document, ReportWords words, PageText text, IChartDrawer? charts, KeptPlaces kept)
    {
        _besideRows = kept == KeptPlaces.All ? NumberSpace : 0;
        (_document, _words, _report, _text, _charts) = (document, words, words.Report, text, charts);
        _letter = words.Report.Letter is { } letter ? new LetterSheet(words, letter, text) : null;
        var (columns, paper) = (new PageColumns(words, text), Paper.Of(words.Look));
        var isWide = words.Look.Turn is { } turn ? turn == PaperTurn.Landscape
            : _letter is null && columns.Whole > paper.Width - (2 * Margin);
        (_width, _height) = isWide ? (paper.Height, paper.Width) : (paper.Width, paper.Height);
        var room = Room - _besideRows;
        columns.Narrow(room);

        // Half of a letter on a second sheet would be lost: rather a little smaller.
        while (_letter is not null && columns.Whole > room && _text.Size > LeastLetterSize)
        {
            _text = new PageText(text.Regular, text.Bold, _text.Size - SmallerBy);
            columns = new PageColumns(words, _text);
            columns.Narrow(room);
        }

        columns.Fill(room);
        _bands = columns.Bands(room);
        _rows = new PageRows(words, _text, columns, Margin, room) { Kept = kept };
        AddRows();
        AddFoot();
    }

    /// <summary>Its pages.</summary>
    public IReadOnlyList<Sheet> Sheets => _sheets;

    /// <summary>Its title.</summary>
    public string Title => _report.Title;

    /// <summary>What stands where on them.</summary>
    public PageRows Rows => _rows;

    private double Margin => _letter is null ? UsualMargin : LetterSheet.Margin;

    private double Room => _width - (2 * Margin);

    private double Bottom => _height - Margin - FootHeight;

    /// <summary>Writes what stands at the foot of each page, once their number is known.</summary>
    /// <param name="pages">How many pages the document has.</param>
    public void AddFeet(int pages)
    {
        var foot =
            $"{(_words.Look.Footer is { } own ? $"{own} – " : "")}{_report.Book}: {_report.Title}, {_report.PeriodInWords}. "
            + $"{_words.InWhat}.";
        foreach (var sheet in _sheets)
        {
            var number = _words.Language.Say("Page {0} of {1}", $"{sheet.Number}", $"{pages}");
            var lines = _text.FirstLines(_text.Regular, foot, Room - NumberWidth, MostFootLines);
            var top = _height - Margin - (MostFootLines * _text.LineHeight);
            sheet.Rule(Margin, _width - Margin, top, Thin);
            for (var line = 0; line < lines.Count; line++)
            {
                sheet.Text(_text.Regular, lines[line], _text.Size - 1, Margin, top + ((line + 1) * _text.LineHeight));
            }

            sheet.TextEndingAt(_text.Regular, number, _text.Size - 1, _width - Margin, top + _text.LineHeight);
        }
    }

    /// <summary>Has its rows lead on to pages, by their keys, and says their numbers.</summary>
    public void LeadOn(IReadOnlyDictionary<string, int> pages)
    {
        foreach (var (row, area) in _rows.Labels.Where(label => label.Row.Kind == RowKind.Record).DistinctBy(label => label.Row.Key))
        {
            if (pages.TryGetValue(row.Key, out var page))
            {
                area.Sheet.TextEndingAt(_text.Regular, $"{page}", _text.Size, _width - Margin, area.Top + _text.Size);
                area.Sheet.Link(Margin, _width - Margin, area.Top, area.Bottom, Sheet.PlaceOn(page, area.Sheet.Height));
            }
        }
    }

    private void AddRows()
    {
        StartFirstPage();
        var (used, place, above) = (_top + _rows.HeadingHeight, 0, (RowLook?)null);
        foreach (var row in _report.Rows)
        {
            used = AddRow(row, place++, RowLook.Of(row).HasRule(above), used);
            above = RowLook.Of(row);
        }

        // What stands below the rows is never alone on a page, unless it is the part of a letter to return.
        if (!HasSlip && used + PageRows.BelowHeadings + FootSpace > Bottom && _waiting.Count > 1)
        {
            Emit(_waiting.Count - Math.Max(1, MovedWith(_waiting[^1].Row)));
            StartPage();
        }

        Emit(_waiting.Count);
    }

    // How much room is needed below the rows.
    private double FootSpace => FootLines.Sum(line => _text.Lines(_text.Regular, line.Item1, Room).Count + 0.0) * _text.LineHeight
        + (FootLines.Count > 0 ? _text.LineHeight : 0) + (HasSlip ? LetterSheet.SlipHeight : 0);

    private bool HasSlip => _report.Letter?.Due.Sign > 0;

    // A row that is higher than what is left of its page goes on to the next one; one that is higher than any page is
    // broken. Gives how far the page is used then.
    private double AddRow(ReportRow row, int place, bool hasRule, double used)
    {
        const int LeastLines = 3;
        var (lines, written) = (_rows.LinesOf(row), 0);
        while (true)
        {
            var isFresh = used <= Margin + RunningHeadHeight + _rows.HeadingHeight;
            var room = (int)((Bottom - used - _rows.HeightOf(row, 0)) / _text.LineHeight);
            var isBroken = lines - written > room && (_waiting.Count == 0 || lines - written > LinesOnPage(row))
                && (room >= LeastLines || isFresh);
            if (lines - written <= room || isBroken)
            {
                var part = Math.Min(lines - written, Math.Max(1, room));
                var height = _rows.HeightOf(row, part);
                _waiting.Add(new PageRow(row, place, height, hasRule && written == 0, written, part, written + part == lines));
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
            used = _top + _rows.HeadingHeight + _waiting.Sum(waiting => waiting.Height);
        }
    }

    private int LinesOnPage(ReportRow row) =>
        (int)((Bottom - Margin - RunningHeadHeight - _rows.HeadingHeight - _rows.HeightOf(row, 0)) / _text.LineHeight);

    // What goes to the next page with a row: a total takes what it adds up last, a heading does not stay behind.
    private int MovedWith(ReportRow next)
    {
        var moved = 0;
        while (moved < _waiting.Count - 1 && moved < _waiting.Count / 2 + 1
            && (RowLook.Of(moved == 0 ? next : _waiting[^moved].Row).IsTotal || _waiting[^(moved + 1)].Row.Kind == RowKind.Heading))
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
            _top = _rows.WriteHeadings(sheet, _bands[band], band == 0 ? top : _top);
            for (var place = 0; place < count; place++)
            {
                _rows.Write(sheet, _waiting[place], _bands[band], isFirstBand: band == 0, _top);
                _top += _waiting[place].Height;
            }
        }

        _waiting.RemoveRange(0, count);
    }

    private void StartFirstPage()
    {
        var sheet = new Sheet(_document, _width, _height);
        _sheets.Add(sheet);
        if (_letter is not null)
        {
            _top = _letter.WriteHead(sheet);
            WriteParagraphs(_words.Head.Except([_report.Book, _report.PeriodInWords]).Select(line => (line, false)));
            _top += _text.LineHeight;
            return;
        }

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

        _sheets[^1].Png(ChartDrawing.Png(_words, _charts), Margin, _top, width * scale, height * scale);
        _top += (height * scale) + _text.LineHeight;
    }

    private void StartPage()
    {
        _sheets[^1].Pack();
        var sheet = new Sheet(_document, _width, _height);
        _sheets.Add(sheet);
        sheet.Text(
            _text.Bold, _text.FirstLines(_text.Bold, $"{_report.Book}: {_report.Title}", Room, 1)[0], _text.Size, Margin,
            Margin + _text.Size);
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

    private List<(string, bool)> FootLines => [.. _words.Foot.SkipLast(_words.Look.Footer is null ? 0 : 1)
        .Concat(_text.Missing(_words.Language) is { } missing ? [(missing, false)] : [])];

    private void AddFoot()
    {
        var lines = FootLines;
        _top += lines.Count > 0 ? _text.LineHeight : 0;
        WriteParagraphs(lines);
        if (!HasSlip)
        {
            return;
        }

        if (_top + LetterSheet.SlipHeight > Bottom)
        {
            StartPage();
        }

        _letter!.WriteSlip(_sheets[^1], Bottom);
    }
}
