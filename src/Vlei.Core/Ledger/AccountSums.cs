using Vlei.Core.Calendar;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>
/// The debits and credits per account of several stretches of time at once. Whole months come from the sums that the
/// store keeps beside the postings; only a month that a stretch cuts is read posting by posting.
/// </summary>
public sealed class AccountSums
{
    private readonly long[,] _debits;
    private readonly long[,] _credits;

    private AccountSums(int ranges, int accounts) =>
        (_debits, _credits) = (new long[ranges, accounts], new long[ranges, accounts]);

    /// <summary>What is posted to the account within the range of that number; debit positive.</summary>
    public Amount this[int range, int account] => Debit(range, account) - Credit(range, account);

    /// <summary>The debits of the account within the range; positive.</summary>
    public Amount Debit(int range, int account) => new(_debits[range, account]);

    /// <summary>The credits of the account within the range; positive.</summary>
    public Amount Credit(int range, int account) => new(_credits[range, account]);

    /// <summary>
    /// Adds up the postings of every account in every range; an empty range has none.
    /// Throws <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    public static AccountSums Of(ILedger ledger, AccountingBasis basis, IReadOnlyList<DateRange> ranges)
    {
        var accounts = ledger.Accounts.Count == 0 ? 0 : ledger.Accounts.Max(account => account.Key);
        var sums = new AccountSums(ranges.Count, accounts + 1);
        var filled = ranges.Where(range => !range.IsEmpty).ToList();
        if (filled.Count == 0)
        {
            return sums;
        }

        var whole = new DateRange(filled.Min(range => range.From), filled.Max(range => range.To));
        foreach (var (month, monthSums) in ledger.MonthSums(basis, whole))
        {
            MonthOfPostings? postings = null;
            for (var range = 0; range < ranges.Count; range++)
            {
                var days = ranges[range].Intersect(month.Range);
                if (days == month.Range)
                {
                    sums.AddMonth(range, monthSums);
                }
                else if (!days.IsEmpty)
                {
                    sums.AddDays(range, postings ??= ledger.ReadMonth(basis, month), days);
                }
            }
        }

        return sums;
    }

    private void AddMonth(int range, AccountSum[] sums)
    {
        foreach (var (account, debit, credit) in sums)
        {
            checked
            {
                _debits[range, account] += debit.MinorUnits;
                _credits[range, account] += credit.MinorUnits;
            }
        }
    }

    private void AddDays(int range, MonthOfPostings postings, DateRange days)
    {
        var start = FirstFrom(postings.Days, days.From.Day);
        var end = FirstFrom(postings.Days, days.To.Day + 1);
        for (var posting = start; posting < end; posting++)
        {
            var (account, amount) = (postings.Accounts[posting], postings.Amounts[posting]);
            checked
            {
                if (amount > 0)
                {
                    _debits[range, account] += amount;
                }
                else
                {
                    _credits[range, account] -= amount;
                }
            }
        }
    }

    // Postings are ordered by day, so the days of a range are one run.
    private static int FirstFrom(byte[] days, int day)
    {
        var (low, high) = (0, days.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (days[middle] < day)
            {
                low = middle + 1;
            }
            else
            {
                high = middle;
            }
        }

        return low;
    }
}
