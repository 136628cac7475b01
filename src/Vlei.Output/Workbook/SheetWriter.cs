using System.Globalization;
using System.Xml;

namespace Vlei.Output.Workbook;

/// <summary>Writes the cells of a sheet in their order, and remembers which of them lead somewhere.</summary>
/// <param name="xml">Where to.</param>
/// <param name="looks">The looks of the workbook.</param>
internal sealed class SheetWriter(XmlWriter xml, WorkbookLooks looks)
{
    /// <summary>How high a line is, in points.</summary>
    public const int LineHeight = 14;

    private const int MostOutlineLevels = 7;

    private readonly List<(string Cell, string Target, bool IsFurther)> _links = [];
    private int _row;

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

    /// <summary>Writes what stands before the cells: what is frozen, and how wide the columns are.</summary>
    /// <param name="frozen">How many rows stay in view; the first column does too where any does.</param>
    /// <param name="widths">The widths, in letters.</param>
    /// <param name="depth">How deep rows are folded.</param>
    /// <param name="hidden">The columns that readers need not see.</param>
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
            Empty(xml, "pane", ("xSplit", "1"), ("ySplit", Text(frozen)), ("topLeftCell", CellText.Name(frozen + 1, 1)), ("activePane", "bottomRight"), ("state", "frozen"));
        }

        xml.WriteEndElement();
        xml.WriteEndElement();
        Empty(xml, "sheetFormatPr", ("defaultRowHeight", Text(LineHeight)), ("outlineLevelRow", Text(Math.Min(MostOutlineLevels, depth))));
        xml.WriteStartElement("cols");
        for (var column = 0; column < widths.Count; column++)
        {
            Empty(
                xml, "col", ("min", Text(column + 1)), ("max", Text(column + 1)), ("width", Text(widths[column])), ("customWidth", "1"),
                ("hidden", hidden.Contains(column) ? "1" : "0"));
        }

        xml.WriteEndElement();
        xml.WriteStartElement("sheetData");
    }

    /// <summary>Writes a row.</summary>
    /// <param name="number">Its number, from 1.</param>
    /// <param name="level">How deep it is folded.</param>
    /// <param name="write">Writes its cells.</param>
    /// <param name="lines">How many lines of text it has room for.</param>
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

    /// <summary>Writes words into a column; whatever they begin with, they stay words.</summary>
    public void Words(int column, string words, CellLook look)
    {
        Start(column, look with { IsQuoted = words.Length > 0 && "=+-@".Contains(words[0]) });
        if (words.Length > 0)
        {
            xml.WriteAttributeString("t", "inlineStr");
            xml.WriteStartElement("is");
            xml.WriteStartElement("t");
            xml.WriteAttributeString("xml", "space", null, "preserve");
            xml.WriteString(CellText.Escaped(words));
            xml.WriteEndElement();
            xml.WriteEndElement();
        }

        xml.WriteEndElement();
    }

    /// <summary>Writes a number, and how it follows from others where it does.</summary>
    public void Number(int column, string value, string? formula, CellLook look)
    {
        Start(column, look);
        if (formula is not null)
        {
            xml.WriteElementString("f", formula);
        }

        xml.WriteElementString("v", value);
        xml.WriteEndElement();
    }

    /// <summary>Has the cell of that column in the row lead to other cells.</summary>
    /// <param name="column">The column, from 0.</param>
    /// <param name="target">The cells.</param>
    /// <param name="isFurther">Whether it can be spared where a sheet has no room for all of its links.</param>
    public void Link(int column, string target, bool isFurther = false) => _links.Add((CellText.Name(_row, column), target, isFurther));

    /// <summary>Writes what stands after the cells.</summary>
    public void End(SheetPage page)
    {
        xml.WriteEndElement();
        if (_links.Count > 0)
        {
            xml.WriteStartElement("hyperlinks");
            var room = CellText.MostLinks - _links.Count(link => !link.IsFurther);
            foreach (var (cell, target, isFurther) in _links)
            {
                if (!isFurther || room-- > 0)
                {
                    Empty(xml, "hyperlink", ("ref", cell), ("location", target));
                }
            }

            xml.WriteEndElement();
        }

        page.Write(xml);
    }

    private void Start(int column, CellLook look)
    {
        xml.WriteStartElement("c");
        xml.WriteAttributeString("r", CellText.Name(_row, column));
        xml.WriteAttributeString("s", Text(looks.NumberOf(look)));
    }
}
