namespace Vlei.Core.Ledger;

/// <summary>When income and costs count.</summary>
public enum AccountingBasis
{
    /// <summary>On the date of the document.</summary>
    Accrual,

    /// <summary>When money changes hands.</summary>
    Cash,
}

/// <summary>The names of the bases.</summary>
public static class AccountingBases
{
    /// <summary>As people type them, in the order of <see cref="AccountingBasis"/>.</summary>
    public static IReadOnlyList<string> Names { get; } = ["accrual", "cash"];

    /// <summary>The name of a basis as people type it.</summary>
    public static string NameOf(AccountingBasis basis) => Names[(int)basis];
}
