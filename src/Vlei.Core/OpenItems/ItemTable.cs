using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Items that a row stands for.</summary>
/// <param name="Items">The items.</param>
/// <param name="IsSingle">Whether the row is that of a single document, rather than of some together.</param>
internal readonly record struct ItemRow(ArraySegment<int> Items, bool IsSingle)
{
    /// <summary>Some items together.</summary>
    public static ItemRow Of(ArraySegment<int> items) => new(items, IsSingle: false);

    /// <summary>A single document.</summary>
    public static ItemRow OfOne(int item) => new(new[] { item }, IsSingle: true);
}

/// <summary>
/// Rows of items, and columns that add something up over them. Rows of single documents are made when they are looked at, so
/// that a list of any length is little more than its items.
/// </summary>
internal sealed class ItemTable
{
    private readonly FigureColumns<OwnFigure<ItemRow>> _columns;
    private readonly FigureRows<ItemRow> _rows = new();
    private readonly OwnFigures<ItemRow> _figures = new();
    private readonly Func<int, (string Key, string Label)> _described;
    private readonly List<ArraySegment<int>> _all = [];

    /// <summary>An empty table.</summary>
    /// <param name="title">The title of the report, for messages.</param>
    /// <param name="columns">Its columns.</param>
    /// <param name="described">The key and the label of the row of a single item.</param>
    public ItemTable(string title, FigureColumns<OwnFigure<ItemRow>> columns, Func<int, (string Key, string Label)> described)
    {
        (_columns, _described) = (columns, described);
        Table = new ReportTable<ItemRow, OwnFigure<ItemRow>>(title, columns, _rows, _figures);
    }

    /// <summary>An empty table that has no rows of single documents.</summary>
    public static ItemTable OfGroups(string title, FigureColumns<OwnFigure<ItemRow>> columns) =>
        new(title, columns, _ => throw new InvalidOperationException("There are no rows of single documents."));

    /// <summary>The columns.</summary>
    public FigureColumns<OwnFigure<ItemRow>> Columns => _columns;

    /// <summary>The table that it is of.</summary>
    public ReportTable<ItemRow, OwnFigure<ItemRow>> Table { get; }

    /// <summary>What shares are taken of until the total is added.</summary>
    public ItemRow Whole
    {
        set => _figures.Total = value;
    }

    /// <summary>Adds a row for the items of each of some groups.</summary>
    /// <param name="groups">The groups.</param>
    /// <param name="level">How many groups they lie in.</param>
    public void AddGroups(IReadOnlyList<ItemGroup> groups, int level)
    {
        _rows.AddMany(groups.Count, place => RowOf(groups[place], level));
        _all.AddRange(groups.Select(group => group.Items));
    }

    private static FigureRow<ItemRow> RowOf(ItemGroup group, int level) =>
        new(group.Key, group.Name, RowKind.Account, level, ItemRow.Of(group.Items))
        {
            CountsIn = OuterOf(group), Group = group.Path,
        };

    /// <summary>Adds a heading, what stands below it, and the total of a group.</summary>
    /// <param name="group">The group.</param>
    /// <param name="level">How many groups it lies in.</param>
    /// <param name="addRows">Adds what stands below the heading.</param>
    public void AddAround(ItemGroup group, int level, Action addRows)
    {
        _rows.Add(FigureRow<ItemRow>.Heading(group.Key, group.Name, level) with { Group = group.Path });
        addRows();
        _rows.Add(new FigureRow<ItemRow>(
            TotalOf(group.Path), Caption.Ours("Total {0}", group.Name), RowKind.Total, level, ItemRow.Of(group.Items))
        {
            CountsIn = OuterOf(group), Group = group.Path,
        });
    }

    /// <summary>The key of the total of the group with these values.</summary>
    public static string TotalOf(IEnumerable<string> path) => $"{ItemGroup.Total}({string.Join('/', path)})";

    private static string OuterOf(ItemGroup group) => group.Path.Count > 1 ? TotalOf(group.Path.SkipLast(1)) : ItemGroup.Total;

    /// <summary>Adds a row for each of some items.</summary>
    public void AddEach(ArraySegment<int> items, int level, string total = ItemGroup.Total)
    {
        _rows.AddMany(items.Count, place =>
        {
            var (key, label) = _described(items[place]);
            return new FigureRow<ItemRow>(key, label, RowKind.Record, level, new ItemRow(items.Slice(place, 1), IsSingle: true))
            {
                CountsIn = total,
            };
        });
        _all.Add(items);
    }

    /// <summary>Adds the row that all items come to.</summary>
    public void AddTotal()
    {
        var all = ItemRow.Of(ItemGroup.Joined(_all));
        _figures.Total = all;
        _rows.Add(new FigureRow<ItemRow>(ItemGroup.Total, Caption.Ours("Total"), RowKind.GrandTotal, 0, all));
    }

