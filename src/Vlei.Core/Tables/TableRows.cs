using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The rows of a list or a cross-table in their order: headings, records, groups, totals.</summary>
internal sealed class TableRows
{
    private const string Total = "total";

    private readonly TableDefinition _table;
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly TableColumns _columns;
    private readonly TableFigures _figures;
    private readonly RecordWindow _records;
    private readonly ReportRequest _request;
    private readonly FigureRows<TableRow> _rows = new();
    private readonly ReportTable<TableRow, TableFigure> _groups;
    private readonly int _rest;

    // Where nothing is added up there are no totals.
    private readonly bool _hasTotals;
    private readonly RowCondition? _having;
    private HashSet<int>? _kept;
    private (int Group, string Total) _lastParent = (-1, Total);

    private TableRows(
        string title, TableDefinition table, TablePlan plan, TableScan scan, TableColumns columns, TableFigures figures,
        RecordWindow records, ReportRequest request)
    {
        (_table, _plan, _scan, _columns, _figures, _records, _request, _rest) =
            (table, plan, scan, columns, figures, records, request, scan.Groups.Count);
        _groups = new ReportTable<TableRow, TableFigure>(title, columns.Columns, _rows, figures);
        _having = RowCondition.Of(request.Having, columns.Columns.Shown, plan.Context);
        _hasTotals = columns.Columns.All.Any(
            column => column is not FigureColumn<TableFigure>.Base { Of: { IsFact: true } or { Function: Function.Own } });
    }

    /// <summary>Puts the rows in their order. Throws a <see cref="ProblemException"/> where there is no such order.</summary>
    public static FigureRows<TableRow> Of(
        string title, TableDefinition table, TablePlan plan, TableScan scan, TableColumns columns, TableFigures figures,
        RecordWindow records, ReportRequest request)
    {
        bool IsKnown(SortOrder key) => ColumnNames.PlaceOf(key.Name, columns.Columns.Shown) >= 0 || key.Name == RowOrder.Name
            || plan.IsGroupedBy(key.Name) || (plan.HasRecords && plan.Fields.Has(key.Name));
        var known = request.IsSortTyped ? request : request with { Sort = [.. request.Sort.Where(IsKnown)] };
        var rows = new TableRows(title, table, plan, scan, columns, figures, records, known);
        rows.RefuseUnknownOrder();
        rows.AddAll();
        return rows._rows;
    }

    private void AddAll()
    {
        if (_plan.HasRecords && _plan.Groups.Count == 0)
        {
            _records.Order = RecordOrder.Of(_table, _plan, _scan, _columns, _request);
            KeepRecords();
            _records.Count = Math.Min(_request.Top ?? int.MaxValue, _records.All);
            AddRecords(0, 0, _records.Count);
            AddRestOfRecords();
        }
        else if (_plan.HasRecords)
        {
            KeepGroups(_plan.Groups.Count);
            var inOrder = RecordOrder.Of(_table, _plan, _scan, _columns, _request) ?? [.. Enumerable.Range(0, _scan.Records.Count)];
            (_records.Order, _records.Count) = (new int[inOrder.Length], inOrder.Length);
            _records.Count = AddRecordsOf(0, Children(), inOrder.ToLookup(record => _scan.Records[record].Group), 0);
        }
        else if (_plan.Depth > 0)
        {
            KeepGroups(_plan.Depth);
            AddGroups(Children());
        }

        foreach (var figure in Running().Where(_ => _records.Count > 0))
        {
            _records.AddRunning(figure.Measure);
        }

        if (_hasTotals)
        {
            _rows.Add(
                new FigureRow<TableRow>(
                    Total, Caption.Ours("Total"), RowKind.GrandTotal, 0, TableRow.OfGroup(0))
                { Within = TableRow.OfGroup(0) });
        }
    }

    private IEnumerable<TableFigure> Running() => _columns.Columns.All.OfType<FigureColumn<TableFigure>.Base>()
        .Select(column => column.Of).Where(figure => figure.Function == Function.Running);

