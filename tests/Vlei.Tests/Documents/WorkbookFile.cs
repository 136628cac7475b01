using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using DocumentFormat.OpenXml.Validation;

namespace Vlei.Tests.Documents;

/// <summary>A cell of a workbook: words, or a number, and the formula that it comes from.</summary>
internal sealed record FileCell(string? Words, double? Number, string? Formula);

/// <summary>A workbook, as another program's library reads it.</summary>
internal sealed class WorkbookFile : IDisposable
{
    private readonly SpreadsheetDocument _document;

    public WorkbookFile(string path) => _document = SpreadsheetDocument.Open(path, isEditable: false);

    /// <summary>The names of its sheets.</summary>
    public IReadOnlyList<string> Sheets => [.. Workbook.Descendants<Sheet>().Select(sheet => sheet.Name!.Value!)];

    /// <summary>What its schema does not allow.</summary>
    public IReadOnlyList<string> Faults =>
        [.. new OpenXmlValidator(DocumentFormat.OpenXml.FileFormatVersions.Office2019).Validate(_document)
        .Select(fault => $"{fault.Part?.Uri} {fault.Path?.XPath}: {fault.Description}").Take(5)];

    private Workbook Workbook => _document.WorkbookPart!.Workbook!;

    /// <summary>All cells of a sheet, by their names.</summary>
    public Dictionary<string, FileCell> Cells(string sheet) => PartOf(sheet).Worksheet!.Descendants<Cell>().ToDictionary(
        cell => cell.CellReference!.Value!, Read);

    /// <summary>The chart of its first sheet.</summary>
    public DocumentFormat.OpenXml.OpenXmlElement Chart => PartOf(Sheets[0]).DrawingsPart!.ChartParts.Single().ChartSpace!;

    /// <summary>The looks of all cells of a sheet, by their names.</summary>
    public Dictionary<string, uint> Looks(string sheet) =>
        PartOf(sheet).Worksheet!.Descendants<Cell>().ToDictionary(cell => cell.CellReference!.Value!, cell => cell.StyleIndex?.Value ?? 0);

    /// <summary>The first and the last of the cells that a sheet gives a name.</summary>
    public (string First, string Last) Place(string name, string sheet)
    {
        var place = Sheets.ToList().IndexOf(sheet);
        var defined = Workbook.DefinedNames!.Elements<DefinedName>().Single(one => one.Name == name && one.LocalSheetId! == (uint)place);
        var cells = defined.Text[(defined.Text.LastIndexOf('!') + 1)..].Replace("$", "", StringComparison.Ordinal).Split(':');
        return (cells[0], cells[^1]);
    }

    /// <summary>The rows of the cells that a sheet calls its report, with the headings; empty cells are left as nothing.</summary>
    public List<List<FileCell?>> Table(string sheet)
    {
        var place = Place("report", sheet);
        List<(int Row, int Column)> range = [Place(place.First), Place(place.Last)];
        var cells = PartOf(sheet).Worksheet!.Descendants<Cell>().ToDictionary(cell => Place(cell.CellReference!.Value!), Read);
        return
        [
            .. Enumerable.Range(range[0].Row, range[1].Row - range[0].Row + 1).Select(row =>
                Enumerable.Range(range[0].Column, range[1].Column - range[0].Column + 1)
                    .Select(column => cells.GetValueOrDefault((row, column))).ToList()),
        ];
    }

    /// <summary>How wide a column is, from 1, in letters.</summary>
    public double WidthOf(string sheet, uint column) =>
        PartOf(sheet).Worksheet!.Descendants<Column>().Single(one => one.Min! == column).Width!;

    /// <summary>Where the links of a sheet lead, by the cells that they are in.</summary>
    public Dictionary<string, string> Links(string sheet) => PartOf(sheet).Worksheet!.Descendants<Hyperlink>()
        .ToDictionary(link => link.Reference!.Value!, link => link.Location!.Value!);

    public void Dispose() => _document.Dispose();

    private static (int Row, int Column) Place(string name)
    {
        var letters = name.TakeWhile(char.IsLetter).Aggregate(0, (column, letter) => (column * 26) + letter - 'A' + 1);
        return (int.Parse(string.Concat(name.SkipWhile(char.IsLetter)), CultureInfo.InvariantCulture), letters);
    }

    private WorksheetPart PartOf(string sheet) => (WorksheetPart)_document.WorkbookPart!.GetPartById(
        Workbook.Descendants<Sheet>().Single(one => one.Name == sheet).Id!.Value!);

    private FileCell Read(Cell cell)
    {
        var formula = cell.CellFormula?.Text;
        var value = cell.CellValue?.Text;
        return cell.DataType?.InnerText switch
        {
            "inlineStr" => new FileCell(cell.InlineString!.InnerText, null, formula),
            "s" =>
                new FileCell(
                    _document.WorkbookPart!.SharedStringTablePart!.SharedStringTable!.ElementAt(
                        int.Parse(value!, CultureInfo.InvariantCulture)).InnerText, null, formula),
            "str" or "e" => new FileCell(value, null, formula),
            _ => new FileCell(null, value is null ? null : double.Parse(value, CultureInfo.InvariantCulture), formula),
        };
    }
}
