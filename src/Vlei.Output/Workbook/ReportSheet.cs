using System.Globalization;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>A report as a sheet: its title and what must be known of it, the table with live formulas, and what it checked.</summary>
internal sealed class ReportSheet
{
    private const int LabelColumn = 0;
    private const int MostLabelLetters = 60;
    private const int MostTextLetters = 70;
    private const int LettersAcross = 100;
    private const int LinesOfChart = 22;
    private const int MostRowsAboveChart = 60;
    private const int LinesUpright = 50;
    private const int LinesOnSide = 32;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly string? _back;
    private readonly ReportLogo? _logo;
    private readonly ReportChart? _chart;
    private readonly List<(string Text, CellLook Look)> _head = [];
    private readonly int _headings;
    private readonly SheetFigures _figures;
    private readonly IReadOnlyList<(string Line, bool IsFailed)> _foot;

    /// <summary>Lays a report out.</summary>
    /// <param name="words">The report.</param>
    /// <param name="spreadsheet">What it is a sheet of.</param>
    /// <param name="back">The sheet that a reader comes from; nothing where this one stands alone.</param>
    public ReportSheet(ReportWords words, ISpreadsheet spreadsheet, string? back)
    {
        (_words, _report, _back) = (words, words.Report, back);
        (_logo, _chart) = spreadsheet.HasDrawings ? (_report.Look.Logo, words.Chart) : default;
        if (_logo is not null)
        {
            _head.Add(("", default));
        }

        _head.Add((_report.Title, new CellLook { IsTitle = true }));
        _head.AddRange(words.Head.Concat(_report.AddressedTo).Select(line => (line, default(CellLook))));
        if (back is not null)
        {
            _head.Add((back, new CellLook { IsLink = true }));
        }

        _headings = _head.Count + 2;
        _foot = words.Foot;
        WorkbookPackage.RefuseTooLarge(_report.Title, FootRow + _foot.Count + LinesOfChart, _report.Columns.Count + 1);
        _figures = new SheetFigures(_report, _headings + 1, [.. Enumerable.Range(1, _report.Columns.Count)], spreadsheet.Notation);
    }

    /// <summary>Where a figure leads to; nothing where it leads nowhere.</summary>
    public Func<CellPlace, SheetLink?> FigureLink { get; init; } = _ => null;

    /// <summary>Where what stands before a row's figures leads to, by the row and its place; nothing where it leads nowhere.</summary>
    public Func<ReportRow, int, SheetLink?> LabelLink { get; init; } = (_, _) => null;

    /// <summary>The cells of the table, with its headings.</summary>
    public string Table => Absolute(_headings, _headings + _report.Rows.Count, _report.Columns.Count);

    /// <summary>The cells of the lines above and below the table, by their names.</summary>
    public IEnumerable<(string Name, string Cells)> LineCells
    {
        get
        {
            var title = _logo is null ? 1 : 2;
            var lines = WorkbookReport.Lines(_words).ToDictionary(part => part.Name, part => part.Lines.Count);
            yield return ("report_title", Lines(title, 1));
            yield return ("report_head", Lines(title + 1, lines["report_head"]));
            if (_foot.Count > 0)
            {
                yield return ("report_foot", Lines(FootRow, _foot.Count));
            }
        }
    }

    private bool IsChartBelow => _report.Rows.Count <= MostRowsAboveChart;

    private int ChartRow => FootRow + _foot.Count + 1;

    private int FootRow => _headings + _report.Rows.Count + 2;

    /// <summary>The cell that a figure of this sheet stands in.</summary>
    public string CellOf(CellPlace figure) => CellText.Name(_headings + 1 + figure.Row, figure.Column + 1);

    /// <summary>The cell that a row begins with.</summary>
    public string CellOf(int row) => CellText.Name(_headings + 1 + row, LabelColumn);

    /// <summary>What is drawn on the sheet: the picture at its head, and the chart.</summary>
    /// <param name="name">The name of the sheet.</param>
    public SheetDrawing? Drawing(string name)
    {
        if (_chart is null && _logo is null)
        {
            return null;
        }

        var chart = _chart is not { } drawn ? null
            : new ChartPart(
                _words, drawn, name, _headings, IsChartBelow ? 0 : _report.Columns.Count + 2, IsChartBelow ? ChartRow : _headings,
                LinesOfChart);
        return new SheetDrawing(_logo, chart);
    }