    // --sort names columns, fields of the table, or the name of what rows are grouped by.
    private void RefuseUnknownOrder()
    {
        SortOrder.Refuse(
            _request.Sort.Where(key => !_plan.HasRecords || !_plan.Fields.Has(key.Name)), _columns.Columns.Shown,
            [.. _plan.Groups.Select(group => group.Bound.Field.Name), RowOrder.Name]);

        if (_request.Top is not null && _plan.HasRecords && _plan.Groups.Count > 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--top takes the largest records of a list, or the largest groups of a summary.",
                "Add --summary, or leave out --group-by.");
        }
    }

    // What is asked of figures is asked of single records where there are no groups, and else of the innermost groups that are shown.
    private void KeepRecords()
    {
        if (_having is not null)
        {
            _records.Count = _records.All;
            _records.Order = [.. _having.Taken(
                [.. Enumerable.Range(0, _records.All)], (record, column) => _groups.CellAt(
                    new FigureRow<TableRow>("", "", RowKind.Record, 0, new TableRow(0, record)) { Within = TableRow.OfGroup(0) }, column))
                .Select(record => _records.Order?[record] ?? record)];
            _scan.Keep(Enumerable.Range(0, _records.All).Select(_records.At));
        }
    }

    private void KeepGroups(int level)
    {
        if (_having is not null)
        {
            _kept = [.. _having.Taken(
                [.. Enumerable.Range(1, _scan.Groups.Count - 1).Where(group => _scan.Groups.LevelOf(group) == level)],
                (group, column) => _groups.CellAt(RowOf(group), column))];
            _scan.Keep(level, _kept);
            for (var outer = level - 1; outer > 0; outer--)
            {
                _kept.UnionWith([.. _kept.Select(_scan.Groups.ParentOf).Where(group => group > 0)]);
            }
        }
    }

    private ValuesByKey<int> Children()
    {
        var children = _scan.Groups.InOrder();
        var keys = RowOrder.Keys(_request, _columns.Largest is { } largest ? _columns.Columns[largest].Shown.Key : null);
        if (_kept is null && keys.Count == 0)
        {
            return children;
        }

        var count = _scan.Groups.Count;
        return new ValuesByKey<int>(count, Enumerable.Range(0, count).SelectMany(parent =>
        {
            int[] own = [.. children.Of(parent).Where(group => _kept?.Contains(group) != false)];
            return (own.Length == 0 || keys.Count == 0 ? own : Sorted(own, keys)).Select(group => (parent, group));
        }).ToList());
    }

    // Groups come in the order of their values, which stays where a key finds no difference.
    private IReadOnlyList<int> Sorted(int[] groups, IReadOnlyList<SortOrder> keys)
    {
        var level = _scan.Groups.Levels[_scan.Groups.LevelOf(groups[0]) - 1].Bound.Field.Name;
        var places = groups.Select((group, place) => (group, place)).ToDictionary(pair => pair.group, pair => pair.place);
        return RowOrder.Sorted(groups, keys, key =>
        {
            var column = ColumnNames.PlaceOf(key, _columns.Columns.Shown);
            return key.Equals(level, StringComparison.OrdinalIgnoreCase) ? group => new Cell(places[group])
                : key == RowOrder.Name ? group => Cell.Of(_scan.Groups.LabelOf(group).English)
                : column >= 0 ? group => _groups.CellAt(RowOf(group), column)
                : null;
        });
    }

    private FigureRow<TableRow> RowOf(int group) => new("", "", RowKind.Group, 0, TableRow.OfGroup(group)) { Within = WithinOf(group) };

    // The rest lies in no group but all rows.
    private TableRow WithinOf(int group) => TableRow.OfGroup(group > 0 && group < _rest ? _scan.Groups.ParentOf(group) : 0);

    private void AddGroups(ValuesByKey<int> children)
    {
        var groups = children.Of(0);
        var shown = _request.Top is { } top && groups.Count > top ? top : groups.Count;
        var outline = new List<(int Group, RowKind Kind)>();
        foreach (var group in groups.Take(shown))
        {
            Outline(outline, group, children);
        }

        // Groups may be many, and so may those that they lie in.
        _rows.AddMany(outline.Count, place => RowOf(outline[place].Group, outline[place].Kind));
        if (shown < groups.Count)
        {
            _scan.AddTo(_rest, groups.Skip(shown));
            AddRest(0, groups.Count - shown);
        }

        if (_plan.Depth == 1)
        {
            AddRunning(groups);
        }
    }

    private void Outline(List<(int Group, RowKind Kind)> outline, int group, ValuesByKey<int> children)
    {
        if (_scan.Groups.LevelOf(group) >= _plan.Depth)
        {
            outline.Add((group, RowKind.Group));
            return;
        }

        outline.Add((group, RowKind.Heading));
        foreach (var child in children.Of(group))
        {
            Outline(outline, child, children);
        }

        if (_scan.Groups.LevelOf(group) + 1 == _plan.Depth)
        {
            AddRunning(children.Of(group));
        }

        if (_hasTotals)
        {
            outline.Add((group, RowKind.Total));
        }
    }

    private void AddRunning(IReadOnlyList<int> groups)
    {
        foreach (var figure in Running())
        {
            var running = 0L;
            foreach (var group in groups)
            {
                running = checked(running + (_figures.SumOf(figure, group) ?? 0));
                _figures.NoteRunning(figure, group, running);
            }
        }
    }

    private int AddRecordsOf(int group, ValuesByKey<int> children, ILookup<int, int> byGroup, int first)
    {
        var level = _scan.Groups.LevelOf(group);
        if (level == _plan.Groups.Count)
        {
            var next = first;
            foreach (var record in byGroup[group])
            {
                _records.Order![next++] = record;
            }

            AddRecords(group, first, next - first);
            return next;
        }

        foreach (var child in children.Of(group))
        {
            _rows.Add(RowOf(child, RowKind.Heading));
            first = AddRecordsOf(child, children, byGroup, first);
            if (_hasTotals)
            {
                _rows.Add(RowOf(child, RowKind.Total));
            }
        }

        return first;
    }

    private void AddRecords(int group, int first, int count)
    {
        var (total, path) = (group == 0 ? Total : TotalKey(group), group == 0 ? null : _scan.Groups.PathOf(group));
        _rows.AddMany(count, place => _records.Named(first + place) is var (key, label)
            ? new FigureRow<TableRow>(key, label, RowKind.Record, _plan.Groups.Count, new TableRow(group, first + place))
            {
                Within = TableRow.OfGroup(group), Group = path, CountsIn = total,
            }
            : default);
    }

    // What is not among the first few becomes one row.
    private void AddRestOfRecords()
    {
        if (_records.Count < _records.All)
        {
            var rest = _records.All - _records.Count;
            _scan.AddTo(_rest, Enumerable.Range(_records.Count, rest).Select(_records.At));
            AddRest(0, rest);
        }
    }

    private void AddRest(int level, int count) =>
        _rows.Add(new FigureRow<TableRow>(RowOrder.Rest, RowOrder.RestLabel(count), RowKind.Group, level, TableRow.OfGroup(_rest))
        {
            Within = WithinOf(_rest), CountsIn = Total,
        });

    private FigureRow<TableRow> RowOf(int group, RowKind kind)
    {
        var (path, name, level) = (_scan.Groups.PathOf(group), _scan.Groups.LabelOf(group), _scan.Groups.LevelOf(group) - 1);
        var key = string.Join('/', path);
        if (kind == RowKind.Heading)
        {
            return FigureRow<TableRow>.Heading(key, name, level) with { Group = path };
        }

        var (own, label) = kind == RowKind.Total ? (TotalOf(key), Caption.Ours("Total {0}", name)) : (key, name);
        return new FigureRow<TableRow>(own, label, kind, level, TableRow.OfGroup(group))
        {
            Within = WithinOf(group), Group = path, CountsIn = CountsInOf(group),
        };
    }

    // Groups of one group come one after the other, and are many.
    private string CountsInOf(int group)
    {
        var parent = _scan.Groups.ParentOf(group);
        if (_lastParent.Group != parent)
        {
            _lastParent = (parent, parent > 0 ? TotalKey(parent) : Total);
        }

        return _lastParent.Total;
    }

    private string TotalKey(int group) => TotalOf(string.Join('/', _scan.Groups.PathOf(group)));

    private static string TotalOf(string key) => $"{Total}({key})";
}
