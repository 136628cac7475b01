using Parlot.Fluent;
using Vlei.Core.Problems;

namespace Vlei.Core.Calendar;

/// <summary>
/// Reads a period as people type it: <c>2026</c>, <c>2026-Q1</c>, <c>2026-03</c>, <c>2026-W07</c>, <c>2026-03-15</c>,
/// <c>fy2026</c>, <c>fy2026-Q1</c>, ISO 8601 intervals, and words that are worked out from today.
/// </summary>
public static class PeriodGrammar
{
    /// <summary>The first year that a date may have; an earlier one is taken for a slip.</summary>
    public const int FirstYear = 1900;

    /// <summary>The last year that a date may have; a later one is taken for a slip.</summary>
    public const int LastYear = 2199;

    // Made when the first such text is read: making them takes longer than all else that is done with a period.
    private static readonly Lazy<Parser<Reading>> Dates = new(() => Date().Eof());
    private static readonly Lazy<Parser<Reading>> FiscalYears = new(() => FiscalYear().Eof());
    private static readonly Lazy<Parser<Reading>> Others = new(() => Word().Eof());
    private static readonly Lazy<Parser<Step>> Durations = new(() => Duration().Eof());

    private delegate OpenPeriod Reading(WorkingDay today, FiscalCalendar calendar);

    private delegate DateOnly Step(DateOnly from, int direction);

    /// <summary>The words that stand for a period, for completion and suggestions.</summary>
    public static IReadOnlyList<string> Words { get; } =
    [
        "all", "today", "yesterday",
        .. FiscalCalendar.UnitNames.SelectMany(unit => new[] { $"this-{unit}", $"last-{unit}", $"{unit}-to-date" }),
        "last-30-days", "last-3-months", "last-12-months", "3-months-ago",
    ];

