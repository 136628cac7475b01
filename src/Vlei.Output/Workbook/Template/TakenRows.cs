using System.Text;
using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>How a row of a table looks, without what it says: many rows look the same.</summary>
/// <param name="Attributes">What is said of the row, but for its number.</param>
/// <param name="Cells">The looks of its cells, by their columns; nothing where a cell has none of its own.</param>
/// <param name="Figures">Which of its cells hold a figure, by their columns.</param>
internal sealed record RowLooks(IReadOnlyList<XAttribute> Attributes, IReadOnlyList<string?> Cells, IReadOnlyList<bool> Figures)
{
    /// <summary>The looks of a cell; those of the row where it has none of its own.</summary>
    public string? Of(int column) => (column < Cells.Count ? Cells[column] : null)
        ?? Attributes.FirstOrDefault(attribute => attribute.Name == "s")?.Value;

    /// <summary>Whether a cell holds a figure.</summary>
    public bool HasFigure(int column) => column < Figures.Count && Figures[column];
}

/// <summary>A row of a table that a person has given other looks.</summary>
/// <param name="Number">Its number on the sheet.</param>
/// <param name="Label">What stands before its figures.</param>
/// <param name="Looks">How it looks.</param>
/// <param name="Beside">What a person put beside the table, with the column.</param>
internal sealed record TemplateRow(int Number, string Label, RowLooks Looks, IReadOnlyList<(int Column, XElement Cell)> Beside);

/// <summary>
/// The rows of a table that is filled anew, taken from their sheet as it is read: its figures are not wanted, and a long table is
/// never there as a whole.
/// </summary>
/// <param name="table">The cells of the table, with its headings.</param>
/// <param name="textOf">The text of a cell.</param>
internal sealed class TakenRows(SheetRange table, Func<XElement, string> textOf)
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    private readonly Dictionary<int, TemplateRow> _rows = [];
    private readonly Dictionary<string, RowLooks> _looks = new(StringComparer.Ordinal);

    /// <summary>The table that they are of.</summary>
    public SheetRange Table => table;

    /// <summary>What stands before the figures of each of its rows, from the first.</summary>
    public string[] Labels => [.. Enumerable.Range(table.First.Row + 1, table.Last!.Value.Row - table.First.Row)
        .Select(number => Of(number)?.Label ?? "")];

    /// <summary>What a person put beside the table.</summary>
    public IEnumerable<XElement> Beside => _rows.Values.SelectMany(row => row.Beside).Select(beside => beside.Cell);

    /// <summary>Those that were taken from a sheet as it was read; nothing where none were.</summary>
    public static TakenRows? In(XDocument sheet) => sheet.Annotation<TakenRows>();

    /// <summary>The row of a number; nothing where the sheet has none.</summary>
    public TemplateRow? Of(int number) => _rows.GetValueOrDefault(number);

    /// <summary>Whether a row is one of the table's, below its headings.</summary>
    public bool IsOne(int number) => number > table.First.Row && number <= table.Last!.Value.Row;

    /// <summary>Takes a row.</summary>
    public void Take(XElement row)
    {
        var (number, label) = (TemplateXml.Number(row, "r"), "");
        var (looks, figures) = (new List<string?>(), new List<bool>());
        var beside = new List<(int, XElement)>();
        foreach (var cell in row.Elements(Main + "c").ToList())
        {
            var column = TemplateXml.ColumnOf(cell);
            while (looks.Count <= column)
            {
                looks.Add(null);
                figures.Add(false);
            }

            (looks[column], figures[column]) = (
                (string?)cell.Attribute("s"), cell.Element(Main + "v") is not null && (string?)cell.Attribute("t") is null or "n" or "str");
            if (column < table.First.Column || column > table.Last!.Value.Column)
            {
                cell.Remove();
                beside.Add((column, cell));
            }
            else if (column == table.First.Column)
            {
                label = textOf(cell);
            }
        }

        if (!_rows.TryAdd(number, new TemplateRow(number, label, Known(row, looks, figures), beside)))
        {
            throw new InvalidDataException($"row {number} is there twice");
        }
    }

    private RowLooks Known(XElement row, List<string?> looks, List<bool> figures)
    {
        var attributes = row.Attributes().Where(attribute => attribute.Name != "r" && attribute.Name != "spans").ToList();
        var key = new StringBuilder().AppendJoin(' ', attributes.Select(attribute => $"{attribute.Name}={attribute.Value}"));
        for (var column = 0; column < looks.Count; column++)
        {
            key.Append('|').Append(looks[column]).Append(figures[column] ? "#" : "");
        }

        var name = key.ToString();
        if (!_looks.TryGetValue(name, out var known))
        {
            _looks.Add(name, known = new RowLooks([.. attributes.Select(attribute => new XAttribute(attribute))], looks, figures));
        }

        return known;
    }
}
