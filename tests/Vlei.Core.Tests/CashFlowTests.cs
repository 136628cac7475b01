using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>The cash flow, cell by cell, against the slow model, and its tie to the money accounts.</summary>
public class CashFlowTests
{
    private static readonly int[] Operating = [RandomBook.Receivable, RandomBook.Payable];

    private static readonly Gen<ReportRequest> GenRequest =
        from start in Gen.Int[-40, 800]
        from days in Gen.Int[0, 300]
        from basis in Gen.Enum<AccountingBasis>()
        from unit in Choose.One(new TimeUnit?(), TimeUnit.Month, TimeUnit.FiscalQuarter)
        from compared in Gen.Bool
        let first = new DateOnly(2024, 1, 1).AddDays(start)
        select new ReportRequest
        {
            Period = new OpenPeriod(first, first.AddDays(days)), Basis = basis, By = Statements.By(unit),
            Compare = compared ? [Comparison.Parse("prior-year", first, Statements.March)] : [],
        };

    [Fact]
    public void Every_cell_is_what_the_rules_give_and_the_money_ties() =>
        Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
        {
            var report = Statements.Build("cash-flow", book, request);
            Assert.All(report.Checks, check => Assert.Equal(check.Expected, check.Actual));
            var cash = request.Basis == AccountingBasis.Cash;
            foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
            {
                for (var column = 0; column < report.Columns.Count; column++)
                {
                    var range = report.Columns[column].Range!.Value;
                    Assert.Equal(Expected(book, cash, row.Key, range), row.Cells[column].Units);
                }
            }
        });

    private static long Expected(RandomBook book, bool cash, string row, DateRange range)
    {
        long Of(int account) => SlowModel.Sum(book, cash, account, range.From, range.To);
        var profit = -book.Accounts.Where(a => a.Type >= AccountType.Income).Sum(a => Of(a.Key));
        var operating = profit - Operating.Sum(Of);
        var opening = SlowModel.Sum(book, cash, RandomBook.Bank, DateOnly.MinValue, range.From.AddDays(-1));
        return row switch
        {
            "net-profit" => profit,
            "1100" => -Of(RandomBook.Receivable),
            "2000" => -Of(RandomBook.Payable),
            "total-operating" => operating,
            "2200" or "total-investing" => -Of(RandomBook.Tax),
            "3000" or "total-financing" => -Of(RandomBook.Equity),
            "change-in-money" => Of(RandomBook.Bank),
            "opening-money" => opening,
            "closing-money" => opening + Of(RandomBook.Bank),
            _ => throw new InvalidOperationException(row),
        };
    }
}
