using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>The accounts that rows are posted to where a file names none.</summary>
internal static class PostingAccounts
{
    private static readonly Dictionary<string, (IReadOnlyList<AccountType> Types, string Code, string Name)> All = new()
    {
        ["money"] = ([AccountType.Bank, AccountType.Cash], "1000", "Bank"),
        ["receivable"] = ([AccountType.Receivable], "1100", "Trade receivables"),
        ["payable"] = ([AccountType.Payable], "2100", "Trade payables"),
        ["income"] = ([AccountType.Income], "4000", "Sales"),
        ["expense"] = ([AccountType.CostOfSales, AccountType.Expense], "5000", "Purchases"),
        ["tax"] = ([AccountType.Tax], "2200", "Sales tax"),
        ["opening"] = ([AccountType.RetainedEarnings, AccountType.Equity], "3900", "Retained earnings"),
    };

    /// <summary>The types of accounts that serve a purpose, and the code and the name of a new one.</summary>
    public static (IReadOnlyList<AccountType> Types, string Code, string Name) Of(string purpose) => All[purpose];
}
