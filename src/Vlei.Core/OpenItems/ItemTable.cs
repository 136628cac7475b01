using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>A row of a table of items.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Level">How far it is indented.</param>
/// <param name="Key">Its key; nothing for a single document, which says it itself.</param>
/// <param name="Label">What stands before its figures; nothing for a single document.</param>
/// <param name="First">Where its items begin in the order of the table.</param>
/// <param name="Count">How many they are.</param>
internal readonly record struct ItemRow(RowKind Kind, int Level, string? Key, string? Label, int First, int Count);

/// <summary>
/// Rows of items, and columns that add something up over them. A row is a stretch of the order of the items, so that a
/// list of any length is little more than its items; cells are worked out when they are looked at.
/// </summary>
internal sealed class ItemTable
{
    private readonly ItemColumns _columns;
    private readonly Func<int, (string Key, string Label)> _described;
    private readonly List<int> _order = [];
    private readonly List<ItemRow> _rows = [];
    private readonly Dictionary<int, Amount> _grandTotals = [];
    private readonly Dictionary<int, ReportRow> _sums = [];

    /// <summary>An empty table.</summary>
    /// <param name="columns">Its columns.</param>
    /// <param name="described">The key and the label of the row of a single item.</param>
    public ItemTable(ItemColumns columns, Func<int, (string Key, string Label)> described) =>
        (_columns, _described) = (columns, described);

    /// <summary>The rows, for a report.</summary>
    public IReadOnlyList<ReportRow> Rows => new RowList(_rows.Count, RowAt);

