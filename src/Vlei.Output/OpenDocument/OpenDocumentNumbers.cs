using System.Xml;
using Vlei.Core.Reports;
using Vlei.Output.Workbook;
using static Vlei.Output.OpenDocument.OpenDocumentXml;
using static Vlei.Output.Workbook.SheetWriter;

namespace Vlei.Output.OpenDocument;

/// <summary>How a figure is written, as OpenDocument's data styles say it (ISO/IEC 26300, part 3, 16.29).</summary>
internal static class OpenDocumentNumbers
{
    private const string Number = "number:number-style";

    /// <summary>Writes the style of that name, and those of signs that it chooses from.</summary>
    public static void Write(XmlWriter xml, string name, CellFormat format)
    {
        if (format.Days is { } days)
        {
            Element(xml, "number:date-style", [("style:name", name)], () => WriteDays(xml, days));
        }
        else if (format.Kind == CellKind.Percentage)
        {
            WriteStyle(xml, "number:percentage-style", name, format, "", "%", Nil(xml, "number:percentage-style", name, format));
        }
        else if (format.IsChange)
        {
            var (before, after) = AroundNegative(format);
            WriteStyle(xml, Number, $"{name}up", format, "", " ▲");
            WriteStyle(xml, Number, $"{name}down", format, before, $"{after} ▼");
            WriteStyle(
                xml, Number, name, format, "", " =",
                [.. Nil(xml, Number, name, format, " ="), ("value()>0", $"{name}up"), ("value()<0", $"{name}down")]);
        }
        else if (format.Negatives != NegativeStyle.Minus)
        {
            var (before, after) = AroundNegative(format);
            WriteStyle(xml, Number, $"{name}up", format, "", " ");
            WriteStyle(xml, Number, name, format, before, after, [.. Nil(xml, Number, name, format), ("value()>=0", $"{name}up")]);
        }
        else
        {
            WriteStyle(xml, Number, name, format, "", format.IsPoints ? " pts" : "", Nil(xml, Number, name, format));
        }
    }

    // The style of nothing, where that is a dash, and when it is taken.
    private static (string Condition, string Style)[] Nil(XmlWriter xml, string kind, string name, CellFormat format, string after = "")
    {
        if (!format.HasDash)
        {
            return [];
        }

        Element(xml, kind, [("style:name", $"{name}nil")], () => WriteText(xml, $"–{after}"));
        return [("value()=0", $"{name}nil")];
    }

    private static (string Before, string After) AroundNegative(CellFormat format) => format.Negatives switch
    {
        NegativeStyle.Brackets => ("(", ")"),
        NegativeStyle.TrailingMinus => ("", "-"),
        _ => ("-", ""),
    };

    private static void WriteStyle(
        XmlWriter xml, string kind, string name, CellFormat format, string before, string after,
        params (string Condition, string Style)[] choices) => Element(xml, kind, [("style:name", name)], () =>
    {
        WriteText(xml, before);
        Element(xml, "number:number",
        [
            ("number:decimal-places", Text(format.Decimals)), ("number:min-integer-digits", "1"),
            ("number:grouping", format.HasThousands ? "true" : null),
            ("number:display-factor", format.ScaleDigits == 0 ? null : Text(Math.Pow(10, format.ScaleDigits))),
        ]);
        WriteText(xml, after);
        foreach (var (condition, style) in choices)
        {
            Element(xml, "style:map", [("style:condition", condition), ("style:apply-style-name", style)]);
        }
    });

    // A day is written by a pattern such as "d MMM yyyy": letters that are alike say together what is meant.
    private static void WriteDays(XmlWriter xml, string pattern)
    {
        for (var place = 0; place < pattern.Length;)
        {
            var letter = pattern[place];
            var end = place;
            while (end < pattern.Length && pattern[end] == letter)
            {
                end++;
            }

            var (element, isWords, isLong) = (letter, end - place) switch
            {
                ('y', var letters) => ("number:year", false, letters > 2),
                ('M', var letters) => ("number:month", letters > 2, letters is 2 or > 3),
                ('d', var letters) => ("number:day", false, letters > 1),
                _ => ("", false, false),
            };
            if (element.Length == 0)
            {
                WriteText(xml, pattern[place..end]);
            }
            else
            {
                Element(xml, element, [("number:style", isLong ? "long" : null), ("number:textual", isWords ? "true" : null)]);
            }

            place = end;
        }
    }

    private static void WriteText(XmlWriter xml, string text)
    {
        if (text.Length > 0)
        {
            Element(xml, "number:text", [], () => xml.WriteString(text));
        }
    }
}