    /// <summary>What items come to in a column.</summary>
    public Amount SumOf(ArraySegment<int> items, int column) => Table.SumAt(ItemRow.Of(items), column);

    /// <summary>Whether items come to anything in one of the first columns.</summary>
    public bool HasAny(ArraySegment<int> items, int columns) =>
        Enumerable.Range(0, columns).Any(column => !SumOf(items, column).IsZero);

    /// <summary>What items have in a column, for an order of them.</summary>
    public Cell CellOf(ItemRow row, int column) =>
        _columns[column] is FigureColumn<OwnFigure<ItemRow>>.Base own
            ? _figures.At(row, own.Of) is { } units ? new Cell(units) : _figures.CellAt(row, own.Of)
            : Table.CellAt(new FigureRow<ItemRow>("", "", RowKind.Account, 0, row), column);
}

/// <summary>What columns show of items.</summary>
internal static class ItemFigure
{
    /// <summary>A sum over the items of a row; of a single document, nothing where it is zero.</summary>
    /// <param name="heading">What it is called.</param>
    /// <param name="of">What an item adds to it.</param>
    /// <param name="behind">The item as a trace lists it, with that sign.</param>
    /// <param name="together">What some items add to it, where that is quicker than one after the other.</param>
    public static OwnFigure<ItemRow> Sum(
        string heading, Func<int, Amount> of, Func<int, int, OriginItem> behind, Func<ArraySegment<int>, long>? together = null)
    {
        // All items of a report are asked for with every share of a column.
        var (largest, known) = (default(ItemRow), default(long?));
        return OwnFigure<ItemRow>.Of(
            row => SumOf(row),
            (row, sign, records) => records.Items.AddRange(row.Items.Where(item => !of(item).IsZero).Select(item => behind(item, sign))),
            row => SumOf(row) is var sum && sum == 0 && row.IsSingle ? Cell.Empty : new Cell(sum)).Called(heading);

        long SumOf(ItemRow row)
        {
            if (row.Items.Count == 1)
            {
                return of(row.Items[0]).MinorUnits;
            }

            if (known is null || row != largest)
            {
                var sum = together?.Invoke(row.Items) ?? OneByOne(row.Items);
                if (row.Items.Count < largest.Items.Count)
                {
                    return sum;
                }

                (largest, known) = (row, sum);
            }

            return known.Value;
        }

        long OneByOne(ReadOnlySpan<int> items)
        {
            var sum = 0L;
            foreach (var item in items)
            {
                sum = checked(sum + of(item).MinorUnits);
            }

            return sum;
        }
    }

    /// <summary>A sum that items are behind as what they add to it.</summary>
    public static OwnFigure<ItemRow> Sum(string heading, ControlHistory history, Func<int, Amount> of) =>
        Sum(heading, of, (item, sign) => history.OriginOf(item, null, sign) with { Total = sign < 0 ? -of(item) : of(item) });

    /// <summary>A plain number that is worked out over the items of a row, in ten-thousandths; it adds nothing up.</summary>
    public static OwnFigure<ItemRow> Average(string heading, Func<IEnumerable<int>, long?> of) => OwnFigure<ItemRow>.WorkedOut(
        row => of(row.Items), _ => ($"{heading} is an average over documents.", "Trace settled: those are the documents."));

    /// <summary>Something that is said of a single item; other rows have nothing there.</summary>
    public static OwnFigure<ItemRow> Fact(Func<int, Cell> of) =>
        OwnFigure<ItemRow>.Said(row => row.IsSingle ? of(row.Items[0]) : Cell.Empty);

    /// <summary>Adds a sum of money, and gives its place.</summary>
    public static int AddSum(
        this FigureColumns<OwnFigure<ItemRow>> columns, string key, string heading, ControlHistory history, Func<int, Amount> of) =>
        columns.Add(ReportColumn.Sum(key, heading), Sum(heading, history, of));

    /// <summary>Adds a column of what is said of single items.</summary>
    public static void AddFact(
        this FigureColumns<OwnFigure<ItemRow>> columns, string key, string heading, ColumnKind kind, Func<int, Cell> of) =>
        _ = columns.Add(new ReportColumn(key, heading, kind), Fact(of));

    /// <summary>Adds the dates of single documents, how late they are, and what they came to.</summary>
    public static void AddDocument(this FigureColumns<OwnFigure<ItemRow>> columns, ControlHistory history, Aging aging)
    {
        columns.AddFact("date", "Date", ColumnKind.Date, item => Cell.Of(history[item].Date));
        columns.AddFact("due", "Due", ColumnKind.Date, item => Cell.Of(history[item].Due));
        columns.AddFact("days-late", "Days late", ColumnKind.Count, item => new Cell(Math.Max(0, aging.DaysLate(item))));
        _ = columns.Add(
            ReportColumn.Sum("original", "Original"),
            Sum("Original", item => history[item].Total, (item, sign) => history.OriginOf(item, null, sign)));
    }
}
