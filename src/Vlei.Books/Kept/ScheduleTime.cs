using System.Globalization;
using Cronos;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>
/// When something is due again and again: in words, as <c>monthly 3 07:00</c>, or as cron has it. Moments that a change to daylight
/// saving leaves out are due right after it, and those that it gives twice are due once.
/// </summary>
public sealed class ScheduleTime
{
    private const string TimeFormat = "HH:mm";

    private static readonly string[] Days = ["sunday", "monday", "tuesday", "wednesday", "thursday", "friday", "saturday"];
    private static readonly string[] Words = ["daily", "weekdays", "weekly", "monthly", "quarterly", "yearly"];

    private readonly CronExpression _cron;

    private ScheduleTime(string text, CronExpression cron) => (Text, _cron) = (text, cron);

    /// <summary>How it is written, for messages and for help.</summary>
    public static string Forms =>
        "daily 18:00, weekdays 08:00, weekly sunday 07:00, monthly 3 07:00, monthly last 18:00, quarterly 5 07:00, yearly 03-15 07:00, "
        + "or five fields as cron has them";

    /// <summary>How it was written.</summary>
    public string Text { get; }

    /// <summary>Reads one. Throws a <see cref="ProblemException"/> where it is none.</summary>
    public static ScheduleTime Parse(string text)
    {
        var parts = text.Trim().Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (parts.Length == 0 || !Words.Contains(parts[0]))
        {
            return CronExpression.TryParse(text, out var own) && parts.Length == 5 ? new ScheduleTime(text, own)
                : throw Wrong(text, parts.Length > 0 ? Suggestion.DidYouMean(parts[0], Words) : null);
        }

        var isTime = TimeOnly.TryParseExact(
            parts[^1], TimeFormat, CultureInfo.InvariantCulture, DateTimeStyles.None, out var time);
        return isTime && Fields(parts[0], parts[1..^1]) is { } fields
            ? new ScheduleTime(
                text, CronExpression.Parse(string.Create(CultureInfo.InvariantCulture, $"{time.Minute} {time.Hour} {fields}")))
            : throw Wrong(text, Advice(parts));
    }

    /// <summary>The moments after one, in a time zone; none where it never comes, as the thirtieth of February.</summary>
    public IEnumerable<DateTimeOffset> After(DateTimeOffset moment, TimeZoneInfo zone)
    {
        for (var next = Next(moment, zone); next is { } due; next = Next(due, zone))
        {
            yield return due;
        }
    }

    /// <summary>The last moment after one and up to another, and how many others are between; nothing where there is none.</summary>
    public (DateTimeOffset Due, int Missed)? LastWithin(DateTimeOffset after, DateTimeOffset until, TimeZoneInfo zone)
    {
        (DateTimeOffset Due, int Missed)? last = null;
        foreach (var due in After(after, zone).TakeWhile(due => due <= until))
        {
            last = (due, last is { } before ? before.Missed + 1 : 0);
        }

        return last;
    }

    private DateTimeOffset? Next(DateTimeOffset moment, TimeZoneInfo zone) => _cron.GetNextOccurrence(moment, zone);

    private static string? Fields(string word, string[] rest) => (word, rest) switch
    {
        ("daily", []) => "* * *",
        ("weekdays", []) => "* * 1-5",
        ("weekly", [var day]) when Array.IndexOf(Days, day) is >= 0 and var number => $"* * {number}",
        ("monthly", ["last"]) => "L * *",
        ("monthly", [var day]) when DayOf(day) is { } number => $"{number} * *",
        ("quarterly", ["last"]) => "L 3,6,9,12 *",
        ("quarterly", [var day]) when DayOf(day) is { } number => $"{number} 1,4,7,10 *",
        ("yearly", [var day]) when DateOnly.TryParseExact(
            $"2001-{day}", "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var date) => $"{date.Day} {date.Month} *",
        _ => null,
    };

    // What not every month has is not due every month.
    private static int? DayOf(string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var day) && day is >= 1 and <= 28 ? day : null;

    private static string? Advice(string[] parts) => parts switch
    {
        ["monthly" or "quarterly", var day, _] when int.TryParse(day, out var number) && number is > 28 and <= 31 =>
            $"Not every month has a day {number}; write {parts[0]} last.",
        ["weekly", var day, _] => Suggestion.DidYouMean(day, Days),
        _ => null,
    };

    private static ProblemException Wrong(string text, string? advice) =>
        new(ProblemKind.Usage, $"\"{text}\" is no time of a schedule.", advice ?? $"Write {Forms}.");
}
