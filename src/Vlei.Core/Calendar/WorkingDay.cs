namespace Vlei.Core.Calendar;

/// <summary>
/// The day that words like <c>last-month</c> are worked out from. On a day that goes on, a month that ends with it is this
/// month; at the close of that day it is the last one, and still the one that the day lies in.
/// </summary>
/// <param name="Date">The day.</param>
/// <param name="IsOver">Whether it is the close of the day.</param>
public readonly record struct WorkingDay(DateOnly Date, bool IsOver = false)
{
    /// <summary>The day that the whole units of time before it are counted from.</summary>
    public DateOnly CountedFrom => IsOver ? Date.AddDays(1) : Date;

    /// <summary>A day that goes on.</summary>
    public static implicit operator WorkingDay(DateOnly date) => new(date);

    /// <summary>The close of the last day of a stretch of time; today, where that is still to come.</summary>
    public static WorkingDay CloseOf(DateRange range, DateOnly today) =>
        range.To <= today ? new WorkingDay(range.To, IsOver: true) : new WorkingDay(today);
}
