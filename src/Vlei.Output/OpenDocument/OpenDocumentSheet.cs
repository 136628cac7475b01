using System.Xml;
using Vlei.Output.Workbook;
using static Vlei.Output.OpenDocument.OpenDocumentXml;
using static Vlei.Output.Workbook.SheetWriter;

namespace Vlei.Output.OpenDocument;

/// <summary>
/// Writes the cells of a sheet in their order. Rows and cells that are passed over are written as empty ones: a cell is where it
/// is by what stands before it. A figure leads nowhere: only words can.
/// </summary>
/// <param name="xml">Where to.</param>
/// <param name="looks">The looks of the spreadsheet.</param>
internal sealed class OpenDocumentSheet(XmlWriter xml, OpenDocumentLooks looks) : ISheet
{
    private int _row = 1;
    private int _column;
    private int _folded;

    /// <summary>How many rows stay in view.</summary>
    public int Frozen { get; private set; }

    /// <summary>How it is printed; known at its end.</summary>
    public SheetPage? Page { get; private set; }

    /// <inheritdoc/>
    public void Begin(int frozen, IReadOnlyList<int> widths, int depth, IReadOnlySet<int> hidden)
    {
        Frozen = frozen;
        for (var column = 0; column < widths.Count; column++)
        {
            Element(xml, "table:table-column",
            [
                ("table:style-name", looks.OfColumn(widths[column])), ("table:visibility", hidden.Contains(column) ? "collapse" : null),
            ]);
        }
    }

    /// <inheritdoc/>
    public void Row(int number, int level, Action write, int lines = 1)
    {
        Fold(number > _row ? 0 : level);
        if (number > _row)
        {
            Element(
                xml, "table:table-row", [("table:number-rows-repeated", Text(number - _row))], () => Element(xml, "table:table-cell", []));
            Fold(level);
        }

        if (number == Frozen)
        {
            Element(xml, "table:table-header-rows", [], Cells);
        }
        else
        {
            Cells();
        }

        _row = number + 1;

        void Cells()
        {
            _column = 0;
            Element(xml, "table:table-row", [("table:style-name", looks.OfRow(lines))], write);
        }
    }

    /// <inheritdoc/>
    public void Words(int column, string words, CellLook look, SheetLink? link = null)
    {
        Start(column, look, words.Length > 0 ? "string" : null);
        foreach (var line in words.Length == 0 ? [] : words.Split('\n'))
        {
            Element(xml, "text:p", [], () => Paragraph(line, link));
        }

        xml.WriteEndElement();
    }

    /// <inheritdoc/>
    public void Number(int column, string value, string? formula, CellLook look, SheetLink? link = null)
    {
        var kind = look.Format?.Kind switch { CellKind.Day => "date", CellKind.Percentage => "percentage", _ => "float" };
        Start(column, look with { IsLink = false }, kind, ("table:formula", formula is null ? null : $"of:={formula}"),
            kind == "date" ? ("office:date-value", CellFormat.Day(value).ToString("yyyy-MM-dd", null)) : ("office:value", value));
        xml.WriteEndElement();
    }

    /// <inheritdoc/>
    public void End(SheetPage page)
    {
        Fold(0);
        Page = page;
    }

    /// <summary>A cell, or a first and a last one, in a sheet.</summary>
    public static string Place(string sheet, string cells) =>
        $"'{sheet.Replace("'", "''", StringComparison.Ordinal)}'.{cells.Replace(":", ":.", StringComparison.Ordinal)}";

    private void Paragraph(string line, SheetLink? link)
    {
        if (link is { } leads)
        {
            Element(
                xml, "text:a", [("xlink:href", $"#{Place(leads.Sheet, leads.Cell)}"), ("xlink:type", "simple")],
                () => OpenDocumentXml.Words(xml, line));
        }
        else
        {
            OpenDocumentXml.Words(xml, line);
        }
    }

    private void Start(
        int column, CellLook look, string? kind, (string Name, string? Value) first = default,
        (string Name, string? Value) second = default)
    {
        if (column > _column)
        {
            Element(xml, "table:table-cell", [("table:number-columns-repeated", Text(column - _column))]);
        }

        _column = column + 1;
        OpenDocumentXml.Start(xml, "table:table-cell",
            [("table:style-name", looks.OfCell(look)), ("office:value-type", kind), first, second]);
    }

    // Rows that are folded stand in groups, one within the other.
    private void Fold(int level)
    {
        for (; _folded < level; _folded++)
        {
            OpenDocumentXml.Start(xml, "table:table-row-group", []);
        }

        for (; _folded > level; _folded--)
        {
            xml.WriteEndElement();
        }
    }
}
