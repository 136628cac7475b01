using System.Text;

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

    /// <summary>How many bytes the key of a name takes at most.</summary>
    public static int KeyLength(string name) => 3 * name.Length;

    /// <summary>
    /// Writes the bytes by which a name has its place in the order of names, one after the other; of names with equal bytes the names
    /// must be compared. Gives how many they are; less than 0 where a name has letters that it cannot be done for.
    /// </summary>
    /// <param name="name">The name.</param>
    /// <param name="key">Where they go: room for <see cref="KeyLength"/>.</param>
    public static int WriteKey(string name, Span<byte> key)
    {
        // Digits come before all letters, but as what they are where a name begins with them; of two numbers the longer is greater.
        const byte Digits = 1;
        var length = 0;
        for (ReadOnlySpan<char> rest = name; !rest.IsEmpty;)
        {
            var run = Run(rest);
            rest = rest[run.Length..];
            if (char.IsAsciiDigit(run[0]))
            {
                run = run.TrimStart('0');
                if (run.Length > byte.MaxValue)
                {
                    return -1;
                }

                (key[length], key[length + 1]) = (length == 0 ? (byte)'0' : Digits, (byte)run.Length);
                length += 2;
            }

            foreach (var letter in run)
            {
                if (letter < ' ' || char.IsSurrogate(letter))
                {
                    return -1;
                }

                var capital = char.ToUpperInvariant(letter);
                if (capital <= '~')
                {
                    key[length++] = (byte)capital;
                }
                else
                {
                    length += Encoding.UTF8.GetBytes([capital], key[length..]);
                }
            }
        }

        return length;
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