    /// <summary>Writes the sheet.</summary>
    public void Write(ISheet sheet)
    {
        // The rows are gone through twice: once for what must be known before them, and once to write them.
        var (widest, cells, deepest) = (LettersOfHeadings(), new CellTexts(_words, ascii: false), 0);
        var shown = _words.ShownColumns(row =>
        {
            deepest = Math.Max(deepest, row.Level);
            Widen(widest, cells, row);
        });
        var widths = Widths(widest);
        var hidden = Enumerable.Range(0, _report.Columns.Count).Except(shown).Select(column => column + 1).ToHashSet();
        var isWide = shown.Sum(column => widths[column + 1]) + widths[0] > LettersAcross;
        sheet.Begin(_headings, widths, deepest, hidden);
        WriteHead(sheet, widths);
        var place = 0;
        RowLook? above = null;

        // A share is worked out from the figures of other rows, which are looked up.
        foreach (var row in _report.Columns.All(column => column.Working is null) ? RowsAhead.Of(_report.Rows) : _report.Rows)
        {
            _figures.Take(row, place);
            WriteRow(sheet, row, LookOf(row, above), place++);
            above = RowLook.Of(row);
        }

        for (var line = 0; line < _foot.Count; line++)
        {
            sheet.Row(FootRow + line, 0, () => sheet.Words(LabelColumn, _foot[line].Line, new CellLook { Bold = _foot[line].IsFailed }));
        }

        var foot = $"{_report.Book}: {_report.Title}, {_report.PeriodInWords}";
        var isCut = _chart is not null && IsChartBelow && ChartRow + LinesOfChart > (isWide ? LinesOnSide : LinesUpright);
        sheet.End(new SheetPage(_report.Look, isWide, foot, (page, pages) => _words.Language.Say("Page {0} of {1}", page, pages))
        {
            BreakBelow = isCut ? ChartRow : null,
        });
    }

    private static string Lines(int first, int count) => string.Create(CultureInfo.InvariantCulture, $"$A${first}:$A${first + count - 1}");

    private static string Absolute(int first, int last, int lastColumn) =>
        string.Create(CultureInfo.InvariantCulture, $"$A${first}:${CellText.ColumnName(lastColumn)}${last}");

    private int[] LettersOfHeadings() => [.. _report.Columns.Select(column => column.Heading.Split(' ').Max(DisplayText.Width)).Prepend(0)];

    private void Widen(int[] widest, CellTexts cells, ReportRow row)
    {
        widest[LabelColumn] = Math.Max(widest[LabelColumn], Math.Min(MostLabelLetters, DisplayText.Width(row.Label) + (2 * row.Level)));
        for (var column = 0; column < _report.Columns.Count; column++)
        {
            widest[column + 1] = Math.Max(widest[column + 1], Math.Min(MostTextLetters, cells.Of(row, column, out _).Width));
        }
    }

    private int[] Widths(int[] widest)
    {
        const int Least = 8;
        const int Room = 3;
        return [
            .. widest.Select(
                (letters, place) => (place == 0 ? _words.LabelWidth : _words.WidthOf(place - 1)) ?? Math.Max(Least, letters + Room))];
    }

    private void WriteHead(ISheet sheet, int[] widths)
    {
        for (var line = 0; line < _head.Count; line++)
        {
            var (text, look) = _head[line];
            SheetLink? link = look.IsLink ? new SheetLink(_back!, CellText.First) : null;
            var lines = line == 0 && _logo is not null ? SheetDrawing.LogoLines : 1;
            sheet.Row(line + 1, 0, () => sheet.Words(LabelColumn, text, look, link), lines);
        }

        sheet.Row(_headings, 0, () =>
        {
            var look = new CellLook { Bold = true, Rule = CellRule.Below };
            sheet.Words(LabelColumn, "", look);
            for (var column = 0; column < _report.Columns.Count; column++)
            {
                sheet.Words(column + 1, _report.Columns[column].Heading, look with { Wraps = true, Align = _words.AlignOf(column) });
            }
        }, _report.Columns.Select((column, place) => LinesOf(column, widths[place + 1])).DefaultIfEmpty(1).Max());
    }

    private static int LinesOf(ReportColumn column, int width) => DisplayText.Wrap(column.Heading, Math.Max(1, width - 3)).Count();

    private void WriteRow(ISheet sheet, ReportRow row, CellLook look, int place) => sheet.Row(_headings + 1 + place, row.Level, () =>
    {
        var target = LabelLink(row, place) is { } leads ? leads with { IsFurther = row.Kind != RowKind.Heading } : default(SheetLink?);
        var label = look with { Indent = row.Level, IsLink = target is not null, Rule = CellRule.None };
        sheet.Words(LabelColumn, row.Label, label, target);
        for (var column = 0; column < _report.Columns.Count; column++)
        {
            var (cell, align) = (row.Cells[column], _words.AlignOf(column));
            if (cell.Units is { } units)
            {
                var (figure, link) = (_figures.Of(row, place, column, units), FigureLink(new CellPlace(place, column)));
                var own = look with { Format = CellFormat.Of(_words, row, column), Align = align, IsLink = link is not null };
                sheet.Number(column + 1, figure.Value, figure.Formula, own, link);
            }
            else if (cell.Words is not null)
            {
                ColumnAlign? own = align == ColumnAlign.Left ? null : align;
                sheet.Words(column + 1, cell.Words, look with { Align = own, Rule = CellRule.None });
            }
        }
    });

    private static CellLook LookOf(ReportRow row, RowLook? above) => new()
    {
        Bold = RowLook.Of(row).IsStrong,
        Rule = row.Kind == RowKind.GrandTotal ? CellRule.Double : RowLook.Of(row).HasRule(above) ? CellRule.Thin : CellRule.None,
    };
}
