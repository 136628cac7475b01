using Vlei.Core.Calendar;

namespace Vlei.Core.Reports;

/// <summary>What a report is compared with: each stretch of time once, and none that is the report's own.</summary>
internal sealed class ComparedPeriods
{
    private readonly List<(IReadOnlyList<DateRange> Pieces, bool IsBudget)> _earlier = [];
    private readonly List<string> _notes = [];

    private ComparedPeriods()
    {
    }

    /// <summary>The stretches, nearest first, each in as many pieces as the report itself; a budget is of the report's own.</summary>
    public IReadOnlyList<(IReadOnlyList<DateRange> Pieces, bool IsBudget)> Earlier => _earlier;

    /// <summary>What readers are told of what is left out.</summary>
    public IReadOnlyList<string> Notes => _notes;

    /// <summary>
    /// Works them out. Throws a <see cref="Problems.ProblemException"/> where something cannot be compared with.
    /// </summary>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="period">The period of the report.</param>
    /// <param name="pieces">Its pieces; they cover it.</param>
    /// <param name="unit">The unit that cut it, where one did.</param>
    /// <param name="isOfMoment">Whether the last day of each piece is meant, rather than all of its days.</param>
    public static ComparedPeriods Of(
        ReportContext context, ReportRequest request, Period period, IReadOnlyList<DateRange> pieces, TimeUnit? unit, bool isOfMoment)
    {
        var compared = new ComparedPeriods();
        var known = new HashSet<string>(StringComparer.Ordinal) { KeyOf(pieces) };

        // A report of a moment that is told no day is of today, and not of the year so far.
        var from = isOfMoment && request.Period is null && unit is null
            ? new Period(new DateRange(period.Range.To, period.Range.To)) : period;
        foreach (var comparison in request.Compare.Distinct())
        {
            var isBudget = comparison.Kind == ComparisonKind.Budget;
            foreach (var earlier in comparison.Earlier(from, pieces, unit, isOfMoment, context.Calendar, context.Records))
            {
                if (isBudget || known.Add(KeyOf(earlier)))
                {
                    compared._earlier.Add((earlier, isBudget));
                }
                else
                {
                    compared._notes.Add($"{InWords(earlier)} would stand beside itself: it is shown once.");
                }
            }
        }

        return compared;

        string KeyOf(IReadOnlyList<DateRange> ranges) => string.Join(' ', ranges.Select(range => isOfMoment ? PeriodText.Iso(range.To)
            : $"{PeriodText.Iso(range.From)}/{PeriodText.Iso(range.To)}"));

        string InWords(IReadOnlyList<DateRange> ranges) => isOfMoment ? PeriodText.Words(ranges[^1].To)
            : PeriodText.Words(new DateRange(ranges[0].From, ranges[^1].To), context.Calendar);
    }
}
