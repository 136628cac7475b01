using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>The profit and loss, cell by cell, against the slow model, on random books and random requests.</summary>
public class ProfitLossTests
{
    private static readonly Gen<ReportRequest> GenRequest =
        from start in Gen.Int[0, 700]
        from days in Gen.Int[0, 400]
        from wholeMonths in Gen.Bool
        from basis in Gen.Enum<AccountingBasis>()
        from unit in Choose.One(new TimeUnit?(), TimeUnit.Week, TimeUnit.Month, TimeUnit.Quarter, TimeUnit.FiscalYear)
        from compare in Choose.One("", "prior-period", "prior-year", "prior-year:2")
        from change in Gen.Bool
        from percent in Gen.Bool
        let from1 = new DateOnly(2024, 1, 1).AddDays(start)
        let range = wholeMonths
            ? new DateRange(YearMonth.Of(from1).First, YearMonth.Of(from1.AddDays(days)).Last)
            : new DateRange(from1, from1.AddDays(days))
        select new ReportRequest
        {
            Period = new OpenPeriod(range), Basis = basis, By = Statements.By(unit), Change = change && compare.Length > 0,
            Compare = compare.Length == 0 ? [] : [Comparison.Parse(compare, from1, new FiscalCalendar(3))],
            Shares = !percent ? [] : unit is null ? [ShareOf.Income, ShareOf.Column, ShareOf.Group]
                : [ShareOf.Income, ShareOf.Row],
        };

    [Fact]
    public void Every_cell_is_what_the_rules_give() => Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
    {
        var report = Build(book, request);
        Assert.All(report.Checks, check => Assert.True(check.Ok));
        foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            var figures = new Dictionary<string, long>();
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var described = report.Columns[column];
                if (described.Range is { } range)
                {
                    figures[described.Key] = Expected(book, request.Basis!.Value, row.Key, range);
                    Assert.Equal(figures[described.Key], row.Cells[column].Units);
                }
            }

