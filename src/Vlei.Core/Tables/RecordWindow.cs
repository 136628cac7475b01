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
    private readonly FieldIndex[] _key;
    private readonly long[][] _keys;
    private readonly FieldIndex? _label;
    private readonly (int Planned, FieldIndex Index)[] _facts;
    private readonly IReadOnlyList<int> _measures;
    private readonly Dictionary<int, long[]> _running = [];
    private readonly Cell[]?[] _cells;
    private readonly long[]?[] _numbers;
    private readonly (string Key, string Label)[] _names = new (string, string)[Size];
    private int[]? _order;
    private int _first = -1;
    private int _count;

    /// <summary>Takes what columns show of records.</summary>
    /// <param name="table">The table.</param>
    /// <param name="plan">What is asked.</param>
    /// <param name="scan">The records that were taken.</param>
    /// <param name="columns">The columns.</param>
    public RecordWindow(TableDefinition table, TablePlan plan, TableScan scan, FigureColumns<TableFigure> columns)
    {
        (_plan, _scan) = (plan, scan);
        _key = [.. table.Key.Select(name => new FieldIndex(plan.Fields.Named(name), default).Alone())];
        _keys = new long[_key.Length][];
        _label = table.Label is { } label ? new FieldIndex(plan.Fields.Named(label), default).Alone() : null;
        var figures = columns.All.Select(column => column switch
        {
            FigureColumn<TableFigure>.Base own => own.Of,
            FigureColumn<TableFigure>.Share share => share.Part,
            _ => null,
        }).OfType<TableFigure>().ToList();
        _facts =
        [
            .. figures.Where(figure => figure.IsFact).Select(figure => figure.Planned).Distinct()
                .Select(planned => (planned, plan.Columns[planned].Fact!.Alone())),
        ];
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
        foreach (var (set, rows) in SetsOf(_first, _count))
        {
            Name(set, rows);
            foreach (var (planned, index) in _facts)
            {
                var (numbers, cells) = (index.NumbersOf(set), _cells[planned] ??= new Cell[Size]);
                for (var row = 0; row < rows.Length; row++)
                {
                    cells[rows[row] - _first] = index.CellOf(numbers[row]);
                }
            }

            foreach (var measure in _measures)
            {
                var (numbers, all) = (_plan.Measures[measure].Read(set), _numbers[measure] ??= new long[Size]);
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
        for (var part = 0; part < _key.Length; part++)
        {
            _keys[part] = _key[part].NumbersOf(set);
        }

        var labels = _label?.NumbersOf(set);
        for (var row = 0; row < rows.Length; row++)
        {
            var first = PartOf(0, row);
            _names[rows[row] - _first] = (KeyOf(first, row), labels is null ? first : _label!.KeyOf(labels[row]));
        }
    }

    private string PartOf(int part, int row) => _key[part].KeyOf(_keys[part][row]);

    // A line of a document, and which settlement released it: INV-7/2@31.
    private string KeyOf(string first, int row) => _key.Length switch
    {
        1 => first,
        2 => PartOf(1, row) is var line && line == "0" ? first : $"{first}/{line}",
        _ => PartOf(2, row) is var release && release == "0" ? $"{first}/{PartOf(1, row)}" : $"{first}/{PartOf(1, row)}@{release}",
    };

    // The records of a stretch of the order, gathered by the block that they are read from; where each of them stands in the order.
    private IEnumerable<(RowSet Set, int[] Rows)> SetsOf(int first, int count)
    {
        var records = new ScannedRow[count];
        for (var row = 0; row < count; row++)
        {
            records[row] = At(first + row);
        }

        // Mostly they are all of one block.
        var blocks = Array.TrueForAll(records, record => record.Block == records[0].Block) ? [records[0].Block]
            : records.Select(record => record.Block).Distinct().ToArray();
        foreach (var block in blocks)
        {
            var of = records.Count(record => record.Block == block);
            var (rows, places, next) = (new int[of], new int[of], 0);
            for (var row = 0; row < count; row++)
            {
                if (records[row].Block == block)
                {
                    (rows[next], places[next++]) = (first + row, records[row].Place);
                }
            }

            yield return (_scan.SetOf(block, places), rows);
        }
    }
}
