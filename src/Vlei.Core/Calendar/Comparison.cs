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
}

/// <summary>One <c>--compare</c>: what with, and how many earlier ones.</summary>
/// <param name="Kind">What it is compared with.</param>
/// <param name="Count">How many earlier periods, from 1.</param>
/// <param name="Other">The period that is named, for <see cref="ComparisonKind.Named"/>.</param>
public sealed record Comparison(ComparisonKind Kind, int Count, OpenPeriod? Other = null)
{
    private const int MostEarlier = 99;

    /// <summary>The words that are no period, for completion and suggestions.</summary>
    public static IReadOnlyList<string> Words { get; } = ["prior-period", "prior-year", "budget"];

    /// <summary>
    /// Reads <c>prior-period</c>, <c>prior-year</c> or any period, each with <c>:N</c> or without, and <c>budget</c>.
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
    /// <param name="calendar">The book's calendar.</param>
    /// <param name="records">The first and last day of the records, which close open ends.</param>
    public IEnumerable<IReadOnlyList<DateRange>> Earlier(
        Period period, IReadOnlyList<DateRange> pieces, TimeUnit? unit, FiscalCalendar calendar, DateRange records)
    {
        if (Kind == ComparisonKind.Budget)
        {
            return [pieces];
        }

        if (Kind != ComparisonKind.Named)
        {
            return Enumerable.Range(1, Count).Select(count =>
                Kind == ComparisonKind.PriorYear ? Period.YearsBefore(count, pieces) : period.Prior(count, pieces));
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
}
