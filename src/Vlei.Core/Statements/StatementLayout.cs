using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>A part of a statement's layout.</summary>
/// <param name="Key">The key of its row; the total of what has several rows is <c>total-</c> and this.</param>
/// <param name="Label">What it is called.</param>
public abstract record StatementPart(string Key, string Label);

/// <summary>A heading, other parts under it, and their total.</summary>
/// <param name="Key">The key of the heading.</param>
/// <param name="Label">The heading.</param>
/// <param name="Parts">What stands under it; all of the same natural sign.</param>
public sealed record StatementGroup(string Key, string Label, IReadOnlyList<StatementPart> Parts)
    : StatementPart(Key, Label);

/// <summary>A heading, the accounts of one type under it, and their total.</summary>
/// <param name="Key">The key of the heading.</param>
/// <param name="Label">The heading.</param>
/// <param name="Type">The type whose accounts stand in it.</param>
public sealed record StatementSection(string Key, string Label, AccountType Type) : StatementPart(Key, Label);

/// <summary>The accounts of one type, without a heading of their own.</summary>
/// <param name="Type">The type.</param>
public sealed record StatementAccounts(AccountType Type) : StatementPart("", "");

/// <summary>
/// Profit that was never closed into an account: of this fiscal year, or of all the years before it together with what
/// is posted to the account for retained earnings.
/// </summary>
/// <param name="Key">The key of the row.</param>
/// <param name="Label">What it is called where no account is.</param>
/// <param name="OfEarlierYears">Whether it is that of the years before.</param>
public sealed record StatementEarnings(string Key, string Label, bool OfEarlierYears) : StatementPart(Key, Label);

/// <summary>The net profit of the period, in one row.</summary>
/// <param name="Key">The key of the row.</param>
/// <param name="Label">What it is called.</param>
public sealed record StatementProfit(string Key, string Label) : StatementPart(Key, Label);

/// <summary>
/// What the changes of the balance-sheet accounts of one activity brought in money, an account a row; money accounts
/// themselves are left out.
/// </summary>
/// <param name="Activity">The activity.</param>
public sealed record StatementFlows(CashFlowActivity Activity) : StatementPart("", "");

/// <summary>What is on the money accounts at the start of the period, or at its end.</summary>
/// <param name="Key">The key of the row.</param>
/// <param name="Label">What it is called.</param>
/// <param name="AtEnd">Whether it is the end.</param>
public sealed record StatementMoney(string Key, string Label, bool AtEnd) : StatementPart(Key, Label);

/// <summary>What all accounts that are not of profit and loss changed by.</summary>
public sealed record StatementOtherAccounts() : StatementPart("", "");

/// <summary>What other parts come to.</summary>
/// <param name="Key">The key of the row.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Plus">The keys of the parts that are added.</param>
/// <param name="Minus">The keys of the parts that are taken away.</param>
/// <param name="NeedsAnyOf">The parts of which one must have rows for this to be shown; empty where it always is.</param>
public sealed record StatementResult(
    string Key, string Label, IReadOnlyList<string> Plus, IReadOnlyList<string> Minus, IReadOnlyList<string> NeedsAnyOf)
    : StatementPart(Key, Label);

