using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>
/// The parts of a workbook in their archive (Office Open XML, ECMA-376): sheets are written one after the other as they come,
/// what names them last. The same sheets make the same bytes.
/// </summary>
internal sealed class WorkbookPackage : ISpreadsheet
{
    /// <summary>The namespace of sheets.</summary>
    public const string Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

    /// <summary>The namespace of references between parts.</summary>
    public const string Relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    private const string PackageRelations = "http://schemas.openxmlformats.org/package/2006/relationships";
    private const string ContentTypes = "http://schemas.openxmlformats.org/package/2006/content-types";
    private const string SheetType = "application/vnd.openxmlformats-officedocument.spreadsheetml";
    private const int MostLettersInName = 31;
    private const string RepeatedName = "_xlnm.Print_Titles";
    private const string FirstRelation = "rId1";
    private const string SecondRelation = "rId2";

    /// <summary>The day of all parts: an archive cannot leave it out, and the day of writing would make every file another.</summary>
    public static readonly DateTimeOffset Day = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    private readonly ZipArchive _archive;
    private readonly string _title;
    private readonly WorkbookLooks _looks;
    private readonly List<string> _sheets = [];
    private readonly List<string> _drawings = [];
    private readonly List<string> _charts = [];
    private readonly List<(string Name, int Sheet, string Cells)> _names = [];

    /// <summary>Begins a workbook.</summary>
    /// <param name="stream">Where it is written to.</param>
    /// <param name="title">Its title.</param>
    /// <param name="looks">How its reports look.</param>
    public WorkbookPackage(Stream stream, string title, ReportLook looks)
    {
        _looks = new WorkbookLooks(looks);
        _archive = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
        _title = title;
    }

    /// <summary>
    /// A name for a sheet that no other has: letters that none may have are replaced, and it is cut to the length that there may
    /// be.
    /// </summary>
    /// <param name="wanted">What it should be called.</param>
    /// <param name="taken">The names that are taken.</param>
    public static string SheetName(string wanted, IEnumerable<string> taken)
    {
        var letters = string.Concat(
            DisplayText.Harmless(wanted, ascii: false).Select(
                letter => "[]:*?/\\".Contains(letter) || char.IsSurrogate(letter) ? '-' : letter)).Trim(' ', '\'');
        var name = letters.Length == 0 ? "Report" : letters.Length > MostLettersInName ? letters[..MostLettersInName].TrimEnd(' ', '\'')
            : letters;
        var all = taken.Append("History").ToHashSet(StringComparer.OrdinalIgnoreCase);
        var free = name;
        for (var number = 2; all.Contains(free); number++)
        {
            var end = string.Create(CultureInfo.InvariantCulture, $" {number}");
            free = $"{(name.Length + end.Length > MostLettersInName ? name[..(MostLettersInName - end.Length)] : name)}{end}";
        }

        return free;
    }

    /// <inheritdoc/>
    public FormulaNotation Notation => FormulaNotation.Workbook;

    /// <inheritdoc/>
    public bool HasDrawings => true;

    /// <inheritdoc/>
    public void AddSheet(
        string name, IReadOnlyList<(string Name, string Cells)> names, SheetDrawing? drawing, Action<ISheet> write)
    {
        _sheets.Add(name);
        _names.AddRange(names.Select(named => (named.Name, _sheets.Count - 1, CellText.Place(name, named.Cells))));
        WritePart($"xl/worksheets/sheet{_sheets.Count}.xml", xml =>
        {
            xml.WriteStartElement("worksheet", Main);
            var sheet = new SheetWriter(xml, _looks, drawing is null ? null : FirstRelation);
            write(sheet);
            if (sheet.Repeated is { } rows)
            {
                _names.Add((RepeatedName, _sheets.Count - 1, CellText.Place(name, rows)));
            }

            xml.WriteEndElement();
        });
        if (drawing is not null)
        {
            AddDrawing(drawing);
        }
    }

    private void AddDrawing(SheetDrawing drawing)
    {
        var part = $"drawing{_drawings.Count + 1}.xml";
        _drawings.Add(part);
        WritePart($"xl/worksheets/_rels/sheet{_sheets.Count}.xml.rels", xml => WriteRelations(xml, [("drawing", $"../drawings/{part}")]));
        WritePart($"xl/drawings/{part}", xml => drawing.Write(xml, FirstRelation, drawing.Logo is null ? FirstRelation : SecondRelation));
        var relations = new List<(string, string)>();
        if (drawing.Logo is { } logo)
        {
            var image = $"image{_drawings.Count}.{(logo.IsPng ? "png" : "jpeg")}";
            relations.Add(("image", $"../media/{image}"));
            using var stream = Entry($"xl/media/{image}").Open();
            stream.Write(logo.Bytes.Span);
        }

        if (drawing.Chart is { } chart)
        {
            _charts.Add($"chart{_charts.Count + 1}.xml");
            relations.Add(("chart", $"../charts/{_charts[^1]}"));
        }

        WritePart($"xl/drawings/_rels/{part}.rels", xml => WriteRelations(xml, [.. relations]));
        if (drawing.Chart is not null)
        {
            WritePart($"xl/charts/{_charts[^1]}", drawing.Chart.Write);
        }
    }

