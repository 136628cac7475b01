using System.Globalization;
using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// What must be in the parts of a workbook, whoever saved it. Throws an <see cref="InvalidDataException"/> that names what is
/// missing.
/// </summary>
internal static class TemplateXml
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    /// <summary>An attribute.</summary>
    public static string Text(XElement element, XName name) =>
        (string?)element.Attribute(name) ?? throw new InvalidDataException($"<{element.Name.LocalName}> has no {name.LocalName}");

    /// <summary>An attribute that is a number.</summary>
    public static int Number(XElement element, XName name) => Read(element, Text(element, name));

    /// <summary>The number that an element holds; nothing where the element is not there.</summary>
    public static int? Number(XElement? element) => element is null ? null : Read(element, element.Value);

    /// <summary>The column of a cell, from 1; 0 where it is not said.</summary>
    public static int ColumnOf(XElement cell) =>
        SheetRange.Parse((string?)cell.Attribute("r") ?? "") is { } place ? place.First.Column : 0;

    /// <summary>
    /// Gives a row of a sheet, and its cells, the places that they may leave out: each then follows the one before it.
    /// </summary>
    /// <param name="line">The row.</param>
    /// <param name="before">The number of the row before it.</param>
    /// <returns>The number of the row.</returns>
    public static int Place(XElement line, int before)
    {
        var row = Next(line, before, line.Attribute("r") is null ? before + 1 : Number(line, "r"));
        line.SetAttributeValue("r", row);
        var column = 0;
        foreach (var cell in line.Elements(Main + "c"))
        {
            column = Next(cell, column, cell.Attribute("r") is null ? column + 1
                : SheetRange.Parse(Text(cell, "r")) is { Last: null } place && place.First.Row == row ? place.First.Column : 0);
            cell.SetAttributeValue("r", CellText.Name(row, column - 1));
        }

        return row;
    }

    private static int Next(XElement element, int before, int number) => number > before ? number
        : throw new InvalidDataException(
            $"<{element.Name.LocalName}> is {(string?)element.Attribute("r")}, which is not behind the one before it");

    private static int Read(XElement element, string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number
        : throw new InvalidDataException($"<{element.Name.LocalName}> has no number but {text}");
}
