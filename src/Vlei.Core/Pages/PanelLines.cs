using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Pages;

/// <summary>How a figure moved against another.</summary>
/// <param name="Against">The heading of the other.</param>
/// <param name="Percent">By how much, in ten-thousandths of a percent; nothing where the other is nothing.</param>
/// <param name="Sign">Whether it grew (1), fell (-1) or stayed (0).</param>
public readonly record struct PanelChange(string Against, long? Percent, int Sign);

/// <summary>A line of a panel.</summary>
/// <param name="Label">What stands before it.</param>
/// <param name="Row">The row that its figure is of, by its place in the report.</param>
/// <param name="Column">The column that its figure is of.</param>
public sealed record PanelLine(string Label, int Row, int Column)
{
    /// <summary>How the figure moved.</summary>
    public IReadOnlyList<PanelChange> Changes { get; init; } = [];

    /// <summary>The figures that a line goes through, in their order; none where none is drawn.</summary>
    public IReadOnlyList<long?> Series { get; init; } = [];

    /// <summary>How long its bar is, from -1 to 1 of the longest; nothing where it has none.</summary>
    public double? Bar { get; init; }
}

/// <summary>What a panel shows of a report.</summary>
public static class PanelLines
{
    /// <summary>The lines. Throws a <see cref="ProblemException"/> where the plan names a column that the report does not have.</summary>
    public static IReadOnlyList<PanelLine> Of(Report report, PanelPlan plan)
    {
        var rows = RowsOf(report, plan);
        if (rows.Count == 0 || report.Columns.All(column => column.Kind is ColumnKind.Text or ColumnKind.Date))
        {
            return [];
        }

        var column = ColumnOf(report, plan);
        return plan.Show switch
        {
            PanelShow.Line => [.. rows.Select(row => LineOf(report, row))],
            PanelShow.Across => Across(report, rows[0]),
            PanelShow.Down => Down(report, column),
            PanelShow.Bars => WithBars(report, [.. rows.Select(row => new PanelLine(report.Rows[row].Label, row, column))]),
            _ =>
            [
                .. rows.Select(row => new PanelLine(report.Rows[row].Label, row, column) { Changes = ChangesOf(report, row, column) }),
            ],
        };
    }

    private static List<int> RowsOf(Report report, PanelPlan plan)
    {
        var all = report.Rows.Select((row, place) => (row, place)).ToList();
        return plan.Rows.Count > 0
            ? [.. plan.Rows.SelectMany(key => all.Where(known => known.row.Key == key).Take(1)).Select(known => known.place)]
            : [.. all.Where(known => known.row.Kind is RowKind.Account or RowKind.Record or RowKind.Group).Take(plan.Most)
                .Select(known => known.place)];
    }

    private static int ColumnOf(Report report, PanelPlan plan)
    {
        var columns = report.Columns.Index().ToList();
        if (plan.Column is not { } named)
        {
            return columns.First(column => column.Item.Kind is not (ColumnKind.Text or ColumnKind.Date)).Index;
        }

        var figures = columns.Where(column => column.Item.Kind is not (ColumnKind.Text or ColumnKind.Date)).ToList();
        var found = figures.FindIndex(column => column.Item.Key == named
            || column.Item.Heading.Equals(named, StringComparison.OrdinalIgnoreCase));
        return found >= 0 ? figures[found].Index : throw new ProblemException(
            ProblemKind.NotFound, $"{report.Title} has no column of figures {named}.",
            Suggestion.DidYouMean(named, figures.Select(column => column.Item.Key))
                ?? Suggestion.ThereAre([.. figures.Select(column => column.Item.Key)]));
    }

    private static List<PanelChange> ChangesOf(Report report, int row, int column) =>
    [
        .. from change in report.Columns.Index()
           where change.Item is { IsChange: true, Kind: not ColumnKind.Percent, Working.Earlier: not null }
               && change.Item.Working.Of == report.Columns[column].Key
           let earlier = report.Columns[PlaceOf(report, change.Item.Working!.Earlier!)]
           let percent = PlaceOf(report, ReportColumn.PercentChangeOf(report.Columns[column], earlier).Key)
           select new PanelChange(
               earlier.Heading, percent < 0 ? null : report.Rows[row].Cells[percent].Units,
               Math.Sign(report.Rows[row].Cells[change.Index].Units ?? 0)),
    ];

    private static int PlaceOf(Report report, string key) => report.Columns.Index().Where(column => column.Item.Key == key)
        .Select(column => column.Index).DefaultIfEmpty(-1).First();

    // Time goes from column to column, up to a total.
    private static PanelLine LineOf(Report report, int row)
    {
        var columns = TimeOf(report);
        return new PanelLine(report.Rows[row].Label, row, columns[^1])
        {
            Series = [.. columns.Select(column => report.Rows[row].Cells[column].Units)],
        };
    }

    private static List<int> TimeOf(Report report)
    {
        var all = report.Columns.Index().Where(column => column.Item.Kind is not (ColumnKind.Text or ColumnKind.Date)
            && column.Item is { Tie: ColumnTie.None, IsNoted: false }).ToList();
        var own = all.Where(column => column.Item.Key != "total").Select(column => column.Index).ToList();
        return own.Count > 0 ? own : [all[0].Index];
    }

    // What the parts come to stands below them, without a bar.
    private static IReadOnlyList<PanelLine> Across(Report report, int row)
    {
        var parts = WithBars(report, [.. TimeOf(report).Select(column => new PanelLine(report.Columns[column].Heading, row, column))]);
        var total = PlaceOf(report, "total");
        return total < 0 ? parts : [.. parts, new PanelLine(report.Columns[total].Heading, row, total)];
    }

    private static List<PanelLine> Down(Report report, int column)
    {
        var rows = report.Rows.Index().Where(row => row.Item.Kind is RowKind.Account or RowKind.Record or RowKind.Group
            && row.Item.Cells[column].Units is not null).Select(row => row.Index).ToList();
        if (rows.Count == 0)
        {
            return [];
        }

        var lowest = rows.MinBy(row => report.Rows[row].Cells[column].Units!.Value);
        return
        [
            .. new[] { rows[0], lowest, rows[^1] }.Distinct().Select((row, place) => new PanelLine(report.Rows[row].Label, row, column)
            {
                Series = place == 0 ? [.. rows.Select(each => report.Rows[each].Cells[column].Units)] : [],
            }),
        ];
    }

    private static IReadOnlyList<PanelLine> WithBars(Report report, IReadOnlyList<PanelLine> lines)
    {
        long UnitsOf(PanelLine line) => report.Rows[line.Row].Cells[line.Column].Units ?? 0;
        var most = lines.Select(line => Math.Abs((double)UnitsOf(line))).DefaultIfEmpty(0).Max();
        return [.. lines.Select(line => line with { Bar = most == 0 ? 0 : UnitsOf(line) / most })];
    }
}
