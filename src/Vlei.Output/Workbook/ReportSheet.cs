using System.Globalization;
using System.Xml;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>A report as a sheet: its title and what must be known of it, the table with live formulas, and what it checked.</summary>
internal sealed class ReportSheet
{
    private const int LabelColumn = 0;
    private const int MostLabelLetters = 60;
    private const int MostTextLetters = 50;
    private const int LettersAcross = 90;

    private readonly Report _report;
    private readonly WorkbookLooks _looks;
    private readonly string? _back;
    private readonly List<(string Text, CellLook Look)> _head = [];
    private readonly int _headings;
    private readonly ReportWorkings _workings;
    private readonly CellFormula _formula;

    /// <summary>Lays a report out.</summary>
    /// <param name="report">The report.</param>
    /// <param name="looks">The looks of the workbook.</param>
    /// <param name="back">Where a reader comes from; nothing where the sheet stands alone.</param>
    public ReportSheet(Report report, WorkbookLooks looks, string? back)
    {
        (_report, _looks, _back) = (report, looks, back);
        _head.Add((report.Title, new CellLook { IsTitle = true }));
        foreach (var line in new[] { report.Book, report.PeriodInWords, ReportWords.InWhat(report) }.Concat(report.Narrowed).Concat(report.Notes).Concat(report.AddressedTo))
        {
            _head.Add((line, default));
        }

        _headings = _head.Count + (back is null ? 2 : 3);
        WorkbookPackage.RefuseTooLarge(report.Title, _headings + report.Rows.Count + report.Foot.Count + report.Checks.Count + 2, report.Columns.Count + 1);
        _workings = ReportWorkings.Of(report);
        _formula = new CellFormula(_headings + 1, [.. Enumerable.Range(1, report.Columns.Count)]);
    }

    /// <summary>The cells of the table, with its headings.</summary>
    public string Table => Absolute(_headings, _headings + _report.Rows.Count, _report.Columns.Count);

    /// <summary>What is repeated on every page that is printed.</summary>
    public string RepeatedRows => string.Create(CultureInfo.InvariantCulture, $"${_headings}:${_headings}");

    /// <summary>Writes the sheet.</summary>
    public void Write(XmlWriter xml)
    {
        var (sheet, widths, shown) = (new SheetWriter(xml, _looks), Widths(), ReportWords.ShownColumns(_report));
        var hidden = Enumerable.Range(0, _report.Columns.Count).Except(shown).Select(column => column + 1).ToHashSet();
        var isWide = shown.Sum(column => widths[column + 1]) + widths[0] > LettersAcross;
        sheet.Begin(_headings, widths, _report.Rows.Count > 0 ? _report.Rows.Max(row => row.Level) : 0, isWide, hidden);
        WriteHead(sheet, widths);
        var place = 0;
        foreach (var row in _report.Rows)
        {
            WriteRow(sheet, row, place++);
        }

        WriteFoot(sheet);
        sheet.End(isWide, $"{_report.Book}: {_report.Title}, {_report.PeriodInWords}");
    }

    private static string Absolute(int first, int last, int lastColumn) =>
        string.Create(CultureInfo.InvariantCulture, $"$A${first}:${CellText.ColumnName(lastColumn)}${last}");

    private int[] Widths()
    {
        const int Least = 8;
        const int Room = 3;
        var widths = _report.Columns.Select(column => column.Heading.Split(' ').Max(DisplayText.Width)).Prepend(0).ToArray();
        foreach (var row in _report.Rows)
        {
            widths[LabelColumn] = Math.Max(widths[LabelColumn], Math.Min(MostLabelLetters, DisplayText.Width(row.Label) + (2 * row.Level)));
            for (var column = 0; column < _report.Columns.Count; column++)
            {
                widths[column + 1] = Math.Max(widths[column + 1], Math.Min(MostTextLetters, DisplayText.Width(ReportWords.Figure(_report, row, column, ascii: false))));
            }
        }

        return [.. widths.Select(letters => Math.Max(Least, letters + Room))];
    }

    private void WriteHead(SheetWriter sheet, int[] widths)
    {
        var number = 1;
        foreach (var (text, look) in _head)
        {
            sheet.Row(number++, 0, () => sheet.Words(LabelColumn, text, look));
        }

        if (_back is not null)
        {
            sheet.Row(number, 0, () =>
            {
                sheet.Words(LabelColumn, "Contents", new CellLook { IsLink = true });
                sheet.Link(LabelColumn, _back);
            });
        }

        sheet.Row(_headings, 0, () =>
        {
            sheet.Words(LabelColumn, "", new CellLook { Bold = true, Rule = CellRule.Below });
            for (var column = 0; column < _report.Columns.Count; column++)
            {
                sheet.Words(column + 1, _report.Columns[column].Heading, new CellLook
                {
                    Bold = true, Rule = CellRule.Below, Wraps = true, Right = _report.Columns[column].Kind != ColumnKind.Text,
                });
            }
        }, _report.Columns.Select((column, place) => DisplayText.Wrap(column.Heading, widths[place + 1] - 3).Count()).DefaultIfEmpty(1).Max());
    }

    private void WriteRow(SheetWriter sheet, ReportRow row, int place) => sheet.Row(_headings + 1 + place, row.Level, () =>
    {
        var look = LookOf(row);
        sheet.Words(LabelColumn, row.Label, look with { Indent = row.Level });
        for (var column = 0; column < _report.Columns.Count; column++)
        {
            var cell = row.Cells[column];
            if (cell.Units is { } units)
            {
                var working = _workings.Of(row, place, column);
                sheet.Number(
                    column + 1, working is Working.Share share ? Quotient(share) : CellFormats.Value(_report, row, column, units),
                    working is null ? null : _formula.Of(working), look with { Format = CellFormats.Of(_report, row, column), Right = true });
            }
            else if (cell.Words is not null || look.Rule != CellRule.None)
            {
                sheet.Words(column + 1, cell.Words ?? "", look);
            }
        }
    });

    private static CellLook LookOf(ReportRow row) => new()
    {
        Bold = row.Kind is not (RowKind.Account or RowKind.Record or RowKind.Group),
        Rule = row.Kind switch
        {
            RowKind.Total or RowKind.Result => CellRule.Thin,
            RowKind.GrandTotal => CellRule.Double,
            _ => CellRule.None,
        },
    };

    // A percentage is rounded to four decimals in the report; the formula of the cell is not.
    private string Quotient(Working.Share share)
    {
        var (part, whole) = ((double)UnitsAt(share.Part), (double)UnitsAt(share.Whole));
        return (share.IsChange ? (part - whole) / Math.Abs(whole) : part / whole).ToString("R", CultureInfo.InvariantCulture);
    }

    private long UnitsAt(CellPlace cell) => _report.Rows[cell.Row].Cells[cell.Column].Units ?? 0;

    private void WriteFoot(SheetWriter sheet)
    {
        var checks = ReportWords.ShownChecks(_report);
        var number = _headings + _report.Rows.Count + 2;
        foreach (var line in _report.Foot.Concat(ReportWords.Held(checks)).Concat(checks.Where(check => !check.Ok).Select(check => ReportWords.Failed(_report, check))))
        {
            sheet.Row(number++, 0, () => sheet.Words(LabelColumn, line, default));
        }
    }
}
