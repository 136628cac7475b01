using Vlei.Core.Calendar;

namespace Vlei.Core.Tests;

/// <summary>What every row of every statement comes to, from the sums of accounts between two days, as the rules have it.</summary>
public static class SlowStatements
{
    private static readonly int[] Profit =
    [
        RandomBook.Sales, RandomBook.Fees, RandomBook.Cost, RandomBook.Rent, RandomBook.Fuel, RandomBook.Interest, RandomBook.Loss,
    ];

    private static readonly (string Section, int[] Accounts, int Sign)[] Sections =
    [
        ("income", [RandomBook.Fees, RandomBook.Sales], -1), ("cost-of-sales", [RandomBook.Cost], 1),
        ("expenses", [RandomBook.Rent, RandomBook.Fuel], 1), ("other-income", [RandomBook.Interest], -1),
        ("other-expenses", [RandomBook.Loss], 1),
    ];

    /// <summary>What is posted to an account from one day to another; debit positive.</summary>
    public delegate long Sums(int account, DateOnly from, DateOnly to);

    /// <summary>A row of a profit and loss.</summary>
    public static long ProfitAndLoss(string row, DateRange range, Sums sums)
    {
        long Of(int account) => sums(account, range.From, range.To);
        long Total(string section) => Sections.Where(s => s.Section == section).Sum(s => s.Sign * s.Accounts.Sum(Of));
        var gross = Total("income") - Total("cost-of-sales");
        var operating = gross - Total("expenses");
        return row switch
        {
            "gross-profit" => gross,
            "operating-profit" => operating,
            "net-profit" => operating + Total("other-income") - Total("other-expenses"),
            "6000" => Of(RandomBook.Rent) + Of(RandomBook.Fuel),
            _ when row.StartsWith("total-", StringComparison.Ordinal) => Total(row[6..]),
            _ => Sections.Where(s => s.Accounts.Any(a => RandomBook.CodeOf(a) == row))
                .Sum(s => s.Sign * Of(s.Accounts.Single(a => RandomBook.CodeOf(a) == row))),
        };
    }

    /// <summary>A row of a balance sheet.</summary>
    public static long BalanceSheet(string row, DateOnly day, Sums sums)
    {
        long Of(int account, DateOnly? until = null) => sums(account, DateOnly.MinValue, until ?? day);
        var earlier = -Profit.Sum(account => Of(account, YearStart(day).AddDays(-1)));
        var all = -Profit.Sum(account => Of(account));
        var liabilities = -Of(RandomBook.Payable) - Of(RandomBook.Tax);
        var equity = all - Of(RandomBook.Equity);
        return row switch
        {
            "1000" or "total-bank" => Of(RandomBook.Bank),
            "1100" => Of(RandomBook.Receivable),
            "1150" => Of(RandomBook.Loans),
            "total-receivable" => Of(RandomBook.Receivable) + Of(RandomBook.Loans),
            "total-assets" => Of(RandomBook.Bank) + Of(RandomBook.Receivable) + Of(RandomBook.Loans),
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

    /// <summary>A row of a cash flow, by either method.</summary>
    public static long CashFlow(string row, DateRange range, Sums sums, bool direct)
    {
        long Of(int account) => sums(account, range.From, range.To);
        var profit = -Profit.Sum(Of);
        var operating = profit - Of(RandomBook.Receivable) - Of(RandomBook.Loans) - Of(RandomBook.Payable);
        var opening = sums(RandomBook.Bank, DateOnly.MinValue, range.From.AddDays(-1));
        var change = operating - Of(RandomBook.Tax) - Of(RandomBook.Equity);
        return row switch
        {
            "net-profit" when !direct => profit,
            "total-operating" => operating,
            "2200" or "total-investing" => -Of(RandomBook.Tax),
            "3000" or "total-financing" => -Of(RandomBook.Equity),
            "change-in-money" => change,
            "opening-money" => opening,
            "closing-money" => opening + change,
            "6000" when direct => -Of(RandomBook.Rent) - Of(RandomBook.Fuel),
            _ => -Of(RandomBook.KeyOf(row)),
        };
    }

    /// <summary>A row of the movements in equity.</summary>
    public static long EquityMovements(string row, DateRange range, Sums sums)
    {
        var profit = -Profit.Sum(account => sums(account, range.From, range.To));
        var put = -sums(RandomBook.Equity, range.From, range.To);
        var opening = -Profit.Append(RandomBook.Equity).Sum(account => sums(account, DateOnly.MinValue, range.From.AddDays(-1)));
        return row switch
        {
            "opening-equity" => opening,
            "net-profit" => profit,
            "3000" => put,
            "change-in-equity" => profit + put,
            "closing-equity" => opening + profit + put,
            _ => throw new InvalidOperationException(row),
        };
    }

    /// <summary>A row of the changes in working capital: what is owed takes away from it.</summary>
    public static long WorkingCapital(string row, DateRange range, Sums sums)
    {
        int[] assets = [RandomBook.Bank, RandomBook.Receivable, RandomBook.Loans], owed = [RandomBook.Payable, RandomBook.Tax];
        long Of(IEnumerable<int> accounts) => accounts.Sum(account => sums(account, range.From, range.To));
        var opening = assets.Concat(owed).Sum(account => sums(account, DateOnly.MinValue, range.From.AddDays(-1)));
        return row switch
        {
            "opening-working-capital" => opening,
            "total-current-assets" => Of(assets),
            "total-current-liabilities" => Of(owed),
            "total-bank" => Of([RandomBook.Bank]),
            "total-receivable" => Of([RandomBook.Receivable, RandomBook.Loans]),
            "total-payable" => Of([RandomBook.Payable]),
            "total-tax" => Of([RandomBook.Tax]),
            "change-in-working-capital" => Of([.. assets, .. owed]),
            "closing-working-capital" => opening + Of([.. assets, .. owed]),
            _ => Of([RandomBook.KeyOf(row)]),
        };
    }

    /// <summary>What an account, or the row of earlier profits, starts a period with in a trial balance.</summary>
    public static long Opening(string row, DateRange range, Sums sums)
    {
        var (before, year) = (range.From.AddDays(-1), YearStart(range.From));
        return row == "retained-earnings" ? Profit.Sum(account => sums(account, DateOnly.MinValue, year.AddDays(-1)))
            : sums(RandomBook.KeyOf(row), Profit.Contains(RandomBook.KeyOf(row)) ? year : DateOnly.MinValue, before);
    }

    // The fiscal year starts in March.
    private static DateOnly YearStart(DateOnly day) => new(day.Month >= 3 ? day.Year : day.Year - 1, 3, 1);
}
