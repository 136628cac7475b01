using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>
/// What accounts stand at as a trial balance of a day shows them, accrual: income and costs since the fiscal year began, and what earlier
/// years earned on retained earnings, where the chart has such an account.
/// </summary>
internal static class AccountBalances
{
    /// <summary>The balances at the end of a day, debit positive; accounts that stand at zero are left out.</summary>
    public static Dictionary<AccountKey, Amount> At(
        DerivedMonths months, IReadOnlyList<Account> accounts, DateOnly day, FiscalCalendar calendar)
    {
        var balances = new Dictionary<AccountKey, Amount>();
        var shown = new AccountsOfYear(accounts, day, calendar);
        var last = YearMonth.Of(day);
        var known = months.Months(DerivedKind.Accrual);
        if (known.Count > 0 && known[0].First <= day)
        {
            foreach (var (month, sums) in months.Sums(DerivedKind.Accrual, known[0], last).Where(month => month.Month != last))
            {
                foreach (var sum in sums)
                {
                    shown.Add(balances, sum.Account, month.First, sum.Debit - sum.Credit);
                }
            }
        }

        if (known.Contains(last))
        {
            AddUntil(day);
        }

        return balances.Where(balance => balance.Value != Amount.Zero).ToDictionary(balance => balance.Key, balance => balance.Value);

        void AddUntil(DateOnly until)
        {
            long[] Column(PostingField field) =>
                months.Column(DerivedKind.Accrual, last, DerivedColumns.Postings.Columns[(int)field].Name);
            var (days, keys, amounts) = (Column(PostingField.Day), Column(PostingField.Account), Column(PostingField.Amount));
            for (var row = 0; row < days.Length && days[row] <= until.Day; row++)
            {
                shown.Add(balances, new AccountKey((int)keys[row]), last.First, new Amount(amounts[row]));
            }
        }
    }
}

/// <summary>On which account something of a day is shown at the end of a later one.</summary>
internal sealed class AccountsOfYear
{
    private readonly HashSet<AccountKey> _ofProfit;
    private readonly AccountKey? _retained;
    private readonly DateOnly _yearStart;

    /// <summary>Begins for a day.</summary>
    public AccountsOfYear(IReadOnlyList<Account> accounts, DateOnly day, FiscalCalendar calendar)
    {
        _ofProfit = [.. accounts.Where(account => AccountTypes.IsProfitAndLoss(account.Type)).Select(account => account.Key)];
        _retained = accounts.FirstOrDefault(account => account.Type == AccountType.RetainedEarnings)?.Key;
        _yearStart = calendar.FiscalYear(calendar.FiscalYearOf(day)).From;
    }

    /// <summary>Adds what was posted to an account on a day.</summary>
    public void Add(Dictionary<AccountKey, Amount> balances, AccountKey account, DateOnly posted, Amount amount)
    {
        var shown = posted < _yearStart && _ofProfit.Contains(account) && _retained is { } retained ? retained : account;
        balances[shown] = balances.GetValueOrDefault(shown) + amount;
    }
}
