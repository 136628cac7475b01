using System.Xml;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>How a sheet is printed, and what is drawn on it.</summary>
/// <param name="Look">The looks of its report.</param>
/// <param name="IsWide">Whether it prints better on its side.</param>
/// <param name="Foot">What stands at the left of every page's foot.</param>
/// <param name="Number">The number of the page, as pages know it.</param>
/// <param name="Drawing">The number by which the sheet knows what is drawn on it; nothing where nothing is.</param>
internal sealed record SheetPage(ReportLook Look, bool IsWide, string Foot, string Number, string? Drawing)
{
    private const string A4 = "9";
    private const string Letter = "1";

    /// <summary>The row below which a new page begins; nothing where pages break by themselves.</summary>
    public int? BreakBelow { get; init; }

    /// <summary>Writes it.</summary>
    public void Write(XmlWriter xml)
    {
        SheetWriter.Empty(xml, "pageMargins", ("left", "0.6"), ("right", "0.6"), ("top", "0.7"), ("bottom", "0.7"), ("header", "0.3"), ("footer", "0.3"));
        var isWide = Look.Turn is { } turn ? turn == PaperTurn.Landscape : IsWide;
        SheetWriter.Empty(
            xml, "pageSetup", ("paperSize", Look.Paper == PaperSize.Letter ? Letter : A4), ("orientation", isWide ? "landscape" : "portrait"), ("fitToWidth", "1"), ("fitToHeight", "0"));
        xml.WriteStartElement("headerFooter");

        // In a page's foot, & begins a command.
        const int MostLetters = 200;
        var text = Look.Footer is { } own ? $"{own} – {Foot}" : Foot;
        var foot = CellText.Escaped(text.Length > MostLetters ? $"{text[..MostLetters]}…" : text).Replace("&", "&&", StringComparison.Ordinal);
        xml.WriteElementString("oddFooter", $"&L{foot}&R{Number}");
        xml.WriteEndElement();
        if (BreakBelow is { } row)
        {
            xml.WriteStartElement("rowBreaks");
            xml.WriteAttributeString("count", "1");
            xml.WriteAttributeString("manualBreakCount", "1");
            SheetWriter.Empty(xml, "brk", ("id", SheetWriter.Text(row)), ("max", SheetWriter.Text(CellText.MostColumns - 1)), ("man", "1"));
            xml.WriteEndElement();
        }

        if (Drawing is not null)
        {
            xml.WriteStartElement("drawing");
            xml.WriteAttributeString("r", "id", WorkbookPackage.Relations, Drawing);
            xml.WriteEndElement();
        }
    }
}
