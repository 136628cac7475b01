using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.OpenItems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>The balance sheet, cell by cell, against the slow model, and its identity in both bases.</summary>
public class BalanceSheetTests
{
    private static readonly Gen<ReportRequest> GenRequest =
        from start in Gen.Int[-40, 800]
        from days in Gen.Int[0, 400]
        from basis in Gen.Enum<AccountingBasis>()
        from unit in Choose.One(new TimeUnit?(), TimeUnit.Month, TimeUnit.Quarter, TimeUnit.FiscalYear)
        from compare in Choose.One("", "prior-year", "prior-period:2")
        from percent in Gen.Bool
        let first = new DateOnly(2024, 1, 1).AddDays(start)
        select new ReportRequest
        {
            Period = new OpenPeriod(first, first.AddDays(days)), Basis = basis, By = Statements.By(unit),
            Compare = compare.Length == 0 ? [] : [Comparison.Parse(compare, first, Statements.March)],
            Shares = percent ? [ShareOf.Assets] : [],
        };

    [Fact]
    public void Every_cell_is_what_the_rules_give() => Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
    {
        var report = Build(book, request);
        var cash = request.Basis == AccountingBasis.Cash;
        foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var key = report.Columns[column].Key;
                var share = key.StartsWith("share-of-assets(", StringComparison.Ordinal);
                var day = DateOnly.Parse(share ? key["share-of-assets(".Length..^1] : key);
                var expected = Expected(book, cash, row.Key, day);
                Assert.Equal(
                    share ? (long?)(SlowModel.Percent(expected, Expected(book, cash, "total-assets", day)) * 10_000) : expected,
                    row.Cells[column].Units);
            }
        }
    });

    [Fact]
    public void Assets_are_liabilities_and_equity_in_every_column() =>
        Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
    {
        var report = Build(book, request);
        Assert.NotEmpty(report.Checks);
        Assert.All(report.Checks, check => Assert.Equal(check.Expected, check.Actual));
    });

    [Fact]
    public void The_net_profit_of_a_fiscal_year_is_what_its_balance_sheet_shows() => RandomBook.Gen1.Sample(book =>
    {
        var year = new ReportRequest { Period = new OpenPeriod(Statements.March.FiscalYear(2025)), Basis = AccountingBasis.Cash };
        var profit = Statements.Build("profit-loss", book, year).Rows[^1].Cells[0];
        Assert.Equal(profit, Build(book, year).Rows.Single(row => row.Key == "current-earnings").Cells[0]);
    });

    [Fact]
    public void Control_accounts_are_what_is_open_at_every_months_end() => RandomBook.Gen1.Sample(book =>
    {
        var months = OpenItemTotals.ByMonth(book).ToList();
        Assert.NotEmpty(months);
        Assert.All(months, month => Assert.Equal(
            SlowModel.Sum(book, month.Basis == AccountingBasis.Cash, month.Account.Value, DateOnly.MinValue, month.Month.Last),
            month.Open.MinorUnits));
    });

    private static Report Build(RandomBook book, ReportRequest request) => Statements.Build("balance-sheet", book, request);

    private static long Expected(RandomBook book, bool cash, string row, DateOnly day) => SlowStatements.BalanceSheet(
        row, day, (account, from, to) => SlowModel.Sum(book, cash, account, from, to));
}
