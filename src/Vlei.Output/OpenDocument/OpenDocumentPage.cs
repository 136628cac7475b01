using System.Xml;
using Vlei.Output.Pages;
using Vlei.Output.Workbook;
using static Vlei.Output.OpenDocument.OpenDocumentXml;
using static Vlei.Output.Workbook.SheetWriter;

namespace Vlei.Output.OpenDocument;

/// <summary>How a sheet is printed: as many pages as it needs, each as wide as the table, with their numbers.</summary>
internal static class OpenDocumentPage
{
    private const string Margin = "0.6in";

    // What stands for the number of the page and for how many there are, until it is known where in the words they go.
    private const char PageMark = '\u0001';
    private const char PagesMark = '\u0002';

    /// <summary>Writes the paper.</summary>
    public static void WriteLayout(XmlWriter xml, string name, SheetPage page) =>
        Element(xml, "style:page-layout", [("style:name", name)], () =>
    {
        var paper = Paper.Of(page.Look);
        var (width, height) = page.IsOnSide ? (paper.Height, paper.Width) : (paper.Width, paper.Height);
        Element(xml, "style:page-layout-properties",
        [
            ("fo:page-width", $"{Text(width)}pt"), ("fo:page-height", $"{Text(height)}pt"),
            ("style:print-orientation", page.IsOnSide ? "landscape" : "portrait"),
            ("fo:margin-top", Margin), ("fo:margin-bottom", Margin), ("fo:margin-left", Margin), ("fo:margin-right", Margin),
            ("style:scale-to-X", "1"),
        ]);
        Element(xml, "style:header-style", []);
        Element(xml, "style:footer-style", [], () => Element(
            xml, "style:header-footer-properties",
            [("fo:min-height", "0.4in"), ("fo:margin-left", "0in"), ("fo:margin-right", "0in"), ("fo:margin-top", "0.2in")]));
    });

    /// <summary>Writes what stands at every page's foot.</summary>
    public static void WriteMaster(XmlWriter xml, string name, string layout, SheetPage page) =>
        Element(xml, "style:master-page", [("style:name", name), ("style:page-layout-name", layout)], () =>
        {
            Element(xml, "style:header", [("style:display", "false")]);
            Element(xml, "style:footer", [], () =>
            {
                Element(xml, "style:region-left", [], () =>
                {
                    foreach (var line in page.FootLines)
                    {
                        Element(xml, "text:p", [], () => Words(xml, line));
                    }
                });
                Element(xml, "style:region-right", [], () => Element(xml, "text:p", [], () => WriteNumber(xml, page)));
            });
        });

    private static void WriteNumber(XmlWriter xml, SheetPage page)
    {
        var words = page.Number(PageMark.ToString(), PagesMark.ToString());
        for (var place = 0; place < words.Length;)
        {
            var end = words.IndexOfAny([PageMark, PagesMark], place) is >= 0 and var mark ? mark : words.Length;
            Words(xml, words[place..end]);
            if (end < words.Length)
            {
                Element(xml, words[end] == PageMark ? "text:page-number" : "text:page-count", [], () => xml.WriteString("1"));
            }

            place = end + 1;
        }
    }
}
