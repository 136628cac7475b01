using System.IO.Compression;
using System.Xml.Linq;

namespace Vlei.Tests.Documents;

/// <summary>A spreadsheet in OpenDocument, read by its elements.</summary>
internal sealed class OpenDocumentFile
{
    private const string Names = "urn:oasis:names:tc:opendocument:xmlns:";

    private static readonly XNamespace Table = $"{Names}table:1.0";
    private static readonly XNamespace Office = $"{Names}office:1.0";
    private static readonly XNamespace Words = $"{Names}text:1.0";

    private readonly XDocument _content;

    public OpenDocumentFile(string path)
    {
        using var archive = ZipFile.OpenRead(path);
        Assert.Equal("mimetype", archive.Entries[0].FullName);
        Assert.Equal(archive.Entries[0].Length, archive.Entries[0].CompressedLength);
        using var stream = archive.GetEntry("content.xml")!.Open();
        _content = XDocument.Load(stream, LoadOptions.PreserveWhitespace);
    }

    /// <summary>The names of its sheets.</summary>
    public IReadOnlyList<string> Sheets =>
        [.. _content.Descendants(Table + "table").Select(table => table.Attribute(Table + "name")!.Value)];

    /// <summary>All cells of a sheet that hold something, by their rows and columns, from 1.</summary>
    public Dictionary<(int Row, int Column), FileCell> Cells(string sheet)
    {
        var (cells, row) = (new Dictionary<(int Row, int Column), FileCell>(), 1);
        foreach (var line in TableOf(sheet).Descendants(Table + "table-row"))
        {
            var column = 1;
            foreach (var cell in line.Elements(Table + "table-cell"))
            {
                if (cell.Attribute(Office + "value-type") is { } kind)
                {
                    cells.Add((row, column), Read(cell, kind.Value));
                }

                column += (int?)cell.Attribute(Table + "number-columns-repeated") ?? 1;
            }

            row += (int?)line.Attribute(Table + "number-rows-repeated") ?? 1;
        }

        return cells;
    }

    /// <summary>The rows of the cells that a sheet calls its report, with the headings; empty cells are left as nothing.</summary>
    public List<List<FileCell?>> Report(string sheet)
    {
        var range = TableOf(sheet).Descendants(Table + "named-range").Single(name => name.Attribute(Table + "name")!.Value == "report")
            .Attribute(Table + "cell-range-address")!.Value.Split('$')[^4..];
        var cells = Cells(sheet);
        var (first, last) =
            (int.Parse(range[1].Split(':')[0], CultureInfo.InvariantCulture), int.Parse(range[3], CultureInfo.InvariantCulture));
        var columns = range[2].Aggregate(0, (column, letter) => (column * 26) + letter - 'A' + 1);
        return
        [
            .. Enumerable.Range(first, last - first + 1)
                .Select(row => Enumerable.Range(1, columns).Select(column => cells.GetValueOrDefault((row, column))).ToList()),
        ];
    }

    /// <summary>Where the words of a sheet lead.</summary>
    public IReadOnlyList<string> Links(string sheet) =>
        [.. TableOf(sheet).Descendants(Words + "a").Select(
            link => link.Attribute(XName.Get("href", "http://www.w3.org/1999/xlink"))!.Value)];

    private static FileCell Read(XElement cell, string kind)
    {
        var formula = cell.Attribute(Table + "formula")?.Value;
        return kind switch
        {
            "string" => new FileCell(string.Join('\n', cell.Elements(Words + "p").Select(Text)), null, formula),
            "date" => new FileCell(null, DateTime.ParseExact(
                cell.Attribute(Office + "date-value")!.Value, "yyyy-MM-dd", CultureInfo.InvariantCulture).ToOADate(), formula),
            _ => new FileCell(null, double.Parse(cell.Attribute(Office + "value")!.Value, CultureInfo.InvariantCulture), formula),
        };
    }

    private static string Text(XElement paragraph) => string.Concat(paragraph.DescendantNodes().Select(node => node switch
    {
        XText text => text.Value,
        XElement blanks when blanks.Name == Words + "s" => new string(' ', (int?)blanks.Attribute(Words + "c") ?? 1),
        XElement tab when tab.Name == Words + "tab" => "\t",
        _ => "",
    }));

    private XElement TableOf(string sheet) =>
        _content.Descendants(Table + "table").Single(table => table.Attribute(Table + "name")!.Value == sheet);
}
