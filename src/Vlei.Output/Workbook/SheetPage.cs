using System.Xml;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>How a sheet is printed, and what is drawn on it.</summary>
/// <param name="Look">The looks of its report.</param>
/// <param name="IsWide">Whether it prints better on its side.</param>
/// <param name="Foot">What stands at the left of every page's foot.</param>
/// <param name="Number">How the number of the page is said, from what stands for it and for how many there are.</param>
internal sealed record SheetPage(ReportLook Look, bool IsWide, string Foot, Func<string, string, string> Number)
{
    private const string A4 = "9";
    private const string Letter = "1";

    // A size in points; the blank keeps what follows from being read as more of it.
    private const string Small = "&8 ";

    /// <summary>The row below which a new page begins; nothing where pages break by themselves.</summary>
    public int? BreakBelow { get; init; }

    /// <summary>Whether it is printed on its side.</summary>
    public bool IsOnSide => Look.Turn is { } turn ? turn == PaperTurn.Landscape : IsWide;

    /// <summary>
    /// What stands at the left of every page's foot, with what the reader wants there, in lines that end before the number of the page;
    /// cut where it is too long.
    /// </summary>
    public IReadOnlyList<string> FootLines
    {
        get
        {
            const int LettersUpright = 80, LettersOnSide = 120, MostLines = 2;
            var text = Look.Footer is { } own ? $"{own} – {Foot}" : Foot;
            var lines = DisplayText.Wrap(text, IsOnSide ? LettersOnSide : LettersUpright).ToList();
            return lines.Count <= MostLines ? lines : [.. lines.Take(MostLines - 1), $"{lines[MostLines - 1]} …"];
        }
    }

    /// <summary>Writes it into a workbook.</summary>
    public void Write(XmlWriter xml)
    {
        SheetWriter.Empty(
            xml, "pageMargins", ("left", "0.6"), ("right", "0.6"), ("top", "0.7"), ("bottom", "0.7"), ("header", "0.3"), ("footer", "0.3"));
        SheetWriter.Empty(
            xml, "pageSetup", ("paperSize", Look.Paper == PaperSize.Letter ? Letter : A4),
            ("orientation", IsOnSide ? "landscape" : "portrait"), ("fitToWidth", "1"), ("fitToHeight", "0"));
        xml.WriteStartElement("headerFooter");

        // In a page's foot, & begins a command.
        var foot = CellText.Escaped(string.Join('\n', FootLines)).Replace("&", "&&", StringComparison.Ordinal);
        xml.WriteElementString("oddFooter", $"&L{Small}{foot}&R{Small}{Number("&P", "&N")}");
        xml.WriteEndElement();
        if (BreakBelow is { } row)
        {
            xml.WriteStartElement("rowBreaks");
            xml.WriteAttributeString("count", "1");
            xml.WriteAttributeString("manualBreakCount", "1");
            SheetWriter.Empty(xml, "brk", ("id", SheetWriter.Text(row)), ("max", SheetWriter.Text(CellText.MostColumns - 1)), ("man", "1"));
            xml.WriteEndElement();
        }
    }
}
