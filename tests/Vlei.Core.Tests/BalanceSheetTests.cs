using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>The balance sheet, cell by cell, against the slow model, and its identity in both bases.</summary>
public class BalanceSheetTests
{
    private static readonly int[] Profit =
    [
        RandomBook.Sales, RandomBook.Fees, RandomBook.Cost, RandomBook.Rent, RandomBook.Fuel, RandomBook.Interest, RandomBook.Loss,
    ];

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
            Percent = percent ? [PercentOf.Assets] : [],
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
                var share = key.StartsWith("percent-assets(", StringComparison.Ordinal);
                var day = DateOnly.Parse(share ? key[15..^1] : key);
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

    private static Report Build(RandomBook book, ReportRequest request) => Statements.Build("balance-sheet", book, request);

    private static long Expected(RandomBook book, bool cash, string row, DateOnly day)
    {
        long Of(int account, DateOnly? until = null) => SlowModel.Sum(
            book, cash, account, DateOnly.MinValue, until ?? day);
        var yearStart = new DateOnly(day.Month >= 3 ? day.Year : day.Year - 1, 3, 1);
        var earlier = -Profit.Sum(account => Of(account, yearStart.AddDays(-1)));
        var all = -Profit.Sum(account => Of(account));
        var liabilities = -Of(RandomBook.Payable) - Of(RandomBook.Tax);
        var equity = all - Of(RandomBook.Equity);
        return row switch
        {
            "1000" or "total-bank" => Of(RandomBook.Bank),
            "1100" or "total-receivable" => Of(RandomBook.Receivable),
            "total-assets" => Of(RandomBook.Bank) + Of(RandomBook.Receivable),
            "2000" or "total-payable" => -Of(RandomBook.Payable),
            "2200" or "total-tax" => -Of(RandomBook.Tax),
            "total-liabilities" => liabilities,
            "3000" => -Of(RandomBook.Equity),
            "retained-earnings" => earlier,
            "current-earnings" => all - earlier,
            "total-equity" => equity,
            "total-liabilities-and-equity" => liabilities + equity,
            _ => throw new InvalidOperationException(row),
        };
    }
}
