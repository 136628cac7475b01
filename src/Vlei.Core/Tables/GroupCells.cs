using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The cells of rows that stand for groups of records, or for all of them: group 0.</summary>
/// <param name="plan">What is asked.</param>
/// <param name="scan">The sums; the group behind the last is the rest, which no longer has records of its own.</param>
/// <param name="columns">The columns.</param>
internal sealed class GroupCells(TablePlan plan, TableScan scan, TableColumns columns)
{
    private readonly TablePlan _plan = plan;
    private readonly TableScan _scan = scan;
    private readonly TableColumns _columns = columns;
    private readonly Dictionary<(TableCell.Value Column, int Group), long> _running = [];
    private readonly int _rest = scan.Groups.Count;

    /// <summary>Notes what a column has come to with a group, in the order of the rows.</summary>
    public void NoteRunning(TableCell.Value column, int group, long sum) => _running[(column, group)] = sum;

    /// <summary>The cell of a group in a column.</summary>
    public Cell CellOf(int column, int group) => _columns.Cells[column] switch
    {
        TableCell.Fact fact => group < _rest && group > 0 && !_plan.HasRecords && _scan.SameOf(fact.Planned, group) is { } same
            ? _plan.Columns[fact.Planned].Fact!.CellOf(same) : Cell.Empty,
        TableCell.Value value => ValueOf(value, group),
        TableCell.Change change => UnitsOf(change.Current, group) is var current && UnitsOf(change.Earlier, group) is var earlier
            && (current ?? earlier) is null ? Cell.Empty : new Cell(checked((current ?? 0) - (earlier ?? 0))),
        TableCell.PercentChange change => Cell.Of(Percentage.Of(
            new Amount(UnitsOf(change.Current, group) ?? 0) - new Amount(UnitsOf(change.Earlier, group) ?? 0),
            new Amount(UnitsOf(change.Earlier, group) ?? 0).Magnitude)),
        TableCell.Percent percent => UnitsOf(percent.Column, group) is { } units ? PercentOf(units, WholeOf(percent, group)) : Cell.Empty,
        var other => throw new InvalidOperationException($"There is no such column: {other}."),
    };

    private long? WholeOf(TableCell.Percent percent, int group) => percent.Of switch
    {
        Reports.PercentOf.Row => UnitsOf(percent.Total, group),
        Reports.PercentOf.Whole => UnitsOf(percent.Total, 0),
        Reports.PercentOf.Group => UnitsOf(percent.Column, group > 0 && group < _rest ? _scan.Groups.ParentOf(group) : 0),
        _ => UnitsOf(percent.Column, 0),
    };

    private long? UnitsOf(int column, int group) => CellOf(column, group).Units;

    private Cell ValueOf(TableCell.Value value, int group)
    {
        var sums = _scan.SumsOf(value.Measure, value.Period, value.Across);
        return value.Function switch
        {
            Function.Own => Cell.Empty,
            Function.Average => new Cell(sums.AverageOf(group, TableColumns.ScaleOfAverage(_plan.Measures[value.Measure]))),
            Function.Count => new Cell(sums.CountOf(group)),
            Function.Min => new Cell(sums.LeastOf(group)),
            Function.Max => new Cell(sums.MostOf(group)),
            Function.Running => _running.TryGetValue((value, group), out var running) ? new Cell(running) : Cell.Empty,
            Function.Share => SumOf(value, group) is { } part ? PercentOf(part, SumOf(value, 0)) : Cell.Empty,
            Function.GroupShare => SumOf(value, group) is { } part
                ? PercentOf(part, SumOf(value, group > 0 && group < _rest ? _scan.Groups.ParentOf(group) : 0)) : Cell.Empty,
            _ => new Cell(SumOf(value, group)),
        };
    }

    /// <summary>The sum of a column's measure for a group; for a quotient, that of the sums.</summary>
    public long? SumOf(TableCell.Value value, int group)
    {
        var measure = _plan.Measures[value.Measure];
        return measure.Quotient is null ? _scan.SumsOf(value.Measure, value.Period, value.Across).SumOf(group)
            : _plan.QuotientOf(measure, place => _scan.SumsOf(place, value.Period, value.Across).SumOf(group));
    }

    /// <summary>A part as a percentage; nothing where the whole is nothing.</summary>
    public static Cell PercentOf(long part, long? whole) => Cell.Of(Percentage.Of(new Amount(part), new Amount(whole ?? 0)));
}
