using Vlei.Core.Calendar;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>
/// The sums per account of several stretches of time at once. Whole months come from the sums that the store keeps
/// beside the postings; only a month that a stretch cuts is read posting by posting.
/// </summary>
public sealed class AccountSums
{
    private readonly long[,] _sums;

    private AccountSums(long[,] sums) => _sums = sums;

    /// <summary>What is posted to the account within the range of that number; debit positive.</summary>
    public Amount this[int range, int account] => new(_sums[range, account]);

    /// <summary>
    /// Adds up the postings of every account in every range; an empty range has none.
    /// Throws <see cref="OverflowException"/> where a sum does not fit.
    /// </summary>
    public static AccountSums Of(ILedger ledger, AccountingBasis basis, IReadOnlyList<DateRange> ranges)
    {
        var accounts = ledger.Accounts.Count == 0 ? 0 : ledger.Accounts.Max(account => account.Key);
        var sums = new long[ranges.Count, accounts + 1];
        var filled = ranges.Where(range => !range.IsEmpty).ToList();
        if (filled.Count == 0)
        {
            return new AccountSums(sums);
        }

        var whole = new DateRange(filled.Min(range => range.From), filled.Max(range => range.To));
        foreach (var (month, monthSums) in ledger.MonthSums(basis, whole))
        {
            MonthOfPostings? postings = null;
            for (var range = 0; range < ranges.Count; range++)
            {
                var days = ranges[range].Intersect(month.Range);
                if (days.IsEmpty)
                {
                    continue;
                }

                if (days == month.Range)
                {
                    foreach (var (account, sum) in monthSums)
                    {
                        checked
                        {
                            sums[range, account] += sum.MinorUnits;
                        }
                    }
                }
                else
                {
                    AddDays(postings ??= ledger.ReadMonth(basis, month), days, sums, range);
                }
            }
        }

        return new AccountSums(sums);
    }

    private static void AddDays(MonthOfPostings postings, DateRange days, long[,] sums, int range)
    {
        var start = FirstFrom(postings.Days, days.From.Day);
        var end = FirstFrom(postings.Days, days.To.Day + 1);
        for (var posting = start; posting < end; posting++)
        {
            checked
            {
                sums[range, postings.Accounts[posting]] += postings.Amounts[posting];
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
