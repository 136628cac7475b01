using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The columns of a list or a cross-table, each with where its cells come from.</summary>
internal sealed class TableColumns
{
    private readonly TablePlan _plan;
    private readonly TableScan _scan;
    private readonly ReportRequest _request;
    private readonly IReadOnlyList<TableSpan> _periods;
    private readonly FigureColumns<TableFigure> _columns = new();

    /// <summary>Lays them out.</summary>
    /// <param name="plan">What is asked for.</param>
    /// <param name="scan">What was found.</param>
    /// <param name="request">The request.</param>
    /// <param name="periods">The periods.</param>
    public TableColumns(TablePlan plan, TableScan scan, ReportRequest request, IReadOnlyList<TableSpan> periods)
    {
        (_plan, _scan, _request, _periods) = (plan, scan, request, periods);
        if (plan.Across is null)
        {
            AddEach(null);
            return;
        }

        foreach (var across in scan.Across)
        {
            AddEach(across);
        }

        var parts = _columns.Count;
        AddEach(null);
        if (_columns.PlaceOf("total") is >= 0 and var total)
        {
            _columns.AddUp(
                total, Enumerable.Range(0, parts)
                    .Where(part => _columns[part] is FigureColumn<TableFigure>.Base { Shown.Tie: ColumnTie.None }));
        }
    }

    /// <summary>The columns.</summary>
    public FigureColumns<TableFigure> Columns => _columns;

    /// <summary>
    /// The place of the first column that adds something up over all columns that it is spread over; nothing where there is none.
    /// </summary>
    public int? Largest => Enumerable.Range(0, _columns.Count).Where(place => _columns[place] is
        FigureColumn<TableFigure>.Base { Of: { IsFact: false, Period: 0, Across: null, Function: Function.Sum } })
            .Select(place => (int?)place).FirstOrDefault();

    /// <summary>In how many parts of one an average is counted: what is whole is seldom so on average.</summary>
    public static long ScaleOfAverage(Measure measure)
    {
        const long TenThousandths = 10_000;
        return measure.Kind == ColumnKind.Count ? TenThousandths : 1;
    }

    private static bool IsCompared(PlannedColumn column) =>
        column.Function is not (Function.Running or Function.Own or Function.Share or Function.GroupShare);

    private void AddEach(int? across)
    {
        for (var place = 0; place < _plan.Columns.Count; place++)
        {
            var column = _plan.Columns[place];
            if (column.Fact is { } fact)
            {
                var kind = fact.Bound.Field is { IsDay: true, Unit: null } ? ColumnKind.Date : ColumnKind.Text;
                _ = _columns.Add(
                    new ReportColumn(column.Key, column.Heading, kind) { IsAskedFor = column.IsTyped },
                    TableFigure.Fact(column.Heading, place));
            }
            else if (column.Function is Function.Share or Function.GroupShare)
            {
                var (shown, part) = (Described(column, across, 0), FigureOf(column, across, 0));
                _columns.AddShare(shown, part, column.Function == Function.Share ? ShareOf.Column : ShareOf.Group, part);
            }
            else
            {
                AddCompared(column, across);
            }
        }
    }

    private void AddCompared(PlannedColumn column, int? across)
    {
        var current = _columns.Add(Described(column, across, 0), FigureOf(column, across, 0));
        if (column.Function == Function.Sum)
        {
            // What a row comes to in all columns stands last; percentages of it are worked out all the same.
            _columns.AddShares(current, _request.Shares, FigureOf(column, null, 0));
        }

        for (var period = 1; period < _periods.Count && IsCompared(column); period++)
        {
            var earlier = _columns.Add(
                Described(column, across, period) with { Tie = ColumnTie.Compared }, FigureOf(column, across, period));
            if (_request.Change)
            {
                _columns.AddChange(current, earlier, isOfBases: _request.HasBothBases);
            }
        }
    }

    private TableFigure FigureOf(PlannedColumn column, int? across, int period) =>
        new(Described(column, across, period).Heading, -1, column.Measure, column.Function, period, across);

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
            (key, heading) = isAlone ? (valueKey, valueHeading)
                : ($"{column.Key}({valueKey})", $"{valueHeading} {column.Heading.ToLowerInvariant()}");
        }

        // Beside earlier figures it is said of which days each is.
        var dated = _periods.Count > 1 && IsCompared(column) ? $"{heading} {_periods[0].Heading}" : heading;
        var (own, isBasis) = (_periods[period], _request.HasBothBases && IsCompared(column));
        return (isBasis ? new ReportColumn($"{own.Key}({key})", $"{heading} {own.Heading}", kind)
            : period == 0 ? new ReportColumn(key, dated, kind)
            : new ReportColumn($"{key}({own.Key})", $"{heading} {own.Heading}", kind)) with
        {
            IsAskedFor = column.IsTyped && period == 0,
            IsNoted = column.Number?.IsNoted == true,
            IsLeftOutWhenIdle = column.Number?.IsSeldom == true,
            AddsUp = column.Function is Function.Sum or Function.Count && _plan.Measures[column.Measure].Quotient is null
                && kind is ColumnKind.Money or ColumnKind.Quantity or ColumnKind.Count,
        };
    }
}
