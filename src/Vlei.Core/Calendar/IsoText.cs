using System.Text;

namespace Vlei.Core.Calendar;

/// <summary>Days and moments in the one form of ISO 8601 that record sets use, read from UTF-8 without allocating.</summary>
public static class IsoText
{
    private const int DayLength = 10;

    /// <summary>Reads <c>2026-03-15</c>; a day that does not exist, or is out of reach, is not read.</summary>
    public static bool TryDay(string text, out DateOnly day)
    {
        Span<byte> bytes = stackalloc byte[DayLength];
        day = default;
        return text.Length == DayLength && Encoding.UTF8.TryGetBytes(text, bytes, out _) && TryDay(bytes, out day);
    }

    /// <inheritdoc cref="TryDay(string, out DateOnly)"/>
    public static bool TryDay(ReadOnlySpan<byte> text, out DateOnly day)
    {
        day = default;
        if (text.Length != DayLength || text[4] != '-' || text[7] != '-'
            || !TryNumber(text[..4], out var year) || !TryNumber(text[5..7], out var month)
            || !TryNumber(text[8..], out var dayOfMonth)
            || year is < PeriodGrammar.FirstYear or > PeriodGrammar.LastYear || month is < 1 or > 12
            || dayOfMonth < 1 || dayOfMonth > DateTime.DaysInMonth(year, month))
        {
            return false;
        }

        day = new DateOnly(year, month, dayOfMonth);
        return true;
    }

    /// <summary>Reads <c>2026-03</c>.</summary>
    public static bool TryMonth(ReadOnlySpan<byte> text, out YearMonth month)
    {
        month = default;
        Span<byte> first = stackalloc byte[DayLength];
        if (text.Length != 7)
        {
            return false;
        }

        text.CopyTo(first);
        "-01"u8.CopyTo(first[7..]);
        var isMonth = TryDay(first, out var day);
        month = YearMonth.Of(day);
        return isMonth;
    }

    /// <summary>
    /// Whether the text is a day, or a day with a time: <c>2026-03-15T09:30</c>, with seconds, a fraction of them and
    /// an offset from universal time or without.
    /// </summary>
    public static bool IsMoment(ReadOnlySpan<byte> text)
    {
        if (text.Length <= DayLength)
        {
            return TryDay(text, out _);
        }

        if (!TryDay(text[..DayLength], out _) || text[10] != 'T' || !TakeTime(text[11..], 24, out var rest))
        {
            return false;
        }

        if (rest.Length > 0 && rest[0] == ':')
        {
            if (rest.Length < 3 || !TryNumber(rest[1..3], out var second) || second > 60)
            {
                return false;
            }

            rest = rest[3..];
            if (rest.Length > 1 && rest[0] == '.')
            {
                var end = rest[1..].IndexOfAnyExceptInRange((byte)'0', (byte)'9');
                rest = end < 0 ? default : rest[(end + 1)..];
            }
        }

        return rest.IsEmpty || rest.SequenceEqual("Z"u8)
            || (rest[0] is (byte)'+' or (byte)'-' && TakeTime(rest[1..], 15, out var tail) && tail.IsEmpty);
    }

    private static bool TakeTime(ReadOnlySpan<byte> text, int hours, out ReadOnlySpan<byte> rest)
    {
        rest = default;
        if (text.Length < 5 || text[2] != ':' || !TryNumber(text[..2], out var hour) || hour >= hours
            || !TryNumber(text[3..5], out var minute) || minute >= 60)
        {
            return false;
        }

        rest = text[5..];
        return true;
    }

    private static bool TryNumber(ReadOnlySpan<byte> digits, out int number)
    {
        number = 0;
        foreach (var digit in digits)
        {
            if (digit is < (byte)'0' or > (byte)'9')
            {
                return false;
            }

            number = (number * 10) + digit - '0';
        }

        return true;
    }
}
