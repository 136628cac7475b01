using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>Where the cells of a column come from.</summary>
internal abstract record TableCell
{
    /// <summary>What rows say.</summary>
    /// <param name="Planned">The place of the column among those that were asked for.</param>
    public sealed record Fact(int Planned) : TableCell;

    /// <summary>What rows come to.</summary>
    /// <param name="Measure">In which measure.</param>
    /// <param name="Function">What is made of it.</param>
    /// <param name="Period">The place of the period.</param>
    /// <param name="Across">The column that it is spread to; nothing for all.</param>
    public sealed record Value(int Measure, Function Function, int Period, int? Across) : TableCell;

    /// <summary>One column less another.</summary>
    public sealed record Change(int Current, int Earlier) : TableCell;

    /// <summary>The change as a percentage of the earlier column.</summary>
    public sealed record PercentChange(int Current, int Earlier) : TableCell;

    /// <summary>A column as a percentage of something.</summary>
    /// <param name="Column">The column.</param>
    /// <param name="Of">Of what.</param>
    /// <param name="Total">The place of the column that has the same of all the columns that it is spread over.</param>
    public sealed record Percent(int Column, PercentOf Of, int Total) : TableCell;
}

/// <summary>The columns of a list or a cross-table, each with where its cells come from.</summary>
internal sealed class TableColumns
{
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly ReportRequest _request;
    private readonly IReadOnlyList<(string Key, string Heading)> _periods;
    private readonly List<ReportColumn> _columns = [];
    private readonly List<TableCell> _cells = [];

    /// <summary>Lays them out.</summary>
    /// <param name="plan">What is asked for.</param>
    /// <param name="scan">What was found.</param>
    /// <param name="request">The request.</param>
    /// <param name="periods">The keys and headings of the periods.</param>
    public TableColumns(TablePlan plan, TableScan scan, ReportRequest request, IReadOnlyList<(string Key, string Heading)> periods)
    {
        (_plan, _scan, _request, _periods) = (plan, scan, request, periods);
        if (plan.Across is null)
        {
            AddEach(null);
            return;
        }

        // What a row comes to in all columns stands last; percentages of it are worked out all the same.
        var first = scan.Across.Count * Width();
        foreach (var across in scan.Across)
        {
            AddEach(across, first);
        }

        AddEach(null);
    }

    /// <summary>The columns.</summary>
    public IReadOnlyList<ReportColumn> Columns => _columns;

    /// <summary>Where the cells of each come from.</summary>
    public IReadOnlyList<TableCell> Cells => _cells;

    /// <summary>The place of the column with that key; less than 0 where there is none.</summary>
    public int PlaceOf(string key) => _columns.FindIndex(column => column.Key.Equals(key, StringComparison.OrdinalIgnoreCase));

    /// <summary>The first column that adds something up over all columns that it is spread over; less than 0 where there is none.</summary>
    public int Largest() => _cells.FindIndex(cell => cell is TableCell.Value { Period: 0, Across: null, Function: Function.Sum });

    /// <summary>In how many parts of one an average is counted: what is whole is seldom so on average.</summary>
    public static long ScaleOfAverage(Measure measure)
    {
        const long TenThousandths = 10_000;
        return measure.Kind == ColumnKind.Count ? TenThousandths : 1;
    }

    private int Width() => _plan.Columns.Sum(column => WidthOf(column));

    private int WidthOf(PlannedColumn column) => column.Fact is not null || !IsCompared(column) ? 1 + Percents(column)
        : _periods.Count + (_request.Change ? 2 * (_periods.Count - 1) : 0) + Percents(column);

    private static bool IsCompared(PlannedColumn column) => column.Function is not (Function.Running or Function.Own or Function.Share or Function.GroupShare);

    private int Percents(PlannedColumn column) => column.Function == Function.Sum && column.Fact is null ? _request.Percent.Distinct().Count() : 0;

    private void AddEach(int? across, int totals = -1)
    {
        for (var place = 0; place < _plan.Columns.Count; place++)
        {
            var column = _plan.Columns[place];
            if (column.Fact is { } fact)
            {
                var kind = fact.Bound.Field is { IsDay: true, Unit: null } ? ColumnKind.Date : ColumnKind.Text;
                Add(new ReportColumn(column.Key, column.Heading, kind), new TableCell.Fact(place));
                continue;
            }

            var current = _columns.Count;
            var total = across is null ? current : totals + _plan.Columns.Take(place).Sum(WidthOf);
            Add(Described(column, across, 0), new TableCell.Value(column.Measure, column.Function, 0, across));
            foreach (var percent in column.Function == Function.Sum ? _request.Percent.Distinct() : [])
            {
                Add(ReportColumn.PercentOf(percent, _columns[current]), new TableCell.Percent(current, percent, total));
            }

            for (var period = 1; period < _periods.Count && IsCompared(column); period++)
            {
                var earlier = _columns.Count;
                Add(Described(column, across, period) with { Tie = ColumnTie.Compared }, new TableCell.Value(column.Measure, column.Function, period, across));
                if (_request.Change)
                {
                    var kind = _columns[current].Kind;
                    Add(ReportColumn.ChangeOf(_columns[current], _columns[earlier]) with { Kind = kind }, new TableCell.Change(current, earlier));
                    Add(ReportColumn.PercentChangeOf(_columns[current], _columns[earlier]), new TableCell.PercentChange(current, earlier));
                }
            }
        }
    }

    private ReportColumn Described(PlannedColumn column, int? across, int period)
    {
        var kind = column.Function switch
        {
            Function.Share or Function.GroupShare => ColumnKind.Percent,
            Function.Count => ColumnKind.Count,
            Function.Average when ScaleOfAverage(_plan.Measures[column.Measure]) > 1 => ColumnKind.Ratio,
            _ => _plan.Measures[column.Measure].Kind,
        };
        var (key, heading) = (column.Key, column.Heading);
        if (_plan.Across is not null)
        {
            var (valueKey, valueHeading) = across is { } place ? _scan.AcrossAt(place) : ("total", "Total");
            var isAlone = _plan.Columns.Count == 1;
            (key, heading) = isAlone ? (valueKey, valueHeading) : ($"{column.Key}({valueKey})", $"{valueHeading} {column.Heading.ToLowerInvariant()}");
        }

        return period == 0 ? new ReportColumn(key, heading, kind)
            : new ReportColumn($"{key}({_periods[period].Key})", $"{heading} {_periods[period].Heading}", kind);
    }

    private void Add(ReportColumn column, TableCell cell)
    {
        _columns.Add(column);
        _cells.Add(cell);
    }
}
