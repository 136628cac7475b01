using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Statements;

/// <summary>The sums that a statement's rows are made of, each in the natural sign of its section, one per figure.</summary>
/// <param name="accounts">All accounts.</param>
/// <param name="sums">
/// Per figure, the sums of its days; behind those, where the layout rests on it, per figure the sums of the days before
/// it, or, for a report of a moment, of the fiscal years that ended before it.
/// </param>
/// <param name="figures">How many figures a row has.</param>
internal sealed class StatementSums(IReadOnlyList<Account> accounts, AccountSums sums, int figures)
{
    /// <summary>What is posted to one account itself.</summary>
    public Amount[] Of(Account account)
    {
        var isCredit = AccountTypes.IsCreditPositive(account.Type);
        return Each(figure => isCredit ? -sums[figure, account.Key] : sums[figure, account.Key]);
    }

    /// <summary>What is posted to all accounts of a type.</summary>
    public Amount[] Of(AccountType type) =>
        accounts.Where(account => account.Type == type).Select(Of).Aggregate(Each(_ => Amount.Zero), Add);

    /// <summary>
    /// Profit, positive: of the years before with what is posted to retained earnings, or of the fiscal year itself.
    /// </summary>
    public Amount[] Earnings(bool ofEarlierYears)
    {
        var earlier = Profit(figure => figures + figure);
        return ofEarlierYears ? Add(earlier, Of(AccountType.RetainedEarnings)) : Subtract(Profit(), earlier);
    }

    /// <summary>Net profit; positive for a profit.</summary>
    public Amount[] Profit() => Profit(figure => figure);

    /// <summary>Whether an account's changes are shown among the flows of an activity.</summary>
    public static bool IsFlow(Account account, CashFlowActivity activity) => account.Activity == activity
        && !AccountTypes.IsProfitAndLoss(account.Type) && AccountTypes.ClassOf(account.Type) != AccountClass.Money;

    /// <summary>The money that an account's change brought in: less of an asset, or more of what is owed.</summary>
    public Amount[] FlowsOf(Account account) => Each(figure => -sums[figure, account.Key]);

    /// <summary>The money that the changes of all accounts of an activity brought in.</summary>
    public Amount[] Flows(CashFlowActivity activity) => accounts.Where(account => IsFlow(account, activity))
        .Select(FlowsOf).Aggregate(Each(_ => Amount.Zero), Add);

    /// <summary>What is on the money accounts before the days of a figure, or after them; debit positive.</summary>
    public Amount[] Money(bool atEnd) => accounts
        .Where(account => AccountTypes.ClassOf(account.Type) == AccountClass.Money)
        .Select(account => Each(figure => sums[figures + figure, account.Key]
            + (atEnd ? sums[figure, account.Key] : Amount.Zero)))
        .Aggregate(Each(_ => Amount.Zero), Add);

    /// <summary>What is posted to all accounts that are not of profit and loss, debit positive.</summary>
    public Amount[] OfBalanceSheet() => accounts.Where(account => !AccountTypes.IsProfitAndLoss(account.Type))
        .Select(account => Each(figure => sums[figure, account.Key])).Aggregate(Each(_ => Amount.Zero), Add);

    /// <summary>Figure by figure, the sum.</summary>
    public static Amount[] Add(Amount[] left, Amount[] right) => [.. left.Zip(right, (one, other) => one + other)];

    /// <summary>Figure by figure, the difference.</summary>
    public static Amount[] Subtract(Amount[] left, Amount[] right) => [.. left.Zip(right, (one, other) => one - other)];

    private Amount[] Profit(Func<int, int> rangeOf) => accounts.Where(account => AccountTypes.IsProfitAndLoss(account.Type))
        .Select(account => Each(figure => -sums[rangeOf(figure), account.Key])).Aggregate(Each(_ => Amount.Zero), Add);

    private Amount[] Each(Func<int, Amount> amountOf) => [.. Enumerable.Range(0, figures).Select(amountOf)];
}
