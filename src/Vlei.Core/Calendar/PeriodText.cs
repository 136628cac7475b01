using System.Globalization;

namespace Vlei.Core.Calendar;

/// <summary>How a stretch of time is written: as a key for machines, as a heading and in words for people.</summary>
public static class PeriodText
{
    /// <summary>The shortest period text that names the range exactly: <c>2026-03</c>, <c>2026-Q1</c>, <c>fy2026</c> …</summary>
    public static string Key(DateRange range, FiscalCalendar calendar)
    {
        if (range.IsEmpty)
        {
            return $"{Iso(range.From)}/{Iso(range.To)}";
        }

        return UnitOf(range, calendar) switch
        {
            TimeUnit.Year => $"{range.From.Year:D4}",
            TimeUnit.Month => YearMonth.Of(range.From).ToString(),
            TimeUnit.Quarter => $"{range.From.Year:D4}-Q{Quarter(range.From)}",
            TimeUnit.FiscalYear => $"fy{calendar.FiscalYearOf(range.From):D4}",
            TimeUnit.FiscalQuarter => $"fy{calendar.FiscalYearOf(range.From):D4}-Q{FiscalQuarter(range.From, calendar)}",
            TimeUnit.Week => $"{IsoYear(range.From):D4}-W{IsoWeek(range.From):D2}",
            _ => range.Days == 1 ? Iso(range.From) : $"{Iso(range.From)}/{Iso(range.To)}",
        };
    }

    /// <summary>A short heading for a column: <c>Mar 2026</c>, <c>Q1 2026</c>, <c>FY 2026</c>, <c>1-14 Mar 2026</c>.</summary>
    public static string Heading(DateRange range, FiscalCalendar calendar)
    {
        if (range.IsEmpty)
        {
            return "no days";
        }

        return UnitOf(range, calendar) switch
        {
            TimeUnit.Year => $"{range.From.Year:D4}",
            TimeUnit.Month => Text(range.From, "MMM yyyy"),
            TimeUnit.Quarter => $"Q{Quarter(range.From)} {range.From.Year:D4}",
            TimeUnit.FiscalYear => $"FY {calendar.FiscalYearOf(range.From):D4}",
            TimeUnit.FiscalQuarter => $"FY {calendar.FiscalYearOf(range.From):D4} Q{FiscalQuarter(range.From, calendar)}",
            TimeUnit.Week => $"W{IsoWeek(range.From):D2} {IsoYear(range.From):D4}",
            _ => Between(range, "MMM"),
        };
    }

    /// <summary>The range in words, for the head of a report: <c>March 2026</c>, <c>1 March to 15 June 2026</c>.</summary>
    public static string Words(DateRange range, FiscalCalendar calendar)
    {
        if (range.IsEmpty)
        {
            return "no days";
        }

        var days = Between(range, "MMMM");
        return UnitOf(range, calendar) switch
        {
            TimeUnit.Year => $"{range.From.Year:D4}",
            TimeUnit.Month => Text(range.From, "MMMM yyyy"),
            TimeUnit.Quarter => $"Quarter {Quarter(range.From)} of {range.From.Year:D4} ({days})",
            TimeUnit.FiscalYear => $"Fiscal year {calendar.FiscalYearOf(range.From):D4} ({days})",
            TimeUnit.FiscalQuarter =>
                $"Quarter {FiscalQuarter(range.From, calendar)} of fiscal year {calendar.FiscalYearOf(range.From):D4} ({days})",
            TimeUnit.Week => $"Week {IsoWeek(range.From)} of {IsoYear(range.From):D4} ({days})",
            _ => days,
        };
    }

    /// <summary>A day for a column's heading: <c>31 Mar 2026</c>.</summary>
    public static string Heading(DateOnly day) => Text(day, "d MMM yyyy");

    /// <summary>A day in words: <c>31 March 2026</c>.</summary>
    public static string Words(DateOnly day) => Text(day, "d MMMM yyyy");

    /// <summary>A day as ISO 8601 writes it.</summary>
    public static string Iso(DateOnly day) => day.ToString("O", CultureInfo.InvariantCulture);

    private static TimeUnit? UnitOf(DateRange range, FiscalCalendar calendar)
    {
        ReadOnlySpan<TimeUnit> shortestFirst =
        [
            TimeUnit.Year, TimeUnit.Month, TimeUnit.Quarter, TimeUnit.FiscalYear, TimeUnit.FiscalQuarter, TimeUnit.Week,
        ];
        foreach (var unit in shortestFirst)
        {
            if (calendar.UnitOf(unit, range.From) == range)
            {
                return unit;
            }
        }

        return null;
    }

    private static string Between(DateRange range, string month)
    {
        var end = Text(range.To, $"d {month} yyyy");
        var joint = month.Length > 3 ? " to " : " - ";
        return range.Days == 1 ? end
            : range.From.Year != range.To.Year ? Text(range.From, $"d {month} yyyy") + joint + end
            : range.From.Month != range.To.Month ? Text(range.From, $"d {month}") + joint + end
            : $"{range.From.Day}{joint}{end}";
    }

    private static string Text(DateOnly day, string format) => day.ToString(format, CultureInfo.InvariantCulture);

    private static int Quarter(DateOnly day) => ((day.Month - 1) / 3) + 1;

    private static int FiscalQuarter(DateOnly day, FiscalCalendar calendar) =>
        ((day.Month - calendar.StartMonth + 12) % 12 / 3) + 1;

    private static int IsoYear(DateOnly day) => ISOWeek.GetYear(day.ToDateTime(TimeOnly.MinValue));

    private static int IsoWeek(DateOnly day) => ISOWeek.GetWeekOfYear(day.ToDateTime(TimeOnly.MinValue));
}
