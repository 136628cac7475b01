using CsvHelper;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Vlei.Tests.Documents;

/// <summary>A record set as somebody keeps it in a workbook: a sheet per file, with numbers and days as such.</summary>
internal static class RecordWorkbook
{
    private static readonly HashSet<string> Numbers = ["amount", "quantity", "unit_price", "rate", "terms_days", "line", "debit", "credit"];
    private static readonly HashSet<string> Days = ["date", "due", "month"];

    /// <summary>Writes one.</summary>
    /// <param name="folder">The record set.</param>
    /// <param name="path">The workbook.</param>
    public static void Write(string folder, string path)
    {
        using var document = SpreadsheetDocument.Create(path, SpreadsheetDocumentType.Workbook);
        var workbook = document.AddWorkbookPart();
        workbook.AddNewPart<WorkbookStylesPart>().Stylesheet = new Stylesheet(
            new Fonts(new Font()), new Fills(new Fill()), new Borders(new Border()), new CellStyleFormats(new CellFormat()),
            new CellFormats(new CellFormat(), new CellFormat { NumberFormatId = 14, ApplyNumberFormat = true }));
        var sheets = new Sheets();
        foreach (var (file, number) in Directory.GetFiles(folder, "*.csv").Order(StringComparer.Ordinal)
            .Select((file, at) => (file, at + 1)))
        {
            var part = workbook.AddNewPart<WorksheetPart>();
            var rows = RowsOf(file);
            part.Worksheet = new Worksheet(new SheetData(rows.Select((row, at) => RowOf(row, at, rows[0]))));
            sheets.Append(new Sheet
            {
                Name = Path.GetFileNameWithoutExtension(file).Replace('_', ' '), SheetId = (uint)number, Id = workbook.GetIdOfPart(part),
            });
        }

        workbook.Workbook = new Workbook(sheets);
    }

    private static List<string[]> RowsOf(string file)
    {
        using var csv = CsvReader.FromFile(file, new CsvReaderOptions());
        csv.ReadHeader();
        var rows = new List<string[]> { csv.Headers!.ToArray() };
        while (csv.Read())
        {
            rows.Add([.. Enumerable.Range(0, rows[0].Length).Select(column => csv.GetString(column))]);
        }

        return rows;
    }

    // The name of a tag is a person's own, also in its case. With an empty row below the headings, which is none.
    private static Row RowOf(IReadOnlyList<string> values, int at, string[] headings) => new(values.Select((value, column) =>
        at == 0 ? Text(value.StartsWith("tag.", StringComparison.Ordinal) ? value : value.ToUpperInvariant()) : value.Length == 0
            ? new Cell()
        : Days.Contains(headings[column]) ? new Cell
        {
            StyleIndex = 1,
            CellValue = new CellValue(DateTime.Parse(value.Length == 7 ? $"{value}-01" : value, CultureInfo.InvariantCulture).ToOADate()),
        }
        : Numbers.Contains(headings[column]) ? new Cell { CellValue = new CellValue(double.Parse(value, CultureInfo.InvariantCulture)) }
        : Text(value)))
    {
        RowIndex = (uint)(at == 0 ? 1 : at + 2),
    };

    private static Cell Text(string value) => new()
    {
        DataType = CellValues.InlineString, InlineString = new InlineString(new Text(value) { Space = SpaceProcessingModeValues.Preserve }),
    };
}
