using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>
/// The trial balance: per account the balance at the start, debits, credits and the balance at the end. Accounts of
/// profit and loss start from zero with the fiscal year that the period begins in; what they came to before stands with
/// retained earnings.
/// </summary>
public static class TrialBalanceReport
{
    private const string RetainedKey = "retained-earnings";

    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "trial-balance",
        Title = "Trial balance",
        Subject = "Statements",
        Question = "What does each account start with, what moved, and what does it end with?",
        Words = ["accounts", "debits", "credits", "opening", "closing", "balances", "movements"],
        Options = [ReportOptions.Period, ReportOptions.Basis, ReportOptions.Zeros, ReportOptions.Title],
        Examples =
        [
            ("--period last-month", "last month"),
            ("--period fy2026 --basis cash", "a fiscal year, on the cash basis"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        try
        {
            return Fill(context, request);
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, "Trial balance: the sum of an account is larger than 64 bits hold.",
                "Look for an amount with too many digits.", tooLarge);
        }
    }

    private static Report Fill(ReportContext context, ReportRequest request)
    {
        var period = context.PeriodOf(request).Range;
        var basis = request.Basis ?? context.Basis;
        var first = context.Records.From < period.From ? context.Records.From : period.From;
        var year = context.Calendar.UnitOf(TimeUnit.FiscalYear, period.From).From;
        var sums = AccountSums.Of(context.Ledger, basis,
        [
            new DateRange(first, period.From.AddDays(-1)), new DateRange(first, year.AddDays(-1)), period,
        ]);
        var rows = Rows(context.Ledger.Accounts, sums, request.Zeros);
        var total = rows.Aggregate(default(Balances), (sum, row) => sum + row.Balances);
        return new Report
        {
            Key = Definition.Key,
            Title = request.Title ?? Definition.Title,
            Book = context.Name,
            Currency = context.Currency,
            Basis = basis,
            Period = period,
            AsOf = null,
            PeriodInWords = PeriodText.Words(period, context.Calendar),
            Columns =
            [
                new ReportColumn("opening", "Opening", ColumnKind.Money), new ReportColumn("debit", "Debit", ColumnKind.Money),
                new ReportColumn("credit", "Credit", ColumnKind.Money), new ReportColumn("closing", "Closing", ColumnKind.Money),
            ],
            Rows =
            [
                .. rows.Select(row => new ReportRow(row.Key, row.Label, RowKind.Account, 0, row.Balances.Cells)),
                new ReportRow("total", "Total", RowKind.GrandTotal, 0, total.Cells),
            ],
            Checks =
            [
                new ReportCheck("Debits = credits", total.Debit, total.Credit, "Debit"),
                new ReportCheck("Opening balances add up to zero", Amount.Zero, total.Opening, "Opening"),
                new ReportCheck("Closing balances add up to zero", Amount.Zero, total.Closing, "Closing"),
            ],
            Revision = context.Ledger.Revision,
        };
    }

    private static List<(string Key, string Label, Balances Balances)> Rows(
        IReadOnlyList<Account> accounts, AccountSums sums, bool zeros)
    {
        const int Before = 0;
        const int EarlierYears = 1;
        const int Within = 2;
        var earlierProfit = accounts.Where(account => AccountTypes.IsProfitAndLoss(account.Type))
            .Aggregate(Amount.Zero, (sum, account) => sum + sums[EarlierYears, account.Key]);
        var rows = new List<(string, string, Balances)>();
        foreach (var account in accounts.OrderBy(account => account.Code, CodeOrder.Instance))
        {
            var opening = AccountTypes.IsProfitAndLoss(account.Type)
                ? sums[Before, account.Key] - sums[EarlierYears, account.Key]
                : sums[Before, account.Key];
            if (account.Type == AccountType.RetainedEarnings)
            {
                opening += earlierProfit;
                earlierProfit = Amount.Zero;
            }

            var balances = new Balances(opening, sums.Debit(Within, account.Key), sums.Credit(Within, account.Key));
            if (balances != default || (zeros && account.Active))
            {
                rows.Add((account.Code, $"{account.Code} {account.Name}", balances));
            }
        }

        if (!earlierProfit.IsZero)
        {
            rows.Add((RetainedKey, "Retained earnings", new Balances(earlierProfit, Amount.Zero, Amount.Zero)));
        }

        return rows;
    }

    // Opening and closing are debit positive; debit and credit both positive.
    private readonly record struct Balances(Amount Opening, Amount Debit, Amount Credit)
    {
        public Amount Closing => Opening + Debit - Credit;

        public IReadOnlyList<Cell> Cells => [Cell.Of(Opening), Cell.Of(Debit), Cell.Of(Credit), Cell.Of(Closing)];

        public static Balances operator +(Balances left, Balances right) =>
            new(left.Opening + right.Opening, left.Debit + right.Debit, left.Credit + right.Credit);
    }
}
