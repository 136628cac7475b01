using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>Everything in a workbook that names cells of a sheet, taken along where a table on that sheet gets another size.</summary>
internal sealed class TemplateReferences
{
    private static readonly XNamespace Main = WorkbookPackage.Main;
    private static readonly XNamespace Chart = "http://schemas.openxmlformats.org/drawingml/2006/chart";
    private static readonly XNamespace Drawing = "http://schemas.openxmlformats.org/drawingml/2006/spreadsheetDrawing";

    // Which elements of a sheet name cells of it, and by which attribute.
    private static readonly Dictionary<string, string> Places = new()
    {
        ["mergeCell"] = "ref", ["hyperlink"] = "ref", ["dimension"] = "ref", ["autoFilter"] = "ref",
        ["conditionalFormatting"] = "sqref", ["dataValidation"] = "sqref",
        ["selection"] = "sqref", ["protectedRange"] = "sqref", ["ignoredError"] = "sqref", ["pane"] = "topLeftCell",
        ["sheetView"] = "topLeftCell",
    };

    private readonly TemplatePackage _package;
    private readonly IReadOnlyDictionary<string, string> _sheets;
    private readonly string _sheet;
    private readonly SheetRange _table;
    private readonly TemplateTable _filling;

    /// <summary>Prepares it.</summary>
    public TemplateReferences(
        TemplatePackage package, IReadOnlyDictionary<string, string> sheets, string sheet, SheetRange table, TemplateTable filling) =>
        (_package, _sheets, _sheet, _table, _filling) = (package, sheets, sheet, table, filling);

    /// <summary>The sheet and the cells that a formula is nothing but the name of; nothing where it is something else.</summary>
    public static (string Sheet, SheetRange Range)? Place(string formula)
    {
        var mark = formula.LastIndexOf('!');
        return mark > 0 && SheetRange.Parse(formula[(mark + 1)..]) is { } range
            ? (formula[0] == '\'' ? formula[1..(mark - 1)].Replace("''", "'", StringComparison.Ordinal) : formula[..mark], range) : null;
    }

    /// <summary>Takes all of it along.</summary>
    public void Shift()
    {
        foreach (var (name, part) in _sheets)
        {
            var sheet = _package.Part(part);
            ShiftFormulas(sheet.Descendants(), name);

            ShiftFormulas(TakenRows.In(sheet)?.Beside.SelectMany(cell => cell.Descendants()) ?? [], name);

            // Rows that are made later are those of the filled table already, or of one that was filled before.
            MadeRows.In(sheet)?.Change(row => ShiftFormulas(row.Descendants(), name));
        }

        ShiftSheet(_package.Part(_sheets[_sheet]));
        ShiftNames();
        foreach (var target in _package.Relations(_sheets[_sheet]).Values)
        {
            switch (_package.RootOf(target))
            {
                case "table":
                    ShiftTable(_package.Part(target));
                    break;
                case "wsDr":
                    ShiftAnchors(_package.Part(target));
                    break;
            }
        }

        // Programs keep these parts where they like; what they are shows in how they begin.
        foreach (var part in _package.Names.ToList())
        {
            switch (_package.RootOf(part))
            {
                case "chartSpace":
                    ShiftChart(_package.Part(part));
                    break;
                case "pivotCacheDefinition":
                    ShiftPivot(_package.Part(part));
                    break;
            }
        }
    }

    private bool IsThis(string? sheet, string own) => (sheet ?? own).Equals(_sheet, StringComparison.OrdinalIgnoreCase);

    private string Shifted(string formula, string own) =>
        FormulaText.With(formula, (sheet, range) => IsThis(sheet, own) ? _filling.Shift.Of(range) : range);

