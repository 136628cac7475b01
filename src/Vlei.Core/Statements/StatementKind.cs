using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>What a statement is about: which accounts stand in it, and what they show.</summary>
/// <param name="Name">Its name in layout files.</param>
/// <param name="IsOfMoment">Whether it shows balances as of a day, rather than what happened in a period.</param>
/// <param name="Shows">Which accounts it shows, each in one line.</param>
/// <param name="Computed">What else it shows, by the names of layout files.</param>
/// <param name="Shares">Which shares it takes.</param>
/// <param name="Check">What its lines must come to.</param>
internal sealed record StatementKind(
    string Name, bool IsOfMoment, Func<Account, bool> Shows, IReadOnlyList<string> Computed,
    IReadOnlyList<ShareOf> Shares, StatementCheck Check)
{
    /// <summary>Whether its rows are what changes brought in, rather than balances in their natural signs.</summary>
    public bool IsOfFlows { get; init; }

    /// <summary>That everything it is about stands in one of its lines, in words.</summary>
    public string Whole { get; init; } = "Every account stands in a line";

    /// <summary>Whether some of the records make some of a statement that looks like a whole one.</summary>
    public bool MustBalance { get; init; } = true;

    /// <summary>Whether postings on the account count towards any of its rows.</summary>
    public bool RestsOn(Account account) => Shows(account)
        || (Computed.Any(ComputedRow.HoldsProfit)
            && (AccountTypes.IsProfitAndLoss(account.Type) || account.Type == AccountType.RetainedEarnings));

    /// <summary>Profit and loss.</summary>
    public static StatementKind ProfitAndLoss { get; } = new(
        "profit-loss", IsOfMoment: false, account => AccountTypes.IsProfitAndLoss(account.Type), [],
        [ShareOf.Income, ShareOf.Column, ShareOf.Row, ShareOf.Group],
        StatementCheck.NetProfit)
    {
        MustBalance = false,
    };

    /// <summary>The balance sheet.</summary>
    public static StatementKind BalanceSheet { get; } = new(
        "balance-sheet", IsOfMoment: true,
        account => !AccountTypes.IsProfitAndLoss(account.Type) && account.Type != AccountType.RetainedEarnings,
        [ComputedRow.RetainedEarnings, ComputedRow.CurrentEarnings],
        [ShareOf.Assets, ShareOf.Column, ShareOf.Row, ShareOf.Group],
        StatementCheck.Balance);

    /// <summary>Cash flow, from net profit to the change in money.</summary>
    public static StatementKind CashFlow { get; } = new(
        "cash-flow", IsOfMoment: false,
        account => !AccountTypes.IsProfitAndLoss(account.Type) && AccountTypes.ClassOf(account.Type) != AccountClass.Money,
        [ComputedRow.NetProfit, ComputedRow.OpeningMoney], FlowShares, StatementCheck.Money)
    {
        IsOfFlows = true,
    };

    /// <summary>Cash flow, from the movements of money themselves.</summary>
    public static StatementKind CashFlowDirect { get; } = new(
        "cash-flow-direct", IsOfMoment: false, account => AccountTypes.ClassOf(account.Type) != AccountClass.Money,
        [ComputedRow.OpeningMoney], FlowShares, StatementCheck.Money with { IsAgainstAccrual = true })
    {
        IsOfFlows = true,
    };

    /// <summary>Movements in equity.</summary>
    public static StatementKind EquityMovements { get; } = new(
        "equity-movements", IsOfMoment: false,
        account => account.Type is AccountType.Equity or AccountType.RetainedEarnings,
        [ComputedRow.NetProfit, ComputedRow.OpeningEquity], FlowShares, StatementCheck.Equity);

    /// <summary>Changes in working capital.</summary>
    public static StatementKind WorkingCapital { get; } = new(
        "working-capital", IsOfMoment: false, account => AccountTypes.IsCurrent(account.Type),
        [ComputedRow.OpeningWorkingCapital], FlowShares, StatementCheck.WorkingCapital);

    /// <summary>A tax return; its accounts are those of a <see cref="TaxLedger"/>.</summary>
    public static StatementKind TaxReturn { get; } = new(
        "tax-return", IsOfMoment: false, _ => true, [], FlowShares, StatementCheck.Tax)
    {
        MustBalance = false, Whole = "Every tax code stands in a box",
    };

    /// <summary>All of them.</summary>
    public static IReadOnlyList<StatementKind> All { get; } =
        [ProfitAndLoss, BalanceSheet, CashFlow, CashFlowDirect, EquityMovements, WorkingCapital, TaxReturn];

    private static IReadOnlyList<ShareOf> FlowShares =>
        [ShareOf.Column, ShareOf.Row, ShareOf.Group];
}
