using System.Globalization;
using System.Xml;

namespace Vlei.Output.Workbook;

/// <summary>Writes the cells of a sheet in their order, and remembers which of them lead somewhere.</summary>
/// <param name="xml">Where to.</param>
/// <param name="looks">The looks of the workbook.</param>
/// <param name="drawing">The number by which the sheet knows what is drawn on it; nothing where nothing is.</param>
internal sealed class SheetWriter(XmlWriter xml, WorkbookLooks looks, string? drawing) : ISheet
{
    /// <summary>How high a line is, in points.</summary>
    public const int LineHeight = 14;

    private const int MostOutlineLevels = 7;

    private readonly List<(string Cell, SheetLink Target)> _links = [];
    private readonly List<(string Name, CellLook Look, int Number)> _columns = [];
    private readonly char[] _start = new char[64];
    private int _row;

    /// <summary>The rows that are repeated on every page that is printed; nothing where none are.</summary>
    public string? Repeated { get; private set; }

    /// <summary>Writes an element that holds nothing.</summary>
    public static void Empty(XmlWriter xml, string name, params ReadOnlySpan<(string Name, string Value)> attributes)
    {
        xml.WriteStartElement(name);
        foreach (var (key, value) in attributes)
        {
            xml.WriteAttributeString(key, value);
        }

        xml.WriteEndElement();
    }

    /// <summary>A number as files write it.</summary>
    public static string Text(double number) => number.ToString(CultureInfo.InvariantCulture);

    /// <inheritdoc/>
    public void Begin(int frozen, IReadOnlyList<int> widths, int depth, IReadOnlySet<int> hidden)
    {
        xml.WriteStartElement("sheetPr");
        Empty(xml, "outlinePr", ("summaryBelow", "1"));
        Empty(xml, "pageSetUpPr", ("fitToPage", "1"));
        xml.WriteEndElement();
        xml.WriteStartElement("sheetViews");
        xml.WriteStartElement("sheetView");
        xml.WriteAttributeString("showGridLines", "0");
        xml.WriteAttributeString("workbookViewId", "0");
        if (frozen > 0)
        {
            Repeated = string.Create(CultureInfo.InvariantCulture, $"${frozen}:${frozen}");
            Empty(
                xml, "pane", ("xSplit", "1"), ("ySplit", Text(frozen)), ("topLeftCell", CellText.Name(frozen + 1, 1)),
                ("activePane", "bottomRight"), ("state", "frozen"));
        }

        xml.WriteEndElement();
        xml.WriteEndElement();
        var deepest = Text(Math.Min(MostOutlineLevels, depth));
        Empty(xml, "sheetFormatPr", ("defaultRowHeight", Text(LineHeight)), ("outlineLevelRow", deepest));
        xml.WriteStartElement("cols");
        for (var column = 0; column < widths.Count; column++)
        {
            Empty(
                xml, "col", ("min", Text(column + 1)), ("max", Text(column + 1)), ("width", Text(widths[column])),
                ("customWidth", "1"), ("hidden", hidden.Contains(column) ? "1" : "0"));
        }

        xml.WriteEndElement();
        xml.WriteStartElement("sheetData");
    }

    /// <inheritdoc/>
    public void Row(int number, int level, Action write, int lines = 1)
    {
        _row = number;
        xml.WriteStartElement("row");
        xml.WriteAttributeString("r", Text(number));
        if (level > 0)
        {
            xml.WriteAttributeString("outlineLevel", Text(Math.Min(level, MostOutlineLevels)));
        }

        if (lines > 1)
        {
            xml.WriteAttributeString("ht", Text(lines * LineHeight));
            xml.WriteAttributeString("customHeight", "1");
        }

        write();
        xml.WriteEndElement();
    }

    /// <inheritdoc/>
    public void Words(int column, string words, CellLook look, SheetLink? link = null)
    {
        Start(column, look with { IsQuoted = words.Length > 0 && "=+-@".Contains(words[0]) }, link);
        if (words.Length == 0)
        {
            xml.WriteRaw(" />");
            return;
        }

        xml.WriteRaw(" t=\"inlineStr\"><is><t xml:space=\"preserve\">");
        xml.WriteString(CellText.Escaped(words));
        xml.WriteRaw("</t></is></c>");
    }

    /// <inheritdoc/>
    public void Number(int column, string value, string? formula, CellLook look, SheetLink? link = null)
    {
        Start(column, look, link);
        xml.WriteRaw(">");
        if (formula is not null)
        {
            xml.WriteElementString("f", formula);
        }

        xml.WriteRaw("<v>");
        xml.WriteRaw(value);
        xml.WriteRaw("</v></c>");
    }

    /// <inheritdoc/>
    public void End(SheetPage page)
    {
        xml.WriteEndElement();
        if (_links.Count > 0)
        {
            xml.WriteStartElement("hyperlinks");
            var room = CellText.MostLinks - _links.Count(link => !link.Target.IsFurther);
            foreach (var (cell, target) in _links)
            {
                if (!target.IsFurther || room-- > 0)
                {
                    Empty(xml, "hyperlink", ("ref", cell), ("location", CellText.Place(target.Sheet, target.Cell)));
                }
            }

            xml.WriteEndElement();
        }

        page.Write(xml);
        if (drawing is not null)
        {
            xml.WriteStartElement("drawing");
            xml.WriteAttributeString("r", "id", WorkbookPackage.Relations, drawing);
            xml.WriteEndElement();
        }
    }

    // Cells are most of a workbook: what begins each is written as it stands.
    private void Start(int column, CellLook look, SheetLink? link)
    {
        if (link is { } leads)
        {
            _links.Add((CellText.Name(_row, column), leads));
        }

        while (_columns.Count <= column)
        {
            _columns.Add((CellText.ColumnName(_columns.Count), default, -1));
        }

        // Most cells look like those above them.
        var (name, above, number) = _columns[column];
        if (number < 0 || above != look)
        {
            _columns[column] = (name, look, number = looks.NumberOf(look));
        }

        _ = _start.AsSpan().TryWrite(CultureInfo.InvariantCulture, $"<c r=\"{name}{_row}\" s=\"{number}\"", out var length);
        xml.WriteRaw(_start, 0, length);
    }
}
