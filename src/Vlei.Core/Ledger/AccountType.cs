namespace Vlei.Core.Ledger;

/// <summary>What an account is; the order is the order of the statements.</summary>
public enum AccountType
{
    /// <summary>Money in a bank.</summary>
    Bank,

    /// <summary>Money in a till or a box.</summary>
    Cash,

    /// <summary>What customers owe, per contact.</summary>
    Receivable,

    /// <summary>Goods held for sale or for building.</summary>
    Inventory,

    /// <summary>What turns into money within a year.</summary>
    CurrentAsset,

    /// <summary>What is used for years.</summary>
    FixedAsset,

    /// <summary>Any other asset.</summary>
    NonCurrentAsset,

    /// <summary>A card: money that is owed to its issuer.</summary>
    Card,

    /// <summary>What is owed to suppliers, per contact.</summary>
    Payable,

    /// <summary>Sales tax owed or reclaimable.</summary>
    Tax,

    /// <summary>What is owed within a year.</summary>
    CurrentLiability,

    /// <summary>What is owed later.</summary>
    NonCurrentLiability,

    /// <summary>What the owners have put in and taken out.</summary>
    Equity,

    /// <summary>Profits of earlier years.</summary>
    RetainedEarnings,

    /// <summary>What the business earns from its work.</summary>
    Income,

    /// <summary>What the goods and the work that were sold cost.</summary>
    CostOfSales,

    /// <summary>What it costs to run the business.</summary>
    Expense,

    /// <summary>Earned beside the business.</summary>
    OtherIncome,

    /// <summary>Spent beside the business.</summary>
    OtherExpense,
}

/// <summary>What a line on an account does to the cash basis.</summary>
public enum AccountClass
{
    /// <summary>Neither money nor control.</summary>
    Other,

    /// <summary>Bank, cash or card: what is paid through it is paid.</summary>
    Money,

    /// <summary>Receivable or payable: its postings are open items until settled.</summary>
    Control,
}

/// <summary>What a movement of money is for.</summary>
public enum CashFlowActivity
{
    /// <summary>The work of the business.</summary>
    Operating,

    /// <summary>What is used for years.</summary>
    Investing,

    /// <summary>Loans and the owners.</summary>
    Financing,
}

/// <summary>What follows from an account's type.</summary>
public static class AccountTypes
{
    private static readonly string[] TypeNames =
    [
        "bank", "cash", "receivable", "inventory", "current-asset", "fixed-asset", "non-current-asset", "card", "payable",
        "tax", "current-liability", "non-current-liability", "equity", "retained-earnings", "income", "cost-of-sales",
        "expense", "other-income", "other-expense",
    ];

    /// <summary>The types' names as record sets write them, in the order of <see cref="AccountType"/>.</summary>
    public static IReadOnlyList<string> Names => TypeNames;

    /// <summary>The name of a type as record sets write it.</summary>
    public static string NameOf(AccountType type) => TypeNames[(int)type];

    /// <summary>The type of that name. Throws <see cref="ArgumentException"/> where there is none.</summary>
    public static AccountType FromName(string name) => Array.IndexOf(TypeNames, name) is >= 0 and var index
        ? (AccountType)index
        : throw new ArgumentException($"There is no account type {name}.", nameof(name));

    /// <summary>What a line on an account of the type does to the cash basis.</summary>
    public static AccountClass ClassOf(AccountType type) => type switch
    {
        AccountType.Bank or AccountType.Cash or AccountType.Card => AccountClass.Money,
        AccountType.Receivable or AccountType.Payable => AccountClass.Control,
        _ => AccountClass.Other,
    };

    /// <summary>Where the cash flow statement shows the type's changes, where an account does not say otherwise.</summary>
    public static CashFlowActivity ActivityOf(AccountType type) => type switch
    {
        AccountType.FixedAsset or AccountType.NonCurrentAsset => CashFlowActivity.Investing,
        AccountType.NonCurrentLiability or AccountType.Equity or AccountType.RetainedEarnings => CashFlowActivity.Financing,
        _ => CashFlowActivity.Operating,
    };

    /// <summary>Whether the type belongs to profit and loss, rather than to the balance sheet.</summary>
    public static bool IsProfitAndLoss(AccountType type) => type >= AccountType.Income;

    /// <summary>Whether the type is of what is owned, rather than of what is owed or belongs to the owners.</summary>
    public static bool IsAsset(AccountType type) => !IsProfitAndLoss(type) && !IsCreditPositive(type);

    /// <summary>Whether the type is of what comes in or falls due within a year, as IAS 1 has it.</summary>
    public static bool IsCurrent(AccountType type) => type is <= AccountType.CurrentAsset
        or (>= AccountType.Card and <= AccountType.CurrentLiability);

    /// <summary>Whether statements show the type's credits as positive.</summary>
    public static bool IsCreditPositive(AccountType type) => type is AccountType.Card or AccountType.Payable
        or AccountType.Tax or AccountType.CurrentLiability or AccountType.NonCurrentLiability or AccountType.Equity
        or AccountType.RetainedEarnings or AccountType.Income or AccountType.OtherIncome;
}
