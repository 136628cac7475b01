using Vlei.Core.Money;

namespace Vlei.Records.Maps;

/// <summary>Which side a number is marked with.</summary>
internal enum NumberSide
{
    /// <summary>None: its sign says it.</summary>
    None,

    /// <summary>Debit.</summary>
    Debit,

    /// <summary>Credit.</summary>
    Credit,
}

/// <summary>A number as a file writes it.</summary>
/// <param name="Value">Its value, negative where a minus, before or behind, or brackets say so.</param>
/// <param name="Side">The side that stands beside it.</param>
/// <param name="Currency">The currency that stands beside it, as ISO 4217 has it; empty for none.</param>
internal readonly record struct SourceNumber(decimal Value, NumberSide Side, string Currency);

/// <summary>Reads numbers as files write them: with either decimal mark, any marks between thousands, signs on either side.</summary>
internal static class SourceNumbers
{
    private const int MostDigits = 18;

    // Before it groups have two or three digits, so that "12,50" is never taken for 1,250.
    private const int LastGroup = 3;

    private static readonly (string Mark, string Code)[] Symbols = [("€", "EUR"), ("£", "GBP"), ("$", ""), ("R", "ZAR")];
    private static readonly HashSet<string> Codes = [.. Currency.Codes];

    /// <summary>Reads one; false where it is none.</summary>
    /// <param name="text">The text.</param>
    /// <param name="decimalMark">A point or a comma; the other one may stand between thousands.</param>
    /// <param name="number">The number.</param>
    public static bool TryRead(ReadOnlySpan<char> text, char decimalMark, out SourceNumber number)
    {
        number = default;
        var rest = text.Trim();
        var (negative, side, currency) = (false, NumberSide.None, "");
        TakeMarks(ref rest, ref negative, ref side, ref currency);
        if (rest.Length > 1 && rest[0] == '(' && rest[^1] == ')')
        {
            rest = rest[1..^1].Trim();
            negative = true;
            TakeMarks(ref rest, ref negative, ref side, ref currency);
        }

        if (!TryDigits(rest, decimalMark, out var value))
        {
            return false;
        }

        number = new SourceNumber(negative ? -value : value, side, currency);
        return true;
    }

    /// <summary>
    /// What the marks of a number say of what its decimal mark is: a point, a comma, either (<c>'?'</c>, as in <c>1,234</c>), or nothing.
    /// </summary>
    public static char? MarkOf(string text)
    {
        const int Group = 3;
        var (point, comma) = (text.LastIndexOf('.'), text.LastIndexOf(','));
        if (point < 0 && comma < 0)
        {
            return null;
        }

        if (point >= 0 && comma >= 0)
        {
            return point > comma ? '.' : ',';
        }

        var (at, mark) = point >= 0 ? (point, '.') : (comma, ',');
        var behind = text.AsSpan(at + 1);
        var end = behind.IndexOfAnyExceptInRange('0', '9');
        var digits = end < 0 ? behind.Length : end;
        var before = text.AsSpan(0, at);
        var leading = 0;
        foreach (var letter in before)
        {
            leading += char.IsAsciiDigit(letter) ? 1 : 0;
        }

        return text.IndexOf(mark) != at ? mark == '.' ? ',' : '.'
            : digits != Group || leading is 0 or > Group || before.TrimStart("-+( ") is "0" ? mark : '?';
    }

    private static void TakeMarks(ref ReadOnlySpan<char> rest, ref bool negative, ref NumberSide side, ref string currency)
    {
        while (TakeMark(ref rest, ref negative, ref side, ref currency))
        {
        }
    }

    private static bool TakeMark(ref ReadOnlySpan<char> rest, ref bool negative, ref NumberSide side, ref string currency)
    {
        if (rest.Length < 2)
        {
            return false;
        }

        var before = rest.Length;
        if (rest[0] is '-' or '+' or '\u2212' or '\u2013')
        {
            negative ^= rest[0] != '+';
            rest = rest[1..].TrimStart();
        }
        else if (rest[^1] is '-' or '+' or '\u2212' or '\u2013')
        {
            negative ^= rest[^1] != '+';
            rest = rest[..^1].TrimEnd();
        }
        else if (rest[^1] == '%')
        {
            rest = rest[..^1].TrimEnd();
        }
        else
        {
            TakeWord(ref rest, ref side, ref currency);
        }

        return rest.Length < before;
    }

    // Letters, or a sign of a currency, before or behind the digits.
    private static void TakeWord(ref ReadOnlySpan<char> rest, ref NumberSide side, ref string currency)
    {
        var start = 0;
        while (start < rest.Length && !char.IsAsciiDigit(rest[start]) && rest[start] is not ('-' or '+' or '\u2212' or '.' or ',' or '('))
        {
            start++;
        }

        var end = rest.Length;
        while (end > start && !char.IsAsciiDigit(rest[end - 1]) && rest[end - 1] is not ('-' or '+' or '\u2212' or ')'))
        {
            end--;
        }

        var word = start > 0 ? rest[..start] : rest[end..];
        var left = start > 0 ? rest[start..] : rest[..end];
        var text = word.Trim().TrimEnd('.').ToString().ToUpperInvariant();
        if (text.Length == 0 || left.Length == 0)
        {
            return;
        }

        if (SideOf(text) is not NumberSide.None and var said)
        {
            side = said;
            rest = left;
        }
        else if (Codes.Contains(text))
        {
            currency = text;
            rest = left;
        }
        else if (Symbols.FirstOrDefault(symbol => symbol.Mark == text) is { Mark: not null } symbol)
        {
            currency = symbol.Code;
            rest = left;
        }
    }

    /// <summary>The side that a word says, in the short forms that bookkeepers write.</summary>
    public static NumberSide SideOf(string text) => text.Trim().TrimEnd('.').ToUpperInvariant() switch
    {
        "D" or "DR" or "DT" or "S" or "SOLL" or "DEBIT" or "DÉBIT" or "DEBIET" => NumberSide.Debit,
        "C" or "CR" or "KT" or "H" or "HABEN" or "CREDIT" or "CRÉDIT" or "KREDIET" => NumberSide.Credit,
        _ => NumberSide.None,
    };

    private static bool TryDigits(ReadOnlySpan<char> text, char decimalMark, out decimal value)
    {
        value = 0;
        var (units, used, scale, hasMark, group, isGrouped) = (0L, 0, 0, false, 0, false);
        foreach (var letter in text)
        {
            if (char.IsAsciiDigit(letter))
            {
                if (++used > MostDigits)
                {
                    return false;
                }

                units = (units * 10) + (letter - '0');
                scale += hasMark ? 1 : 0;
                group += hasMark ? 0 : 1;
            }
            else if (letter == decimalMark && !hasMark)
            {
                hasMark = true;
            }
            else if (hasMark || used == 0 || letter is not ('.' or ',' or ' ' or '\u00a0' or '\u202f' or '\u2009' or '\''))
            {
                return false;
            }
            else if (group is 0 or > LastGroup || (isGrouped && group == 1))
            {
                return false;
            }
            else
            {
                (group, isGrouped) = (0, true);
            }
        }

        if (isGrouped && group != LastGroup)
        {
            return false;
        }

        value = new decimal((int)units, (int)(units >> 32), 0, false, (byte)scale);
        return used > 0;
    }
}
