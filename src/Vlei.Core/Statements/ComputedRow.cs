using Vlei.Core.Ledger;

namespace Vlei.Core.Statements;

/// <summary>What a statement shows that no single account holds.</summary>
internal static class ComputedRow
{
    /// <summary>Net profit; positive for a profit.</summary>
    public const string NetProfit = "net-profit";

    /// <summary>The profit of earlier fiscal years, with what is posted to retained earnings; credit positive.</summary>
    public const string RetainedEarnings = "retained-earnings";

    /// <summary>The profit of the fiscal year so far.</summary>
    public const string CurrentEarnings = "current-earnings";

    /// <summary>What is on the money accounts at the start; debit positive.</summary>
    public const string OpeningMoney = "opening-money";

    /// <summary>What belongs to the owners at the start; credit positive.</summary>
    public const string OpeningEquity = "opening-equity";

    /// <summary>Current assets less current liabilities at the start; debit positive.</summary>
    public const string OpeningWorkingCapital = "opening-working-capital";

    /// <summary>What counts towards it.</summary>
    public static IReadOnlyList<Term> TermsOf(string name, IReadOnlyList<Account> accounts) =>
    [
        .. accounts.SelectMany(account => (name, AccountTypes.IsProfitAndLoss(account.Type)) switch
        {
            (NetProfit, true) => [new Term(account.Key, Span.Days, -1)],
            (RetainedEarnings, true) => [new Term(account.Key, Span.EarlierYears, -1)],
            (RetainedEarnings, false) when account.Type == AccountType.RetainedEarnings => [new Term(account.Key, Span.Days, -1)],
            (CurrentEarnings, true) =>
                [new Term(account.Key, Span.Days, -1), new Term(account.Key, Span.EarlierYears, 1)],
            (OpeningMoney, false) when AccountTypes.ClassOf(account.Type) == AccountClass.Money =>
                [new Term(account.Key, Span.Before, 1)],
            (OpeningWorkingCapital, false) when AccountTypes.IsCurrent(account.Type) => [new Term(account.Key, Span.Before, 1)],
            (OpeningEquity, var isProfit) when isProfit || IsEquity(account) => [new Term(account.Key, Span.Before, -1)],
            _ => Array.Empty<Term>(),
        }),
    ];

    /// <summary>Whether profits are a part of it.</summary>
    public static bool HoldsProfit(string name) => name is NetProfit or RetainedEarnings or CurrentEarnings or OpeningEquity;

    /// <summary>Whether the account is one of the owners'.</summary>
    public static bool IsEquity(Account account) => account.Type is AccountType.Equity or AccountType.RetainedEarnings;
}
