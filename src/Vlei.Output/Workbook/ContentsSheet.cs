using Vlei.Core.Languages;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>What is in a workbook of several reports, each line leading to its sheet.</summary>
/// <param name="title">The title of all.</param>
/// <param name="reports">The reports, as people read them.</param>
/// <param name="sheets">The names of their sheets.</param>
/// <param name="language">The language of its words.</param>
internal sealed class ContentsSheet(string title, IReadOnlyList<ReportWords> reports, IReadOnlyList<string> sheets, Language language)
{
    private const int FirstRow = 4;

    /// <summary>Writes the sheet.</summary>
    public void Write(ISheet sheet)
    {
        var lines = reports.Select(LineOf).ToList();
        const int Room = 2;
        var widths = Enumerable.Range(0, Headings.Length).Select(
            column => Room + lines.Append(Headings).Max(line => DisplayText.Width(line[column])));
        sheet.Begin(0, [.. widths], 0, new HashSet<int>());
        sheet.Row(1, 0, () => sheet.Words(0, title, new CellLook { IsTitle = true }));
        sheet.Row(2, 0, () => sheet.Words(0, reports.Count > 0 ? reports[0].Report.Book : "", default));
        sheet.Row(FirstRow, 0, () => WriteLine(sheet, Headings, new CellLook { Bold = true, Rule = CellRule.Below }));
        for (var place = 0; place < reports.Count; place++)
        {
            var link = new SheetLink(sheets[place], CellText.First);
            sheet.Row(FirstRow + 1 + place, 0, () => WriteLine(sheet, lines[place], default, link));
        }

        var look = reports.Count > 0 ? reports[0].Look : new ReportLook();
        sheet.End(new SheetPage(look, IsWide: true, title, (page, pages) => language.Say("Page {0} of {1}", page, pages)));
    }

    private string[] Headings => [language.Say("Report"), language.Say("Period"), language.Say("Amounts"), language.Say("Checks")];

    private string[] LineOf(ReportWords words) =>
    [
        words.Report.Title, words.Report.PeriodInWords, words.InWhat,
        words.Report.Checks.Count == 0 ? "" : language.Say(words.Report.Checks.All(check => check.Ok) ? "hold" : "FAILED"),
    ];

    private static void WriteLine(ISheet sheet, string[] line, CellLook look, SheetLink? link = null)
    {
        for (var column = 0; column < line.Length; column++)
        {
            var leads = column == 0 ? link : null;
            sheet.Words(column, line[column], look with { IsLink = leads is not null }, leads);
        }
    }
}
