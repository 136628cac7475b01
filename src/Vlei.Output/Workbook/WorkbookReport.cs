
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

    /// <summary>Writes the cover, what there is, and each report on a sheet of its own.</summary>
    public static void WritePack(ReportPack pack, ISpreadsheet spreadsheet)
    {
        var reports = pack.Whole.Select(report => new ReportWords(report)).ToList();
        var language = reports.Select(words => words.Language).FirstOrDefault(Core.Languages.Language.English);
        var names = new List<string> { language.Say("Contents") };
        foreach (var words in reports)
        {
            names.Add(WorkbookPackage.SheetName(words.Report.Title, names));
        }

        var contents = new ContentsSheet(pack, reports, [.. names.Skip(1)], language);
        spreadsheet.AddSheet(names[0], [], null, contents.Write);
        for (var place = 0; place < reports.Count; place++)
        {
            AddReport(spreadsheet, reports[place], names[place + 1], names[0], names);
        }

        spreadsheet.Finish();
    }

    // The sheets with what is behind a report's figures follow it.
    private static void AddReport(ISpreadsheet spreadsheet, ReportWords words, string name, string? back, List<string>? names = null)
    {
        var taken = names ?? [name];
        var (records, documents) = (words.Records, words.Documents);
        var recordsName = records is null ? "" : Taken(records);
        var documentsName = documents is null ? "" : Taken(documents);
        ReportSheet? recordsSheet = null;
        var places = words.Report.Records?.Figures.ToDictionary(figure => figure.Value, figure => figure.Key) ?? [];
        var sheet = new ReportSheet(words, spreadsheet, back)
        {
            FigureLink = figure => recordsSheet is not null && places.TryGetValue(figure, out var row)
                ? new SheetLink(recordsName, recordsSheet.CellOf(row)) : null,
        };
        var documentsSheet = documents is null ? null : new ReportSheet(documents, spreadsheet, recordsName);
        var documentRows = documents?.RowsOfDocuments() ?? [];
        recordsSheet = records is null ? null : new ReportSheet(records, spreadsheet, name)
        {
            LabelLink = (row, place) => words.Report.Records!.Figures.TryGetValue(place, out var figure)
                ? new SheetLink(name, sheet.CellOf(figure))
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
