using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>
/// How the figures of a report follow from one another, for those who want to go on computing with them. What is stated here
/// comes to the figure exactly, with the rounding that every percentage has; where nothing is stated, a figure stands for
/// itself.
/// </summary>
public sealed class ReportWorkings
{
    private readonly Report _report;
    private readonly RowSums _sums;
    private readonly Dictionary<string, int> _columns;
    private readonly Dictionary<string, int> _rows = [];
    private readonly int _last = -1;

    private ReportWorkings(Report report)
    {
        _report = report;
        _sums = new RowSums(report);
        _columns = report.Columns.Select((column, place) => (column.Key, place)).DistinctBy(named => named.Key).ToDictionary();
        if (!report.Columns.Any(column => column.Working is not null) && report.Rows is RowList)
        {
            return;
        }

        var place = 0;
        foreach (var row in report.Rows)
        {
            _ = row.Kind == RowKind.Heading || _rows.TryAdd(row.Key, place);
            _last = row.Kind != RowKind.Heading && row.InsteadOfMoney is null ? place : _last;
            place++;
        }
    }

    /// <summary>Reads a report.</summary>
    public static ReportWorkings Of(Report report) => new(report);

    /// <summary>How a figure follows from others; nothing where it does not.</summary>
    /// <param name="row">The row.</param>
    /// <param name="place">Its place.</param>
    /// <param name="column">The place of the column.</param>
    public Working? Of(ReportRow row, int place, int column)
    {
        if (row.Cells[column].Units is not { } units || row.InsteadOfMoney is not null)
        {
            return null;
        }

        return _report.Columns[column].Working is { } working ? Worked(row, place, column, units, working)
            : _sums.Of(place, column) is { } rows ? new Working.Sum([.. rows.Select(unit => new SumTerm(new(unit.First, column), new(unit.Last, column), 1))])
            : row.MadeOf is { } made ? Made(made, units, column)
            : Across(row, place, units, column);
    }

    private Working.Sum? Made(IReadOnlyList<(string Key, int Sign)> made, long units, int column)
    {
        var terms = new List<SumTerm>();
        Int128 sum = 0;
        foreach (var (key, sign) in made)
        {
            if (RowOf(key) is { } row)
            {
                terms.Add(new SumTerm(new(row, column), new(row, column), sign));
                sum += (Int128)sign * (_report.Rows[row].Cells[column].Units ?? 0);
            }
        }

        return sum == units && terms.Count > 0 ? new Working.Sum(terms) : null;
    }

    // A column of totals adds up the ones before it that stand for themselves.
    private Working.Sum? Across(ReportRow row, int place, long units, int column)
    {
        if (_report.Columns[column].Key != "total")
        {
            return null;
        }

        var (terms, sum) = (new List<SumTerm>(), (Int128)0);
        for (var other = 0; other < column; other++)
        {
            if (_report.Columns[other] is { Tie: ColumnTie.None } before && before.Kind == _report.Columns[column].Kind)
            {
                terms.Add(new SumTerm(new(place, other), new(place, other), 1));
                sum += row.Cells[other].Units ?? 0;
            }
        }

        return terms.Count > 1 && sum == units ? new Working.Sum(terms) : null;
    }

    private Working? Worked(ReportRow row, int place, int column, long units, ColumnWorking working)
    {
        if (!_columns.TryGetValue(working.Of, out var of))
        {
            return null;
        }

        if (working.Earlier is { } key)
        {
            return !_columns.TryGetValue(key, out var earlier) ? null : Changed(row, new(place, column), units, of, earlier);
        }

        return WholeOf(place, of, working.Whole!.Value) is { } whole && Percentage.Of(AmountAt(row, of), AmountAt(_report.Rows[whole.Row], whole.Column)) == new Percentage(units)
            ? new Working.Share(new(place, of), whole, IsChange: false) : null;
    }

    private Working? Changed(ReportRow row, CellPlace cell, long units, int current, int earlier)
    {
        var (now, then) = (AmountAt(row, current), AmountAt(row, earlier));
        var (later, before) = (new CellPlace(cell.Row, current), new CellPlace(cell.Row, earlier));
        return _report.Columns[cell.Column].Kind == ColumnKind.Percent
            ? Percentage.Of(now - then, then.Magnitude) == new Percentage(units) ? new Working.Share(later, before, IsChange: true) : null
            : (now - then).MinorUnits == units ? new Working.Sum([new SumTerm(later, later, 1), new SumTerm(before, before, -1)]) : null;
    }

    private CellPlace? WholeOf(int row, int column, PercentOf whole) => whole switch
    {
        PercentOf.Income => RowOf("income") is { } income ? new(income, column) : null,
        PercentOf.Assets => RowOf("assets") is { } assets ? new(assets, column) : null,
        PercentOf.Column => _last >= 0 ? new(_last, column) : null,
        PercentOf.Row => _columns.TryGetValue("total", out var total) ? new(row, total) : null,
        _ => _sums.TotalOver(row) is { } over ? new(over, column) : null,
    };

    private int? RowOf(string key) => _rows.TryGetValue($"total-{key}", out var total) ? total : _rows.TryGetValue(key, out var row) ? row : null;

    private static Amount AmountAt(ReportRow row, int column) => new(row.Cells[column].Units ?? 0);
}
