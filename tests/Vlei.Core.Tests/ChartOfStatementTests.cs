using CsCheck;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>The chart that a statement has where none is asked for: what comes in, what goes out, what is left.</summary>
public sealed class ChartOfStatementTests
{
    private static readonly string[] Statement =
        ["total-income", "total-cost-of-sales", "gross-profit", "total-expenses", "operating-profit", "total-other-income",
            "total-other-expenses", "net-profit"];

    private static readonly Gen<long[]> Totals = Gen.Long[-1_000_000, 1_000_000].Array[5];

    // Income, cost of sales, expenses, other income, other expenses; one column, or two periods of which the second is compared.
    private static Report Of(long[] totals, bool isCompared)
    {
        long[] figures =
            [totals[0], totals[1], totals[0] - totals[1], totals[2], totals[0] - totals[1] - totals[2], totals[3], totals[4],
                totals[0] - totals[1] - totals[2] + totals[3] - totals[4]];
        RowKind KindOf(string key) => key == "net-profit" ? RowKind.GrandTotal
            : key.StartsWith("total-", StringComparison.Ordinal) ? RowKind.Total : RowKind.Result;
        return OutputTests.GenReport.Single() with
        {
            Columns =
            [
                ReportColumn.Sum("now", "Now"),
                .. isCompared ? [ReportColumn.Sum("before", "Before") with { Tie = ColumnTie.Compared }] : Array.Empty<ReportColumn>(),
            ],
            Rows =
            [
                .. Statement.Select((key, place) => new ReportRow(
                    key, key, KindOf(key), 0, [.. Enumerable.Repeat(new Cell(figures[place]), isCompared ? 2 : 1)])
                {
                    MadeOf = KindOf(key) == RowKind.Total ? null : [("income", 1)],
                }),
            ],
            Checks = [],
            Look = new ReportLook { Chart = new ChartText(ChartKind.Auto, []) },
        };
    }

    [Fact]
    public void It_has_what_comes_in_what_goes_out_and_what_is_left_and_nothing_between() =>
        Gen.Select(Totals, Gen.Bool).Sample((totals, isCompared) =>
    {
        var report = Of(totals, isCompared);
        var chart = ReportChart.Of(report, out var refusal);
        var drawn = chart?.Series[0].Cells.Select(cell => report.Rows[cell.Row]).ToList() ?? [];
        if (report.Rows.All(row => row.Cells[0].Units == 0))
        {
            Assert.NotNull(refusal);
            return;
        }

        // Every large total is there and in its order; no result on the way is, as long as the last one is.
        var (last, largest) = (report.Rows[^1], report.Rows.Where(row => row.Kind != RowKind.Result || report.Rows[^1].Cells[0].Units == 0)
            .Max(row => Math.Abs(row.Cells[0].Units ?? 0)));
        Assert.All(
            report.Rows.Where(row => row.Kind == RowKind.Total && Math.Abs(row.Cells[0].Units!.Value) * 20 >= largest
                && row.Cells[0].Units != 0), row => Assert.Contains(row, drawn));
        Assert.Equal(report.Rows.Where(drawn.Contains), drawn);
        Assert.True(last.Cells[0].Units == 0 || drawn.TrueForAll(row => row.Kind != RowKind.Result));
        Assert.True(last.Cells[0].Units == 0 || drawn.Contains(last)
            || drawn.Exists(row => row.Cells[0] == last.Cells[0]));
        Assert.All(chart!.Series, series => Assert.Equal(drawn.Count, series.Cells.Count));
        Assert.Equal(isCompared ? 2 : 1, chart.Series.Count);
    });

    [Fact]
    public void What_is_asked_for_by_name_is_drawn_whatever_it_says() =>
        Gen.Select(Totals, Gen.Int[0, 7].Array[1, 4]).Sample((totals, places) =>
    {
        string[] rows = [.. places.Distinct().Select(place => Statement[place])];
        var report = Of(totals, isCompared: false);
        report = report with { Look = report.Look with { Chart = new ChartText(ChartKind.Bars, rows) } };
        Assert.Equal(rows, ReportChart.Of(report, out _)!.Categories);
    });
}
