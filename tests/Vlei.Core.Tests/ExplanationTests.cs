using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Pages;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>What made figures change, and what panels show of them, on random books.</summary>
public sealed class ExplanationTests
{
    private static readonly Gen<(string Report, string Compare, DateOnly From, int Days, AccountingBasis Basis, int Most)> Asked =
        from report in Choose.One("profit-loss", "balance-sheet", "trial-balance")
        from compare in Choose.One("prior-period", "prior-year", "year-start")
        from start in Gen.Int[0, 700]
        from days in Gen.Int[0, 400]
        from basis in Gen.Enum<AccountingBasis>()
        from most in Gen.Int[1, 4]
        select (report, report == "balance-sheet" ? compare : compare == "year-start" ? "prior-year" : compare,
            new DateOnly(2024, 1, 1).AddDays(start), days, basis, most);

    [Fact]
    public void Reasons_and_the_rest_are_the_change_in_every_way_it_is_looked_at() =>
        Gen.Select(RandomBook.Gen1, Asked).Sample((book, asked) =>
    {
        var report = Compared(book, asked);
        foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            var explained = Explanation.Of(report, book, row.Key, null, asked.Most);
            Assert.All(explained.Checks, check => Assert.True(check.Ok, $"{row.Key}: {check.Column}"));
            var change = report.Columns.First(column => column is { IsChange: true, Kind: ColumnKind.Money }).Working!;
            long Units(string key) => row.Cells[report.Columns.Index().First(column => column.Item.Key == key).Index].Units ?? 0;
            var (now, before) = (Units(change.Of), Units(change.Earlier!));
            foreach (var way in explained.Rows.Where(reason => reason.Kind == RowKind.Heading))
            {
                var rows = explained.Rows.SkipWhile(reason => reason != way).Skip(1)
                    .TakeWhile(reason => reason.Kind != RowKind.Heading).ToList();
                Assert.Equal([now, before, now - before], rows[^1].Cells.Take(3).Select(cell => cell.Units!.Value));
                for (var column = 0; column < 3; column++)
                {
                    Assert.Equal(rows[^1].Cells[column].Units, rows.SkipLast(1).Sum(reason => reason.Cells[column].Units));
                }

                // The largest first, as many as are asked for, and the rest as one.
                var named = rows.SkipLast(1).Where(reason => reason.Kind == RowKind.Record)
                    .Select(reason => Math.Abs(reason.Cells[2].Units!.Value)).ToList();
                Assert.Equal(named.OrderDescending(), named);
                Assert.InRange(named.Count, 1, asked.Most);

                // What the quantity and the price did is what the item did.
                Assert.All(rows.Where(reason => reason.Cells[4].Units is not null), reason =>
                    Assert.Equal(reason.Cells[2].Units, reason.Cells[4].Units + reason.Cells[5].Units));
            }
        }
    });

    [Fact]
    public void The_three_largest_reasons_below_a_report_are_with_the_rest_the_change_of_its_last_total() =>
        Gen.Select(RandomBook.Gen1, Asked).Sample((book, asked) =>
    {
        var report = Compared(book, asked);
        var last = report.Rows.LastOrDefault(row => row.Kind is RowKind.Total or RowKind.Result or RowKind.GrandTotal);
        if (last is null)
        {
            Assert.Throws<Problems.ProblemException>(() => Explanation.AddTo(report, book));
            return;
        }

        var explained = Explanation.AddTo(report, book).Explanation!;
        Assert.Equal(last.Label, explained.Row.English);
        Assert.InRange(explained.Reasons.Count, 0, 3);
        Assert.Equal(
            explained.Change, explained.Reasons.Aggregate(
                explained.Others?.Change ?? Money.Amount.Zero, (sum, reason) => sum + reason.Change));
        var sizes = explained.Reasons.Select(reason => reason.Change.Magnitude.MinorUnits).ToList();
        Assert.Equal(sizes.OrderDescending(), sizes);
        Assert.Equal(explained.Reasons.Count, explained.Reasons.Select(reason => reason.Name.English).Distinct().Count());

        // Without anything to compare with it is refused, and what is explained is no letter, no list and no chart any more.
        Assert.Throws<Problems.ProblemException>(() => Explanation.AddTo(
            report with { Columns = [.. report.Columns.Select(column => column with { Tie = ColumnTie.None })] }, book));
        Assert.Null(Explanation.Of(Explanation.AddTo(report, book), book, last.Key, null, asked.Most).Explanation);
    });

    [Fact]
    public void A_panel_shows_figures_that_the_report_has() => Gen.Select(RandomBook.Gen1, Asked, Gen.Enum<PanelShow>()).Sample((book,
        asked, show) =>
    {
        var report = Compared(book, asked);
        foreach (var line in PanelLines.Of(report, new PanelPlan(show) { Most = asked.Most }))
        {
            var units = report.Rows[line.Row].Cells[line.Column].Units;
            Assert.NotEqual(ColumnKind.Text, report.Columns[line.Column].Kind);
            Assert.True(line.Bar is null || Math.Sign(line.Bar.Value) == Math.Sign(units ?? 0));
            Assert.True(line.Bar is null or (>= -1 and <= 1));
            Assert.True(show is not (PanelShow.Line or PanelShow.Down) || line.Series.Count == 0 || line.Series.Contains(units));
            Assert.All(line.Changes, change => Assert.Contains(report.Columns, column => column.Heading == change.Against));
        }
    });

    private static Report Compared(
        ILedger book, (string Report, string Compare, DateOnly From, int Days, AccountingBasis Basis, int Most) asked)
    {
        var range = new DateRange(asked.From, asked.From.AddDays(asked.Days));
        return Statements.Build(asked.Report, book, new ReportRequest
        {
            Period = new OpenPeriod(range), Basis = asked.Basis, Change = true,
            Compare = [Comparison.Parse(asked.Compare, asked.From, new FiscalCalendar(3))],
        });
    }
}
