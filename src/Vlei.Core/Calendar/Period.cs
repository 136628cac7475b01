namespace Vlei.Core.Calendar;

/// <summary>A stretch of time that a report covers, and how it was meant, since comparisons depend on that.</summary>
/// <param name="Range">The days it covers.</param>
/// <param name="ToDateOf">
/// For a to-date period (<c>fiscal-year-to-date</c>), the unit that it is the start of; otherwise nothing.
/// </param>
public readonly record struct Period(DateRange Range, TimeUnit? ToDateOf = null)
{
    /// <summary>
    /// The <paramref name="count"/>-th period before this one, cut at the same places as <paramref name="pieces"/> cut
    /// this one, so that like stands beside like and the pieces add up to the earlier whole.
    /// </summary>
    /// <remarks>
    /// Whole calendar months move by as many months, a to-date period by its unit, anything else by as many days.
    /// </remarks>
    public IReadOnlyList<DateRange> Prior(int count, IReadOnlyList<DateRange> pieces)
    {
        var months = ToDateOf is { } unit ? FiscalCalendar.MonthsIn(unit)
            : Range.IsWholeMonths ? Range.MonthsTouched
            : 0;
        var days = ToDateOf == TimeUnit.Week ? 7 : Range.Days;
        return months > 0
            ? Shift(pieces, day => day.PlusMonths(-months * count), day => day.AddMonths(-months * count))
            : Shift(pieces, day => day.AddDays(-days * count), day => day.AddDays(-days * count));
    }

    /// <summary>The same stretch <paramref name="count"/> years before, cut as <paramref name="pieces"/> cut this one.</summary>
    public static IReadOnlyList<DateRange> YearsBefore(int count, IReadOnlyList<DateRange> pieces) => MonthsBefore(12 * count, pieces);

    /// <summary>The same stretch <paramref name="count"/> months before, cut as <paramref name="pieces"/> cut this one.</summary>
    public static IReadOnlyList<DateRange> MonthsBefore(int count, IReadOnlyList<DateRange> pieces) =>
        Shift(pieces, day => day.PlusMonths(-count), day => day.AddMonths(-count));

    // Ends are moved and each piece starts on the day after the one before it: moved by months, two days can fall on
    // one (30 and 31 March in February), and a day must never be counted in two pieces.
    private static List<DateRange> Shift(
        IReadOnlyList<DateRange> pieces, Func<DateOnly, DateOnly> moveEnd, Func<DateOnly, DateOnly> moveStart)
    {
        var shifted = new List<DateRange>(pieces.Count);
        var start = moveStart(pieces[0].From);
        foreach (var piece in pieces)
        {
            var end = moveEnd(piece.To);
            shifted.Add(new DateRange(start, end));
            start = end < start ? start : end.AddDays(1);
        }

        return shifted;
    }
}

/// <summary>A period whose ends may be open, as it was typed; the book's records close it.</summary>
/// <param name="From">The first day, or nothing for "from the first record".</param>
/// <param name="To">The last day, or nothing for "to the last record".</param>
/// <param name="ToDateOf">As in <see cref="Period"/>.</param>
public readonly record struct OpenPeriod(DateOnly? From, DateOnly? To, TimeUnit? ToDateOf = null)
{
    /// <summary>A period with both ends.</summary>
    public OpenPeriod(DateRange range, TimeUnit? toDateOf = null)
        : this(range.From, range.To, toDateOf)
    {
    }

    /// <summary>Closes the open ends with the first and the last day of the records.</summary>
    public Period Within(DateRange records)
    {
        var from = From ?? (To < records.From ? To.Value : records.From);
        var to = To ?? (from > records.To ? from : records.To);
        return new Period(new DateRange(from, to), ToDateOf);
    }
}
