namespace Vlei.Records.Maps.Reading;

/// <summary>Months in headings, and the day that a title speaks of.</summary>
internal static class MonthHeadings
{
    private const int FewestMonths = 2;

    /// <summary>The columns whose headings are months, with the last day of each; none where there are fewer than two.</summary>
    public static IReadOnlyList<(int Column, DateOnly Day)> In(IReadOnlyList<string> headings, string title, MapWords words)
    {
        var year = YearIn(title);
        var found = new List<(int, DateOnly)>();
        for (var column = 0; column < headings.Count; column++)
        {
            if (MonthIn(headings[column], year, words) is { } first)
            {
                found.Add((column, first.AddMonths(1).AddDays(-1)));
            }
        }

        return found.Count < FewestMonths ? [] : found;
    }

    /// <summary>The first day that a title has, whichever way it is written; nothing where there is none.</summary>
    public static DateOnly? DayIn(string title, DateOrder? order, MapWords words)
    {
        var parts = title.Split((char[])[' ', ',', '(', ')', ':', ';', '\u00a0'], StringSplitOptions.RemoveEmptyEntries);
        for (var at = 0; at < parts.Length; at++)
        {
            foreach (var count in (ReadOnlySpan<int>)[3, 1])
            {
                var text = string.Join(' ', parts.Skip(at).Take(count)).TrimEnd('.');
                foreach (var way in order is { } known ? [known, DateOrder.YearMonthDay]
                    : (DateOrder[])[DateOrder.YearMonthDay, DateOrder.DayMonthYear, DateOrder.MonthDayYear])
                {
                    if (SourceDates.TryRead(text, way, words, out var day) && (text.Any(char.IsLetter) || count == 1))
                    {
                        return day;
                    }
                }
            }
        }

        return null;
    }

    // "2026-03", "03/2026", "Mar 2026", "March", "Mar-26"; a sheet may keep a month as its first day.
    private static DateOnly? MonthIn(string heading, int? year, MapWords words)
    {
        var parts = MapWords.Plain(heading).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (parts.Length == 3 && SourceDates.TryRead(heading, DateOrder.YearMonthDay, words, out var day))
        {
            return new DateOnly(day.Year, day.Month, 1);
        }

        var month = parts.Select(words.MonthOf).FirstOrDefault(number => number > 0);
        var numbers = parts.Select(part => int.TryParse(part, out var number) ? number : -1).Where(number => number >= 0).ToList();
        var said = numbers.Find(number => number > 31) is > 0 and var found ? found
            : month > 0 && numbers.Count == 1 ? 2000 + numbers[0] : year ?? 0;
        month = month > 0 || numbers.Count != 2 ? month : numbers.Find(number => number is > 0 and < 13);
        return parts.Length is 1 or 2 && month > 0 && said is > 1900 and < 2200 ? new DateOnly(said, month, 1) : null;
    }

    private static int? YearIn(string title) => MapWords.Plain(title).Split(' ')
        .Select(part => part.Length == 4 && int.TryParse(part, out var year) && year is > 1900 and < 2200 ? (int?)year : null)
        .FirstOrDefault(year => year is not null);
}
