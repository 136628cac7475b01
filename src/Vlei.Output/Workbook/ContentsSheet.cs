using System.Xml;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>What is in a workbook of several reports, each line leading to its sheet.</summary>
/// <param name="pack">The reports.</param>
/// <param name="sheets">The names of their sheets.</param>
/// <param name="looks">The looks of the workbook.</param>
internal sealed class ContentsSheet(ReportPack pack, IReadOnlyList<string> sheets, WorkbookLooks looks)
{
    private const int FirstRow = 4;

    /// <summary>Writes the sheet.</summary>
    public void Write(XmlWriter xml)
    {
        var (sheet, reports) = (new SheetWriter(xml, looks), pack.Whole.ToList());
        var lines = reports.Select(LineOf).ToList();
        const int Room = 2;
        sheet.Begin(0, [.. Enumerable.Range(0, Headings.Length).Select(column => Room + lines.Append(Headings).Max(line => DisplayText.Width(line[column])))], 0, isWide: true, new HashSet<int>());
        sheet.Row(1, 0, () => sheet.Words(0, pack.Title, new CellLook { IsTitle = true }));
        sheet.Row(2, 0, () => sheet.Words(0, reports.Count > 0 ? reports[0].Book : "", default));
        sheet.Row(FirstRow, 0, () => WriteLine(sheet, Headings, new CellLook { Bold = true, Rule = CellRule.Below }));
        for (var place = 0; place < reports.Count; place++)
        {
            sheet.Row(FirstRow + 1 + place, 0, () =>
            {
                WriteLine(sheet, lines[place], default);
                sheet.Link(0, CellText.Place(sheets[place], "A1"));
            });
        }

        sheet.End(isWide: true, pack.Title);
    }

    private static string[] Headings => ["Report", "Period", "Amounts", "Checks"];

    private string[] LineOf(Report report) => report == pack.Cover ? [report.Title, report.PeriodInWords, "", ""] :
    [
        report.Title, report.PeriodInWords, ReportWords.InWhat(report),
        report.Checks.Count == 0 ? "" : report.Checks.All(check => check.Ok) ? "hold" : "FAILED",
    ];

    private static void WriteLine(SheetWriter sheet, string[] line, CellLook look)
    {
        for (var column = 0; column < line.Length; column++)
        {
            sheet.Words(column, line[column], look with { IsLink = column == 0 && !look.Bold });
        }
    }
}
