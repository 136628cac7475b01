using System.Globalization;

namespace Vlei.Core.Calendar;

/// <summary>A calendar month, counted from the first month of year 0.</summary>
/// <param name="Index">Year times twelve, plus the month less one.</param>
public readonly record struct YearMonth(int Index) : IComparable<YearMonth>
{
    /// <summary>The month as a number that a person can read: 202603.</summary>
    public int Number => (Year * 100) + Month;

    /// <summary>The calendar year.</summary>
    public int Year => Index / 12;

    /// <summary>The month of the year, from 1.</summary>
    public int Month => (Index % 12) + 1;

    /// <summary>The first day of the month.</summary>
    public DateOnly First => new(Year, Month, 1);

    /// <summary>The last day of the month.</summary>
    public DateOnly Last => new(Year, Month, DateTime.DaysInMonth(Year, Month));

    /// <summary>The month after it.</summary>
    public YearMonth Next => new(Index + 1);

    /// <summary>All the days of the month.</summary>
    public DateRange Range => new(First, Last);

    /// <summary>The month that a day lies in.</summary>
    public static YearMonth Of(DateOnly day) => new((day.Year * 12) + day.Month - 1);

    /// <summary>The month that <see cref="Number"/> was taken from.</summary>
    public static YearMonth FromNumber(int number) => new((number / 100 * 12) + (number % 100) - 1);

    /// <inheritdoc/>
    public int CompareTo(YearMonth other) => Index.CompareTo(other.Index);

    /// <summary>The ISO 8601 form: <c>2026-03</c>.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Year:D4}-{Month:D2}");
}
