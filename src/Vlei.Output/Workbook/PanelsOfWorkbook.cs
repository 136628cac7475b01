using Vlei.Core.Reports;
using Vlei.Output.Overview;

namespace Vlei.Output.Workbook;

/// <summary>A page of panels as a sheet: each panel below the one before, its figures as numbers.</summary>
/// <param name="words">The page.</param>
internal sealed class PanelsOfWorkbook(PageWords words)
{
    private const int FigureColumn = 1;
    private const int FirstPanel = 4;

    /// <summary>Writes the sheet.</summary>
    public void Write(ISheet sheet)
    {
        const int Room = 3, LeastFigure = 14, LeastChange = 16, LeastLabel = 24;
        var changes = words.Panels.SelectMany(panel => panel.Figures).Select(figure => figure.Changes.Count).DefaultIfEmpty().Max();
        var labels = words.Panels.SelectMany(panel => panel.Figures.Select(figure => figure.Label).Append(panel.Title).Append(panel.When))
            .Select(DisplayText.Width).DefaultIfEmpty().Max();
        sheet.Begin(
            0, [Math.Max(LeastLabel, labels) + Room, LeastFigure + Room, .. Enumerable.Repeat(LeastChange, changes)], 0,
            new HashSet<int>());
        sheet.Row(1, 0, () => sheet.Words(0, words.Title, new CellLook { IsTitle = true }));
        sheet.Row(2, 0, () => sheet.Words(0, $"{words.Page.Book}, {words.Day}", default));
        var row = FirstPanel;
        foreach (var panel in words.Panels)
        {
            row = WritePanel(sheet, panel, row) + 1;
        }

        sheet.End(new SheetPage(
            words.Page.Look, IsWide: false, $"{words.Page.Book}: {words.Title}",
            (page, pages) => words.Language.Say("Page {0} of {1}", page, pages)));
    }

    // Gives the row after it.
    private static int WritePanel(ISheet sheet, PanelWords panel, int row)
    {
        var heading = new CellLook { Rule = CellRule.Below };
        var against = panel.Figures.Select(figure => figure.Changes).FirstOrDefault(known => known.Count > 0) ?? [];
        sheet.Row(row++, 0, () => sheet.Words(0, panel.Title, new CellLook { Bold = true }));
        sheet.Row(row++, 0, () =>
        {
            sheet.Words(0, panel.When, heading);
            sheet.Words(FigureColumn, "", heading);
            foreach (var (place, change) in against.Index())
            {
                sheet.Words(FigureColumn + 1 + place, change.Against, heading with { Align = ColumnAlign.Right });
            }
        });
        var report = panel.Panel.Report is { } own ? new ReportWords(own) : null;
        foreach (var figure in panel.Figures)
        {
            sheet.Row(row++, 0, () => WriteFigure(sheet, report!, figure));
        }

        foreach (var (text, _) in panel.Said)
        {
            sheet.Row(row++, 0, () => sheet.Words(0, text, default));
        }

        return row;
    }

    private static void WriteFigure(ISheet sheet, ReportWords report, PanelFigure figure)
    {
        var (row, column) = (report.Report.Rows[figure.Line.Row], figure.Line.Column);
        sheet.Words(0, figure.Label, default);
        if (row.Cells[column].Units is { } units)
        {
            sheet.Number(
                FigureColumn, CellFormat.Value(report.Report, row, column, units), null, new CellLook(CellFormat.Of(report, row, column)));
        }
        else
        {
            sheet.Words(FigureColumn, figure.Figure, default);
        }

        foreach (var (place, change) in figure.Changes.Index())
        {
            sheet.Words(FigureColumn + 1 + place, change.Words, new CellLook { Align = ColumnAlign.Right });
        }
    }
}
