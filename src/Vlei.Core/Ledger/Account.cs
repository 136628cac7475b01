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

/// <summary>The order in which accounts are listed: by code, runs of digits by their value (900 before 1000).</summary>
public sealed class CodeOrder : IComparer<string>
{
    private readonly StringComparison _letters;

    private CodeOrder(StringComparison letters) => _letters = letters;

    /// <summary>That of codes.</summary>
    public static CodeOrder Instance { get; } = new(StringComparison.Ordinal);

    /// <summary>The same without regard to capitals, for names.</summary>
    public static CodeOrder OfNames { get; } = new(StringComparison.OrdinalIgnoreCase);

    /// <inheritdoc/>
    public int Compare(string? x, string? y)
    {
        ReadOnlySpan<char> left = x, right = y;
        while (!left.IsEmpty && !right.IsEmpty)
        {
            var leftRun = Run(left);
            var rightRun = Run(right);
            var order = char.IsAsciiDigit(leftRun[0]) && char.IsAsciiDigit(rightRun[0])
                ? CompareNumbers(leftRun, rightRun)
                : leftRun.CompareTo(rightRun, _letters);
            if (order != 0)
            {
                return order;
            }

            left = left[leftRun.Length..];
            right = right[rightRun.Length..];
        }

        var byLength = left.Length.CompareTo(right.Length);
        return byLength != 0 ? byLength : string.Compare(x, y, _letters);
    }

    private static ReadOnlySpan<char> Run(ReadOnlySpan<char> text)
    {
        var end = char.IsAsciiDigit(text[0])
            ? text.IndexOfAnyExceptInRange('0', '9')
            : text.IndexOfAnyInRange('0', '9');
        return end < 0 ? text : text[..end];
    }

    private static int CompareNumbers(ReadOnlySpan<char> left, ReadOnlySpan<char> right)
    {
        left = left.TrimStart('0');
        right = right.TrimStart('0');
        return left.Length != right.Length ? left.Length - right.Length : left.CompareTo(right, StringComparison.Ordinal);
    }
}
