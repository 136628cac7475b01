using System.Xml;
using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// Rows of a sheet that are made while the sheet is written, one after the other, so that a long table is never there as a whole.
/// </summary>
/// <param name="first">The number of the first.</param>
/// <param name="rows">Makes them.</param>
internal sealed class MadeRows(int first, IEnumerable<XElement> rows)
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    private readonly List<Action<XElement>> _changes = [];

    /// <summary>Has every row changed once it is made, after what was asked before.</summary>
    public void Change(Action<XElement> change) => _changes.Add(change);

    /// <summary>Those of a sheet; nothing where it has none.</summary>
    public static MadeRows? In(XDocument sheet) => sheet.Root!.Element(Main + "sheetData")?.Annotation<MadeRows>();

    /// <summary>Writes a part of a workbook, with the rows that are made for it where it is a sheet that has such.</summary>
    public static void Write(XDocument part, XmlWriter xml)
    {
        if (In(part) is not { } made)
        {
            part.Save(xml);
            return;
        }

        var (root, data) = (part.Root!, part.Root!.Element(Main + "sheetData")!);
        new XStreamingElement(root.Name, root.Attributes(), root.Nodes().Select(node => node != data ? (object)node
            : new XStreamingElement(data.Name, data.Attributes(), made.Among(data.Elements(Main + "row"))))).Save(xml);
    }

    // In the order of their numbers.
    private IEnumerable<XElement> Among(IEnumerable<XElement> others)
    {
        var own = others.ToLookup(row => TemplateXml.Number(row, "r") < first);
        foreach (var row in own[true])
        {
            yield return row;
        }

        foreach (var row in rows)
        {
            _changes.ForEach(change => change(row));
            yield return row;
        }

        foreach (var row in own[false])
        {
            yield return row;
        }
    }
}
