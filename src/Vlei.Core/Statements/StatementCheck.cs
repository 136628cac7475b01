using Vlei.Core.Ledger;

namespace Vlei.Core.Statements;

/// <summary>What the lines of a statement must come to, in every column that has all postings.</summary>
/// <param name="Name">In words, as reports say it.</param>
/// <param name="Expected">What it must come to.</param>
/// <param name="Actual">What it comes to.</param>
internal sealed record StatementCheck(string Name, Func<StatementContent, TermSums> Expected, Func<StatementContent, TermSums> Actual)
{
    /// <summary>Whether what is expected is on accrual basis, whatever the statement itself is made from.</summary>
    public bool IsAgainstAccrual { get; init; }

    /// <summary>Net profit is what all other accounts changed by.</summary>
    public static StatementCheck NetProfit { get; } = new(
        "Net profit = change in all other accounts",
        content => content.OfBook(account => !AccountTypes.IsProfitAndLoss(account.Type), 1),
        content => content.OfLines(account => true, -1));

    /// <summary>Assets are liabilities and equity.</summary>
    public static StatementCheck Balance { get; } = new(
        "Assets = liabilities + equity",
        content => content.OfLines(account => AccountTypes.IsAsset(account.Type), 1),
        content => content.WithComputed(account => !AccountTypes.IsAsset(account.Type)));

    /// <summary>What was on the money accounts and what moved is what is on them now.</summary>
    public static StatementCheck Money { get; } = new(
        "Money at the end = balances of the money accounts",
        content => content.OfBookSoFar(account => AccountTypes.ClassOf(account.Type) == AccountClass.Money),
        content => content.WithComputed(account => true));

    /// <summary>Equity at the start and its movements are equity at the end.</summary>
    public static StatementCheck Equity { get; } = new(
        "Equity at the end = assets - liabilities",
        content => content.OfBookSoFar(account => !AccountTypes.IsProfitAndLoss(account.Type) && !ComputedRow.IsEquity(account)),
        content => content.WithComputed(account => true));

    /// <summary>The boxes of a tax return hold all lines with tax.</summary>
    public static StatementCheck Tax { get; } = new(
        "The boxes hold every line with a tax code",
        content => content.OfBook(account => true, 1),
        content => content.OfLines(account => true, 1));

    /// <summary>Working capital at the start and its changes are working capital at the end.</summary>
    public static StatementCheck WorkingCapital { get; } = new(
        "Working capital at the end = current assets - current liabilities",
        content => content.OfBookSoFar(account => AccountTypes.IsCurrent(account.Type)),
        content => content.WithComputed(account => true, 1));
}
