using System.Globalization;
using System.Text.RegularExpressions;

namespace Vlei.Core.Calendar;

/// <summary>What was probably meant by a period that is written in another way than ISO 8601 has it.</summary>
internal static partial class PeriodSlips
{
    // What is typed is short; in milliseconds.
    private const int Patience = 1000;

    private static readonly string[] Parts = ["a", "b", "c"];

    private static readonly Dictionary<string, string> Words = new(StringComparer.OrdinalIgnoreCase)
    {
        ["wtd"] = "week-to-date", ["mtd"] = "month-to-date", ["qtd"] = "quarter-to-date", ["ytd"] = "year-to-date",
        ["now"] = "today", ["everything"] = "all", ["always"] = "all",
    };

    private static readonly string[] Months = CultureInfo.InvariantCulture.DateTimeFormat.MonthNames[..12];

    /// <summary>The right forms of what was meant; none where nothing is recognised.</summary>
    public static IReadOnlyList<string> Meant(string text, WorkingDay today)
    {
        var typed = text.Trim();
        if (Words.TryGetValue(typed, out var word))
        {
            return [word];
        }

        if (RangeWithDots().Match(typed) is { Success: true } range)
        {
            var (from, to) = (Side(range.Groups["from"].Value, today), Side(range.Groups["to"].Value, today));
            return from is null || to is null ? [] : [$"{from}/{to}"];
        }

        if (ToDate().Match(typed) is { Success: true } toDate)
        {
            return [toDate.Groups["word"].Value.ToLowerInvariant()];
        }

        if (Numbers().Match(typed) is { Success: true } numbers)
        {
            int[] read = [.. Parts.Select(name => numbers.Groups[name]).Where(group => group.Success)
                .Select(group => int.Parse(group.Value, CultureInfo.InvariantCulture))];
            return [.. (read.Length == 3 ? OfDay(read) : OfMonth(read)).Distinct()];
        }

        return Basic().Match(typed) is { Success: true } basic
            && Day(NumberIn(basic, "year"), NumberIn(basic, "month"), NumberIn(basic, "day")) is { } day ? [day]
            : OfName(typed, today) is { } named ? [named] : [];
    }

    private static int NumberIn(Match match, string name) => int.Parse(match.Groups[name].ValueSpan, CultureInfo.InvariantCulture);

    // A side of a range may be as it should be, or be a slip itself.
    private static string? Side(string text, WorkingDay today) => text.Length == 0 ? "" : Meant(text, today) is [var meant, ..] ? meant
        : IsoForm().IsMatch(text) ? text : null;

    // A year is what has four digits; day and month are told apart where one is more than twelve.
    private static IEnumerable<string> OfDay(int[] numbers)
    {
        var (year, one, other) = numbers[0] > 99 ? (numbers[0], numbers[1], numbers[2]) : (numbers[2], numbers[1], numbers[0]);
        year += year < 100 ? 2000 : 0;
        if (Day(year, one, other) is { } day)
        {
            yield return day;
        }

        if (numbers[0] <= 99 && Day(year, other, one) is { } swapped)
        {
            yield return swapped;
        }
    }

    private static IEnumerable<string> OfMonth(int[] numbers)
    {
        var (year, month) = numbers[0] > 99 ? (numbers[0], numbers[1]) : (numbers[1], numbers[0]);
        if (year is >= PeriodGrammar.FirstYear and <= PeriodGrammar.LastYear && month is >= 1 and <= 12)
        {
            yield return $"{year:D4}-{month:D2}";
        }
    }

    // The last one that has begun, where no year is said.
    private static string? OfName(string typed, WorkingDay today)
    {
        var match = MonthName().Match(typed);
        var month = match.Success ? Array.FindIndex(Months, name => IsName(match.Groups["month"].Value, name)) + 1 : 0;
        return month == 0 ? null
            : match.Groups["year"].Success ? $"{match.Groups["year"].Value}-{month:D2}"
            : $"{(month <= today.Date.Month ? today.Date.Year : today.Date.Year - 1):D4}-{month:D2}";
    }

    private static bool IsName(string word, string month) => month.Equals(word, StringComparison.OrdinalIgnoreCase)
        || (word.Length >= 3 && month.StartsWith(word, StringComparison.OrdinalIgnoreCase));

    private static string? Day(int year, int month, int day) =>
        year is >= PeriodGrammar.FirstYear and <= PeriodGrammar.LastYear && month is >= 1 and <= 12
            && day >= 1 && day <= DateTime.DaysInMonth(year, month) ? $"{year:D4}-{month:D2}-{day:D2}" : null;

    [GeneratedRegex(@"^(?<from>.*?)\s*\.\.\.?\s*(?<to>.*)$", RegexOptions.ExplicitCapture, Patience)]
    private static partial Regex RangeWithDots();

    [GeneratedRegex(@"^(this|last)-(?<word>[a-z-]+-to-date)$", RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture, Patience)]
    private static partial Regex ToDate();

    [GeneratedRegex(@"^(?<a>\d{1,4})[-./ ](?<b>\d{1,4})([-./ ](?<c>\d{1,4}))?$", RegexOptions.ExplicitCapture, Patience)]
    private static partial Regex Numbers();

    [GeneratedRegex(@"^(?<year>\d{4})(?<month>\d\d)(?<day>\d\d)$", RegexOptions.ExplicitCapture, Patience)]
    private static partial Regex Basic();

    [GeneratedRegex("^[0-9A-Za-z-]+$", RegexOptions.None, Patience)]
    private static partial Regex IsoForm();

    [GeneratedRegex(@"^(?<month>[a-z]+)\.?[- ,/]*(?<year>\d{4})?$", RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture, Patience)]
    private static partial Regex MonthName();
}
