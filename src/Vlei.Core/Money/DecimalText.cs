using System.Globalization;

namespace Vlei.Core.Money;

/// <summary>What reading a number from text came to.</summary>
public enum DecimalTextResult
{
    /// <summary>The text is a number.</summary>
    Read,

    /// <summary>The text is not a number.</summary>
    NotANumber,

    /// <summary>The text is a number, but has more decimals than fit.</summary>
    TooManyDecimals,

    /// <summary>The text is a number, but too large for 64 bits of its smallest unit.</summary>
    TooLarge,
}

/// <summary>
/// Decimal numbers as record sets and JSON write them: an optional minus, digits, a point, digits. No thousands
/// separators, no exponent, no blanks: what is not exactly this is refused, never guessed.
/// </summary>
public static class DecimalText
{
    /// <summary>The most characters that a number takes: a sign, all digits, a point, and a zero before it.</summary>
    public const int Longest = 24;

    /// <summary>
    /// Reads UTF-8 text into a whole number of units of which there are 10^<paramref name="decimals"/> to one.
    /// Zeros behind the last decimal that fits are accepted.
    /// </summary>
    public static DecimalTextResult Read(ReadOnlySpan<byte> text, int decimals, out long units)
    {
        units = 0;
        var negative = text.Length > 0 && text[0] == (byte)'-';
        var digits = negative ? text[1..] : text;
        var point = digits.IndexOf((byte)'.');
        var whole = point < 0 ? digits : digits[..point];
        var fraction = point < 0 ? default : digits[(point + 1)..];
        if (whole.IsEmpty || (point >= 0 && fraction.IsEmpty)
            || whole.ContainsAnyExceptInRange((byte)'0', (byte)'9')
            || fraction.ContainsAnyExceptInRange((byte)'0', (byte)'9'))
        {
            return DecimalTextResult.NotANumber;
        }

        if (fraction.Length > decimals && fraction[decimals..].ContainsAnyExcept((byte)'0'))
        {
            return DecimalTextResult.TooManyDecimals;
        }

        var sum = 0L;
        for (var place = 0; place < whole.Length + decimals; place++)
        {
            var behind = place - whole.Length;
            var digit = behind < 0 ? whole[place] - '0' : behind < fraction.Length ? fraction[behind] - '0' : 0;
            if (sum > (long.MaxValue - digit) / 10)
            {
                return DecimalTextResult.TooLarge;
            }

            sum = (sum * 10) + digit;
        }

        units = negative ? -sum : sum;
        return DecimalTextResult.Read;
    }

    /// <summary>Writes <paramref name="units"/> with exactly <paramref name="decimals"/> decimals: <c>-12.50</c>.</summary>
    public static string Write(long units, int decimals)
    {
        // Small numbers are at hand.
        if (decimals == 0)
        {
            return units.ToString(CultureInfo.InvariantCulture);
        }

        Span<char> text = stackalloc char[Longest];
        return text[..Write(units, decimals, text)].ToString();
    }

    /// <summary>The same into <paramref name="text"/>, which has room for <see cref="Longest"/> characters; how many it took.</summary>
    public static int Write(long units, int decimals, Span<char> text)
    {
        // The magnitude of the least number there is does not fit a signed one.
        var rest = units < 0 ? (ulong)-(units + 1) + 1 : (ulong)units;
        var place = Longest;
        Span<char> backwards = stackalloc char[Longest];
        for (var digit = 0; digit <= decimals || rest > 0; digit++)
        {
            if (digit == decimals && decimals > 0)
            {
                backwards[--place] = '.';
            }

            (rest, var last) = Math.DivRem(rest, 10);
            backwards[--place] = (char)('0' + last);
        }

        if (units < 0)
        {
            backwards[--place] = '-';
        }

        backwards[place..].CopyTo(text);
        return Longest - place;
    }
}
