using System.Runtime.InteropServices;
using Vlei.Core.Fields;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// The records of a list in their order. They are read again a few at a time when they are looked at, so that a list of any
/// length needs little more than the places of its records.
/// </summary>
internal sealed class RecordWindow
{
    private const int Size = 512;

    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly IReadOnlyList<BoundField> _key;
    private readonly BoundField? _label;
    private readonly IReadOnlyList<int> _facts;
    private readonly IReadOnlyList<int> _measures;
    private readonly Dictionary<int, long[]> _running = [];
    private readonly Cell[]?[] _cells;
    private readonly long[]?[] _numbers;
    private int[]? _order;
    private (string Key, string Label)[] _names = [];
    private int _first = -1;
    private int _count;

    /// <summary>Takes what columns show of records.</summary>
    /// <param name="table">The table.</param>
    /// <param name="plan">What is asked.</param>
    /// <param name="scan">The records that were taken.</param>
    /// <param name="columns">The columns.</param>
    public RecordWindow(TableDefinition table, TablePlan plan, TableScan scan, FigureColumns<TableFigure> columns)
    {
        (_plan, _scan, _key) = (plan, scan, [.. table.Key.Select(plan.Fields.Named)]);
        _label = table.Label is { } label ? plan.Fields.Named(label) : null;
        var figures = columns.All.Select(column => column switch
        {
            FigureColumn<TableFigure>.Base own => own.Of,
            FigureColumn<TableFigure>.Share share => share.Part,
            _ => null,
        }).OfType<TableFigure>().ToList();
        _facts = [.. figures.Where(figure => figure.IsFact).Select(figure => figure.Planned).Distinct()];
        _measures =
            [.. figures.Where(figure => figure.IsSum || figure is { IsFact: false, Function: Function.Own })
                .Select(figure => figure.Measure).Distinct()];
        (_cells, _numbers) = (new Cell[plan.Columns.Count][], new long[plan.Measures.Count][]);
    }

    /// <summary>The places of the records in the order of the list; nothing where that is the order of the table.</summary>
    public int[]? Order
    {
        get => _order;
        set => (_order, _first) = (value, -1);
    }

    /// <summary>How many records there are in the order, shown or not.</summary>
    public int All => _order?.Length ?? _scan.Records.Count;

    /// <summary>Whether only some of the records that were taken are there, as their figures are.</summary>
    public bool IsChosen => All < _scan.Records.Count;

    /// <summary>How many records are shown.</summary>
    public int Count { get; set; }

    /// <summary>The record at a place in the order of the list.</summary>
    public ScannedRow At(int record) => _scan.Records[Order?[record] ?? record];

    /// <summary>A record alone.</summary>
    public RowSet SetOf(int record) => _scan.SetOf(At(record).Block, [At(record).Place]);

    /// <summary>What a record comes to; nothing where it has no number, or where the figure is of many records.</summary>
    public long? NumberOf(int record, TableFigure figure)
    {
        if (figure.Function == Function.Running)
        {
            return _running[figure.Measure][record];
        }

        if (!figure.IsSum && figure.Function != Function.Own)
        {
            return null;
        }

        Reach(record);
        var number = _numbers[figure.Measure]![record - _first];
        return number == FieldCells.Nothing ? null : number;
    }

    /// <summary>What a record says in a column.</summary>
    public Cell FactOf(int record, int planned)
    {
        Reach(record);
        return _cells[planned]![record - _first];
    }

    /// <summary>The key of a record, and what it is called.</summary>
    public (string Key, string Label) Named(int record)
    {
        Reach(record);
        return _names[record - _first];
    }

    /// <summary>Works out the sums so far, record by record; they start anew with each group.</summary>
    public void AddRunning(int measure)
    {
        var running = new long[Count];
        for (var first = 0; first < running.Length; first += Size)
        {
            foreach (var (set, rows) in SetsOf(first, Math.Min(Size, running.Length - first)))
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
            running[row] = checked(running[row] + (At(row).Group == At(row - 1).Group ? running[row - 1] : 0));
        }

        _running[measure] = running;
    }

    private void Reach(int record)
    {
        if (_first >= 0 && record >= _first && record < _first + _count)
        {
            return;
        }

        (_first, _count) = (record - (record % Size), Math.Min(Size, Count - (record - (record % Size))));
        _names = new (string, string)[_count];
        foreach (var fact in _facts)
        {
            _cells[fact] = new Cell[_count];
        }

        foreach (var measure in _measures)
        {
            _numbers[measure] = new long[_count];
        }

        foreach (var (set, rows) in SetsOf(_first, _count))
        {
            Name(set, rows);
            foreach (var fact in _facts)
            {
                var (index, cells) = (_plan.Columns[fact].Fact!.Alone(), _cells[fact]!);
                var numbers = index.NumbersOf(set);
                for (var row = 0; row < rows.Length; row++)
                {
                    cells[rows[row] - _first] = index.CellOf(numbers[row]);
                }
            }

            foreach (var measure in _measures)
            {
                var (numbers, all) = (_plan.Measures[measure].Read(set), _numbers[measure]!);
                for (var row = 0; row < rows.Length; row++)
                {
                    all[rows[row] - _first] = numbers[row];
                }
            }
        }

        if (Order is null)
        {
            _scan.ForgetAllBut(At(_first).Block);
        }
    }

    private void Name(RowSet set, int[] rows)
    {
        var parts = new (FieldIndex Index, long[] Numbers)[_key.Count];
        for (var part = 0; part < parts.Length; part++)
        {
            var index = new FieldIndex(_key[part], default).Alone();
            parts[part] = (index, index.NumbersOf(set));
        }

        var label = _label is { } field ? new FieldIndex(field, default).Alone() : null;
        var labels = label?.NumbersOf(set);
        for (var row = 0; row < rows.Length; row++)
        {
            var first = parts[0].Index.KeyOf(parts[0].Numbers[row]);
            _names[rows[row] - _first] = (KeyOf(first, parts, row), label is null ? first : label.KeyOf(labels![row]));
        }
    }

    // A line of a document, and which settlement released it: INV-7/2@31.
    private static string KeyOf(string first, (FieldIndex Index, long[] Numbers)[] parts, int row)
    {
        string Part(int part) => parts[part].Index.KeyOf(parts[part].Numbers[row]);
        return parts.Length switch
        {
            1 => first,
            2 => Part(1) is var line && line == "0" ? first : $"{first}/{line}",
            _ => Part(2) is var release && release == "0" ? $"{first}/{Part(1)}" : $"{first}/{Part(1)}@{release}",
        };
    }

    // The records of a stretch of the order, gathered by the block that they are read from.
    private IEnumerable<(RowSet Set, int[] Rows)> SetsOf(int first, int count)
    {
        var byBlock = new Dictionary<int, List<int>>();
        for (var row = first; row < first + count; row++)
        {
            (CollectionsMarshal.GetValueRefOrAddDefault(byBlock, At(row).Block, out _) ??= []).Add(row);
        }

        foreach (var (block, rows) in byBlock)
        {
            var places = new int[rows.Count];
            for (var place = 0; place < places.Length; place++)
            {
                places[place] = At(rows[place]).Place;
            }

            yield return (_scan.SetOf(block, places), [.. rows]);
        }
    }
}
