using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Statements;

/// <summary>The sums that a statement's rows are made of, each in the natural sign of its section, one per figure.</summary>
/// <param name="accounts">All accounts.</param>
/// <param name="sums">
/// Per figure, the sums of its days; for a report of a moment, behind those, per figure the sums of the fiscal years that
/// ended before it.
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
        return ofEarlierYears ? Add(earlier, Of(AccountType.RetainedEarnings)) : Subtract(Profit(figure => figure), earlier);
    }

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