    // What a formula came to is not what it comes to now: whoever opens the workbook works it out.
    private void ShiftFormulas(IEnumerable<XElement> elements, string name)
    {
        foreach (var formula in elements
            .Where(element => element.Name.LocalName is "f" or "formula" or "formula1" or "formula2").ToList())
        {
            if (formula.Name == Main + "f" && formula.Parent!.Name == Main + "c")
            {
                if (!TemplateTable.IsOwn(formula))
                {
                    formula.Value = Shifted(formula.Value, name);
                    formula.Parent!.Element(Main + "v")?.Remove();
                    formula.Parent!.Attribute("t")?.Remove();
                    if ((string?)formula.Attribute("ref") is { } area && SheetRange.Parse(area) is { } range && IsThis(null, name))
                    {
                        formula.SetAttributeValue("ref", _filling.Shift.Of(range)?.ToString() ?? area);
                    }
                }
            }
            else if (!IsAnchored(formula) || !IsThis(null, name))
            {
                formula.Value = Shifted(formula.Value, name);
            }
        }
    }

    // What is said of many cells is said of the first of them, and means the others in the same places as seen from there.
    private static bool IsAnchored(XElement formula) =>
        formula.Name.LocalName is "formula" or "formula1" or "formula2" && formula.Name.Namespace == Main;

    private string Anchored(string formula, int rows, int columns) =>
        FormulaText.With(formula, (sheet, range) => !IsThis(sheet, _sheet) ? range
        : new SheetRange(Anchored(range.First, rows, columns), range.Last is { } last ? Anchored(last, rows, columns) : null));

    private CellName Anchored(CellName cell, int rows, int columns) => cell with
    {
        Row = cell.Row == 0 ? 0 : cell.IsRowFixed ? _filling.Shift.RowOf(cell.Row) ?? cell.Row : cell.Row + rows,
        Column = cell.Column == 0 ? 0 : cell.IsColumnFixed ? _filling.Shift.ColumnOf(cell.Column) ?? cell.Column : cell.Column + columns,
    };

    private void ShiftSheet(XDocument part)
    {
        foreach (var element in part.Root!.Descendants().Where(
            element => element.Name.Namespace == Main && Places.ContainsKey(element.Name.LocalName)).ToList())
        {
            if (element.Attribute(Places[element.Name.LocalName]) is not { } place)
            {
                continue;
            }

            var anchor = SheetRange.Parse(place.Value.Split(' ')[0])?.First;
            var left = string.Join(
                ' ', place.Value.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                    .Select(one => SheetRange.Parse(one) is { } range ? _filling.Shift.Of(range)?.ToString() : one).OfType<string>());
            if (left.Length > 0)
            {
                place.Value = left;
                if (anchor is { } from && SheetRange.Parse(left.Split(' ')[0])?.First is { } to)
                {
                    foreach (var formula in element.Descendants().Where(IsAnchored).ToList())
                    {
                        formula.Value = Anchored(formula.Value, to.Row - from.Row, to.Column - from.Column);
                    }
                }
            }
            else if (element.Name.LocalName is "selection" or "pane" or "sheetView")
            {
                place.Remove();
            }
            else
            {
                element.Remove();
            }
        }

        part.Root!.Descendants(Main + "selection").Attributes("activeCell").Remove();
        part.Root!.Elements(Main + "dimension").Remove();
        foreach (var counted in part.Root!.Elements().Where(
            element => element.Name.LocalName is "mergeCells" or "hyperlinks" or "dataValidations").ToList())
        {
            counted.SetAttributeValue("count", counted.Attribute("count") is null ? null : counted.Elements().Count());
            if (!counted.HasElements)
            {
                counted.Remove();
            }
        }

        foreach (var (breaks, move) in new[] { ("rowBreaks", (Func<int, int?>)_filling.Shift.RowOf),
            ("colBreaks", _filling.Shift.ColumnOf) })
        {
            foreach (var one in part.Root!.Elements(Main + breaks).Elements().ToList())
            {
                var at = TemplateXml.Number(one, "id");
                one.SetAttributeValue("id", move(at) ?? at);
            }
        }

        ShiftWidths(part);
    }

