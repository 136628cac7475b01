using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>Figures of a chart that belong together: bars of one colour, a line.</summary>
/// <param name="Name">What they are called.</param>
/// <param name="Cells">Where in the report they stand, one for each category.</param>
public sealed record ChartSeries(string Name, IReadOnlyList<CellPlace> Cells);

/// <summary>Why there is nothing to draw.</summary>
/// <param name="Kind">What of it is wrong.</param>
/// <param name="Message">Why not.</param>
/// <param name="Advice">What to ask instead.</param>
public sealed record ChartRefusal(ProblemKind Kind, string Message, string Advice)
{
    /// <summary>The same where nothing but a chart was asked for.</summary>
    public ProblemException AsProblem() => new(Kind, Message, Advice);
}

/// <summary>Figures of a report as a picture: which, along what, and of which kind.</summary>
/// <param name="Kind">Its kind, never <see cref="ChartKind.Auto"/>.</param>
/// <param name="Categories">What the figures are along: periods, or rows.</param>
/// <param name="Series">The figures.</param>
public sealed record ReportChart(ChartKind Kind, IReadOnlyList<string> Categories, IReadOnlyList<ChartSeries> Series)
{
    private const int MostLines = 6;
    private const int MostBars = 15;
    private const int LeastForLines = 6;
    private const int LeastPart = 20;
    private const string Total = "total";

    private static readonly ColumnKind[] Drawn =
        [ColumnKind.Money, ColumnKind.Quantity, ColumnKind.Count, ColumnKind.Ratio, ColumnKind.Percent];

    /// <summary>Whether it is along time.</summary>
    public bool IsOfTime { get; init; }

    /// <summary>
    /// How many rows there are of the kind that it shows, where it shows the largest of them alone; nothing where it shows all.
    /// </summary>
    public int? OutOf { get; init; }

    /// <summary>What its figures are.</summary>
    public required ColumnKind Figures { get; init; }

    /// <summary>
    /// The chart that a report is asked for, or that suits it where it is asked for none; nothing where there is nothing to draw.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="refusal">Why there is nothing to draw.</param>
    public static ReportChart? Of(Report report, out ChartRefusal? refusal)
    {
        var asked = report.Look.Chart ?? new ChartText(ChartKind.Auto, []);
        var columns = ColumnsOf(report);
        if (columns.Count == 0)
        {
            refusal = new ChartRefusal(
                ProblemKind.Usage, $"{report.Title} has no figures to draw.",
                "Take a report with figures over time or categories, or leave --chart out.");
            return null;
        }

        if (asked.Rows.FirstOrDefault(name => PlaceOf(report, name) is null) is { } unknown)
        {
            var names = report.Rows.Where(row => row.Kind != RowKind.Heading).SelectMany(row => new[] { row.Key, row.Label }).Distinct();
            refusal = new ChartRefusal(
                ProblemKind.NotFound, $"--chart: the report has no row {unknown}.",
                Suggestion.DidYouMean(unknown, names) ?? "vlei show with --format csv shows the keys of all rows.");
            return null;
        }

        // What is compared belongs to each period; over time, periods are what is looked at.
        var periods = columns.Where(column => report.Columns[column] is { Range: not null, Tie: ColumnTie.None }).ToList();
        var isOfTime = periods.Count > 1 && asked.Kind != ChartKind.Share;
        columns = isOfTime ? periods : columns;
        if (asked.Kind == ChartKind.Share)
        {
            columns = [report.Columns.Select(column => column.Key).ToList().IndexOf(Total) is >= 0 and var total ? total : columns[^1]];
        }

        var (rows, outOf) = RowsOf(report, columns, asked, isOfTime ? MostLines : MostBars);
        if (rows.Count == 0)
        {
            refusal = new ChartRefusal(
                ProblemKind.Usage, $"{report.Title} has no rows with figures to draw.",
                "Choose another period, or name rows: --chart bars:total-income.");
            return null;
        }

        var chart = isOfTime
            ? new ReportChart(asked.Kind, [.. columns.Select(column => report.Columns[column].Heading)],
                [.. rows.Select(row => new ChartSeries(report.Rows[row].Label, [.. columns.Select(column => new CellPlace(row, column))]))])
            { Figures = report.Columns[columns[0]].Kind, IsOfTime = true }
            : new ReportChart(asked.Kind, [.. rows.Select(row => report.Rows[row].Label)],
                [
                    .. columns.Select(
                        column => new ChartSeries(report.Columns[column].Heading, [.. rows.Select(row => new CellPlace(row, column))]))])
            { Figures = report.Columns[columns[0]].Kind };
        chart = chart with { OutOf = outOf };
        refusal = chart.Kind != ChartKind.Share || !IsNegative(report, chart) ? null : new ChartRefusal(
            ProblemKind.Usage, $"{report.Title} has figures below zero, which are no share of a whole.",
            "Take --chart bars, or name rows without any: --chart share:4010,4020.");
        return refusal is not null ? null : asked.Kind == ChartKind.Auto ? chart with { Kind = Suitable(report, chart) } : chart;
    }

    /// <summary>A figure of it, in the smallest unit of its column; nothing where there is none.</summary>
    public static long? UnitsAt(Report report, CellPlace cell) => report.Rows[cell.Row].Cells[cell.Column].Units;

    private static bool IsNegative(Report report, ReportChart chart) =>
        chart.Series.Any(series => series.Cells.Any(cell => UnitsAt(report, cell) < 0));

