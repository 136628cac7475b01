using Vlei.Core.Fields;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// The records of a list in the order that is asked for: each key is read once for all of them, then compared as a number.
/// </summary>
internal sealed class RecordOrder
{
    private readonly TableDefinition _table;
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly TableColumns _columns;
    private readonly ReportRequest _request;

    private RecordOrder(TableDefinition table, TablePlan plan, TableScan scan, TableColumns columns, ReportRequest request) =>
        (_table, _plan, _scan, _columns, _request) = (table, plan, scan, columns, request);

    /// <summary>The places of the records in their order; nothing where none is asked for.</summary>
    public static int[]? Of(TableDefinition table, TablePlan plan, TableScan scan, TableColumns columns, ReportRequest request) =>
        new RecordOrder(table, plan, scan, columns, request).InOrder();

    private int[]? InOrder()
    {
        IReadOnlyList<SortOrder> keys = [.. _request.Sort.Where(key => !_plan.IsGroupedBy(key.Name))];
        keys = RowOrder.Keys(_request with { Sort = keys }, _columns.Largest is { } largest ? _columns.Columns[largest].Shown.Key : null);

        if (keys.Count == 0)
        {
            return null;
        }

        var ranks = keys.Select(key => RanksOf(key)).ToArray();
        var order = Enumerable.Range(0, _scan.Records.Count).ToArray();
        Array.Sort(order, (one, other) =>
        {
            foreach (var rank in ranks)
            {
                if (rank[one] != rank[other])
                {
                    return rank[one].CompareTo(rank[other]);
                }
            }

            return one.CompareTo(other);
        });
        return order;
    }

    private long[] RanksOf(SortOrder key)
    {
        var figure = ColumnNames.PlaceOf(key.Name, _columns.Columns.Shown) is >= 0 and var place ? _columns.Columns[place] switch
        {
            FigureColumn<TableFigure>.Base own => own.Of,
            FigureColumn<TableFigure>.Share share => share.Part,
            _ => null,
        } : null;
        var numbers = figure is { IsFact: false }
            ? Read(rows => _plan.Measures[figure.Measure].Read(rows))
            : FieldRanks(figure is not null ? _plan.Columns[figure.Planned].Fact!
                : new FieldIndex(_plan.Fields.Named(key.Name == RowOrder.Name ? _table.Key[0] : key.Name), default));
        return key.Downwards ? [.. numbers.Select(number => -Math.Max(number, -long.MaxValue))] : numbers;
    }

    private long[] FieldRanks(FieldIndex index)
    {
        var numbers = Read(index.NumbersOf);
        return [.. index.RanksOf(numbers).Select(rank => (long)rank)];
    }

    private long[] Read(Func<RowSet, long[]> read)
    {
        var numbers = new long[_scan.Records.Count];
        for (var first = 0; first < numbers.Length;)
        {
            var block = _scan.Records[first].Block;
            var next = first;
            while (next < numbers.Length && _scan.Records[next].Block == block)
            {
                next++;
            }

            var places = new int[next - first];
            for (var row = 0; row < places.Length; row++)
            {
                places[row] = _scan.Records[first + row].Place;
            }

            read(_scan.SetOf(block, places)).CopyTo(numbers, first);
            first = next;
        }

        return numbers;
    }
}
