using System.Xml;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>The looks of the cells of a workbook, each written once and named by its number.</summary>
internal sealed class WorkbookLooks(ReportLook looks)
{
    private const int FirstOwnFormat = 164;
    private const int TextFormat = 49;
    private const int LinkColour = 0x1F4E79;
    private const double UsualSize = 10;

    private static readonly (string Name, CellRule Rule)[] Rules =
        [("none", CellRule.None), ("thin", CellRule.Thin), ("double", CellRule.Double), ("below", CellRule.Below)];

    private readonly Dictionary<CellLook, int> _numbers = new() { [default] = 0 };
    private readonly List<string> _formats = [];
    private readonly double _size = looks.FontSize ?? UsualSize;

    /// <summary>The number of a look.</summary>
    public int NumberOf(CellLook look)
    {
        if (!_numbers.TryGetValue(look, out var number))
        {
            _numbers.Add(look, number = _numbers.Count);
        }

        return number;
    }

    /// <summary>Writes them.</summary>
    public void Write(XmlWriter xml)
    {
        _formats.AddRange(_numbers.Keys.Select(look => look.Format).OfType<CellFormat>().Select(FormatCode.Of).Distinct());

        xml.WriteStartElement("styleSheet", WorkbookPackage.Main);
        WriteList(xml, "numFmts", _formats, (format, place) =>
        {
            xml.WriteStartElement("numFmt");
            xml.WriteAttributeString("numFmtId", SheetWriter.Text(FirstOwnFormat + place));
            xml.WriteAttributeString("formatCode", format);
            xml.WriteEndElement();
        });
        (bool Bold, bool Title, bool Link)[] fonts =
            [(false, false, false), (true, false, false), (true, true, false), (false, false, true), (true, false, true)];
        WriteList(xml, "fonts", fonts, (font, _) => WriteFont(xml, font.Bold, font.Title, font.Link));
        WriteList(xml, "fills", ["none", "gray125"], (pattern, _) =>
        {
            xml.WriteStartElement("fill");
            xml.WriteStartElement("patternFill");
            xml.WriteAttributeString("patternType", pattern);
            xml.WriteEndElement();
            xml.WriteEndElement();
        });
        WriteList(xml, "borders", Rules, (rule, _) => WriteBorder(xml, rule.Rule));
        WriteList(
            xml, "cellStyleXfs", [0], (_, _) => SheetWriter.Empty(
                xml, "xf", ("numFmtId", "0"), ("fontId", "0"), ("fillId", "0"), ("borderId", "0")));
        WriteList(xml, "cellXfs", [.. _numbers.OrderBy(look => look.Value).Select(look => look.Key)], (look, _) =>
            WriteLook(xml, look, Array.IndexOf(fonts, (look.Bold || look.IsTitle, look.IsTitle, look.IsLink && !look.IsTitle))));
        WriteList(
            xml, "cellStyles", [0], (_, _) => SheetWriter.Empty(xml, "cellStyle", ("name", "Normal"), ("xfId", "0"), ("builtinId", "0")));
        xml.WriteEndElement();
    }

    private void WriteLook(XmlWriter xml, CellLook look, int font)
    {
        xml.WriteStartElement("xf");
        var format = look.Format is { } own ? FirstOwnFormat + _formats.IndexOf(FormatCode.Of(own)) : look.IsQuoted ? TextFormat : 0;
        xml.WriteAttributeString("numFmtId", SheetWriter.Text(format));
        xml.WriteAttributeString("fontId", SheetWriter.Text(font));
        xml.WriteAttributeString("fillId", "0");
        xml.WriteAttributeString("borderId", SheetWriter.Text((int)look.Rule));
        xml.WriteAttributeString("xfId", "0");
        if (look.IsQuoted)
        {
            xml.WriteAttributeString("quotePrefix", "1");
        }

        xml.WriteAttributeString("applyNumberFormat", "1");
        xml.WriteAttributeString("applyFont", "1");
        xml.WriteAttributeString("applyBorder", "1");
        xml.WriteAttributeString("applyAlignment", "1");
        xml.WriteStartElement("alignment");
        if (look.Align is not null || look.Indent > 0)
        {
            xml.WriteAttributeString(
                "horizontal", look.Align switch { ColumnAlign.Right => "right", ColumnAlign.Center => "center", _ => "left" });
        }

        xml.WriteAttributeString("vertical", look.Wraps ? "top" : "bottom");
        if (look.Wraps)
        {
            xml.WriteAttributeString("wrapText", "1");
        }

        if (look.Indent > 0)
        {
            xml.WriteAttributeString("indent", SheetWriter.Text(look.Indent));
        }

        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private void WriteFont(XmlWriter xml, bool bold, bool isTitle, bool isLink)
    {
        xml.WriteStartElement("font");
        if (bold)
        {
            SheetWriter.Empty(xml, "b");
        }

        SheetWriter.Empty(xml, "sz", ("val", SheetWriter.Text(_size * (isTitle ? 1.4 : 1))));
        SheetWriter.Empty(
            xml, "color",
            ("rgb", isTitle && looks.Accent is { } accent ? $"FF{accent:X6}" : isLink ? $"FF{looks.Accent ?? LinkColour:X6}" : "FF000000"));
        SheetWriter.Empty(xml, "name", ("val", "Arial"));
        SheetWriter.Empty(xml, "family", ("val", "2"));
        xml.WriteEndElement();
    }

    private static void WriteBorder(XmlWriter xml, CellRule rule)
    {
        xml.WriteStartElement("border");
        SheetWriter.Empty(xml, "left");
        SheetWriter.Empty(xml, "right");
        WriteEdge(xml, "top", rule is CellRule.Thin or CellRule.Double ? "thin" : null);
        WriteEdge(xml, "bottom", rule == CellRule.Double ? "double" : rule == CellRule.Below ? "thin" : null);
        SheetWriter.Empty(xml, "diagonal");
        xml.WriteEndElement();
    }

    private static void WriteEdge(XmlWriter xml, string edge, string? style)
    {
        xml.WriteStartElement(edge);
        if (style is not null)
        {
            xml.WriteAttributeString("style", style);
            SheetWriter.Empty(xml, "color", ("rgb", "FF404040"));
        }

        xml.WriteEndElement();
    }

    private static void WriteList<T>(XmlWriter xml, string name, IReadOnlyList<T> items, Action<T, int> write)
    {
        if (items.Count == 0)
        {
            return;
        }

        xml.WriteStartElement(name);
        xml.WriteAttributeString("count", SheetWriter.Text(items.Count));
        for (var place = 0; place < items.Count; place++)
        {
            write(items[place], place);
        }

        xml.WriteEndElement();
    }
}
