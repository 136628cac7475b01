namespace Vlei.Core.Calendar;

/// <summary>Tells periods that stay where they are from those that move with the day.</summary>
public static class FixedDates
{
    private const int FarDays = 1000;

    /// <summary>Whether a period means the same days whatever day it is; not so <c>all</c>, which grows.</summary>
    public static bool IsFixed(string text, DateOnly today, FiscalCalendar calendar) =>
        PeriodGrammar.Parse(text, today, calendar) is var period && (period.From ?? period.To) is not null
        && period == PeriodGrammar.Parse(text, today.AddDays(FarDays), calendar);

    /// <summary>The words that mean the same days today and move with the day; nothing where there are none.</summary>
    public static string? WordsFor(string text, DateOnly today, FiscalCalendar calendar)
    {
        var meant = Days(text);
        return PeriodGrammar.Words.FirstOrDefault(word => Days(word) == meant);

        (DateOnly?, DateOnly?) Days(string words) => PeriodGrammar.Parse(words, today, calendar) is var period
            ? (period.From, period.To) : default;
    }
}
