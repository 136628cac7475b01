using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// The rows of a list or a cross-table: headings, records, totals. Records are read again a few at a time when their rows
/// are looked at, so that a list of any length needs little more than the places of its records.
/// </summary>
internal sealed class TableRows
{
    private const int Window = 512;
    private const string Rest = "rest";

    private readonly TableDefinition _table;
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly TableColumns _columns;
    private readonly ReportRequest _request;
    private readonly BoundField[] _key;
    private readonly List<Stretch> _stretches = [];
    private readonly int[]? _order;
    private readonly int _records;
    private readonly GroupCells _groups;
    private readonly Dictionary<int, long[]> _runningOfRecords = [];
    private int _count;
    private readonly int _restGroup;
    private readonly bool _hasTotals;
    private (int First, ReportRow[] Rows) _window = (-1, []);

    /// <summary>Puts the rows in their order.</summary>
    public TableRows(TableDefinition table, TablePlan plan, TableScan scan, TableColumns columns, ReportRequest request)
    {
        (_table, _plan, _scan, _columns, _request) = (table, plan, scan, columns, request);
        _key = [.. table.Key.Select(plan.Fields.Named)];
        _restGroup = scan.Groups.Count;
        _groups = new GroupCells(plan, scan, columns);
        _hasTotals = columns.Cells.Any(cell => cell is not (TableCell.Fact or TableCell.Value { Function: Function.Own }));
        RefuseUnknownOrder();
        if (plan.HasRecords && plan.Groups.Count == 0)
        {
            _order = RecordOrder.Of(table, plan, scan, columns, request);
            _records = Math.Min(request.Top ?? int.MaxValue, scan.Records.Count);
            Add(new Stretch(RowKind.Record, 0, 0, 0, _records, true));
            AddRest();
        }
        else if (plan.HasRecords)
        {
            var inOrder = RecordOrder.Of(table, plan, scan, columns, request) ?? [.. Enumerable.Range(0, scan.Records.Count)];
            (_order, _records) = (new int[inOrder.Length], inOrder.Length);
            _ = AddRecordsOf(0, Children(), inOrder.ToLookup(record => scan.Records[record].Group), 0);
        }
        else if (plan.Depth > 0)
        {
            AddGroups(0, Children());
        }

        foreach (var column in columns.Cells.OfType<TableCell.Value>().Where(cell => cell.Function == Function.Running && _records > 0))
        {
            _runningOfRecords[column.Measure] = RunningOf(column.Measure);
        }

        if (_hasTotals)
        {
            Add(new Stretch(RowKind.GrandTotal, 0, 0, 0, 1, false));
        }
    }

    /// <summary>The rows.</summary>
    public IReadOnlyList<ReportRow> Rows => new RowList(_count, RowAt);

    /// <summary>What a row stands for: a group, or a single record; nothing for a heading and for the rest.</summary>
    public (int? Group, ScannedRow? Record) BehindOf(int row)
    {
        var stretch = StretchAt(row);
        return stretch.IsOfRecords ? (null, RecordAt(stretch.FirstRecord + row - stretch.First))
            : stretch.Kind == RowKind.Heading ? (null, null) : (stretch.Group, null);
    }

    private void Add(Stretch stretch)
    {
        _stretches.Add(stretch with { First = _count });
        _count += stretch.Count;
    }

    // --sort names columns, fields of the table, or the name of what rows are grouped by.
    private void RefuseUnknownOrder()
    {
        foreach (var key in _request.Sort.Where(key => key.Name != "name" && _columns.PlaceOf(key.Name) < 0
            && !(_plan.HasRecords ? _plan.Fields.Has(key.Name) : _plan.IsGroupedBy(key.Name))))
        {
            IReadOnlyList<string> known = [.. _columns.Columns.Select(column => column.Key), .. _plan.Groups.Select(group => group.Bound.Field.Name), "name"];
            throw new ProblemException(
                ProblemKind.Usage, $"--sort does not take \"{key.Name}\".",
                Suggestion.DidYouMean(key.Name, known)
                ?? $"It takes {Suggestion.Listed(known, "or")}{(_plan.HasRecords ? $", or any field of {_table.Name}" : "")}.");
        }

        if (_request.Top is not null && _plan.HasRecords && _plan.Groups.Count > 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--top takes the largest records of a list, or the largest groups of a summary.", "Add --summary, or leave out --group-by.");
        }
    }

