namespace Vlei.Core.Calendar;

/// <summary>The days from <paramref name="From"/> to <paramref name="To"/>, both of them included.</summary>
/// <param name="From">The first day.</param>
/// <param name="To">The last day; a range whose last day is before its first is empty.</param>
public readonly record struct DateRange(DateOnly From, DateOnly To)
{
    /// <summary>Whether there is no day in it.</summary>
    public bool IsEmpty => To < From;

    /// <summary>How many days are in it.</summary>
    public int Days => IsEmpty ? 0 : To.DayNumber - From.DayNumber + 1;

    /// <summary>Whether it starts on the first of a month and ends on the last day of one.</summary>
    public bool IsWholeMonths => !IsEmpty && From.Day == 1 && To.IsMonthEnd();

    /// <summary>How many calendar months it touches; for whole months, how many they are.</summary>
    public int MonthsTouched => IsEmpty ? 0 : YearMonth.Of(To).Index - YearMonth.Of(From).Index + 1;

    /// <summary>Whether a day is one of them.</summary>
    public bool Contains(DateOnly day) => From <= day && day <= To;

    /// <summary>The days that are in both.</summary>
    public DateRange Intersect(DateRange other) => new(
        From > other.From ? From : other.From,
        To < other.To ? To : other.To);
}
