using System.Xml;
using Vlei.Output.Workbook;

namespace Vlei.Output.OpenDocument;

/// <summary>The elements and attributes of an OpenDocument file (ISO/IEC 26300), written as <c>table:table-row</c>.</summary>
internal static class OpenDocumentXml
{
    private const string Names = "urn:oasis:names:tc:opendocument:xmlns:";

    private static readonly Dictionary<string, string> Namespaces = new()
    {
        ["office"] = $"{Names}office:1.0", ["style"] = $"{Names}style:1.0", ["text"] = $"{Names}text:1.0",
        ["table"] = $"{Names}table:1.0", ["number"] = $"{Names}datastyle:1.0", ["fo"] = $"{Names}xsl-fo-compatible:1.0",
        ["meta"] = $"{Names}meta:1.0", ["config"] = $"{Names}config:1.0", ["manifest"] = $"{Names}manifest:1.0",
        ["xlink"] = "http://www.w3.org/1999/xlink", ["dc"] = "http://purl.org/dc/elements/1.1/", ["of"] = $"{Names}of:1.2",
    };

    /// <summary>Writes an element with what is in it.</summary>
    public static void Element(
        XmlWriter xml, string name, ReadOnlySpan<(string Name, string? Value)> attributes, Action? inside = null)
    {
        Start(xml, name, attributes);
        inside?.Invoke();
        xml.WriteEndElement();
    }

    /// <summary>Begins an element; an attribute without a value is left out.</summary>
    public static void Start(XmlWriter xml, string name, ReadOnlySpan<(string Name, string? Value)> attributes)
    {
        var (prefix, own) = Parts(name);
        xml.WriteStartElement(prefix, own, Namespaces[prefix]);
        foreach (var (attribute, value) in attributes)
        {
            if (value is not null)
            {
                var (before, after) = Parts(attribute);
                xml.WriteAttributeString(before, after, Namespaces[before], value);
            }
        }
    }

    /// <summary>Declares the prefixes of what follows, once rather than wherever they are met.</summary>
    public static void Declare(XmlWriter xml, params ReadOnlySpan<string> prefixes)
    {
        foreach (var prefix in prefixes)
        {
            xml.WriteAttributeString("xmlns", prefix, null, Namespaces[prefix]);
        }
    }

    /// <summary>Writes text into a paragraph: blanks that would be taken together, and tabs, have elements of their own.</summary>
    public static void Words(XmlWriter xml, string text)
    {
        for (var place = 0; place < text.Length;)
        {
            var blanks = 0;
            while (place + blanks < text.Length && text[place + blanks] == ' ')
            {
                blanks++;
            }

            if (blanks > 0 && (blanks > 1 || place == 0 || place + 1 == text.Length))
            {
                Element(xml, "text:s", [("text:c", SheetWriter.Text(blanks))]);
                place += blanks;
            }
            else if (text[place] == '\t')
            {
                Element(xml, "text:tab", []);
                place++;
            }
            else
            {
                var end = place + 1;
                while (end < text.Length && text[end] != '\t' && !(text[end] == ' ' && (end + 1 == text.Length || text[end + 1] == ' ')))
                {
                    end++;
                }

                xml.WriteString(Allowed(text[place..end]));
                place = end;
            }
        }
    }

    // What XML has no room for is shown as something that cannot be shown.
    private static string Allowed(string text)
    {
        if (!text.AsSpan().ContainsAnyExceptInRange(' ', '~'))
        {
            return text;
        }

        var letters = text.ToCharArray();
        for (var place = 0; place < letters.Length; place++)
        {
            if (place + 1 < letters.Length && XmlConvert.IsXmlSurrogatePair(letters[place + 1], letters[place]))
            {
                place++;
            }
            else if (!XmlConvert.IsXmlChar(letters[place]))
            {
                letters[place] = '\uFFFD';
            }
        }

        return new string(letters);
    }

    private static (string Prefix, string Name) Parts(string name) =>
        name.IndexOf(':', StringComparison.Ordinal) is var colon ? (name[..colon], name[(colon + 1)..]) : default;
}