    private ILookup<int, int> Children()
    {
        var children = _scan.Groups.InOrder();
        IReadOnlyList<SortOrder> keys = _request.Sort.Count > 0 || _request.Top is null || _columns.Largest() < 0 ? _request.Sort
            : [new SortOrder(_columns.Columns[_columns.Largest()].Key, Downwards: true)];
        return keys.Count == 0 || _plan.HasRecords && !keys.Any(key => _plan.IsGroupedBy(key.Name)) ? children
            : children.SelectMany(group => Sorted([.. group], keys).Select(child => (Parent: group.Key, Child: child))).ToLookup(pair => pair.Parent, pair => pair.Child);
    }

    // Groups come in the order of their values, which stays where a key finds no difference.
    private List<int> Sorted(List<int> groups, IReadOnlyList<SortOrder> keys)
    {
        foreach (var key in keys.Reverse())
        {
            var column = _columns.PlaceOf(key.Name);
            var level = _scan.Groups.Levels[_scan.Groups.LevelOf(groups[0]) - 1].Bound.Field.Name;
            if (key.Name.Equals(level, StringComparison.OrdinalIgnoreCase))
            {
                var places = groups.Select((group, place) => (group, place)).ToDictionary(pair => pair.group, pair => pair.place);
                groups = key.Downwards ? [.. groups.OrderByDescending(group => places[group])] : groups;
            }
            else if (key.Name == "name")
            {
                groups = key.Downwards ? [.. groups.OrderByDescending(_scan.Groups.LabelOf, NameOrder)] : [.. groups.OrderBy(_scan.Groups.LabelOf, NameOrder)];
            }
            else if (column >= 0 && !_plan.HasRecords)
            {
                // Text has its own order: capitals do not matter, and numbers in it count by their value.
                var texts = Comparer<Cell>.Create((one, other) => one.Units is { } left && other.Units is { } right ? left.CompareTo(right)
                    : one.Units is not null ? 1 : other.Units is not null ? -1 : ValueList.Compare(one.Words ?? "", other.Words ?? ""));
                groups = key.Downwards ? [.. groups.OrderByDescending(group => _groups.CellOf(column, group), texts)] : [.. groups.OrderBy(group => _groups.CellOf(column, group), texts)];
            }
        }

        return groups;
    }

    private static readonly Comparer<string> NameOrder = Comparer<string>.Create(ValueList.Compare);

    private void AddGroups(int parent, ILookup<int, int> children)
    {
        var groups = children[parent].ToList();
        var shown = parent == 0 && _request.Top is { } top && groups.Count > top ? top : groups.Count;
        var level = _scan.Groups.LevelOf(parent);
        foreach (var group in groups.Take(shown))
        {
            if (level + 1 < _plan.Depth)
            {
                Add(new Stretch(RowKind.Heading, level, group, 0, 1, false));
                AddGroups(group, children);
                AddTotalOf(group, level);
            }
            else
            {
                Add(new Stretch(RowKind.Group, level, group, 0, 1, false));
            }
        }

        if (shown < groups.Count)
        {
            _scan.AddTo(_restGroup, groups.Skip(shown));
            RestCount = groups.Count - shown;
            Add(new Stretch(RowKind.Group, level, _restGroup, 0, 1, false));
        }

        if (level + 1 >= _plan.Depth)
        {
            AddRunning(groups);
        }
    }

    // Where nothing is added up there is nothing to say.
    private void AddTotalOf(int group, int level)
    {
        if (_hasTotals)
        {
            Add(new Stretch(RowKind.Total, level, group, 0, 1, false));
        }
    }

