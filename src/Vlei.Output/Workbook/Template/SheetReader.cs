using System.Xml;
using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>Reads a sheet row by row, and gives rows and cells the places that they may leave out.</summary>
internal static class SheetReader
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    /// <summary>
    /// Reads it. Throws an <see cref="InvalidDataException"/> where rows or cells are not in their order, and an
    /// <see cref="XmlException"/> where it is no XML.
    /// </summary>
    /// <param name="reader">What it is read from.</param>
    /// <param name="taken">Takes the rows of its table, which are not in what comes back.</param>
    public static XDocument Read(XmlReader reader, TakenRows taken)
    {
        reader.MoveToContent();
        var root = Begun(reader);
        var sheet = new XDocument(root);
        foreach (var node in Within(reader))
        {
            root.Add(node is { NodeType: XmlNodeType.Element, LocalName: "sheetData" } ? Data(reader, taken) : XNode.ReadFrom(reader));
        }

        sheet.AddAnnotation(taken);
        return sheet;
    }

    /// <summary>Takes the rows of a table out of a sheet that is there as a whole.</summary>
    public static void Take(XElement data, TakenRows taken)
    {
        foreach (var row in data.Elements(Main + "row").Where(row => taken.IsOne(TemplateXml.Number(row, "r"))).ToList())
        {
            taken.Take(row);
            row.Remove();
        }
    }

    private static XElement Data(XmlReader reader, TakenRows taken)
    {
        var (data, number, formulas) = (Begun(reader), 0, new SharedFormulas());
        foreach (var node in Within(reader))
        {
            if (XNode.ReadFrom(reader) is not XElement { Name.LocalName: "row" } row)
            {
                continue;
            }

            number = TemplateXml.Place(row, number);
            formulas.Expand(row);
            if (taken.IsOne(number))
            {
                taken.Take(row);
            }
            else
            {
                data.Add(row);
            }
        }

        return data;
    }

    // The element that a reader stands at, without what is in it.
    private static XElement Begun(XmlReader reader)
    {
        var element = new XElement(XName.Get(reader.LocalName, reader.NamespaceURI));
        while (reader.MoveToNextAttribute())
        {
            element.Add(new XAttribute(
                reader.Name == "xmlns" ? "xmlns" : XName.Get(reader.LocalName, reader.NamespaceURI), reader.Value));
        }

        reader.MoveToElement();
        return element;
    }

    // What is in the element that a reader stands at; whoever goes through it reads each of them to its end.
    private static IEnumerable<XmlReader> Within(XmlReader reader)
    {
        var isEmpty = reader.IsEmptyElement;
        reader.Read();
        while (!isEmpty && reader.NodeType != XmlNodeType.EndElement)
        {
            yield return reader;
        }

        if (!isEmpty)
        {
            reader.Read();
        }
    }
}