    private static ChartKind Suitable(Report report, ReportChart chart) =>
        chart.IsOfTime ? chart.Categories.Count >= LeastForLines ? ChartKind.Lines : ChartKind.Bars
        : chart.Series.Count > 1 && report.Columns.Any(column => column.Key == Total)
            && chart.Series.All(series => report.Columns[series.Cells[0].Column].Tie == ColumnTie.None) ? ChartKind.Stacked
        : ChartKind.Bars;

    // Figures that stand for themselves and are of one kind; a total beside its parts would dwarf them.
    private static List<int> ColumnsOf(Report report)
    {
        var own = Enumerable.Range(0, report.Columns.Count).Where(column =>
            report.Columns[column] is { Working: null, IsChange: false, IsLeftOutWhenIdle: false } known && Drawn.Contains(known.Kind)
                && known.Key != "running").ToList();
        var kind = Drawn.FirstOrDefault(drawn => own.Exists(column => report.Columns[column].Kind == drawn));
        var same = own.Where(column => report.Columns[column].Kind == kind).ToList();
        var parts = same.Where(column => report.Columns[column].Key != Total).ToList();

        // What columns of different signs leave, as a profit, is what they are looked at for.
        return parts.Count > 0 && (parts.Count == same.Count || !AreOfDifferentSigns(report, parts)) ? parts
            : [.. same.Where(column => parts.Count == 0 || report.Columns[column].Key == Total)];
    }

    private static bool AreOfDifferentSigns(Report report, List<int> columns) =>
        report.Rows.LastOrDefault(row => row.Kind == RowKind.GrandTotal) is { } last
        && columns.Select(column => Math.Sign(last.Cells[column].Units ?? 0)).Where(sign => sign != 0).Distinct().Count() > 1
        && columns.TrueForAll(column => report.Columns[column].Range is null);

    private static (List<int> Rows, int? OutOf) RowsOf(Report report, List<int> columns, ChartText asked, int most)
    {
        if (asked.Rows.Count > 0)
        {
            return ([.. asked.Rows.Select(name => PlaceOf(report, name)!.Value)], null);
        }

        var sizes = new List<(int Row, Int128 Size)>();
        var isShare = asked.Kind == ChartKind.Share;
        var hasAccounts = report.Rows.Any(row => row.Kind == RowKind.Account && row.Level > 0);
        var hasTotals = report.Rows.Any(row => row.Kind == RowKind.Total && row.Level == 0);
        var level = report.Rows.Where(row => row.Kind is RowKind.Account or RowKind.Group or RowKind.Record).Select(row => row.Level)
            .DefaultIfEmpty(0).Min();
        var place = -1;
        foreach (var row in report.Rows)
        {
            place++;
            // The parts of a statement are those of its first total.
            if (isShare && hasAccounts && sizes.Count > 0 && row.Kind is RowKind.Total or RowKind.Result)
            {
                break;
            }

            var isWanted = !isShare && (hasTotals || hasAccounts) ? row.Level == 0
                && (row.Kind is RowKind.Total or RowKind.Result
                    || (row.Kind == RowKind.GrandTotal && (hasAccounts || row.MadeOf is not null)))
                : row.Level == level && row.Kind is RowKind.Account or RowKind.Group or RowKind.Record;
            if (isWanted && row.InsteadOfMoney is null)
            {
                var size = columns.Aggregate(Int128.Zero, (sum, column) => sum + Int128.Abs(row.Cells[column].Units ?? 0));
                if (size > 0)
                {
                    sizes.Add((place, size));
                }
            }
        }

        if (!isShare && (hasTotals || hasAccounts))
        {
            LeaveWhatSaysLittle(report, columns, sizes);
        }

        var largest = sizes.OrderByDescending(row => row.Size).Take(most).Select(row => row.Row).Order().ToList();
        return (largest, sizes.Count > most ? sizes.Count : null);
    }

    // Of a statement, what comes in, what goes out and what is left: what is worked out on the way, small totals, and what only
    // says another again (as the two sides of a balance sheet) leave little room for that.
    private static void LeaveWhatSaysLittle(Report report, List<int> columns, List<(int Row, Int128 Size)> sizes)
    {
        if (sizes.Exists(row => report.Rows[row.Row].Kind == RowKind.GrandTotal))
        {
            sizes.RemoveAll(row => report.Rows[row.Row].Kind == RowKind.Result);
        }

        var largest = sizes.Select(row => row.Size).DefaultIfEmpty().Max();
        sizes.RemoveAll(row => report.Rows[row.Row].Kind != RowKind.GrandTotal && row.Size * LeastPart < largest);
        sizes.RemoveAll(row => report.Rows[row.Row].Kind == RowKind.GrandTotal && sizes.Exists(other => other.Row < row.Row
            && columns.TrueForAll(column => report.Rows[other.Row].Cells[column] == report.Rows[row.Row].Cells[column])));
    }

    private static int? PlaceOf(Report report, string name)
    {
        var known = report.Rows.Select((row, place) => (row, place)).Where(one => one.row.Kind != RowKind.Heading).ToList();
        return known.Where(one => one.row.Key == name)
            .Concat(known.Where(one => one.row.Label.Equals(name, StringComparison.OrdinalIgnoreCase)))
            .Select(one => (int?)one.place).FirstOrDefault();
    }
}
