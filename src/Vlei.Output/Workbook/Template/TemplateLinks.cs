using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>The links of a sheet whose table is filled anew: what its cells led to is not where they lead now.</summary>
/// <param name="sheet">The sheet.</param>
internal sealed class TemplateLinks(XDocument sheet)
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    // What may stand behind links in a sheet: they come before the first of these.
    private static readonly string[] Behind =
        ["printOptions", "pageMargins", "pageSetup", "headerFooter", "rowBreaks", "colBreaks", "customProperties", "cellWatches",
            "ignoredErrors", "smartTags", "drawing", "legacyDrawing", "legacyDrawingHF", "picture", "oleObjects", "controls",
            "webPublishItems", "tableParts", "extLst"];

    /// <summary>How many there are.</summary>
    public int Count => sheet.Root!.Elements(Main + "hyperlinks").Elements().Count();

    /// <summary>Takes away those of a table.</summary>
    public void Clear(SheetRange table)
    {
        foreach (var links in sheet.Root!.Elements(Main + "hyperlinks").ToList())
        {
            links.Elements()
                .Where(link => SheetRange.Parse((string?)link.Attribute("ref") ?? "") is { } place && IsWithin(table, place.First))
                .Remove();
            if (!links.HasElements)
            {
                links.Remove();
            }
        }
    }

    /// <summary>Has a cell lead to another place of the workbook.</summary>
    public void Add(string cell, string target)
    {
        var links = sheet.Root!.Element(Main + "hyperlinks");
        if (links is null)
        {
            links = new XElement(Main + "hyperlinks");
            if (sheet.Root!.Elements().FirstOrDefault(element => Behind.Contains(element.Name.LocalName)) is { } behind)
            {
                behind.AddBeforeSelf(links);
            }
            else
            {
                sheet.Root!.Add(links);
            }
        }

        links.Add(new XElement(Main + "hyperlink", new XAttribute("ref", cell), new XAttribute("location", target)));
    }

    private static bool IsWithin(SheetRange table, CellName cell) => cell.Row >= table.First.Row && cell.Row <= table.Last!.Value.Row
        && cell.Column >= table.First.Column && cell.Column <= table.Last!.Value.Column;
}
