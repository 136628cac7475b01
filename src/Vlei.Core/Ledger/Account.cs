namespace Vlei.Core.Ledger;

/// <summary>An account of the chart.</summary>
/// <param name="Key">The number by which the book's columns know it; it never changes.</param>
/// <param name="Code">The code by which people know it.</param>
/// <param name="Name">Its name.</param>
/// <param name="Type">What it is.</param>
/// <param name="ParentKey">The account that it is part of, of the same type; or nothing.</param>
/// <param name="Active">Whether it is still used.</param>
/// <param name="CashFlow">Where the cash flow statement shows its changes, where the records say so.</param>
public sealed record Account(
    AccountKey Key, string Code, string Name, AccountType Type, AccountKey? ParentKey, bool Active, CashFlowActivity? CashFlow = null)
{
    /// <summary>The tag of an account whose type was taken by guess and is not confirmed: why it was taken.</summary>
    public const string TypeGuess = "type-guess";

    /// <summary>What it is tagged with, by the name of the tag.</summary>
    public IReadOnlyDictionary<string, string> Tags { get; init; } = NoTags;

    private static readonly IReadOnlyDictionary<string, string> NoTags = new Dictionary<string, string>();

    /// <summary>Where the cash flow statement shows its changes.</summary>
    public CashFlowActivity Activity => CashFlow ?? AccountTypes.ActivityOf(Type);
}