    // Columns that are new are as wide as the one before them.
    private void ShiftWidths(XDocument part)
    {
        if (part.Root!.Element(Main + "cols") is not { } widths)
        {
            return;
        }

        var old = widths.Elements().SelectMany(width => Columns(width).Select(column => (column, width))).DistinctBy(one => one.column)
            .ToDictionary(one => one.column, one => one.width);
        var (from, to) = (_table.First.Column, _filling.Filled.Last!.Value.Column);
        var known = new SortedDictionary<int, XElement>();
        foreach (var (column, width) in old)
        {
            if (_filling.Shift.ColumnOf(column) is { } at && at <= CellText.MostColumns)
            {
                known[at] = width;
            }
        }

        for (var column = from + 1; column <= to; column++)
        {
            if (!known.ContainsKey(column) && known.TryGetValue(column - 1, out var before))
            {
                known[column] = before;
            }
        }

        widths.ReplaceNodes(known.Select(one =>
        {
            var width = new XElement(one.Value);
            width.SetAttributeValue("min", one.Key);
            width.SetAttributeValue("max", one.Key);
            return width;
        }));

        static IEnumerable<int> Columns(XElement width) => TemplateXml.Number(width, "min") is var first
            ? Enumerable.Range(first, Math.Max(0, Math.Min(TemplateXml.Number(width, "max"), CellText.MostColumns) - first + 1)) : [];
    }

    private void ShiftNames()
    {
        foreach (var name in _package.Workbook.Descendants(Main + "definedName").ToList())
        {
            var own = Place(name.Value);
            name.Value = own is var (sheet, range) && IsThis(sheet, sheet) && range == _table
                ? name.Value[..(name.Value.LastIndexOf('!') + 1)] + _filling.Filled : Shifted(name.Value, "");
        }
    }

    private void ShiftTable(XDocument table)
    {
        foreach (var element in table.Root!.DescendantsAndSelf().Where(element => element.Attribute("ref") is not null))
        {
            element.SetAttributeValue(
                "ref", SheetRange.Parse((string)element.Attribute("ref")!) is { } range && _filling.Shift.Of(range) is { } other
                    ? other.ToString() : (string)element.Attribute("ref")!);
        }

        foreach (var formula in table.Descendants(Main + "calculatedColumnFormula").Concat(table.Descendants(Main + "totalsRowFormula")))
        {
            formula.Value = Shifted(formula.Value, _sheet);
        }

        _filling.NameColumns(table.Root!);
    }

    // Whatever is drawn below or beside the table stays below or beside it.
    private void ShiftAnchors(XDocument drawing)
    {
        foreach (var place in drawing.Root!.Descendants().Where(
            element => element.Name == Drawing + "from" || element.Name == Drawing + "to"))
        {
            Move(
                place.Element(Drawing + "row"),
                _filling.Shift.Of(At(TemplateXml.Number(place.Element(Drawing + "row")) + 1 ?? 1, 1))?.Last?.Row - 1);
            Move(
                place.Element(Drawing + "col"),
                _filling.Shift.Of(At(1, TemplateXml.Number(place.Element(Drawing + "col")) + 1 ?? 1))?.Last?.Column - 1);
        }

        static SheetRange At(int row, int column) => new(new CellName(1, 1, false, false), new CellName(row, column, false, false));

        static void Move(XElement? element, int? number)
        {
            if (element is not null && number is { } moved)
            {
                element.Value = SheetWriter.Text(Math.Max(0, moved));
            }
        }
    }

    // What a chart remembers of its cells is what they were: whoever opens the workbook looks at the cells.
    private void ShiftChart(XDocument chart)
    {
        foreach (var formula in chart.Descendants(Chart + "f").ToList())
        {
            var shifted = Shifted(formula.Value, "");
            if (formula.Value.Contains('!', StringComparison.Ordinal))
            {
                formula.Value = shifted;
                formula.ElementsAfterSelf().Where(element => element.Name.LocalName is "numCache" or "strCache" or "multiLvlStrCache")
                    .Remove();
            }
        }
    }

    private void ShiftPivot(XDocument cache)
    {
        foreach (var source in cache.Descendants(Main + "worksheetSource"))
        {
            if ((string?)source.Attribute("sheet") is { } sheet && IsThis(sheet, "")
                && SheetRange.Parse((string?)source.Attribute("ref") ?? "") is { } range)
            {
                source.SetAttributeValue(
                    "ref",
                    (range.First.Row == _table.First.Row && range.Last?.Row == _table.Last?.Row ? _filling.Filled
                        : _filling.Shift.Of(range) ?? range).ToString().Replace("$", "", StringComparison.Ordinal));
            }
        }

        cache.Root!.SetAttributeValue("refreshOnLoad", "1");
    }
}
