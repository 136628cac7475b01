using System.Xml;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>What is drawn on a sheet (DrawingML): the picture at its head, and a chart.</summary>
/// <param name="Logo">The picture; nothing where there is none.</param>
/// <param name="Chart">The chart; nothing where there is none.</param>
internal sealed record SheetDrawing(ReportLogo? Logo, ChartPart? Chart)
{
    /// <summary>How many lines of text the picture is as high as.</summary>
    public const int LogoLines = 4;

    /// <summary>How many units of drawings (EMU) a point has.</summary>
    public const long UnitsPerPoint = 12_700;

    private const string Namespace = "http://schemas.openxmlformats.org/drawingml/2006/spreadsheetDrawing";
    private const string Main = "http://schemas.openxmlformats.org/drawingml/2006/main";
    private const int LogoHeight = 52;
    private const int MostLogoWidth = 260;

    /// <summary>Writes it.</summary>
    /// <param name="xml">Where to.</param>
    /// <param name="logo">The number by which it knows the picture.</param>
    /// <param name="chart">The number by which it knows the chart.</param>
    public void Write(XmlWriter xml, string logo, string chart)
    {
        xml.WriteStartElement("xdr", "wsDr", Namespace);
        xml.WriteAttributeString("xmlns", "a", null, Main);
        if (Logo is { } picture)
        {
            WriteLogo(xml, picture, logo);
        }

        Chart?.WriteFrame(xml, chart);
        xml.WriteEndElement();
    }

    private static void WriteLogo(XmlWriter xml, ReportLogo picture, string relation)
    {
        var scale = Math.Min((double)LogoHeight / picture.Height, (double)MostLogoWidth / picture.Width);
        xml.WriteStartElement("oneCellAnchor", Namespace);
        WritePlace(xml, "from", 0, 0);
        WriteSize(xml, "xdr", "ext", Namespace, picture, scale);
        xml.WriteStartElement("pic", Namespace);
        xml.WriteStartElement("nvPicPr", Namespace);
        xml.WriteStartElement("cNvPr", Namespace);
        xml.WriteAttributeString("id", "2");
        xml.WriteAttributeString("name", "Logo");
        xml.WriteEndElement();
        xml.WriteStartElement("cNvPicPr", Namespace);
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteStartElement("blipFill", Namespace);
        xml.WriteStartElement("a", "blip", Main);
        xml.WriteAttributeString("r", "embed", WorkbookPackage.Relations, relation);
        xml.WriteEndElement();
        xml.WriteStartElement("a", "stretch", Main);
        xml.WriteElementString("a", "fillRect", Main, "");
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteStartElement("spPr", Namespace);
        xml.WriteStartElement("a", "xfrm", Main);
        xml.WriteStartElement("a", "off", Main);
        xml.WriteAttributeString("x", "0");
        xml.WriteAttributeString("y", "0");
        xml.WriteEndElement();
        WriteSize(xml, "a", "ext", Main, picture, scale);
        xml.WriteEndElement();
        xml.WriteStartElement("a", "prstGeom", Main);
        xml.WriteAttributeString("prst", "rect");
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteElementString("clientData", Namespace, "");
        xml.WriteEndElement();
    }

    private static void WriteSize(XmlWriter xml, string prefix, string name, string space, ReportLogo picture, double scale)
    {
        xml.WriteStartElement(prefix, name, space);
        xml.WriteAttributeString("cx", SheetWriter.Text(Math.Round(picture.Width * scale * UnitsPerPoint)));
        xml.WriteAttributeString("cy", SheetWriter.Text(Math.Round(picture.Height * scale * UnitsPerPoint)));
        xml.WriteEndElement();
    }

    /// <summary>Writes a place, in columns and rows from 0.</summary>
    public static void WritePlace(XmlWriter xml, string name, int column, int row)
    {
        xml.WriteStartElement(name, Namespace);
        xml.WriteElementString("col", Namespace, SheetWriter.Text(column));
        xml.WriteElementString("colOff", Namespace, "0");
        xml.WriteElementString("row", Namespace, SheetWriter.Text(row));
        xml.WriteElementString("rowOff", Namespace, "0");
        xml.WriteEndElement();
    }

    /// <summary>Begins an element of a drawing on a sheet.</summary>
    public static void Start(XmlWriter xml, string name) => xml.WriteStartElement(name, Namespace);

    /// <summary>Writes an element of a drawing that holds nothing.</summary>
    public static void Empty(XmlWriter xml, string name)
    {
        Start(xml, name);
        xml.WriteEndElement();
    }
}
