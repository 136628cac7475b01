using System.Globalization;
using Vlei.Core.Problems;

namespace Vlei.Core.Calendar;

/// <summary>What a period is compared with.</summary>
public enum ComparisonKind
{
    /// <summary>The periods right before it.</summary>
    PriorPeriod,

    /// <summary>The same period of earlier years.</summary>
    PriorYear,

    /// <summary>A period that is named, and those right before that one.</summary>
    Named,

    /// <summary>What was planned for the same days.</summary>
    Budget,

    /// <summary>The day before the fiscal year of the last day began.</summary>
    YearStart,

    /// <summary>From the start of the fiscal year of the last day to that day.</summary>
    YearToDate,
}

/// <summary>One <c>--compare</c>: what with, and how many earlier ones.</summary>
/// <param name="Kind">What it is compared with.</param>
/// <param name="Count">How many earlier periods, from 1.</param>
/// <param name="Other">The period that is named, for <see cref="ComparisonKind.Named"/>.</param>
public sealed record Comparison(ComparisonKind Kind, int Count, OpenPeriod? Other = null)
{
    private const int MostEarlier = 99;

    /// <summary>The words that are no period, for completion and suggestions.</summary>
    public static IReadOnlyList<string> Words { get; } = ["prior-period", "prior-year", "budget", "year-start", "year-to-date"];

    /// <summary>
    /// Reads <c>prior-period</c>, <c>prior-year</c>, <c>year-start</c>, <c>year-to-date</c> or any period, each with <c>:N</c> or
    /// without, and <c>budget</c>.
    /// </summary>
    public static Comparison Parse(string text, WorkingDay today, FiscalCalendar calendar)
    {
        var (what, count) = (text, 1);
        if (text.LastIndexOf(':') is var colon and >= 0)
        {
            what = text[..colon];
            if (!int.TryParse(text[(colon + 1)..], NumberStyles.None, CultureInfo.InvariantCulture, out count)
                || count is < 1 or > MostEarlier)
            {
                throw new ProblemException(
                    ProblemKind.Usage,
                    $"\"{text[(colon + 1)..]}\" is not how many periods to compare with.",
                    $"Write a whole number from 1 to {MostEarlier}, as in prior-year:2.");
            }
        }

        if (what.Equals("budget", StringComparison.OrdinalIgnoreCase) && count > 1)
        {
            throw new ProblemException(
                ProblemKind.Usage, "There is one budget for each month.", "Write --compare budget.");
        }

        try
        {
            return what.ToLowerInvariant() switch
            {
                "prior-period" => new Comparison(ComparisonKind.PriorPeriod, count),
                "prior-year" => new Comparison(ComparisonKind.PriorYear, count),
                "budget" => new Comparison(ComparisonKind.Budget, count),
                "year-start" => new Comparison(ComparisonKind.YearStart, count),
                "year-to-date" => new Comparison(ComparisonKind.YearToDate, count),
                _ => new Comparison(ComparisonKind.Named, count, PeriodGrammar.Parse(what, today, calendar)),
            };
        }
        catch (ProblemException notAPeriod) when (Suggestion.DidYouMean(what, Words) is { } nearest)
        {
            throw new ProblemException(notAPeriod.Kind, $"\"{what}\" is nothing to compare with.", nearest);
        }
    }

    /// <summary>
    /// The earlier stretches, nearest first, each cut into as many pieces as <paramref name="pieces"/> cut the period.
    /// Throws a <see cref="ProblemException"/> where a named period cannot be cut so.
    /// </summary>
    /// <param name="period">The period that is compared.</param>
    /// <param name="pieces">Its pieces; they cover it.</param>
    /// <param name="unit">The unit that cut it, where one did.</param>
    /// <param name="isOfMoment">Whether the last day of each piece is meant, rather than all of its days.</param>
    /// <param name="calendar">The book's calendar.</param>
    /// <param name="records">The first and last day of the records, which close open ends.</param>
    public IEnumerable<IReadOnlyList<DateRange>> Earlier(
        Period period, IReadOnlyList<DateRange> pieces, TimeUnit? unit, bool isOfMoment, FiscalCalendar calendar, DateRange records)
    {
        switch (Kind)
        {
            case ComparisonKind.Budget:
                return [pieces];
            case ComparisonKind.PriorYear:
                return Enumerable.Range(1, Count).Select(count => Period.YearsBefore(count, pieces));
            case ComparisonKind.PriorPeriod when isOfMoment && period.Range.Days == 1 && period.ToDateOf is null:
                return Enumerable.Range(1, Count).Select(count => Period.MonthsBefore(count, pieces));
            case ComparisonKind.PriorPeriod:
                return Enumerable.Range(1, Count).Select(count => period.Prior(count, pieces));
            case ComparisonKind.YearStart when isOfMoment:
                return Enumerable.Range(0, Count).Select(count => DayBefore(Period.YearsBefore(count, pieces), calendar));
            case ComparisonKind.YearToDate when !isOfMoment:
                return Enumerable.Range(0, Count).Select(count => ToDate(Period.YearsBefore(count, pieces), calendar));
            case ComparisonKind.YearStart:
                throw new ProblemException(
                    ProblemKind.Usage, "year-start is a day, and a report of a period is compared with a period.",
                    "Write --compare year-to-date for the fiscal year so far.");
            case ComparisonKind.YearToDate:
                throw new ProblemException(
                    ProblemKind.Usage, "year-to-date ends on the day of the report, which stands there already.",
                    "Write --compare year-start for the day before the fiscal year began.");
        }

        var other = Other!.Value.Within(records);
        var cut = unit is { } by ? calendar.Split(other.Range, by) : [other.Range];
        return cut.Count == pieces.Count
            ? Enumerable.Range(0, Count).Select(count => other.Prior(count, cut))
            : throw new ProblemException(
                ProblemKind.Usage,
                $"{PeriodText.Key(other.Range, calendar)} has {cut.Count} columns by "
                + $"{FiscalCalendar.NameOf(unit!.Value)}, {PeriodText.Key(period.Range, calendar)} has {pieces.Count}.",
                "Compare with a period of the same length, or leave out --by.");
    }

    private static IReadOnlyList<DateRange> DayBefore(IReadOnlyList<DateRange> pieces, FiscalCalendar calendar) =>
        [
            .. pieces.Select(
                piece => calendar.UnitOf(TimeUnit.FiscalYear, piece.To).From.AddDays(-1) is var day ? new DateRange(day, day) : piece)];

    private static IReadOnlyList<DateRange> ToDate(IReadOnlyList<DateRange> pieces, FiscalCalendar calendar) =>
        [.. pieces.Select(piece => new DateRange(calendar.UnitOf(TimeUnit.FiscalYear, piece.To).From, piece.To))];
}