    /// <summary>
    /// Reads <paramref name="text"/>. Throws a <see cref="ProblemException"/> that says what was expected where it is no
    /// period, names a day that does not exist, or ends before it starts.
    /// </summary>
    public static OpenPeriod Parse(string text, WorkingDay today, FiscalCalendar calendar)
    {
        if (Read(text.Trim()) is not { } reading)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                $"\"{text}\" is not a period.",
                PeriodSlips.Meant(text, today) is { Count: > 0 } meant ? $"Did you mean {Suggestion.Listed(meant, "or")}?"
                : Suggestion.DidYouMean(text, Words)
                ?? "A period is like 2026, 2026-Q1, 2026-03, 2026-W07, 2026-03-15, fy2026, 2026-01-15/2026-02-14, "
                + "2026-01/P3M, last-month, fiscal-year-to-date, last-30-days, 3-months-ago or all.");
        }

        var period = reading(today, calendar);
        return period.From > period.To
            ? throw new ProblemException(
                ProblemKind.Usage,
                $"The period \"{text}\" ends ({period.To:yyyy-MM-dd}) before it starts ({period.From:yyyy-MM-dd}).",
                "Write the earlier day first.")
            : period;
    }

    // An interval has a slash between its ends, of which one may be left open, or a duration before or after the other.
    private static Reading? Read(string text)
    {
        if (text.Split('/') is not [var first, var last])
        {
            return ReadEnd(text);
        }

        if (first.Length == 0)
        {
            return ReadEnd(last) is { } to ? (today, calendar) => new OpenPeriod(null, to(today, calendar).To) : null;
        }

        if (last.Length == 0)
        {
            return ReadEnd(first) is { } from ? (today, calendar) => new OpenPeriod(from(today, calendar).From, null) : null;
        }

        if (IsDuration(last))
        {
            return ReadSpan(first) is { } from && Parsed(Durations, last) is { } after ? (today, calendar) =>
            {
                var begin = from(today, calendar).From!.Value;
                return new OpenPeriod(begin, after(begin, 1).AddDays(-1));
            }
            : null;
        }

        if (IsDuration(first))
        {
            return ReadSpan(last) is { } to && Parsed(Durations, first) is { } before ? (today, calendar) =>
            {
                var end = to(today, calendar).To!.Value;
                return new OpenPeriod(before(end.AddDays(1), -1), end);
            }
            : null;
        }

        return ReadEnd(first) is { } left && ReadEnd(last) is { } right
            ? (today, calendar) => new OpenPeriod(left(today, calendar).From, right(today, calendar).To) : null;
    }

    // Spans end with a digit, words do not.
    private static Reading? ReadEnd(string text) =>
        text.Length == 0 ? null : char.IsAsciiDigit(text[^1]) ? ReadSpan(text) : Parsed(Others, text);

    // Apart, because the library makes a table of the letters that alternatives begin with, which a date does not need.
    private static Reading? ReadSpan(string text) => Parsed(char.IsAsciiDigit(text[0]) ? Dates : FiscalYears, text);

    private static bool IsDuration(string text) => text[0] is 'P' or 'p';

    private static T? Parsed<T>(Lazy<Parser<T>> grammar, string text)
        where T : Delegate => grammar.Value.TryParse(text, out var parsed) ? parsed : null;

    private static Parser<int> Year() => Digits(4, 4).Then(CheckedYear);

    private static Parser<int> Quarter() => Literals.Text("-Q", caseInsensitive: true).SkipAnd(Digits(1, 1));

    private static Parser<Reading> FiscalYear() =>
        Literals.Text("fy", caseInsensitive: true).SkipAnd(Year()).And(Quarter().Optional())
            .Then<Reading>(x => (_, calendar) => x.Item2.HasValue
                ? new OpenPeriod(calendar.UnitOf(
                    TimeUnit.FiscalQuarter, calendar.FiscalYear(x.Item1).From, QuarterNumber(x.Item2.Value) - 1))
                : new OpenPeriod(calendar.FiscalYear(x.Item1)));

    private static Parser<Reading> Date()
    {
        var (year, two, dash) = (Year(), Digits(2, 2), Literals.Char('-'));
        var day = year.AndSkip(dash).And(two).AndSkip(dash).And(two)
            .Then<Reading>(x => Fixed(Single(Day(x.Item1, x.Item2, x.Item3))));
        var week = year.AndSkip(Literals.Text("-W", caseInsensitive: true)).And(two)
            .Then<Reading>(x => Fixed(Week(x.Item1, x.Item2)));
        var calendarQuarter = year.And(Quarter())
            .Then<Reading>(x => Fixed(Months(x.Item1, (3 * QuarterNumber(x.Item2)) - 2, 3)));
        var month = year.AndSkip(dash).And(two).Then<Reading>(x => Fixed(Months(x.Item1, x.Item2, 1)));
        var wholeYear = year.Then<Reading>(x => Fixed(Months(x, 1, 12)));
        return OneOf(day, week, calendarQuarter, month, wholeYear);
    }

    private static Parser<Step> Duration()
    {
        var step = Digits(1, 3).And(Literals.AnyOf("YMWDymwd", 1, 1)).Then<Step>(x => StepOf(x.Item1, x.Item2.Span[0]));
        return Literals.Text("P", caseInsensitive: true).SkipAnd(OneOrMany(step))
            .Then<Step>(steps => (from, direction) => steps.Aggregate(from, (at, next) => next(at, direction)));
    }

    private static Parser<Reading> Word()
    {
        var unit = OneOf(
            [.. FiscalCalendar.UnitNames.Select((name, index) => Literals.Text(name, true).Then((TimeUnit)index))]);
        var current = Literals.Text("this-", true).SkipAnd(unit)
            .Then<Reading>(x => (today, calendar) => new OpenPeriod(calendar.UnitOf(x, today.Date)));
        var toDate = unit.AndSkip(Literals.Text("-to-date", true)).Then<Reading>(x => (today, calendar) =>
            new OpenPeriod(calendar.UnitOf(x, today.Date).From, today.Date, x));
        var last = Literals.Text("last-", true).SkipAnd(unit)
            .Then<Reading>(x => (today, calendar) => new OpenPeriod(calendar.UnitOf(x, today.CountedFrom, -1)));
        var ago = Literals.Text("-ago", true);
        var many = Literals.Char('s').Optional();
        var daysAgo = Digits(1, 4).AndSkip(Literals.Text("-day", true)).AndSkip(many).AndSkip(ago).Then<Reading>(x => (today, _) =>
            Single(today.Date.AddDays(-x)));
        var unitsAgo = Digits(1, 3).AndSkip(Literals.Char('-')).And(unit).AndSkip(many).AndSkip(ago).Then<Reading>(x =>
            (today, calendar) => new OpenPeriod(calendar.UnitOf(x.Item2, today.CountedFrom, -x.Item1)));
        var count = Literals.Text("last-", true).SkipAnd(Digits(1, 3)).AndSkip(Literals.Char('-'));
        var lastDays = count.AndSkip(Literals.Text("days", true)).Then<Reading>(x => (today, _) =>
            new OpenPeriod(today.Date.AddDays(1 - Count(x)), today.Date));
        var lastUnits = count.And(unit).AndSkip(Literals.Char('s')).Then<Reading>(x => (today, calendar) =>
            new OpenPeriod(
                calendar.UnitOf(x.Item2, today.CountedFrom, -Count(x.Item1)).From,
                calendar.UnitOf(x.Item2, today.CountedFrom).From.AddDays(-1)));
        return OneOf(
            lastDays,
            lastUnits,
            daysAgo,
            unitsAgo,
            current,
            last,
            toDate,
            Literals.Text("all", true).Then<Reading>(_ => (_, _) => new OpenPeriod(null, null)),
            Literals.Text("today", true).Then<Reading>(_ => (today, _) => Single(today.Date)),
            Literals.Text("yesterday", true).Then<Reading>(_ => (today, _) => Single(today.Date.AddDays(-1))));
    }

    private static Parser<int> Digits(int least, int most) =>
        Literals.Pattern(char.IsAsciiDigit, least, most).Then(text => int.Parse(text.Span));

    private static Reading Fixed(OpenPeriod period) => (_, _) => period;

    private static OpenPeriod Single(DateOnly day) => new(day, day);

    private static Step StepOf(int count, char unit) => char.ToUpperInvariant(unit) switch
    {
        'Y' => (from, direction) => from.AddMonths(12 * count * direction),
        'M' => (from, direction) => from.AddMonths(count * direction),
        'W' => (from, direction) => from.AddDays(7 * count * direction),
        _ => (from, direction) => from.AddDays(count * direction),
    };

    private static int CheckedYear(int year) => year is >= FirstYear and <= LastYear
        ? year
        : throw new ProblemException(
            ProblemKind.Usage, $"The year {year:D4} is out of reach.", $"Years run from {FirstYear} to {LastYear}.");

    private static int QuarterNumber(int quarter) => quarter is >= 1 and <= 4
        ? quarter
        : throw new ProblemException(ProblemKind.Usage, $"There is no quarter {quarter}.", "Quarters are Q1 to Q4.");

    private static int Count(int count) => count > 0
        ? count
        : throw new ProblemException(ProblemKind.Usage, "last-0 is no time at all.", "Write a number from 1, as in last-3-months.");

    private static OpenPeriod Months(int year, int month, int count)
    {
        var first = CheckedMonth(year, month);
        return new OpenPeriod(first.First, new YearMonth(first.Index + count - 1).Last);
    }

    private static YearMonth CheckedMonth(int year, int month) => month is >= 1 and <= 12
        ? new YearMonth((year * 12) + month - 1)
        : throw new ProblemException(
            ProblemKind.Usage, $"There is no month {month:D2}.", "Months are 01 to 12, as in 2026-03.");

    private static DateOnly Day(int year, int month, int day)
    {
        var range = CheckedMonth(year, month).Range;
        return day >= 1 && day <= range.Days
            ? range.From.AddDays(day - 1)
            : throw new ProblemException(
                ProblemKind.Usage,
                $"There is no day {year:D4}-{month:D2}-{day:D2}.",
                $"{range.From:yyyy-MM} has {range.Days} days.");
    }

    private static OpenPeriod Week(int year, int week)
    {
        var weeks = System.Globalization.ISOWeek.GetWeeksInYear(year);
        if (week < 1 || week > weeks)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"There is no week {week:D2} in {year}.", $"{year} has weeks W01 to W{weeks}.");
        }

        var monday = DateOnly.FromDateTime(System.Globalization.ISOWeek.ToDateTime(year, week, DayOfWeek.Monday));
        return new OpenPeriod(monday, monday.AddDays(6));
    }
}
