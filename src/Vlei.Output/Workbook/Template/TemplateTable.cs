using System.Xml.Linq;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// Fills the table of a sheet that a person has given other looks: each row and column keeps those that it had, a new one gets
/// those of one of its kind, and what the person put beside the table goes along with its row.
/// </summary>
internal sealed class TemplateTable
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    private readonly XElement _data;
    private readonly Report _report;
    private readonly SheetRange _table;
    private readonly XDocument _sheet;
    private readonly TakenRows _old;
    private readonly int?[] _sourceOf;
    private readonly SheetFigures _figures;
    private readonly Func<string?, bool> _isThis;
    private readonly Dictionary<(RowKind Kind, int Level, int Column), RowLooks?> _looksLike = [];

    /// <summary>Reads a table.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="table">The cells of the table, with its headings.</param>
    /// <param name="words">What it is filled with.</param>
    /// <param name="textOf">The text of a cell.</param>
    /// <param name="isThis">Whether a sheet that a formula names, or does not name, is this one.</param>
    public TemplateTable(XDocument sheet, SheetRange table, ReportWords words, Func<XElement, string> textOf, Func<string?, bool> isThis)
    {
        (_sheet, _table, _report, _isThis) = (sheet, table, words.Report, isThis);
        _data = sheet.Root!.Element(Main + "sheetData") ?? throw new InvalidDataException("the sheet of the report has no cells");
        _old = TakenOf(textOf);
        var (first, last) = (table.First, table.Last!.Value);
        var head = _data.Elements(Main + "row").FirstOrDefault(row => TemplateXml.Number(row, "r") == first.Row);
        var labels = _old.Labels;
        string[] headings =
        [
            .. Enumerable.Range(first.Column + 1, last.Column - first.Column)
                .Select(column => head is not null && CellAt(head, column) is { } cell ? textOf(cell) : ""),
        ];
        Shift = new TableShift(
            table, labels, headings, [.. _report.Rows.Select(row => row.Label)], [.. _report.Columns.Select(column => column.Heading)]);
        IsOfOther = labels.Length > 0 && _report.Rows.Count > 0
            && !_report.Rows.Where(row => row.Kind != RowKind.GrandTotal).Select(row => row.Label).Intersect(labels).Any()
            && !_report.Columns.Select(column => column.Heading).Intersect(headings).Any()
            && (headings.Length != _report.Columns.Count || _report.Rows.Any(row => row.Kind == RowKind.Account));
        _sourceOf = Sources();
        _figures = new SheetFigures(
            _report, first.Row + 1, [.. Enumerable.Range(first.Column, _report.Columns.Count)], FormulaNotation.Workbook);
    }

    /// <summary>Whether it is of another report, as far as its rows and columns tell: none of them is of this one. The records of a list
    /// are others each month, and a person may have called its columns otherwise, so that as many columns are enough there.</summary>
    public bool IsOfOther { get; }

    /// <summary>Where the cells of the sheet go.</summary>
    public TableShift Shift { get; }

    /// <summary>The cells of the new table, with its headings.</summary>
    public SheetRange Filled => _table with
    {
        Last = _table.Last!.Value with
        {
            Row = _table.First.Row + _report.Rows.Count,
            Column = _table.First.Column + _report.Columns.Count
        },
    };

    /// <summary>
    /// Fills it. Formulas outside of it are as yet those of the old sheet, but for those that are filled down to new rows.
    /// </summary>
    public void Fill()
    {
        var rows = new SortedDictionary<int, XElement>();
        foreach (var row in _data.Elements(Main + "row"))
        {
            var number = TemplateXml.Number(row, "r");
            var at = Shift.RowOf(number)!.Value;
            rows[at] = Placed(row.Attributes(), at, number == _table.First.Row ? CellsOfHeadings(row) : Shifted(row, _ => true));
        }

        _data.ReplaceNodes(rows.Values);
        _sheet.RemoveAnnotations<TakenRows>();
        _data.AddAnnotation(new MadeRows(_table.First.Row + 1, _report.Rows.Select((row, place) =>
            RowOf(row, place, _table.First.Row + 1 + place))));
    }

    // Those that were taken as the sheet was read; another table of the same sheet has its own there still.
    private TakenRows TakenOf(Func<XElement, string> textOf)
    {
        if (TakenRows.In(_sheet) is { } known && known.Table == _table)
        {
            return known;
        }

        var taken = new TakenRows(_table, textOf);
        SheetReader.Take(_data, taken);
        return taken;
    }

    // Of the rows that were there and are of the same kind and level, or of the same kind, the nearest above; else the last.
    private int?[] Sources()
    {
        var sources = new int?[_report.Rows.Count];
        var (byLevel, byKind) = (new Dictionary<(RowKind, int), int>(), new Dictionary<RowKind, int>());
        var matched = _report.Rows.Select((row, place) => (row, Old: Shift.OldRow(place))).ToList();
        foreach (var (row, old) in matched.AsEnumerable().Reverse().Where(one => one.Old is not null))
        {
            (byLevel[(row.Kind, row.Level)], byKind[row.Kind]) = (old!.Value, old.Value);
        }

        for (var place = 0; place < sources.Length; place++)
        {
            var (row, old) = matched[place];
            if (old is { } own)
            {
                (byLevel[(row.Kind, row.Level)], byKind[row.Kind]) = (own, own);
            }

            sources[place] = old
                ?? (byLevel.TryGetValue((row.Kind, row.Level), out var level) ? level : byKind.TryGetValue(row.Kind, out var kind) ? kind
                : place < _table.Last!.Value.Row - _table.First.Row ? place : null);
        }

        return sources;
    }

    private XElement RowOf(ReportRow row, int place, int at)
    {
        var source = _sourceOf[place] is { } old ? _old.Of(_table.First.Row + 1 + old) : null;
        var isNew = Shift.OldRow(place) is null;
        var cells = new SortedDictionary<int, XElement>();
        foreach (var (column, own) in source?.Beside ?? [])
        {
            if (Shift.ColumnOf(column) is not { } to)
            {
                continue;
            }

            // Values that a person put beside a row are of that row alone; what is worked out is so for a new one too.
            var cell = cells[to] = new XElement(own);
            if (isNew && cell.Element(Main + "f") is { } formula)
            {
                formula.Value = FilledDown(formula.Value, source!.Number, at);
                formula.AddAnnotation(Own.Mark);
            }
            else if (isNew)
            {
                cell.RemoveNodes();
                cell.Attribute("t")?.Remove();
            }
        }

        _figures.Take(row, place);
        var label = Cell(at, _table.First.Column, source?.Looks.Of(_table.First.Column), row.Label);
        cells[_table.First.Column] = label;
        for (var column = 0; column < _report.Columns.Count; column++)
        {
            var number = _table.First.Column + 1 + column;
            cells[number] = row.Cells[column].Units is { } units
                ? Figure(at, number, LookOfFigure(source?.Looks, row, OldColumn(column)), _figures.Of(row, place, column, units))
                : Cell(at, number, source?.Looks.Of(OldColumn(column)), row.Cells[column].Words ?? "");
        }

        var filled = Placed(source?.Looks.Attributes ?? [], at, cells);
        filled.SetAttributeValue("outlineLevel", row.Level > 0 ? Math.Min(row.Level, 7) : null);
        if (isNew)
        {
            filled.SetAttributeValue("hidden", null);
        }

        return filled;
    }

    // What a formula says of its own row it says of the new one; everything else goes where it goes.
    private string FilledDown(string formula, int from, int to) => FormulaText.With(formula, (sheet, range) => !_isThis(sheet) ? range
        : range.First.Row != from || (range.Last is { } last && last.Row != from) ? Shift.Of(range)
        : Shift.ColumnOf(range.First.Column) is not { } first || (range.Last is { } end && Shift.ColumnOf(end.Column) is null) ? null
        : new SheetRange(
            range.First with { Row = to, Column = first }, range.Last is { } other
                ? other with { Row = to, Column = Shift.ColumnOf(other.Column)!.Value } : null));

    private int OldColumn(int column) => _table.First.Column + 1 + (Shift.OldColumn(column)
        ?? (Enumerable.Range(0, column).Reverse().Select(Shift.OldColumn).FirstOrDefault(old => old is not null) ?? 0));

    private SortedDictionary<int, XElement> CellsOfHeadings(XElement row)
    {
        var cells = Shifted(row, column => column <= _table.First.Column || column > _table.Last!.Value.Column);
        for (var column = 0; column < _report.Columns.Count; column++)
        {
            var number = _table.First.Column + 1 + column;
            var look = (string?)CellAt(row, OldColumn(column))?.Attribute("s") ?? (string?)row.Attribute("s");
            cells[number] = Cell(_table.First.Row, number, look, _report.Columns[column].Heading);
        }

        return cells;
    }

    private SortedDictionary<int, XElement> Shifted(XElement row, Func<int, bool> isWanted)
    {
        var cells = new SortedDictionary<int, XElement>();
        foreach (var cell in row.Elements(Main + "c"))
        {
            if (TemplateXml.ColumnOf(cell) is var column && isWanted(column) && Shift.ColumnOf(column) is { } at)
            {
                cells[at] = new XElement(cell);
            }
        }

        return cells;
    }

    private static XElement Placed(IEnumerable<XAttribute> attributes, int number, SortedDictionary<int, XElement> cells)
    {
        var placed = new XElement(
            Main + "row", new XAttribute("r", number),
            attributes.Where(attribute => attribute.Name != "r" && attribute.Name != "spans")
                .Select(attribute => new XAttribute(attribute)));
        foreach (var (column, cell) in cells)
        {
            cell.SetAttributeValue("r", CellText.Name(number, column - 1));
            placed.Add(cell);
        }

        return placed;
    }

    // Where there was no figure, there was no number format: a row of the same kind that had one has it.
    private string? LookOfFigure(RowLooks? source, ReportRow row, int column)
    {
        if (source?.HasFigure(column) == true)
        {
            return source.Of(column);
        }

        if (!_looksLike.TryGetValue((row.Kind, row.Level, column), out var like))
        {
            like = _report.Rows.Select((other, place) => (Row: other, Old: Shift.OldRow(place)))
                .Where(other => other.Old is not null && other.Row.Kind == row.Kind)
                .OrderByDescending(other => other.Row.Level == row.Level)
                .Select(other => _old.Of(_table.First.Row + 1 + other.Old!.Value)?.Looks)
                .FirstOrDefault(other => other?.HasFigure(column) == true);
            _looksLike.Add((row.Kind, row.Level, column), like);
        }

        return (like ?? source)?.Of(column);
    }

    private static XElement? CellAt(XElement row, int column) =>
        row.Elements(Main + "c").FirstOrDefault(cell => TemplateXml.ColumnOf(cell) == column);

    private static XElement Figure(int row, int column, string? look, (string Value, string? Formula) figure)
    {
        var cell = new XElement(
            Main + "c", new XAttribute("r", CellText.Name(row, column - 1)), look is null ? null : new XAttribute("s", look));
        if (figure.Formula is { } text)
        {
            var formula = new XElement(Main + "f", text);
            formula.AddAnnotation(Own.Mark);
            cell.Add(formula);
        }

        cell.Add(new XElement(Main + "v", figure.Value));
        return cell;
    }

    /// <summary>A cell with words; whatever they begin with, they stay words.</summary>
    public static XElement Cell(int row, int column, string? look, string text) => new(
        Main + "c", new XAttribute("r", CellText.Name(row, column - 1)), look is null ? null : new XAttribute("s", look),
        text.Length == 0 ? null : new XAttribute("t", "inlineStr"),
        text.Length == 0 ? null : new XElement(
            Main + "is", new XElement(Main + "t", new XAttribute(XNamespace.Xml + "space", "preserve"), CellText.Escaped(text))));

    /// <summary>
    /// Gives the columns of a table that a person made of these cells their headings: programs take a workbook in which they
    /// differ for damaged.
    /// </summary>
    public void NameColumns(XElement table)
    {
        if (SheetRange.Parse((string?)table.Attribute("ref") ?? "") is not { Last: { } last } range || range.First.Row != _table.First.Row
            || table.Element(Main + "tableColumns") is not { HasElements: true } columns)
        {
            return;
        }

        var old = columns.Elements().ToList();
        var (named, taken) = (new List<XElement>(), new HashSet<string>(StringComparer.OrdinalIgnoreCase));
        for (var number = range.First.Column; number <= last.Column; number++)
        {
            var place = number - range.First.Column;
            var column = new XElement(old[Math.Min(place, old.Count - 1)]);
            var heading = number - _table.First.Column - 1 is >= 0 and var own && own < _report.Columns.Count
                ? _report.Columns[own].Heading : (string?)column.Attribute("name") ?? "";
            var name = heading;
            for (var times = 2; !taken.Add(name); times++)
            {
                name = $"{heading}{times}";
            }

            column.SetAttributeValue("name", name);
            column.SetAttributeValue("id", place + 1);
            named.Add(column);
        }

        columns.ReplaceNodes(named);
        columns.SetAttributeValue("count", named.Count);
    }

    /// <summary>Whether a formula is of the filled workbook already, rather than of the template.</summary>
    public static bool IsOwn(XElement formula) => formula.Annotation<Own>() is not null;

    private sealed class Own
    {
        public static readonly Own Mark = new();
    }
}
