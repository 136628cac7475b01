using Vlei.Core.Calendar;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>What is posted to one account in one month.</summary>
/// <param name="Account">The key of the account.</param>
/// <param name="Debit">The sum of its debits; positive.</param>
/// <param name="Credit">The sum of its credits; positive.</param>
public readonly record struct AccountSum(int Account, Amount Debit, Amount Credit);

/// <summary>The postings of a month in the columns that sums need, ordered by day.</summary>
/// <param name="Days">The day of the month, from 1.</param>
/// <param name="Accounts">The key of the account.</param>
/// <param name="Amounts">Debit positive.</param>
public sealed record MonthOfPostings(byte[] Days, int[] Accounts, long[] Amounts);

/// <summary>
/// The records of a book as the computation reads them, all as of one moment: what an import changes meanwhile is not
/// seen. The store stands behind it.
/// </summary>
public interface ILedger
{
    /// <summary>The number of the last import that is seen; 0 before the first.</summary>
    long Revision { get; }

    /// <summary>All accounts.</summary>
    IReadOnlyList<Account> Accounts { get; }

    /// <summary>The first and the last day of any document, or nothing where there is none.</summary>
    DateRange? Extent { get; }

    /// <summary>The sums per account of each month that has postings and touches the range, oldest first.</summary>
    IEnumerable<(YearMonth Month, AccountSum[] Sums)> MonthSums(AccountingBasis basis, DateRange range);

    /// <summary>The postings of one month.</summary>
    MonthOfPostings ReadMonth(AccountingBasis basis, YearMonth month);
}
