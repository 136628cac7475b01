using System.IO.Compression;
using System.Text;
using System.Xml;
using Vlei.Core.Reports;
using Vlei.Output.Workbook;
using static Vlei.Output.OpenDocument.OpenDocumentXml;
using static Vlei.Output.Workbook.SheetWriter;

namespace Vlei.Output.OpenDocument;

/// <summary>
/// The parts of a spreadsheet in their archive (OpenDocument, ISO/IEC 26300). Its looks stand before its sheets and are known
/// only behind them: sheets are kept packed until then. The same sheets make the same bytes.
/// </summary>
internal sealed class OpenDocumentPackage : ISpreadsheet
{
    private const string Kind = "application/vnd.oasis.opendocument.spreadsheet";

    private static readonly XmlWriterSettings Fragment =
        new() { Encoding = new UTF8Encoding(false), ConformanceLevel = ConformanceLevel.Fragment };

    private readonly ZipArchive _archive;
    private readonly string _title;
    private readonly OpenDocumentLooks _looks;
    private readonly MemoryStream _packed = new();
    private readonly BufferedStream _sheets;
    private readonly List<(string Name, int Frozen, SheetPage Page)> _written = [];

    /// <summary>Begins a spreadsheet.</summary>
    /// <param name="stream">Where it is written to.</param>
    /// <param name="title">Its title.</param>
    /// <param name="looks">How its reports look.</param>
    public OpenDocumentPackage(Stream stream, string title, ReportLook looks)
    {
        (_title, _looks) = (title, new OpenDocumentLooks(looks));
        _archive = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
        _sheets = new BufferedStream(new DeflateStream(_packed, CompressionLevel.Fastest, leaveOpen: true), 1 << 16);

        // The first part says what the file is to whoever reads no further, and is not packed.
        using var kind = Entry("mimetype", CompressionLevel.NoCompression).Open();
        kind.Write(Encoding.ASCII.GetBytes(Kind));
    }

    /// <inheritdoc/>
    public FormulaNotation Notation => FormulaNotation.OpenFormula;

    /// <inheritdoc/>
    public bool HasDrawings => false;

    /// <inheritdoc/>
    public void AddSheet(
        string name, IReadOnlyList<(string Name, string Cells)> names, SheetDrawing? drawing, Action<ISheet> write)
    {
        using var xml = XmlWriter.Create(_sheets, Fragment);
        Start(xml, "table:table", [("table:name", name), ("table:style-name", $"sheet{_written.Count + 1}")]);
        Declare(xml, "office", "text", "xlink", "of");
        var sheet = new OpenDocumentSheet(xml, _looks);
        write(sheet);
        if (names.Count > 0)
        {
            Element(xml, "table:named-expressions", [], () => WriteNames(xml, name, names));
        }

        xml.WriteEndElement();
        _written.Add((name, sheet.Frozen, sheet.Page!));
    }

    /// <inheritdoc/>
    public void Finish()
    {
        _sheets.Dispose();
        WriteContent();
        WritePart("styles.xml", "office:document-styles", ["style", "fo", "text", "table"], WriteStyles);
        WritePart("settings.xml", "office:document-settings", ["config"], WriteSettings);
        WritePart("meta.xml", "office:document-meta", ["meta", "dc"], xml => Element(xml, "office:meta", [], () =>
        {
            Element(xml, "meta:generator", [], () => xml.WriteString("Vlei"));
            Element(xml, "dc:title", [], () => xml.WriteString(_title));
        }));
        WritePart("META-INF/manifest.xml", "manifest:manifest", [], WriteManifest);
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _sheets.Dispose();
        _archive.Dispose();
    }

    private static void WriteNames(XmlWriter xml, string sheet, IReadOnlyList<(string Name, string Cells)> names)
    {
        foreach (var (name, cells) in names)
        {
            Element(xml, "table:named-range",
            [
                ("table:name", name), ("table:base-cell-address", $"${OpenDocumentSheet.Place(sheet, "$A$1")}"),
                ("table:cell-range-address", $"${OpenDocumentSheet.Place(sheet, cells)}"),
            ]);
        }
    }

