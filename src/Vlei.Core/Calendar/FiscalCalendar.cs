namespace Vlei.Core.Calendar;

/// <summary>The calendar of a book: where its fiscal year starts, and with it the bounds of every unit of time.</summary>
/// <param name="StartMonth">The month of the year, 1 to 12, on whose first day the fiscal year starts.</param>
public readonly record struct FiscalCalendar(int StartMonth)
{
    private static readonly string[] Names = ["week", "month", "quarter", "year", "fiscal-quarter", "fiscal-year"];

    /// <summary>The units' names as people type them, in the order of <see cref="TimeUnit"/>.</summary>
    public static IReadOnlyList<string> UnitNames => Names;

    /// <summary>The name of a unit as people type it.</summary>
    public static string NameOf(TimeUnit unit) => Names[(int)unit];

    /// <summary>The calendar year in which the fiscal year of <paramref name="day"/> ends.</summary>
    public int FiscalYearOf(DateOnly day) => StartMonth == 1 || day.Month < StartMonth ? day.Year : day.Year + 1;

    /// <summary>The fiscal year that ends in the calendar year <paramref name="year"/>.</summary>
    public DateRange FiscalYear(int year)
    {
        var start = new DateOnly(StartMonth == 1 ? year : year - 1, StartMonth, 1);
        return new DateRange(start, start.AddMonths(12).AddDays(-1));
    }

    /// <summary>The whole unit that the day lies in.</summary>
    public DateRange UnitOf(TimeUnit unit, DateOnly day)
    {
        if (unit == TimeUnit.Week)
        {
            var monday = day.AddDays(-(((int)day.DayOfWeek + 6) % 7));
            return new DateRange(monday, monday.AddDays(6));
        }

        var months = MonthsIn(unit);
        var origin = unit is TimeUnit.FiscalQuarter or TimeUnit.FiscalYear ? StartMonth - 1 : 0;
        var index = YearMonth.Of(day).Index - origin;
        var start = new YearMonth(index - (index % months) + origin);
        return new DateRange(start.First, new YearMonth(start.Index + months - 1).Last);
    }

    /// <summary>The unit <paramref name="count"/> after (before, where negative) the one the day lies in.</summary>
    public DateRange UnitOf(TimeUnit unit, DateOnly day, int count)
    {
        var start = UnitOf(unit, day).From;
        return UnitOf(unit, unit == TimeUnit.Week ? start.AddDays(7 * count) : start.AddMonths(MonthsIn(unit) * count));
    }

    /// <summary>The pieces of <paramref name="range"/> by unit, in order; the first and the last may be cut short.</summary>
    public IReadOnlyList<DateRange> Split(DateRange range, TimeUnit unit)
    {
        var pieces = new List<DateRange>();
        for (var start = range.From; start <= range.To;)
        {
            var piece = UnitOf(unit, start).Intersect(range);
            pieces.Add(piece);
            start = piece.To.AddDays(1);
        }

        return pieces;
    }

    /// <summary>How many months a unit has; a week has none.</summary>
    public static int MonthsIn(TimeUnit unit) => unit switch
    {
        TimeUnit.Month => 1,
        TimeUnit.Quarter or TimeUnit.FiscalQuarter => 3,
        TimeUnit.Year or TimeUnit.FiscalYear => 12,
        _ => 0,
    };
}
