using System.Xml;
using Vlei.Core.Reports;
using Vlei.Output.Workbook;
using static Vlei.Output.OpenDocument.OpenDocumentXml;
using static Vlei.Output.Workbook.SheetWriter;

namespace Vlei.Output.OpenDocument;

/// <summary>The looks of a spreadsheet's cells, rows and columns, each written once and named by its number.</summary>
/// <param name="looks">How its reports look.</param>
internal sealed class OpenDocumentLooks(ReportLook looks)
{
    private const double UsualSize = 10;
    private const double TitleSize = 1.4;
    private const double LetterWidth = 0.55;
    private const int LinkColour = 0x1F4E79;
    private const string Rule = "0.75pt solid #404040";

    private readonly Dictionary<CellLook, string> _cells = [];
    private readonly SortedSet<int> _columns = [];
    private readonly SortedSet<int> _rows = [];
    private readonly double _size = looks.FontSize ?? UsualSize;

    /// <summary>The name of the look of a cell.</summary>
    public string OfCell(CellLook look)
    {
        if (!_cells.TryGetValue(look, out var name))
        {
            _cells.Add(look, name = $"cell{_cells.Count + 1}");
        }

        return name;
    }

    /// <summary>The name of the look of a column that is so many letters wide.</summary>
    public string OfColumn(int letters)
    {
        _columns.Add(letters);
        return $"column{letters}";
    }

    /// <summary>The name of the look of a row that has room for so many lines; nothing for one of one line.</summary>
    public string? OfRow(int lines)
    {
        if (lines <= 1)
        {
            return null;
        }

        _rows.Add(lines);
        return $"row{lines}";
    }

    /// <summary>Writes the look that all cells have.</summary>
    public void WriteDefault(XmlWriter xml) => Element(
        xml, "style:style", [("style:name", "Default"), ("style:family", "table-cell")],
        () => Element(xml, "style:text-properties", [("fo:font-family", "Arial"), ("fo:font-size", Points(_size))]));

    /// <summary>Writes the others.</summary>
    public void Write(XmlWriter xml)
    {
        foreach (var letters in _columns)
        {
            WriteStyle(xml, $"column{letters}", "table-column", () =>
                Element(xml, "style:table-column-properties", [("style:column-width", Points(letters * LetterWidth * _size))]));
        }

        foreach (var lines in _rows)
        {
            WriteStyle(xml, $"row{lines}", "table-row", () =>
                Element(xml, "style:table-row-properties", [("style:row-height", Points(lines * SheetWriter.LineHeight))]));
        }

        var formats = _cells.Keys.Select(look => look.Format).OfType<CellFormat>().Distinct().ToList();
        for (var place = 0; place < formats.Count; place++)
        {
            OpenDocumentNumbers.Write(xml, NameOf(place), formats[place]);
        }

        foreach (var (look, name) in _cells)
        {
            WriteCell(xml, look, name, look.Format is { } format ? NameOf(formats.IndexOf(format)) : null);
        }

        static string NameOf(int format) => $"number{format + 1}";
    }

    private void WriteCell(XmlWriter xml, CellLook look, string name, string? format) => WriteStyle(xml, name, "table-cell", () =>
    {
        Element(xml, "style:table-cell-properties",
        [
            ("fo:border-top", look.Rule is CellRule.Thin or CellRule.Double ? Rule : null),
            ("fo:border-bottom", look.Rule switch { CellRule.Below => Rule, CellRule.Double => "2.25pt double #404040", _ => null }),
            ("style:border-line-width-bottom", look.Rule == CellRule.Double ? "0.75pt 0.75pt 0.75pt" : null),
            ("fo:wrap-option", look.Wraps ? "wrap" : null), ("style:vertical-align", look.Wraps ? "top" : "bottom"),
            ("style:text-align-source", look.Align is null && look.Indent == 0 ? null : "fix"),
        ]);
        Element(xml, "style:paragraph-properties",
        [
            ("fo:text-align", look.Align switch
            {
                ColumnAlign.Right => "end",
                ColumnAlign.Center => "center",
                null when look.Indent == 0 => null,
                _ => "start",
            }),
            ("fo:margin-left", look.Indent > 0 ? Points(look.Indent * _size) : null),
        ]);
        int? colour = look.IsTitle ? looks.Accent : look.IsLink ? looks.Accent ?? LinkColour : null;
        Element(xml, "style:text-properties",
        [
            ("fo:font-weight", look.Bold || look.IsTitle ? "bold" : null),
            ("fo:font-size", look.IsTitle ? Points(_size * TitleSize) : null),
            ("fo:color", colour is { } own ? $"#{own:X6}" : null),
        ]);
    }, format);

    private static void WriteStyle(XmlWriter xml, string name, string family, Action write, string? format = null) =>
        Element(xml, "style:style",
    [
        ("style:name", name), ("style:family", family), ("style:parent-style-name", family == "table-cell" ? "Default" : null),
        ("style:data-style-name", format),
    ], write);

    private static string Points(double points) => $"{Text(Math.Round(points, 2))}pt";
}