/// <summary>The rows of a statement, from the top down.</summary>
/// <param name="Parts">Its parts; the last is what the whole comes to.</param>
/// <param name="IsOfMoment">Whether it shows balances as of a day, rather than what happened in a period.</param>
/// <param name="PercentOf">Which parts' totals percentages can be taken of.</param>
/// <param name="Check">What must hold: the last part is what another comes to.</param>
public sealed record StatementLayout(
    IReadOnlyList<StatementPart> Parts, bool IsOfMoment, IReadOnlyDictionary<PercentOf, string> PercentOf,
    (string Name, StatementPart Against) Check)
{
    /// <summary>Whether it rests on what was posted before the days that it shows.</summary>
    public bool RestsOnEarlier => IsOfMoment || Parts.OfType<StatementMoney>().Any();

    private static readonly StatementGroup Assets = new("assets", "Assets",
    [
        Section("Bank accounts", AccountType.Bank),
        Section("Cash", AccountType.Cash),
        Section("Receivables", AccountType.Receivable),
        Section("Inventory", AccountType.Inventory),
        Section("Other current assets", AccountType.CurrentAsset),
        Section("Fixed assets", AccountType.FixedAsset),
        Section("Other assets", AccountType.OtherAsset),
    ]);

    /// <summary>Profit and loss.</summary>
    public static StatementLayout ProfitAndLoss { get; } = new(
    [
        new StatementSection("income", "Income", AccountType.Income),
        new StatementSection("cost-of-sales", "Cost of sales", AccountType.CostOfSales),
        new StatementResult("gross-profit", "Gross profit", ["income"], ["cost-of-sales"], ["cost-of-sales"]),
        new StatementSection("expenses", "Expenses", AccountType.Expense),
        new StatementResult(
            "operating-profit", "Operating profit", ["income"], ["cost-of-sales", "expenses"],
            ["other-income", "other-expenses"]),
        new StatementSection("other-income", "Other income", AccountType.OtherIncome),
        new StatementSection("other-expenses", "Other expenses", AccountType.OtherExpense),
        new StatementResult(
            "net-profit", "Net profit", ["income", "other-income"], ["cost-of-sales", "expenses", "other-expenses"], []),
    ], IsOfMoment: false, new Dictionary<PercentOf, string> { [Reports.PercentOf.Income] = "income" },
        ("Net profit = change in all other accounts", new StatementOtherAccounts()));

    /// <summary>The balance sheet.</summary>
    public static StatementLayout BalanceSheet { get; } = new(
    [
        Assets,
        new StatementGroup("liabilities", "Liabilities",
        [
            Section("Cards", AccountType.Card),
            Section("Payables", AccountType.Payable),
            Section("Tax", AccountType.Tax),
            Section("Other current liabilities", AccountType.CurrentLiability),
            Section("Long-term liabilities", AccountType.LongTermLiability),
        ]),
        new StatementGroup("equity", "Equity",
        [
            new StatementAccounts(AccountType.Equity),
            new StatementEarnings("retained-earnings", "Retained earnings", OfEarlierYears: true),
            new StatementEarnings("current-earnings", "Earnings of this fiscal year", OfEarlierYears: false),
        ]),
        new StatementResult(
            "total-liabilities-and-equity", "Total liabilities and equity", ["liabilities", "equity"], [], []),
    ], IsOfMoment: true, new Dictionary<PercentOf, string> { [Reports.PercentOf.Assets] = "assets" },
        ("Assets = liabilities + equity", Assets));

    /// <summary>Cash flow, indirect: from net profit to the change in money.</summary>
    public static StatementLayout CashFlow { get; } = new(
    [
        new StatementGroup("operating", "Operating activities",
        [
            new StatementProfit("net-profit", "Net profit"),
            new StatementFlows(CashFlowActivity.Operating),
        ]),
        new StatementGroup("investing", "Investing activities", [new StatementFlows(CashFlowActivity.Investing)]),
        new StatementGroup("financing", "Financing activities", [new StatementFlows(CashFlowActivity.Financing)]),
        new StatementResult(
            "change-in-money", "Change in money", ["operating", "investing", "financing"], [], []),
        new StatementMoney("opening-money", "Money at the start", AtEnd: false),
        new StatementResult("closing-money", "Money at the end", ["change-in-money", "opening-money"], [], []),
    ], IsOfMoment: false, new Dictionary<PercentOf, string>(),
        ("Money at the end = balances of the money accounts", new StatementMoney("", "", AtEnd: true)));

    private static StatementSection Section(string label, AccountType type) => new(AccountTypes.NameOf(type), label, type);
}
