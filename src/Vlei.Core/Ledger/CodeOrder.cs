namespace Vlei.Core.Ledger;

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

    /// <summary>
    /// A text by which a name has its place in the order of names, letter by letter; of equal ones the names must be compared. Nothing
    /// where a name has other letters than those of ASCII.
    /// </summary>
    public static string? KeyOf(string name)
    {
        // Digits come before all letters, but as what they are where a name begins with them; of two numbers the longer is greater.
        const char Digits = '\u0001';
        var key = name.Length <= 128 ? stackalloc char[4 * name.Length] : new char[4 * name.Length];
        var length = 0;
        for (ReadOnlySpan<char> rest = name; !rest.IsEmpty;)
        {
            var run = Run(rest);
            rest = rest[run.Length..];
            if (run.ContainsAnyExceptInRange(' ', '~'))
            {
                return null;
            }

            if (char.IsAsciiDigit(run[0]))
            {
                key[length] = length == 0 ? '0' : Digits;
                length++;
                run = run.TrimStart('0');
                key[length++] = (char)run.Length;
            }

            run.ToUpperInvariant(key[length..]);
            length += run.Length;
        }

        return new string(key[..length]);
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
