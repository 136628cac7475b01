namespace Vlei.Core.Calendar;

/// <summary>Moving from one day to another by months without losing the end of a month.</summary>
public static class Days
{
    /// <summary>Whether the day is the last one of its month.</summary>
    public static bool IsMonthEnd(this DateOnly day) => day.Day == DateTime.DaysInMonth(day.Year, day.Month);

    /// <summary>
    /// The day <paramref name="months"/> later (earlier, where negative). A month's last day stays on a month's last
    /// day; another day that the month does not have becomes its last.
    /// </summary>
    public static DateOnly PlusMonths(this DateOnly day, int months) => day.IsMonthEnd()
        ? YearMonth.Of(day.AddMonths(months)).Last
        : day.AddMonths(months);
}
