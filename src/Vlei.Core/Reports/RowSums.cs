namespace Vlei.Core.Reports;

/// <summary>
/// Which rows each total adds up, read off the order of rows, their kinds and their levels; what it comes to in each column
/// is added up on the way, so that a sum is only ever stated where it is one.
/// </summary>
internal sealed class RowSums
{
    private readonly Report _report;
    private readonly Stack<Block> _open = new();
    private readonly Dictionary<int, Block> _closed = [];
    private readonly Dictionary<int, int> _totalOf = [];
    private readonly bool _hasShares;

    /// <summary>Reads the rows, once.</summary>
    public RowSums(Report report)
    {
        _report = report;
        _hasShares = report.Columns.Any(column => column.Working?.Whole == PercentOf.Group);
        _open.Push(new Block(-1, report.Columns.Count));
        var place = 0;
        foreach (var row in report.Rows)
        {
            Take(row, place++);
        }
    }

    /// <summary>The rows that a total adds up, as stretches; nothing where in that column it is not their sum.</summary>
    public IReadOnlyList<(int First, int Last)>? Of(int row, int column) =>
        _closed.GetValueOrDefault(row) is { } block && block.Holds[column] ? block.Units : null;

    /// <summary>The total of the rows that a row stands in; nothing where there is none.</summary>
    public int? TotalOver(int row) => _totalOf.TryGetValue(row, out var total) ? total : null;

    private void Take(ReportRow row, int place)
    {
        switch (row.Kind)
        {
            case RowKind.Heading:
                CloseDownTo(row.Level);
                _open.Push(new Block(row.Level, _report.Columns.Count));
                break;
            case RowKind.Total:
                CloseDownTo(row.Level + 1);
                if (_open.Peek() is { Level: >= 0 } block && block.Level == row.Level)
                {
                    _ = _open.Pop();
                    Close(block, row, place);
                }

                Add(row, place);
                break;
            case RowKind.GrandTotal when row.MadeOf is null:
                CloseDownTo(0);
                Close(_open.Peek(), row, place);
                break;
            case RowKind.Result or RowKind.GrandTotal:
                break;
            default:
                Add(row, place);
                break;
        }
    }

    // A heading without a total ends where another thing of its level begins; its rows count for what it stands in.
    private void CloseDownTo(int level)
    {
        while (_open.Peek().Level >= level && _open.Peek().Level >= 0)
        {
            var inner = _open.Pop();
            _open.Peek().Take(inner);
        }
    }

    private void Add(ReportRow row, int place)
    {
        var block = _open.Peek();
        if (block.IsPart(row))
        {
            return;
        }

        block.Add(row, place, _hasShares);
    }

    private void Close(Block block, ReportRow total, int place)
    {
        block.Prove(_report, total);
        _closed[place] = block;
        foreach (var member in block.Members)
        {
            _totalOf[member] = place;
        }

        _totalOf[place] = place;
    }

    private sealed class Block(int level, int columns)
    {
        private readonly Int128[] _sums = new Int128[columns];
        private int? _unitLevel;

        public int Level => level;

        public List<(int First, int Last)> Units { get; } = [];

        public List<int> Members { get; } = [];

        public bool[] Holds { get; } = new bool[columns];

        // An account's parts stand below it, and are in its figure already.
        public bool IsPart(ReportRow row) => row.Kind == RowKind.Account && _unitLevel is { } unit && row.Level > unit;

        public void Add(ReportRow row, int place, bool remember)
        {
            _unitLevel = row.Kind == RowKind.Account ? row.Level : null;
            for (var column = 0; column < columns; column++)
            {
                _sums[column] += row.InsteadOfMoney is null ? row.Cells[column].Units ?? 0 : 0;
            }

            Extend(place, place);
            if (remember)
            {
                Members.Add(place);
            }
        }

        public void Take(Block inner)
        {
            for (var column = 0; column < columns; column++)
            {
                _sums[column] += inner._sums[column];
            }

            inner.Units.ForEach(unit => Extend(unit.First, unit.Last));
            Members.AddRange(inner.Members);
        }

        public void Prove(Report report, ReportRow total)
        {
            for (var column = 0; column < columns; column++)
            {
                Holds[column] = Units.Count > 0 && total.KindIn(report.Columns[column]) is ColumnKind.Money or ColumnKind.Quantity or ColumnKind.Count
                    && total.Cells[column].Units is { } units && units == _sums[column];
            }
        }

        private void Extend(int first, int last)
        {
            if (Units.Count > 0 && Units[^1].Last == first - 1)
            {
                Units[^1] = (Units[^1].First, last);
            }
            else
            {
                Units.Add((first, last));
            }
        }
    }
}