    /// <inheritdoc/>
    public void Finish()
    {
        WritePart("xl/styles.xml", _looks.Write);
        WritePart("xl/workbook.xml", WriteWorkbook);
        WritePart("docProps/core.xml", WriteProperties);
        WritePart("xl/_rels/workbook.xml.rels", xml => WriteRelations(xml,
        [
            .. _sheets.Select((_, place) => ("worksheet", $"worksheets/sheet{place + 1}.xml")), ("styles", "styles.xml"),
        ]));
        WritePart("_rels/.rels", xml => WriteRelations(xml, [("officeDocument", "xl/workbook.xml"), ("core", "docProps/core.xml")]));
        WritePart("[Content_Types].xml", WriteTypes);
    }

    /// <inheritdoc/>
    public void Dispose() => _archive.Dispose();

    private void WritePart(string name, Action<XmlWriter> write)
    {
        using var stream = new BufferedStream(Entry(name).Open(), 1 << 16);
        using var xml = XmlWriter.Create(stream, new XmlWriterSettings { Encoding = new UTF8Encoding(false), CheckCharacters = false });
        xml.WriteStartDocument(standalone: true);
        write(xml);
    }

    private ZipArchiveEntry Entry(string name)
    {
        var entry = _archive.CreateEntry(name, CompressionLevel.Fastest);
        entry.LastWriteTime = Day;
        return entry;
    }

    private void WriteWorkbook(XmlWriter xml)
    {
        xml.WriteStartElement("workbook", Main);
        xml.WriteAttributeString("xmlns", "r", null, Relations);
        xml.WriteStartElement("sheets");
        for (var place = 0; place < _sheets.Count; place++)
        {
            xml.WriteStartElement("sheet");
            xml.WriteAttributeString("name", _sheets[place]);
            xml.WriteAttributeString("sheetId", SheetWriter.Text(place + 1));
            xml.WriteAttributeString("id", Relations, $"rId{place + 1}");
            xml.WriteEndElement();
        }

        xml.WriteEndElement();
        if (_names.Count > 0)
        {
            xml.WriteStartElement("definedNames");
            foreach (var (name, sheet, cells) in _names.OrderBy(named => named.Name, StringComparer.Ordinal).ThenBy(named => named.Sheet))
            {
                xml.WriteStartElement("definedName");
                xml.WriteAttributeString("name", name);
                xml.WriteAttributeString("localSheetId", SheetWriter.Text(sheet));
                xml.WriteString(cells);
                xml.WriteEndElement();
            }

            xml.WriteEndElement();
        }

        xml.WriteEndElement();
    }

    private void WriteProperties(XmlWriter xml)
    {
        const string Core = "http://schemas.openxmlformats.org/package/2006/metadata/core-properties";
        const string Dublin = "http://purl.org/dc/elements/1.1/";
        xml.WriteStartElement("cp", "coreProperties", Core);
        xml.WriteElementString("dc", "title", Dublin, CellText.Escaped(_title));
        xml.WriteElementString("dc", "creator", Dublin, "Vlei");
        xml.WriteEndElement();
    }

    private static void WriteRelations(XmlWriter xml, List<(string Kind, string Target)> relations)
    {
        xml.WriteStartElement("Relationships", PackageRelations);
        for (var place = 0; place < relations.Count; place++)
        {
            var (kind, target) = relations[place];
            xml.WriteStartElement("Relationship");
            xml.WriteAttributeString("Id", $"rId{place + 1}");
            xml.WriteAttributeString("Type", kind == "core" ? $"{PackageRelations}/metadata/core-properties" : $"{Relations}/{kind}");
            xml.WriteAttributeString("Target", target);
            xml.WriteEndElement();
        }

        xml.WriteEndElement();
    }

    private void WriteTypes(XmlWriter xml)
    {
        xml.WriteStartElement("Types", ContentTypes);
        Write("Default", "Extension", "rels", "application/vnd.openxmlformats-package.relationships+xml");
        Write("Default", "Extension", "xml", "application/xml");
        Write("Default", "Extension", "png", "image/png");
        Write("Default", "Extension", "jpeg", "image/jpeg");
        Write("Override", "PartName", "/xl/workbook.xml", $"{SheetType}.sheet.main+xml");
        Write("Override", "PartName", "/xl/styles.xml", $"{SheetType}.styles+xml");
        Write("Override", "PartName", "/docProps/core.xml", "application/vnd.openxmlformats-package.core-properties+xml");
        for (var place = 0; place < _sheets.Count; place++)
        {
            Write("Override", "PartName", $"/xl/worksheets/sheet{place + 1}.xml", $"{SheetType}.worksheet+xml");
        }

        _drawings.ForEach(
            part => Write("Override", "PartName", $"/xl/drawings/{part}", "application/vnd.openxmlformats-officedocument.drawing+xml"));
        _charts.ForEach(
            part => Write(
                "Override", "PartName", $"/xl/charts/{part}", "application/vnd.openxmlformats-officedocument.drawingml.chart+xml"));

        xml.WriteEndElement();

        void Write(string element, string key, string value, string type)
        {
            xml.WriteStartElement(element);
            xml.WriteAttributeString(key, value);
            xml.WriteAttributeString("ContentType", type);
            xml.WriteEndElement();
        }
    }

    /// <summary>Refuses what no sheet has room for. Throws a <see cref="ProblemException"/> then.</summary>
    public static void RefuseTooLarge(string title, int rows, int columns)
    {
        if (rows > CellText.MostRows || columns > CellText.MostColumns)
        {
            throw new ProblemException(
                ProblemKind.BadData,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{title} has {rows:N0} rows and {columns:N0} columns; a sheet of a workbook has room "
                        + $"for {CellText.MostRows:N0} and {CellText.MostColumns:N0}."),
                "Narrow it, take --summary, or write CSV.");
        }
    }
}
