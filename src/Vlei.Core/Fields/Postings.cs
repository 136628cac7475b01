using Vlei.Core.Basis;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Fields;

/// <summary>What kind of postings a figure adds up.</summary>
public enum PostingSource
{
    /// <summary>Those of the accrual basis.</summary>
    Accrual,

    /// <summary>Those of the cash basis.</summary>
    Cash,

    /// <summary>Movements of money, with what stands on their other side.</summary>
    Money,

    /// <summary>What was planned, a day after the other.</summary>
    Budget,
}

/// <summary>Reads postings of any source, month by month.</summary>
public static class Postings
{
    /// <summary>
    /// The months of the range that have postings, oldest first, each with its sums per account where they are at hand.
    /// </summary>
    public static IEnumerable<(YearMonth Month, AccountSum[]? Sums)> Months(
        ILedger ledger, PostingSource source, DateRange range) => source switch
        {
            PostingSource.Money => ledger.MonthSums(AccountingBasis.Accrual, range)
                .Select(month => (month.Month, default(AccountSum[]))),
            PostingSource.Budget => ledger.Budgets.Select(budget => budget.Month).Distinct()
                .Where(month => !month.Range.Intersect(range).IsEmpty).OrderBy(month => month.Index)
                .Select(month => (month, default(AccountSum[]))),
            _ => ledger.MonthSums(BasisOf(source), range).Select(month => (month.Month, (AccountSum[]?)month.Sums)),
        };

    /// <summary>Some columns of the postings of a month.</summary>
    /// <param name="ledger">The records.</param>
    /// <param name="source">What kind of postings.</param>
    /// <param name="month">The month.</param>
    /// <param name="fields">The columns.</param>
    /// <param name="arrays">What they may be read into, where the month that was read into it before is done with.</param>
    public static PostingMonth Read(
        ILedger ledger, PostingSource source, YearMonth month, IReadOnlyCollection<PostingField> fields,
        PostingArrays? arrays = null) => source switch
        {
            PostingSource.Money => MoneyMovements.Read(ledger, month, fields),
            PostingSource.Budget => ReadBudgets(ledger, month, fields),
            _ => ledger.ReadMonth(BasisOf(source), month, fields, arrays),
        };

    /// <summary>The postings of a basis.</summary>
    public static PostingSource Of(AccountingBasis basis) =>
        basis == AccountingBasis.Cash ? PostingSource.Cash : PostingSource.Accrual;

    /// <summary>The basis of postings that are of one; the accrual basis for others.</summary>
    public static AccountingBasis BasisOf(PostingSource source) =>
        source == PostingSource.Cash ? AccountingBasis.Cash : AccountingBasis.Accrual;

    // A month's budget is spread over its days by running totals, so that any days of it have their exact share.
    private static PostingMonth ReadBudgets(ILedger ledger, YearMonth month, IReadOnlyCollection<PostingField> fields)
    {
        var days = month.Range.Days;
        var rows = new List<(int Day, int Place, Budget Budget, long Amount)>();
        for (var place = 0; place < ledger.Budgets.Count; place++)
        {
            var budget = ledger.Budgets[place];
            for (var day = 1; day <= days && budget.Month == month; day++)
            {
                long UpTo(int last) => Rounding.Divide((Int128)budget.Amount.MinorUnits * last, days);
                rows.Add((day, place, budget, UpTo(day) - UpTo(day - 1)));
            }
        }

        rows.Sort((left, right) => (left.Day, left.Place).CompareTo((right.Day, right.Place)));
        return new PostingMonth(rows.Count, fields.Select(field => (field, rows.Select(row => field switch
        {
            PostingField.Day => row.Day,
            PostingField.Account => row.Budget.Account.Value,
            PostingField.Amount => row.Amount,
            PostingField.Document => row.Place,
            PostingField.Project => row.Budget.Project,
            PostingField.Department => row.Budget.Department,
            _ => 0L,
        }).ToArray())));
    }
}
