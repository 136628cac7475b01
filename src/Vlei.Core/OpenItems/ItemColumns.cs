using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Where the cells of a column come from.</summary>
internal abstract record ItemSource
{
    /// <summary>A sum over the items of a row.</summary>
    /// <param name="Of">What an item adds to it.</param>
    /// <param name="Behind">The item as a trace lists it, with that sign.</param>
    public sealed record Sum(Func<int, Amount> Of, Func<int, int, OriginItem> Behind) : ItemSource;

    /// <summary>One column less another.</summary>
    public sealed record Change(int Current, int Earlier) : ItemSource;

    /// <summary>The change as a percentage of the earlier column.</summary>
    public sealed record PercentChange(int Current, int Earlier) : ItemSource;

    /// <summary>A column as a percentage of another, or of its own grand total.</summary>
    public sealed record Percent(int Column, int? Whole) : ItemSource;

    /// <summary>A plain number that is worked out over the items of a row, in ten-thousandths; it adds nothing up.</summary>
    public sealed record Average(Func<IEnumerable<int>, long?> Of) : ItemSource;

    /// <summary>Something that is said of a single item; other rows have nothing there.</summary>
    public sealed record Fact(Func<int, Cell> Of) : ItemSource;
}

/// <summary>The columns of a table of items, each with where its cells come from.</summary>
internal sealed class ItemColumns
{
    private readonly List<ReportColumn> _columns = [];
    private readonly List<ItemSource> _sources = [];

    /// <summary>The columns.</summary>
    public IReadOnlyList<ReportColumn> Columns => _columns;

    /// <summary>Where the cells of each come from.</summary>
    public IReadOnlyList<ItemSource> Sources => _sources;

    /// <summary>The place of the column with that key.</summary>
    public int PlaceOf(string key) => _columns.FindIndex(column => column.Key == key);

    /// <summary>Adds a column, and gives its place.</summary>
    public int Add(ReportColumn column, ItemSource source)
    {
        _columns.Add(column);
        _sources.Add(source);
        return _columns.Count - 1;
    }

    /// <summary>Adds a column of what is said of single items.</summary>
    public void AddFact(string key, string heading, ColumnKind kind, Func<int, Cell> of) =>
        Add(new ReportColumn(key, heading, kind), new ItemSource.Fact(of));

    /// <summary>Adds the dates of single documents, how late they are, and what they came to.</summary>
    public void AddDocument(ControlHistory history, Aging aging)
    {
        AddFact("date", "Date", ColumnKind.Date, item => Cell.Of(history[item].Date));
        AddFact("due", "Due", ColumnKind.Date, item => Cell.Of(history[item].Due));
        AddFact("days-late", "Days late", ColumnKind.Count, item => new Cell(Math.Max(0, aging.DaysLate(item))));
        Add(new ReportColumn("original", "Original", ColumnKind.Money), new ItemSource.Sum(
            item => history[item].Total, (item, sign) => history.OriginOf(item, null, sign)));
    }

    /// <summary>What a column has for a single item.</summary>
    public Func<int, Cell> CellOf(int column) => _sources[column] switch
    {
        ItemSource.Fact fact => fact.Of,
        ItemSource.Sum sum => item => Cell.Of(sum.Of(item)),
        var other => throw new InvalidOperationException($"{other} is of several columns."),
    };

    /// <summary>Adds what is said about a column beside an earlier one.</summary>
    public void AddChange(int current, int earlier)
    {
        Add(ReportColumn.ChangeOf(_columns[current], _columns[earlier]), new ItemSource.Change(current, earlier));
        Add(ReportColumn.PercentChangeOf(_columns[current], _columns[earlier]), new ItemSource.PercentChange(current, earlier));
    }

    /// <summary>
    /// Adds percentages of a column. Throws a <see cref="ProblemException"/> where items have no such whole.
    /// </summary>
    /// <param name="column">The column.</param>
    /// <param name="percents">What of.</param>
    /// <param name="total">The place of the column that the others of a row add up to; it may be added later.</param>
    public void AddPercents(int column, IEnumerable<PercentOf> percents, int total)
    {
        foreach (var percent in percents.Distinct())
        {
            if (percent is not (PercentOf.Row or PercentOf.Column))
            {
                throw new ProblemException(
                    ProblemKind.Usage, $"--percent {ReportOptions.NameOf(percent)} does not apply to what is open.",
                    "Take --percent row, the share of the row's total, or --percent column, the share of the column's.");
            }

            Add(ReportColumn.PercentOf(percent, _columns[column]), new ItemSource.Percent(column, percent == PercentOf.Row ? total : null));
        }
    }
}
