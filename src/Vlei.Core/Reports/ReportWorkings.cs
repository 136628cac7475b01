using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>
/// How the figures of a report follow from one another, as its rows and columns state it, by the places that they stand in:
/// for those who want to go on computing with them. Where nothing is stated, a figure stands for itself. Rows are handed
/// over in their order, each before its figures are asked for.
/// </summary>
public sealed class ReportWorkings
{
    private readonly Report _report;
    private readonly Dictionary<string, int> _columns;
    private readonly Dictionary<string, Counted> _counted = new(StringComparer.Ordinal);
    private readonly Lazy<Index> _index;

    private ReportWorkings(Report report)
    {
        _report = report;
        _columns = report.Columns.Select((column, place) => (column.Key, place)).DistinctBy(named => named.Key).ToDictionary();
        _index = new Lazy<Index>(() => new Index(report));
    }

    /// <summary>Reads a report.</summary>
    public static ReportWorkings Of(Report report) => new(report);

    /// <summary>Takes the next row.</summary>
    /// <param name="row">The row.</param>
    /// <param name="place">Its place.</param>
    public void Take(ReportRow row, int place)
    {
        if (row.CountsIn is { } total)
        {
            if (!_counted.TryGetValue(total, out var counted))
            {
                _counted[total] = counted = new Counted(_report.Columns.Count);
            }

            counted.Add(row, place);
        }
    }

    /// <summary>How a figure follows from others; nothing where it does not.</summary>
    /// <param name="row">The row.</param>
    /// <param name="place">Its place.</param>
    /// <param name="column">The place of the column.</param>
    public Working? Of(ReportRow row, int place, int column)
    {
        if (row.Cells[column].Units is null || row.InsteadOfMoney is not null)
        {
            return null;
        }

        return _report.Columns[column] is var known && known.Working is { } working ? Worked(row, new CellPlace(place, column), working)
            : known.AddsUp && _counted.TryGetValue(row.Key, out var counted) && counted.SumOf(column) == row.Cells[column].Units
                ? counted.Down(column)
            : row.MadeOf is { } made && Made(row, made, column) is { } sum ? sum
            : known.MadeOf is { Count: > 0 } parts ? Across(row, place, column, parts)
            : null;
    }

    // Balances do not add up over time.
    private Working.Sum? Across(ReportRow row, int place, int column, IReadOnlyList<(string Key, int Sign)> parts)
    {
        var terms = parts.Select(part => (Cell: new CellPlace(place, _columns[part.Key]), part.Sign))
            .Select(part => new SumTerm(part.Cell, part.Cell, part.Sign)).ToList();
        return terms.Aggregate(Int128.Zero, (sum, term) => sum + ((Int128)term.Sign * (row.Cells[term.First.Column].Units ?? 0)))
            == row.Cells[column].Units ? new Working.Sum(terms) : null;
    }

    // A row that is made of one that is not shown stands for itself.
    private Working.Sum? Made(ReportRow row, IReadOnlyList<(string Key, int Sign)> made, int column)
    {
        var terms = made.Select(part => (Row: _index.Value.RowOf(part.Key), part.Sign)).Where(part => part.Row is not null)
            .Select(part => new SumTerm(new(part.Row!.Value, column), new(part.Row.Value, column), part.Sign)).ToList();
        var sum = terms.Aggregate(
            Int128.Zero, (sum, term) => sum + ((Int128)term.Sign * AmountAt(_report.Rows[term.First.Row], column).MinorUnits));
        return terms.Count > 0 && sum == row.Cells[column].Units ? new Working.Sum(terms) : null;
    }

    private Working? Worked(ReportRow row, CellPlace cell, ColumnWorking working)
    {
        if (!_columns.TryGetValue(working.Of, out var of))
        {
            return null;
        }

        var part = new CellPlace(cell.Row, of);
        if (working.Earlier is { } key)
        {
            return !_columns.TryGetValue(key, out var earlier) ? null
                : _report.Columns[cell.Column].Kind == ColumnKind.Percent
                    ? new Working.Share(part, new CellPlace(cell.Row, earlier), IsChange: true)
                : new Working.Sum([new SumTerm(part, part, 1), new SumTerm(new(cell.Row, earlier), new(cell.Row, earlier), -1)]);
        }

        // What is left out of the rows that are shown may be in the whole: then the figure stands for itself.
        return WholeOf(row, part, working.Whole!.Value) is { } whole
            && Percentage.Of(AmountAt(row, of), AmountAt(_report.Rows[whole.Row], whole.Column)) == new Percentage(
                row.Cells[cell.Column].Units!.Value)
            ? new Working.Share(part, whole, IsChange: false) : null;
    }

    private CellPlace? WholeOf(ReportRow row, CellPlace part, ShareOf whole) => whole switch
    {
        ShareOf.Row => _columns.TryGetValue("total", out var total) ? part with { Column = total } : null,
        ShareOf.Income => _index.Value.RowOf("income") is { } income ? part with { Row = income } : null,
        ShareOf.Assets => _index.Value.RowOf("assets") is { } assets ? part with { Row = assets } : null,
        ShareOf.Column => _index.Value.Last is >= 0 and var last ? part with { Row = last } : null,
        _ => (row.CountsIn ?? (row.Kind is RowKind.Total or RowKind.GrandTotal ? row.Key : null)) is { } group
            && _index.Value.RowOf(group) is { } over
            ? part with { Row = over } : null,
    };

    private static Amount AmountAt(ReportRow row, int column) => new(row.Cells[column].Units ?? 0);

    // The rows that count in a total, as stretches, and what they come to: a total may add up less than what is shown of it.
    private sealed class Counted(int columns)
    {
        private readonly Int128[] _sums = new Int128[columns];
        private readonly List<(int First, int Last)> _stretches = [];

        public void Add(ReportRow row, int place)
        {
            for (var column = 0; column < columns; column++)
            {
                _sums[column] += row.Cells[column].Units ?? 0;
            }

            if (_stretches.Count > 0 && _stretches[^1].Last == place - 1)
            {
                _stretches[^1] = (_stretches[^1].First, place);
            }
            else
            {
                _stretches.Add((place, place));
            }
        }

        public Int128 SumOf(int column) => _sums[column];

        public Working.Sum Down(int column) =>
            new([.. _stretches.Select(stretch => new SumTerm(new(stretch.First, column), new(stretch.Last, column), 1))]);
    }

    // Where rows with figures stand; found when something is first asked for that stands further down.
    private sealed class Index
    {
        private readonly Dictionary<string, int> _rows = new(StringComparer.Ordinal);

        public Index(Report report)
        {
            var place = 0;
            foreach (var row in report.Rows)
            {
                _ = row.Kind == RowKind.Heading || _rows.TryAdd(row.Key, place);
                Last = row.Kind != RowKind.Heading && row.InsteadOfMoney is null ? place : Last;
                place++;
            }
        }

        public int Last { get; } = -1;

        public int? RowOf(string key) => _rows.TryGetValue($"total-{key}", out var total) ? total : _rows.TryGetValue(key, out var row)
            ? row : null;
    }
}
