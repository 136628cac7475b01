using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;

namespace Vlei.Records.Cells;

/// <summary>
/// The rows of a sheet of an OpenDocument spreadsheet (OASIS OpenDocument 1.3, part 3, 9), read as a stream: what a row or a cell
/// repeats is given as often as it says, and rows that hold nothing are passed over however many they are.
/// </summary>
internal sealed class OpenDocumentRows : IFileRows
{
    private const string Table = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private const string Office = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private const string Words = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";

    // As wide as sheets are.
    private const int MostColumns = 16_384;
    private const int MostRows = 1 << 20;

    private readonly ZipArchive _archive;
    private readonly XmlReader _xml;
    private readonly List<FileCell> _cells = [];
    private int _again;
    private long _next = 1;
    private bool _isThere;

    /// <summary>Begins at the first row of a sheet.</summary>
    public OpenDocumentRows(byte[] file, string sheet)
    {
        (_archive, _xml) = Open(file);
        while (_xml.ReadToFollowing("table", Table))
        {
            if (_xml.GetAttribute("name", Table) == sheet)
            {
                _isThere = true;
                return;
            }
        }
    }

    /// <inheritdoc/>
    public long Row { get; private set; }

    /// <inheritdoc/>
    public List<FileCell> Cells => _cells;

    /// <summary>The names of the sheets.</summary>
    public static IReadOnlyList<string> Sheets(byte[] file)
    {
        var (archive, xml) = Open(file);
        using (archive)
        using (xml)
        {
            var names = new List<string>();
            while (xml.ReadToFollowing("table", Table))
            {
                names.Add(xml.GetAttribute("name", Table) ?? "");
            }

            return names;
        }
    }

    /// <inheritdoc/>
    public bool Read()
    {
        if (_again > 0)
        {
            _again--;
            Row = _next++;
            return true;
        }

        while (_isThere && _xml.Read())
        {
            if (_xml.NodeType == XmlNodeType.EndElement && Is("table", Table))
            {
                _isThere = false;
            }
            else if (_xml.NodeType == XmlNodeType.Element && Is("table-row", Table) && TakeRow())
            {
                return true;
            }
        }

        _cells.Clear();
        return false;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _xml.Dispose();
        _archive.Dispose();
    }

    private static (ZipArchive Archive, XmlReader Xml) Open(byte[] file)
    {
        var archive = new ZipArchive(new MemoryStream(file, writable: false), ZipArchiveMode.Read);
        var content = archive.GetEntry("content.xml") ?? throw new InvalidDataException("it has no content.xml");
        return (archive, XmlReader.Create(
            content.Open(), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CheckCharacters = false }));
    }

    private static int Times(string? said, int most) => said is null ? 1
        : int.TryParse(said, NumberStyles.None, CultureInfo.InvariantCulture, out var times) && times > 0 ? Math.Min(times, most)
        : throw new InvalidDataException($"it repeats something {said} times");

    // Whether the row holds anything.
    private bool TakeRow()
    {
        var times = Times(_xml.GetAttribute("number-rows-repeated", Table), MostRows);
        _cells.Clear();
        if (!_xml.IsEmptyElement)
        {
            var depth = _xml.Depth;
            while (_xml.Read() && _xml.Depth > depth)
            {
                if (_xml.NodeType == XmlNodeType.Element && (Is("table-cell", Table) || Is("covered-table-cell", Table)))
                {
                    TakeCell();
                }
            }
        }

        while (_cells.Count > 0 && _cells[^1].Text.Length == 0)
        {
            _cells.RemoveAt(_cells.Count - 1);
        }

        Row = _next;
        _next += _cells.Count == 0 ? times : 1;
        _again = _cells.Count == 0 ? 0 : times - 1;
        return _cells.Count > 0;
    }

    private void TakeCell()
    {
        var times = Times(_xml.GetAttribute("number-columns-repeated", Table), MostColumns);
        var (kind, value) = (_xml.GetAttribute("value-type", Office), _xml.GetAttribute("value", Office));
        var (day, flag) = (_xml.GetAttribute("date-value", Office), _xml.GetAttribute("boolean-value", Office));
        var shown = _xml.GetAttribute("string-value", Office) ?? "";
        var text = TextIn() is { Length: > 0 } inside && shown.Length == 0 ? inside : shown;
        var cell = kind switch
        {
            "float" or "percentage" or "currency" when double.TryParse(
                value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) =>
                    new FileCell(SheetNumber.Text(number), IsNumber: true),
            "date" when day is not null => new FileCell(
                day.EndsWith("T00:00:00", StringComparison.Ordinal) ? day[..day.IndexOf('T', StringComparison.Ordinal)] : day, true),
            "boolean" when flag is not null => new FileCell(flag),
            _ => new FileCell(text),
        };

        // Cells to the end of the sheet that hold nothing are not so many cells.
        for (var count = cell.Text.Length == 0 && _cells.Count + times >= MostColumns ? 0 : times;
            count > 0 && _cells.Count < MostColumns; count--)
        {
            _cells.Add(cell);
        }
    }

    // The paragraphs of a cell, which stand in lines of their own; notes that are attached to it are no part of it.
    private string TextIn()
    {
        if (_xml.IsEmptyElement)
        {
            return "";
        }

        var (text, depth, paragraphs) = (new StringBuilder(), _xml.Depth, 0);
        while (_xml.Read() && _xml.Depth > depth)
        {
            if (_xml.NodeType == XmlNodeType.Element && Is("annotation", Office))
            {
                _xml.Skip();
            }

            if (_xml.NodeType == XmlNodeType.Element && Is("p", Words))
            {
                _ = paragraphs++ > 0 ? text.Append('\n') : text;
            }
            else if (_xml.NodeType == XmlNodeType.Element && Is("s", Words))
            {
                text.Append(' ', Times(_xml.GetAttribute("c", Words), MostColumns));
            }
            else if (_xml.NodeType is XmlNodeType.Text or XmlNodeType.SignificantWhitespace or XmlNodeType.CDATA && paragraphs > 0)
            {
                text.Append(_xml.Value);
            }
        }

        return text.ToString();
    }

    private bool Is(string name, string space) => _xml.LocalName == name && _xml.NamespaceURI == space;
}