    private int RestCount { get; set; }

    private void AddRunning(List<int> groups)
    {
        foreach (var column in _columns.Cells.OfType<TableCell.Value>().Where(cell => cell.Function == Function.Running))
        {
            var running = 0L;
            foreach (var group in groups)
            {
                running = checked(running + (_groups.SumOf(column, group) ?? 0));
                _groups.NoteRunning(column, group, running);
            }
        }
    }

    // What is not among the first few becomes one row.
    private void AddRest()
    {
        if (_records < _scan.Records.Count)
        {
            RestCount = _scan.Records.Count - _records;
            _scan.AddTo(_restGroup, Enumerable.Range(_records, RestCount).Select(record => _scan.Records[_order?[record] ?? record]));
            Add(new Stretch(RowKind.Group, 0, _restGroup, 0, 1, false));
        }
    }

    private int AddRecordsOf(int group, ILookup<int, int> children, ILookup<int, int> byGroup, int first)
    {
        var level = _scan.Groups.LevelOf(group);
        if (level == _plan.Groups.Count)
        {
            var next = first;
            foreach (var record in byGroup[group])
            {
                _order![next++] = record;
            }

            if (next > first)
            {
                Add(new Stretch(RowKind.Record, level, group, 0, next - first, true) { FirstRecord = first });
            }

            return next;
        }

        foreach (var child in children[group])
        {
            Add(new Stretch(RowKind.Heading, level, child, 0, 1, false));
            first = AddRecordsOf(child, children, byGroup, first);
            AddTotalOf(child, level);
        }

        return first;
    }

    // A running sum starts anew with each group.
    private long[] RunningOf(int measure)
    {
        var running = new long[_records];
        for (var first = 0; first < running.Length; first += Window)
        {
            var count = Math.Min(Window, running.Length - first);
            foreach (var (set, rows) in SetsOf(first, count))
            {
                var numbers = _plan.Measures[measure].Read(set);
                for (var row = 0; row < rows.Length; row++)
                {
                    running[rows[row]] = numbers[row] == FieldCells.Nothing ? 0 : numbers[row];
                }
            }
        }

        for (var row = 1; row < running.Length; row++)
        {
            running[row] = checked(running[row] + (RecordAt(row).Group == RecordAt(row - 1).Group ? running[row - 1] : 0));
        }

        return running;
    }

    // The records of a stretch of the order, gathered by the block that they are read from.
    private IEnumerable<(RowSet Set, int[] Rows)> SetsOf(int first, int count) => Enumerable.Range(first, count)
        .GroupBy(row => RecordAt(row).Block)
        .Select(ofBlock => (_scan.SetOf(ofBlock.Key, [.. ofBlock.Select(row => RecordAt(row).Place)]), ofBlock.ToArray()));

    private ScannedRow RecordAt(int place) => _scan.Records[_order?[place] ?? place];

    private Stretch StretchAt(int row)
    {
        var (low, high) = (0, _stretches.Count - 1);
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            (low, high) = _stretches[middle].First <= row ? (middle, high) : (low, middle - 1);
        }

