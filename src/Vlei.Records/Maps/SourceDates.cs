using Vlei.Core.Calendar;

namespace Vlei.Records.Maps;

/// <summary>In which order a file writes days: the parts may stand between any marks, and months may be names.</summary>
public enum DateOrder
{
    /// <summary>As ISO 8601 does.</summary>
    YearMonthDay,

    /// <summary>As most of the world does.</summary>
    DayMonthYear,

    /// <summary>As the United States do.</summary>
    MonthDayYear,

    /// <summary>As days since the end of 1899, as spreadsheets count them.</summary>
    Serial,
}

/// <summary>Reads days as files write them.</summary>
internal static class SourceDates
{
    private const int Century = 100;
    private const int LastShortYear = 69;
    private const int CompactLength = 8;

    private static readonly string[] Names = ["year-month-day", "day-month-year", "month-day-year", "serial"];

    /// <summary>The words for the orders, as maps have them.</summary>
    public static IReadOnlyList<string> OrderNames => Names;

    /// <summary>The word for an order.</summary>
    public static string NameOf(DateOrder order) => Names[(int)order];

    /// <summary>Reads a day; what stands behind it, such as a time, is left out.</summary>
    public static bool TryRead(string text, DateOrder order, MapWords words, out DateOnly day)
    {
        day = default;
        var parts = (stackalloc int[3]);
        if (order == DateOrder.Serial)
        {
            return TrySerial(text, out day);
        }

        if (!TryParts(text, words, parts, out var named, out var compact))
        {
            return false;
        }

        if (compact)
        {
            Split(parts, order);
        }

        // A year of two digits that comes first would be read out of many days that begin with one.
        if (order == DateOrder.YearMonthDay && named < 0 && parts[0] < Century)
        {
            return false;
        }

        var (year, month, date) = named >= 0 ? Named(parts, named) : order switch
        {
            DateOrder.YearMonthDay => (parts[0], parts[1], parts[2]),
            DateOrder.DayMonthYear => (parts[2], parts[1], parts[0]),
            _ => (parts[2], parts[0], parts[1]),
        };
        year = year < Century ? year + (year > LastShortYear ? 1900 : 2000) : year;
        if (year is < PeriodGrammar.FirstYear or > PeriodGrammar.LastYear || month is < 1 or > 12 || date < 1
            || date > DateTime.DaysInMonth(year, month))
        {
            return false;
        }

        day = new DateOnly(year, month, date);
        return true;
    }

    /// <summary>Whether a day is written with dots, as only those do who write the day first, or with the name of a month.</summary>
    public static bool IsUnmistakable(string text) => text.Count(letter => letter == '.') == 2 || text.Any(char.IsLetter);

    private static bool TrySerial(string text, out DateOnly day)
    {
        const int First = 20_000;
        const int Last = 80_000;
        var isOne = int.TryParse(text.AsSpan(0, text.IndexOf('.') is > 0 and var point ? point : text.Length), out var number)
            && number is > First and < Last;
        day = isOne ? new DateOnly(1899, 12, 30).AddDays(number) : default;
        return isOne;
    }

    // Three numbers, one of which may be the name of a month; or eight digits.
    private static bool TryParts(string text, MapWords words, Span<int> parts, out int named, out bool compact)
    {
        (named, compact) = (-1, false);
        var (at, count) = (0, 0);
        while (at < text.Length && count < parts.Length)
        {
            var start = at;
            if (char.IsAsciiDigit(text[at]))
            {
                while (at < text.Length && char.IsAsciiDigit(text[at]))
                {
                    at++;
                }

                if (at - start > CompactLength)
                {
                    return false;
                }

                parts[count++] = int.Parse(text.AsSpan(start, at - start));
                compact = count == 1 && at - start == CompactLength;
            }
            else if (char.IsLetter(text[at]) && named < 0)
            {
                while (at < text.Length && char.IsLetter(text[at]))
                {
                    at++;
                }

                if (words.MonthOf(text[start..at].ToLowerInvariant()) is > 0 and var month)
                {
                    named = count;
                    parts[count++] = month;
                }
                else if (!IsEndingOfDay(text.AsSpan(start, at - start)))
                {
                    return false;
                }
            }
            else if (text[at] is '-' or '/' or '.' or ' ' or ',' or '\u00a0' or '\'')
            {
                at++;
            }
            else
            {
                return false;
            }

            if (compact)
            {
                break;
            }
        }

        return (compact || count == parts.Length) && (at == text.Length || text[at] is 'T' or ' ');
    }

    // 1st, 2nd, 3rd, 4th; 1er.
    private static bool IsEndingOfDay(ReadOnlySpan<char> letters) => letters is "st" or "nd" or "rd" or "th" or "er";

    private static void Split(Span<int> parts, DateOrder order)
    {
        var number = parts[0];
        (parts[0], parts[1], parts[2]) = order == DateOrder.YearMonthDay
            ? (number / 10_000, number / Century % Century, number % Century)
            : (number / 1_000_000, number / 10_000 % Century, number % 10_000);
    }

    // Where the month has a name, what is no day of a month is the year.
    private static (int Year, int Month, int Day) Named(ReadOnlySpan<int> parts, int named)
    {
        var (first, second) = named == 0 ? (parts[1], parts[2]) : named == 1 ? (parts[0], parts[2]) : (parts[0], parts[1]);
        return first > 31 ? (first, parts[named], second) : (second, parts[named], first);
    }
}