    private void WriteContent() => WritePart(
        "content.xml", "office:document-content", ["style", "fo", "text", "table", "number", "xlink", "of"], (xml, stream) =>
    {
        Element(xml, "office:automatic-styles", [], () =>
        {
            for (var place = 1; place <= _written.Count; place++)
            {
                Element(xml, "style:style",
                    [("style:name", $"sheet{place}"), ("style:family", "table"), ("style:master-page-name", $"Page{place}")],
                    () => Element(xml, "style:table-properties", [("table:display", "true")]));
            }

            _looks.Write(xml);
        });
        Element(xml, "office:body", [], () => Element(xml, "office:spreadsheet", [], () =>
        {
            xml.WriteRaw("\n");
            xml.Flush();
            _packed.Position = 0;
            using var unpacked = new DeflateStream(_packed, CompressionMode.Decompress);
            unpacked.CopyTo(stream);
        }));
    });

    private void WriteStyles(XmlWriter xml)
    {
        Element(xml, "office:styles", [], () => _looks.WriteDefault(xml));
        Element(xml, "office:automatic-styles", [], () =>
        {
            for (var place = 0; place < _written.Count; place++)
            {
                OpenDocumentPage.WriteLayout(xml, $"Layout{place + 1}", _written[place].Page);
            }
        });
        Element(xml, "office:master-styles", [], () =>
        {
            for (var place = 0; place < _written.Count; place++)
            {
                OpenDocumentPage.WriteMaster(xml, $"Page{place + 1}", $"Layout{place + 1}", _written[place].Page);
            }
        });
    }

    private void WriteSettings(XmlWriter xml) => Element(xml, "office:settings", [], () =>
        Settings(xml, "config:config-item-set", "ooo:view-settings", () =>
            Settings(xml, "config:config-item-map-indexed", "Views", () =>
                Settings(xml, "config:config-item-map-entry", null, () =>
                    Settings(xml, "config:config-item-map-named", "Tables", () =>
                    {
                        foreach (var (name, frozen, _) in _written)
                        {
                            Settings(xml, "config:config-item-map-entry", name, () => WriteView(xml, frozen));
                        }
                    })))));

    private static void Settings(XmlWriter xml, string element, string? name, Action inside) =>
        Element(xml, element, [("config:name", name)], inside);

    private static void WriteView(XmlWriter xml, int frozen)
    {
        (string Name, string Type, string Value)[] items =
        [
            ("ShowGrid", "boolean", "false"),
            .. frozen == 0 ? Array.Empty<(string, string, string)>() :
            [
                ("HorizontalSplitMode", "short", "2"), ("VerticalSplitMode", "short", "2"), ("HorizontalSplitPosition", "int", "1"),
                ("VerticalSplitPosition", "int", Text(frozen)), ("ActiveSplitRange", "short", "3"), ("PositionRight", "int", "1"),
                ("PositionBottom", "int", Text(frozen)),
            ],
        ];
        foreach (var (name, type, value) in items)
        {
            Element(xml, "config:config-item", [("config:name", name), ("config:type", type)], () => xml.WriteString(value));
        }
    }

    private static void WriteManifest(XmlWriter xml)
    {
        foreach (var (path, kind) in new[]
        {
            ("/", Kind), ("content.xml", "text/xml"), ("styles.xml", "text/xml"), ("settings.xml", "text/xml"), ("meta.xml", "text/xml"),
        })
        {
            Element(xml, "manifest:file-entry", [("manifest:full-path", path), ("manifest:media-type", kind)]);
        }
    }

    private void WritePart(string name, string root, string[] prefixes, Action<XmlWriter> write) =>
        WritePart(name, root, prefixes, (xml, _) => write(xml));

    private void WritePart(string name, string root, string[] prefixes, Action<XmlWriter, Stream> write)
    {
        using var stream = new BufferedStream(Entry(name, CompressionLevel.Fastest).Open(), 1 << 16);
        using var xml = XmlWriter.Create(stream, new XmlWriterSettings { Encoding = new UTF8Encoding(false) });
        xml.WriteStartDocument();
        Start(xml, root, [($"{root.Split(':')[0]}:version", "1.3")]);
        Declare(xml, prefixes);
        write(xml, stream);
        xml.WriteEndElement();
    }

    private ZipArchiveEntry Entry(string name, CompressionLevel level)
    {
        var entry = _archive.CreateEntry(name, level);
        entry.LastWriteTime = WorkbookPackage.Day;
        return entry;
    }
}