    /// <summary>
    /// What items come to in a column that is a sum. Throws a <see cref="ProblemException"/> that names the column where it
    /// does not fit.
    /// </summary>
    public Amount SumOf(IEnumerable<int> items, int column)
    {
        var of = ((ItemSource.Sum)_columns.Sources[column]).Of;
        try
        {
            return items.Aggregate(Amount.Zero, (sum, item) => sum + of(item));
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"Column {_columns.Columns[column].Heading}: a sum is larger than 64 bits hold.",
                "Look for an amount with too many digits.", tooLarge);
        }
    }

    /// <summary>Adds a row for some items.</summary>
    public void AddGroup(string key, string label, RowKind kind, IEnumerable<int> items)
    {
        var first = _order.Count;
        _order.AddRange(items);
        _rows.Add(new ItemRow(kind, 0, key, label, first, _order.Count - first));
    }

    /// <summary>Adds a heading, a row for each of some items, and their total.</summary>
    public void AddDetail(string key, string label, IEnumerable<int> items)
    {
        _rows.Add(new ItemRow(RowKind.Heading, 0, key, label, _order.Count, 0));
        var first = _order.Count;
        AddEach(items, 1);
        _rows.Add(new ItemRow(RowKind.Total, 0, $"total({key})", $"Total {label}", first, _order.Count - first));
    }

    /// <summary>Adds a row for each of some items.</summary>
    public void AddEach(IEnumerable<int> items, int level)
    {
        foreach (var item in items)
        {
            _order.Add(item);
            _rows.Add(new ItemRow(RowKind.Record, level, null, null, _order.Count - 1, 1));
        }
    }

    /// <summary>Adds the row that all items come to.</summary>
    public void AddTotal() => _rows.Add(new ItemRow(RowKind.GrandTotal, 0, "total", "Total", 0, _order.Count));

    /// <summary>The items behind a figure; nothing where there is none.</summary>
    public CellOrigin? OriginOf(int place, int column)
    {
        var row = _rows[place];
        return row.Kind == RowKind.Heading ? null : _columns.Sources[column] switch
        {
            ItemSource.Sum sum when CellOf(row, column).Units is not null => new CellOrigin(SumOf(row, column), []) { Items = Behind(row, sum, 1) },
            ItemSource.Change change => Compared(row, change.Current, change.Earlier, null),
            ItemSource.PercentChange change => Compared(
                row, change.Current, change.Earlier,
                $"The figure is the change as a percentage of {_columns.Columns[change.Earlier].Heading}."),
            ItemSource.Percent share => new CellOrigin(
                SumOf(row, share.Column), [],
                $"The figure is a percentage of {(share.Whole is { } whole ? _columns.Columns[whole].Heading : "the last row of the column")}.")
            {
                Items = Behind(row, (ItemSource.Sum)_columns.Sources[share.Column], 1),
            },
            ItemSource.Average => throw new ProblemException(
                ProblemKind.Usage, $"{_columns.Columns[column].Heading} is an average over documents.", "Trace settled: those are the documents."),
            _ => null,
        };
    }

    private CellOrigin Compared(ItemRow row, int current, int earlier, string? note) => new(
        SumOf(row, current) - SumOf(row, earlier), [], note)
    {
        Items =
        [
            .. Behind(row, (ItemSource.Sum)_columns.Sources[current], 1),
            .. Behind(row, (ItemSource.Sum)_columns.Sources[earlier], -1),
        ],
    };

    private List<OriginItem> Behind(ItemRow row, ItemSource.Sum sum, int sign) =>
        [.. ItemsOf(row).Where(item => !sum.Of(item).IsZero).Select(item => sum.Behind(item, sign))];

    private IEnumerable<int> ItemsOf(ItemRow row) => Enumerable.Range(row.First, row.Count).Select(place => _order[place]);

    private Amount SumOf(ItemRow row, int column) => row.Count == 1
        ? ((ItemSource.Sum)_columns.Sources[column]).Of(_order[row.First])
        : SumOf(ItemsOf(row), column);

    private Amount GrandTotal(int column)
    {
        if (!_grandTotals.TryGetValue(column, out var total))
        {
            _grandTotals[column] = total = SumOf(_rows[^1], column);
        }

        return total;
    }

    // Sums of many items are kept; rows of single documents are made each time, since there may be any number of them.
    private ReportRow RowAt(int place)
    {
        if (_rows[place].Kind == RowKind.Record)
        {
            return RowOf(_rows[place]);
        }

        if (!_sums.TryGetValue(place, out var row))
        {
            _sums[place] = row = RowOf(_rows[place]);
        }

        return row;
    }

    private ReportRow RowOf(ItemRow row)
    {
        var (key, label) = row.Key is null ? _described(_order[row.First]) : (row.Key, row.Label!);
        var cells = new Cell[_columns.Columns.Count];
        for (var column = 0; column < cells.Length && row.Kind != RowKind.Heading; column++)
        {
            cells[column] = CellOf(row, column);
        }

        return new ReportRow(key, label, row.Kind, row.Level, cells);
    }

    private Cell CellOf(ItemRow row, int column) => _columns.Sources[column] switch
    {
        ItemSource.Average average => new Cell(average.Of(ItemsOf(row))),
        ItemSource.Fact fact => row.Kind == RowKind.Record ? fact.Of(_order[row.First]) : Cell.Empty,
        ItemSource.Sum => SumOf(row, column) is var amount && amount.IsZero && row.Kind == RowKind.Record
            ? Cell.Empty : Cell.Of(amount),
        ItemSource.Change change => Cell.Of(SumOf(row, change.Current) - SumOf(row, change.Earlier)),
        ItemSource.PercentChange change => Cell.Of(Percentage.Of(
            SumOf(row, change.Current) - SumOf(row, change.Earlier), SumOf(row, change.Earlier).Magnitude)),
        ItemSource.Percent { Whole: { } whole } share => Cell.Of(Percentage.Of(SumOf(row, share.Column), SumOf(row, whole))),
        ItemSource.Percent share => Cell.Of(Percentage.Of(SumOf(row, share.Column), GrandTotal(share.Column))),
        var other => throw new InvalidOperationException($"There is no such column: {other}."),
    };
}