        return _stretches[low];
    }

    private ReportRow RowAt(int row)
    {
        var stretch = StretchAt(row);
        if (!stretch.IsOfRecords)
        {
            return GroupRow(stretch);
        }

        var record = stretch.FirstRecord + row - stretch.First;
        if (record < _window.First || record >= _window.First + _window.Rows.Length || _window.First < 0)
        {
            var first = record - (record % Window);
            _window = (first, ReadWindow(first, Math.Min(Window, _records - first)));
            if (_order is null)
            {
                _scan.ForgetAllBut(RecordAt(first).Block);
            }
        }

        return _window.Rows[record - _window.First];
    }

    private ReportRow GroupRow(Stretch stretch)
    {
        var isHeading = stretch.Kind == RowKind.Heading;
        var cells = Enumerable.Range(0, _columns.Columns.Count).Select(column => isHeading ? Cell.Empty : _groups.CellOf(column, stretch.Group)).ToList();
        if (stretch.Group == 0)
        {
            return new ReportRow("total", "Total", RowKind.GrandTotal, 0, cells);
        }

        if (stretch.Group == _restGroup)
        {
            return new ReportRow(Rest, $"The rest ({RestCount})", RowKind.Group, stretch.Level, cells);
        }

        var path = _scan.Groups.PathOf(stretch.Group);
        var (key, label) = (string.Join('/', path), _scan.Groups.LabelOf(stretch.Group));
        return stretch.Kind == RowKind.Total
            ? new ReportRow($"total({key})", $"Total {label}", RowKind.Total, stretch.Level, cells) { Group = path }
            : new ReportRow(key, label, stretch.Kind, stretch.Level, cells) { Group = path };
    }

    private ReportRow[] ReadWindow(int first, int count)
    {
        var rows = new ReportRow[count];
        foreach (var (set, places) in SetsOf(first, count))
        {
            var keys = _key.Select(part => new FieldIndex(part, default)).Select(index => (index, Numbers: index.NumbersOf(set))).ToList();
            var columns = _columns.Cells.Select(cell => RecordCells(cell, set, places)).ToList();
            for (var row = 0; row < places.Length; row++)
            {
                var parts = keys.Select(part => part.index.KeyOf(part.Numbers[row])).ToList();
                var group = RecordAt(places[row]).Group;
                rows[places[row] - first] = new ReportRow(
                    KeyOf(parts), parts[0], RowKind.Record, _plan.Groups.Count, [.. columns.Select(column => column[row])])
                {
                    Group = group == 0 ? null : _scan.Groups.PathOf(group),
                };
            }
        }

        return rows;
    }

    // A line of a document, and which settlement released it: INV-7/2@31.
    private static string KeyOf(List<string> parts) =>
        parts.Count == 1 ? parts[0] : parts.Count == 2 || parts[2] == "0" ? $"{parts[0]}/{parts[1]}" : $"{parts[0]}/{parts[1]}@{parts[2]}";

    private Cell[] RecordCells(TableCell cell, RowSet set, int[] places)
    {
        switch (cell)
        {
            case TableCell.Fact fact:
                var index = _plan.Columns[fact.Planned].Fact!.Anew();
                return [.. index.NumbersOf(set).Select(index.CellOf)];
            case TableCell.Value { Function: Function.Running } running:
                return [.. places.Select(place => new Cell(_runningOfRecords[running.Measure][place]))];
            case TableCell.Value value:
                var numbers = _plan.Measures[value.Measure].Read(set);
                return [.. numbers.Select((number, row) => number == FieldCells.Nothing ? Cell.Empty : value.Function switch
                {
                    Function.Sum or Function.Own => new Cell(number),
                    Function.Share => GroupCells.PercentOf(number, _groups.SumOf(value, 0)),
                    Function.GroupShare => GroupCells.PercentOf(number, _groups.SumOf(value, RecordAt(places[row]).Group)),
                    _ => Cell.Empty,
                })];
            case TableCell.Percent percent:
                var column = (TableCell.Value)_columns.Cells[percent.Column];
                return [.. RecordCells(column, set, places).Select((part, row) => part.Units is { } units
                    ? GroupCells.PercentOf(units, percent.Of == Reports.PercentOf.Group ? _groups.SumOf(column, RecordAt(places[row]).Group)
                        : percent.Of == Reports.PercentOf.Row ? units : _groups.SumOf(column, 0)) : Cell.Empty)];
            default:
                return [.. places.Select(_ => Cell.Empty)];
        }
    }

    // Rows that follow one another: one for a group, or one for each of some records.
    private sealed record Stretch(RowKind Kind, int Level, int Group, int First, int Count, bool IsOfRecords)
    {
        public int FirstRecord { get; init; }
    }
}
