using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>The trial balance, cell by cell, against the slow model.</summary>
public class TrialBalanceTests
{
    private static readonly Gen<ReportRequest> GenRequest =
        from start in Gen.Int[-40, 800]
        from days in Gen.Int[0, 500]
        from basis in Gen.Enum<AccountingBasis>()
        let first = new DateOnly(2024, 1, 1).AddDays(start)
        select new ReportRequest { Period = new OpenPeriod(first, first.AddDays(days)), Basis = basis, Zeros = true };

    [Fact]
    public void Every_cell_is_what_the_rules_give_and_the_columns_tie() =>
        Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
        {
            var report = Statements.Build("trial-balance", book, request);
            Assert.All(report.Checks, check => Assert.Equal(check.Expected, check.Actual));
            Assert.Equal(["opening", "debit", "credit", "closing"], report.Columns.Select(column => column.Key));
            var (from, to) = (request.Period!.Value.From!.Value, request.Period.Value.To!.Value);
            var cash = request.Basis == AccountingBasis.Cash;
            var year = new DateOnly(from.Month >= 3 ? from.Year : from.Year - 1, 3, 1);
            var earlier = 0L;
            foreach (var account in book.Accounts)
            {
                var isProfit = account.Type >= AccountType.Income;
                var opening = SlowModel.Sum(
                    book, cash, account.Key, isProfit ? year : DateOnly.MinValue, from.AddDays(-1));
                earlier += isProfit ? SlowModel.Sum(book, cash, account.Key, DateOnly.MinValue, year.AddDays(-1)) : 0;
                var (debit, credit) = SlowModel.Turnover(book, cash, account.Key, from, to);
                var row = report.Rows.Single(row => row.Key == account.Code);
                Assert.Equal(
                    [opening, debit, credit, opening + debit - credit], row.Cells.Select(cell => cell.Units!.Value));
            }

            // There is no account for retained earnings in these books: what is left stands in a row of its own.
            var retained = report.Rows.SingleOrDefault(row => row.Key == "retained-earnings");
            Assert.Equal(earlier, retained?.Cells[0].Units ?? 0);
        });

    [Fact]
    public void It_closes_with_the_balances_that_the_balance_sheet_shows() =>
        Gen.Select(RandomBook.Gen1, GenRequest).Sample((book, request) =>
        {
            var trial = Statements.Build("trial-balance", book, request);
            var sheet = Statements.Build("balance-sheet", book, request);
            foreach (var account in book.Accounts.Where(account => account.Type < AccountType.Income))
            {
                var closing = trial.Rows.Single(row => row.Key == account.Code).Cells[3].Units;
                var shown = sheet.Rows.Single(row => row.Key == account.Code).Cells[0].Units;
                Assert.Equal(AccountTypes.IsCreditPositive(account.Type) ? -closing : closing, shown);
            }
        });
}
