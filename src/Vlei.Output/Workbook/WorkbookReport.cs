using Vlei.Core.Reports;
using Vlei.Output.Overview;

namespace Vlei.Output.Workbook;

/// <summary>A report, or several, as the sheets of a spreadsheet.</summary>
internal static class WorkbookReport
{
    /// <summary>The name of the cells that a report's table stands in.</summary>
    public const string TableName = "report";

    /// <summary>The name of the cells that the records behind its figures stand in.</summary>
    public const string RecordsName = "report_records";

    /// <summary>The name of the cells that the documents of those records stand in.</summary>
    public const string DocumentsName = "report_documents";


    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, ISpreadsheet spreadsheet)
    {
        AddReport(spreadsheet, words, WorkbookPackage.SheetName(words.Report.Title, []), null);
        spreadsheet.Finish();
    }

    /// <summary>The lines above and below a table, by the names of the cells that they stand in.</summary>
    public static IEnumerable<(string Name, IReadOnlyList<string> Lines)> Lines(ReportWords words) =>
    [
        ("report_title", [words.Report.Title]), ("report_head", [.. words.Head, .. words.Report.AddressedTo]),
        ("report_foot", [.. words.Foot.Select(line => line.Line)]),
    ];

    /// <summary>
    /// Writes the page of panels, what there is, and each report on a sheet of its own. A cover says what there is, and leads there.
    /// </summary>
    public static void WritePack(ReportPack pack, ISpreadsheet spreadsheet)
    {
        var reports = pack.Whole.Select(report => new ReportWords(report)).ToList();
        var language = reports.Select(words => words.Language).FirstOrDefault(Core.Languages.Language.English);
        var names = new List<string>();
        if (pack.Front is { } page)
        {
            var panels = new PageWords(page);
            names.Add(WorkbookPackage.SheetName(panels.Title, []));
            spreadsheet.AddSheet(names[0], [], null, new PanelsOfWorkbook(panels).Write);
        }

        var first = names.Count;
        if (pack.Cover is null)
        {
            names.Add(WorkbookPackage.SheetName(language.Say("Contents"), names));
        }

        var sheets = new List<string>();
        foreach (var words in reports)
        {
            sheets.Add(WorkbookPackage.SheetName(words.Report.Title, names));
            names.Add(sheets[^1]);
        }

        if (pack.Cover is null)
        {
            spreadsheet.AddSheet(names[first], [], null, new ContentsSheet(pack.Title, reports, sheets, language).Write);
        }

        var ofMembers = pack.Reports.Zip(sheets.Skip(pack.Cover is null ? 0 : 1))
            .ToDictionary(pair => pair.First.Name, pair => pair.Second);
        for (var place = 0; place < reports.Count; place++)
        {
            var isCover = pack.Cover is not null && place == 0;
            AddReport(spreadsheet, reports[place], sheets[place], isCover ? null : names[first], names, isCover ? ofMembers : null);
        }

        spreadsheet.Finish();
    }

    // The sheets with what is behind a report's figures follow it.
    private static void AddReport(
        ISpreadsheet spreadsheet, ReportWords words, string name, string? back, List<string>? names = null,
        Dictionary<string, string>? members = null)
    {
        var taken = names ?? [name];
        var (records, documents) = (words.Records, words.Documents);
        var recordsName = records is null ? "" : Taken(records);
        var documentsName = documents is null ? "" : Taken(documents);
        ReportSheet? recordsSheet = null;
        var sheet = new ReportSheet(words, spreadsheet, back)
        {
            FigureLink = figure => recordsSheet is not null && words.Report.Records!.HeadingOf(figure) is { } row
                ? new SheetLink(recordsName, recordsSheet.CellOf(row)) : null,
            LabelLink = (row, _) => members is not null && row.Kind == RowKind.Record && members.TryGetValue(row.Key, out var member)
                ? new SheetLink(member, CellText.First) : null,
        };
        var documentsSheet = documents is null ? null : new ReportSheet(documents, spreadsheet, recordsName);
        var documentRows = documents?.RowsOfDocuments() ?? [];
        recordsSheet = records is null ? null : new ReportSheet(records, spreadsheet, name)
        {
            LabelLink = (row, place) => words.Report.Records!.Figures.TryGetValue(place, out var figure)
                ? new SheetLink(name, sheet.CellOf(figure))
                : words.Report.Records.HeadingBehind(place) is { } heading ? new SheetLink(recordsName, recordsSheet!.CellOf(heading))
                : row.Document is { } id && documentsSheet is not null && documentRows.TryGetValue(id, out var document)
                    ? new SheetLink(documentsName, documentsSheet.CellOf(document)) : null,
        };
        Add(name, sheet, TableName, sheet.Drawing(name));
        if (recordsSheet is not null)
        {
            Add(recordsName, recordsSheet, RecordsName, null);
        }

        if (documentsSheet is not null)
        {
            Add(documentsName, documentsSheet, DocumentsName, null);
        }

        void Add(string title, ReportSheet added, string table, SheetDrawing? drawing) =>
            spreadsheet.AddSheet(title, [.. added.LineCells, (table, added.Table)], drawing, added.Write);

        string Taken(ReportWords further)
        {
            var free = WorkbookPackage.SheetName(names is null ? further.Report.Title : $"{further.Report.Title} {name}", taken);
            taken.Add(free);
            return free;
        }
    }
}
