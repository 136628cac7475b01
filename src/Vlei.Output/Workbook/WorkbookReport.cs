using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>A report, or several, as a workbook (Office Open XML, ECMA-376).</summary>
internal static class WorkbookReport
{
    /// <summary>The name of the cells that a report's table stands in.</summary>
    public const string TableName = "report";

    /// <summary>The name of the cells that the records behind its figures stand in.</summary>
    public const string RecordsName = "report_records";

    /// <summary>The name of the cells that the documents of those records stand in.</summary>
    public const string DocumentsName = "report_documents";

    private const string RepeatedName = "_xlnm.Print_Titles";
    private const string TopLeft = "A1";

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream)
    {
        using var package = new WorkbookPackage(stream, words.Report.Title, words.Look);
        AddReport(package, words, WorkbookPackage.SheetName(words.Report.Title, []), null);
        package.Finish();
    }

    /// <summary>The lines above and below a table, by the names of the cells that they stand in.</summary>
    public static IEnumerable<(string Name, IReadOnlyList<string> Lines)> Lines(ReportWords words) =>
        [("report_title", [words.Report.Title]), ("report_head", [.. words.Head, .. words.Report.AddressedTo]), ("report_foot", [.. words.Foot.Select(line => line.Line)])];

    /// <summary>Writes the cover, what there is, and each report on a sheet of its own.</summary>
    public static void WritePack(ReportPack pack, Stream stream)
    {
        var reports = pack.Whole.Select(report => new ReportWords(report)).ToList();
        var language = reports.Select(words => words.Language).FirstOrDefault(Core.Languages.Language.English);
        using var package = new WorkbookPackage(stream, pack.Title, reports.Select(words => words.Look).LastOrDefault(new ReportLook()));
        var names = new List<string> { language.Say("Contents") };
        foreach (var words in reports)
        {
            names.Add(WorkbookPackage.SheetName(words.Report.Title, names));
        }

        var contents = new ContentsSheet(pack, reports, [.. names.Skip(1)], package.Looks, language);
        package.AddSheet(names[0], contents.Write);
        for (var place = 0; place < reports.Count; place++)
        {
            AddReport(package, reports[place], names[place + 1], (CellText.Place(names[0], TopLeft), names[0]), names);
        }

        package.Finish();
    }

    // The sheets with what is behind a report's figures follow it.
    private static void AddReport(WorkbookPackage package, ReportWords words, string name, (string Target, string Name)? back, List<string>? names = null)
    {
        var taken = names ?? [name];
        var (records, documents) = (words.Records, words.Documents);
        var recordsName = records is null ? "" : Taken(records);
        var documentsName = documents is null ? "" : Taken(documents);
        ReportSheet? recordsSheet = null;
        var places = words.Report.Records?.Figures.ToDictionary(figure => figure.Value, figure => figure.Key) ?? [];
        var sheet = new ReportSheet(words, package.Looks, back)
        {
            FigureLink = figure => recordsSheet is not null && places.TryGetValue(figure, out var row) ? CellText.Place(recordsName, recordsSheet.CellOf(row)) : null,
        };
        var documentsSheet = documents is null ? null : new ReportSheet(documents, package.Looks, (CellText.Place(recordsName, TopLeft), recordsName));
        var documentRows = documents?.RowsOfDocuments() ?? [];
        recordsSheet = records is null ? null : new ReportSheet(records, package.Looks, (CellText.Place(name, TopLeft), name))
        {
            LabelLink = (row, place) => words.Report.Records!.Figures.TryGetValue(place, out var figure) ? CellText.Place(name, sheet.CellOf(figure))
                : row.Document is { } id && documentsSheet is not null && documentRows.TryGetValue(id, out var document) ? CellText.Place(documentsName, documentsSheet.CellOf(document)) : null,
        };
        Add(name, sheet, sheet.Drawing(name));
        package.AddName(TableName, sheet.Table);
        foreach (var (further, of, cells) in new[] { (recordsName, recordsSheet, RecordsName), (documentsName, documentsSheet, DocumentsName) })
        {
            if (of is not null)
            {
                Add(further, of, null);
                package.AddName(cells, of.Table);
            }
        }

        void Add(string title, ReportSheet added, SheetDrawing? drawing)
        {
            package.AddSheet(title, added.Write, drawing);
            package.AddName(RepeatedName, added.RepeatedRows);
            foreach (var (line, cells) in added.LineCells)
            {
                package.AddName(line, cells);
            }
        }

        string Taken(ReportWords further)
        {
            var free = WorkbookPackage.SheetName(names is null ? further.Report.Title : $"{further.Report.Title} {name}", taken);
            taken.Add(free);
            return free;
        }
    }
}