            for (var column = 0; column < report.Columns.Count; column++)
            {
                CheckDerived(book, request, report, row, column, figures);
            }
        }
    });

    [Fact]
    public void Columns_add_up_to_the_total_and_parts_to_their_account() =>
        Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
    {
        var report = Build(
            book, request with { By = request.By ?? Spread.Of(TimeUnit.Month), Compare = [], Change = false, Shares = [] });
        var total = report.Columns.Count - 1;
        Assert.Equal("total", report.Columns[total].Key);
        Assert.All(report.Rows.Where(row => row.Kind != RowKind.Heading), row =>
            Assert.Equal(row.Cells[total].Units, row.Cells.Take(total).Sum(cell => cell.Units)));
    });

    [Fact]
    public void The_order_of_the_records_changes_no_report() =>
        Gen.Select(RandomBook.Gen1, GenRequest, Gen.Int).Sample((book, request, seed) =>
    {
        var (one, other) = (Build(book, request), Build(book.Shuffled(seed), request));
        Assert.Equal(one.Rows.SelectMany(row => row.Cells), other.Rows.SelectMany(row => row.Cells));
    });

    [Fact]
    public void Sections_and_results_are_left_out_as_the_layout_says()
    {
        static string Keys(params Line[] lines) => string.Join(' ', Build(
            new RandomBook(
                [
                    new BookDocument(
                        1, new DateOnly(2026, 3, 1),
                        [.. lines, new Line(9, new(RandomBook.Bank), -new Amount(lines.Sum(l => l.Amount.MinorUnits)))])],
                []),
            new ReportRequest { Period = new OpenPeriod(null, null) }).Rows.Select(row => row.Key));

        Assert.Equal("net-profit", Keys());
        Assert.Equal("income 4000 total-income net-profit", Keys(new Line(1, new(RandomBook.Sales), new Amount(-5))));
        Assert.Equal(
            "income 900 4000 total-income cost-of-sales 5000 total-cost-of-sales gross-profit expenses 6000 6010 total-expenses net-profit",
            Keys(
                new Line(1, new(RandomBook.Sales), new Amount(-5)), new Line(2, new(RandomBook.Fees), new Amount(-5)),
                new Line(3, new(RandomBook.Cost), new Amount(2)), new Line(4, new(RandomBook.Fuel), new Amount(2))));
        Assert.Equal(
            "expenses 6000 total-expenses operating-profit other-income 7000 total-other-income net-profit",
            Keys(new Line(1, new(RandomBook.Rent), new Amount(5)), new Line(2, new(RandomBook.Interest), new Amount(-5))));
    }

    [Fact]
    public void A_sum_that_does_not_fit_names_the_report_and_the_column()
    {
        var huge = new Amount(long.MaxValue / 2);
        var book = new RandomBook([.. Enumerable.Range(1, 3).Select(key => new BookDocument(
            key, new DateOnly(2026, 3, key), [new Line(1, new(RandomBook.Bank), huge), new Line(2, new(RandomBook.Sales), -huge)]))], []);
        var problem = Assert.Throws<ProblemException>(() => Build(
            book, new ReportRequest { Period = new OpenPeriod(new DateRange(new DateOnly(2026, 3, 1), new DateOnly(2026, 3, 3))) }));
        Assert.Equal("Profit and loss, column 1 - 3 Mar 2026: a sum is larger than 64 bits hold.", problem.Message);
    }

    private static Report Build(RandomBook book, ReportRequest request) => Statements.Build("profit-loss", book, request);

    private static long Expected(RandomBook book, AccountingBasis basis, string row, DateRange range) =>
        SlowStatements.ProfitAndLoss(row, range, (account, from, to) =>
            SlowModel.Sum(book, basis == AccountingBasis.Cash, account, from, to));

    private static void CheckDerived(
        RandomBook book, ReportRequest request, Report report, ReportRow row, int column, Dictionary<string, long> figures)
    {
        var key = report.Columns[column].Key;
        var open = key.IndexOf('(');
        if (report.Columns[column].Range is not null)
        {
            return;
        }

        var inner = key[(open + 1)..^1];
        var cell = row.Cells[column].Units;
        switch (key[..open])
        {
            case "change" or "percent-change":
                var (current, earlier) = Split(inner, figures);
                Assert.Equal(
                    key.StartsWith('c') ? current - earlier : Percent(current - earlier, Math.Abs(earlier)), cell);
                break;
            case "share-of-income":
                var range = report.Columns.First(c => c.Key == inner).Range!.Value;
                Assert.Equal(
                    Percent(figures[inner], Expected(book, request.Basis!.Value, "total-income", range)), cell);
                break;
            case "share-of-column" or "share-of-group":
                var own = Enumerable.Range(0, report.Columns.Count).Single(place => report.Columns[place].Key == inner);
                var whole = key.StartsWith("share-of-c", StringComparison.Ordinal) ? report.Rows[^1] : GroupOf(report, row);
                Assert.Equal(whole is null ? null : Percent(figures[inner], whole.Cells[own].Units!.Value), cell);
                break;
            default:
                Assert.Equal(Percent(figures[inner], figures["total"]), cell);
                break;
        }
    }

    // The total that stands below the row, or is the row; results stand in no group.
    private static ReportRow? GroupOf(Report report, ReportRow row) => row.Kind is RowKind.Result or RowKind.GrandTotal ? null
        : report.Rows.SkipWhile(other => other != row).First(other => other.Kind == RowKind.Total);

    // Both keys may have commas and brackets of their own: the one split that names two known columns is meant.
    private static (long Current, long Earlier) Split(string pair, Dictionary<string, long> figures) => Enumerable.Range(
        0, pair.Length)
        .Where(at => pair[at] == ',' && figures.ContainsKey(pair[..at]) && figures.ContainsKey(pair[(at + 1)..]))
        .Select(at => (figures[pair[..at]], figures[pair[(at + 1)..]])).Single();

    private static long? Percent(long part, long whole) => (long?)(SlowModel.Percent(part, whole) * 10_000);
}
