using System.Xml;

namespace Vlei.Records.Audit;

/// <summary>An element of an audit file with all that is in it; only such are kept as are one record.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Line">The line that it begins on, from 1.</param>
/// <param name="Column">The column that it begins in, from 1.</param>
internal sealed record AuditElement(string Name, int Line, int Column)
{
    private readonly List<AuditElement> _children = [];

    /// <summary>Its own text.</summary>
    public string Text { get; private set; } = "";

    /// <summary>The text of an element in it; empty where there is none.</summary>
    public string this[string name] => Child(name)?.Text ?? "";

    /// <summary>An element in it; nothing where there is none.</summary>
    public AuditElement? Child(string name) => _children.Find(child => child.Name == name);

    /// <summary>The elements of a name in it.</summary>
    public IEnumerable<AuditElement> Children(string name) => _children.Where(child => child.Name == name);

    /// <summary>Reads the element at hand; the reader stands at its end then.</summary>
    public static AuditElement Read(XmlReader xml)
    {
        var place = (IXmlLineInfo)xml;
        var element = new AuditElement(xml.LocalName, place.LineNumber, Math.Max(1, place.LinePosition - 1));
        if (xml.IsEmptyElement)
        {
            return element;
        }

        while (xml.Read() && xml.NodeType != XmlNodeType.EndElement)
        {
            if (xml.NodeType == XmlNodeType.Element)
            {
                element._children.Add(Read(xml));
            }
            else if (xml.NodeType is XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.SignificantWhitespace)
            {
                element.Text += xml.Value;
            }
        }

        return element;
    }
}
