using System.Globalization;
using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Core.Tests;

/// <summary>Periods as people type them, and what they are compared with.</summary>
public class PeriodTests
{
    private static readonly DateOnly Today = new(2026, 6, 17);
    private static readonly FiscalCalendar March = new(3);
    private static readonly DateRange Records = new(new DateOnly(2023, 3, 1), new DateOnly(2026, 6, 30));

    [Fact]
    public void At_the_close_of_a_day_what_ends_with_it_is_over() =>
        Gen.Select(Gen.Int[0, 2000], Gen.Int[1, 12], Gen.Enum<TimeUnit>(), Gen.Int[1, 5]).Sample((days, start, unit, count) =>
    {
        var calendar = new FiscalCalendar(start);
        var name = FiscalCalendar.UnitNames[(int)unit];
        var now = calendar.UnitOf(unit, new DateOnly(2020, 2, 28).AddDays(days));
        var close = WorkingDay.CloseOf(now, now.To);
        DateRange At(string text, WorkingDay day) => PeriodGrammar.Parse(text, day, calendar).Within(Records).Range;
        Assert.Equal(now, At($"last-{name}", close));
        Assert.Equal(now, At($"this-{name}", close));
        Assert.Equal(now, At($"{name}-to-date", close));
        Assert.Equal(At($"last-{count}-{name}s", now.To.AddDays(1)), At($"last-{count}-{name}s", close));
        Assert.Equal(new DateRange(now.To.AddDays(1 - count), now.To), At($"last-{count}-days", close));

        // The day after, and as long as the period goes on, nothing is different from any day.
        Assert.Equal(At($"last-{name}", now.From), At($"last-{name}", WorkingDay.CloseOf(now with { To = now.To.AddDays(9) }, now.From)));
    });

    [Fact]
    public void Fixed_dates_are_told_from_words_and_have_words_for_them_where_there_are_any() =>
        Gen.Select(Gen.Int[0, 2000], Gen.Int[1, 12]).Sample((days, start) =>
    {
        var (calendar, today) = (new FiscalCalendar(start), new DateOnly(2022, 5, 30).AddDays(days));
        foreach (var word in PeriodGrammar.Words)
        {
            Assert.False(FixedDates.IsFixed(word, today, calendar), word);
            var range = PeriodGrammar.Parse(word, today, calendar).Within(Records).Range;
            if (word != "all" && PeriodText.Key(range, calendar) is var key)
            {
                Assert.True(FixedDates.IsFixed(key, today, calendar), key);
                Assert.Equal(range, PeriodGrammar.Parse(FixedDates.WordsFor(key, today, calendar)!, today, calendar).Within(Records).Range);
            }
        }
    });

    [Fact]
    public void An_interval_begins_as_its_first_end_does_and_ends_as_its_last_does()
    {
        var end = Gen.OneOf(
            Choose.One([.. PeriodGrammar.Words, "2-weeks-ago", "5-days-ago", ""]),
            Gen.Select(
                Gen.Int[2020, 2030], Gen.Int[1, 12],
                Choose.One("{0}", "{0}-{1:00}", "{0}-{1:00}-07", "fy{0}", "{0}-W{1:00}", "FY{0}-Q2"))
                .Select((year, month, form) => string.Format(CultureInfo.InvariantCulture, form, year, month)));
        Gen.Select(end, end).Sample((first, last) =>
        {
            var from = first.Length == 0 ? default : PeriodGrammar.Parse(first, Today, March);
            var to = last.Length == 0 ? default : PeriodGrammar.Parse(last, Today, March);
            OpenPeriod Read() => PeriodGrammar.Parse($"{first}/{last}", Today, March);
            if ((first + last).Length == 0 || from.From > to.To)
            {
                Assert.Throws<ProblemException>(() => Read());
            }
            else
            {
                Assert.Equal((from.From, to.To), (Read().From, Read().To));
            }

            Assert.Throws<ProblemException>(() => PeriodGrammar.Parse($"{first}//{last}", Today, March));
            Assert.Throws<ProblemException>(() => PeriodGrammar.Parse($"{first}/P1M/{last}", Today, March));
        });

        // A duration stands beside fixed days alone.
        Assert.All(
            ["/", "today/P1M", "P1M/today", "P1M/P1M", "P/2026", "2026/p", "P1M", "P1M/"],
            text => Assert.Throws<ProblemException>(() => PeriodGrammar.Parse(text, Today, March)));
    }

    [Theory]
    [InlineData("2026", "2026-01-01", "2026-12-31", "2026")]
    [InlineData("2026-Q1", "2026-01-01", "2026-03-31", "2026-Q1")]
    [InlineData("2026-03", "2026-03-01", "2026-03-31", "2026-03")]
    [InlineData("2026-W07", "2026-02-09", "2026-02-15", "2026-W07")]
    [InlineData("2020-W53", "2020-12-28", "2021-01-03", "2020-W53")]
    [InlineData("2026-03-15", "2026-03-15", "2026-03-15", "2026-03-15")]
    [InlineData("fy2026", "2025-03-01", "2026-02-28", "fy2026")]
    [InlineData("FY2026-q1", "2025-03-01", "2025-05-31", "fy2026-Q1")]
    [InlineData("2026-01-15/2026-02-14", "2026-01-15", "2026-02-14", "2026-01-15/2026-02-14")]
    [InlineData("2026-01/P3M", "2026-01-01", "2026-03-31", "2026-Q1")]
    [InlineData("P1Y2M/2026-02", "2025-01-01", "2026-02-28", "2025-01-01/2026-02-28")]
    [InlineData("2026-01-31/P1M", "2026-01-31", "2026-02-27", "2026-01-31/2026-02-27")]
    [InlineData("2026-01/2026-Q2", "2026-01-01", "2026-06-30", "2026-01-01/2026-06-30")]
    [InlineData("/2023-04", "2023-03-01", "2023-04-30", "2023-03-01/2023-04-30")]
    [InlineData("/2020", "2020-12-31", "2020-12-31", "2020-12-31")]
    [InlineData("2026-05/", "2026-05-01", "2026-06-30", "2026-05-01/2026-06-30")]
    [InlineData("all", "2023-03-01", "2026-06-30", "2023-03-01/2026-06-30")]
    [InlineData("today", "2026-06-17", "2026-06-17", "2026-06-17")]
    [InlineData("yesterday", "2026-06-16", "2026-06-16", "2026-06-16")]
    [InlineData("this-week", "2026-06-15", "2026-06-21", "2026-W25")]
    [InlineData("week-to-date", "2026-06-15", "2026-06-17", "2026-06-15/2026-06-17")]
    [InlineData("month-to-date", "2026-06-01", "2026-06-17", "2026-06-01/2026-06-17")]
    [InlineData("last-month", "2026-05-01", "2026-05-31", "2026-05")]
    [InlineData("3-months-ago", "2026-03-01", "2026-03-31", "2026-03")]
    [InlineData("1-fiscal-year-ago", "2025-03-01", "2026-02-28", "fy2026")]
    [InlineData("10-days-ago", "2026-06-07", "2026-06-07", "2026-06-07")]
    [InlineData("3-months-ago/today", "2026-03-01", "2026-06-17", "2026-03-01/2026-06-17")]
    [InlineData("this-fiscal-quarter", "2026-06-01", "2026-08-31", "fy2027-Q2")]
    [InlineData("last-fiscal-year", "2025-03-01", "2026-02-28", "fy2026")]
    [InlineData("fiscal-year-to-date", "2026-03-01", "2026-06-17", "2026-03-01/2026-06-17")]
    [InlineData("last-30-days", "2026-05-19", "2026-06-17", "2026-05-19/2026-06-17")]
    [InlineData("last-3-months", "2026-03-01", "2026-05-31", "fy2027-Q1")]
    [InlineData("last-2-fiscal-years", "2024-03-01", "2026-02-28", "2024-03-01/2026-02-28")]
    public void A_period_means_these_days(string text, string from, string to, string key)
    {
        var range = PeriodGrammar.Parse(text, Today, March).Within(Records).Range;
        Assert.Equal(
            (from, to, key), (PeriodText.Iso(range.From), PeriodText.Iso(range.To), PeriodText.Key(range, March)));
    }

    [Theory]
    [InlineData("last-mont", "\"last-mont\" is not a period. Did you mean last-month?")]
    [InlineData("2026-4", "\"2026-4\" is not a period. Did you mean 2026-04?")]
    [InlineData("04/2026", "\"04/2026\" is not a period. Did you mean 2026-04?")]
    [InlineData("april 2026", "\"april 2026\" is not a period. Did you mean 2026-04?")]
    [InlineData("april", "\"april\" is not a period. Did you mean 2026-04?")]
    [InlineData("Aug", "\"Aug\" is not a period. Did you mean 2025-08?")]
    [InlineData("31.5.2026", "\"31.5.2026\" is not a period. Did you mean 2026-05-31?")]
    [InlineData("04/05/2026", "\"04/05/2026\" is not a period. Did you mean 2026-05-04 or 2026-04-05?")]
    [InlineData("2026/5/31", "\"2026/5/31\" is not a period. Did you mean 2026-05-31?")]
    [InlineData("20260531", "\"20260531\" is not a period. Did you mean 2026-05-31?")]
    [InlineData("2026-01..2026-3", "\"2026-01..2026-3\" is not a period. Did you mean 2026-01/2026-03?")]
    [InlineData("this-year-to-date", "\"this-year-to-date\" is not a period. Did you mean year-to-date?")]
    [InlineData("ytd", "\"ytd\" is not a period. Did you mean year-to-date?")]
    [InlineData("2026-13", "There is no month 13. Months are 01 to 12, as in 2026-03.")]
    [InlineData("2026-02-30", "There is no day 2026-02-30. 2026-02 has 28 days.")]
    [InlineData("2026-W54", "There is no week 54 in 2026. 2026 has weeks W01 to W53.")]
    [InlineData("2026-Q5", "There is no quarter 5. Quarters are Q1 to Q4.")]
    [InlineData("0026", "The year 0026 is out of reach. Years run from 1900 to 2199.")]
    [InlineData(
        "2026-03/2026-01",
        "The period \"2026-03/2026-01\" ends (2026-01-31) before it starts (2026-03-01). Write the earlier day first.")]
    [InlineData("last-0-days", "last-0 is no time at all. Write a number from 1, as in last-3-months.")]
    public void What_is_no_period_is_answered(string text, string answer)
    {
        var problem = Assert.Throws<ProblemException>(() => PeriodGrammar.Parse(text, Today, March));
        Assert.Equal(answer, $"{problem.Message} {problem.Advice}");
        Assert.Equal(ProblemKind.Usage, problem.Kind);
    }

    [Theory]
    [InlineData("2026-03", "prior-period", "2026-02")]
    [InlineData("2026-01/P3M", "prior-period:2", "2025-Q4 2025-Q3")]
    [InlineData("2026-03-01/2026-03-30", "prior-period", "2026-01-30/2026-02-28")]
    [InlineData("2026-W07", "prior-period", "2026-W06")]
    [InlineData("2024-02", "prior-year", "2023-02")]
    [InlineData("2023-02", "prior-year", "2022-02")]
    [InlineData("2025-02", "prior-year", "2024-02")]
    [InlineData("2024-02-29", "prior-year", "2023-02-28")]
    [InlineData("fiscal-year-to-date", "prior-period", "2025-03-01/2025-06-17")]
    [InlineData("month-to-date", "prior-period:2", "2026-05-01/2026-05-17 2026-04-01/2026-04-17")]
    [InlineData("2026-03", "2024-07:2", "2024-07 2024-06")]
    [InlineData("2026-05", "year-to-date:2", "fy2027-Q1 fy2026-Q1")]
    [InlineData("2026-02", "year-to-date", "fy2026")]
    [InlineData("2026-05-31", "prior-period:3", "2026-04-30 2026-03-31 2026-02-28", true)]
    [InlineData("2026-05-30", "prior-period:3", "2026-04-30 2026-03-30 2026-02-28", true)]
    [InlineData("2026-02-28", "prior-year:2", "2025-02-28 2024-02-29", true)]
    [InlineData("2026-05", "prior-period", "2026-04-30", true)]
    [InlineData("2026-05", "year-start:2", "2026-02-28 2025-02-28", true)]
    [InlineData("2026-Q1", "year-start", "2026-02-28", true)]
    public void A_period_is_compared_with_these(string text, string compare, string earlier, bool isOfMoment = false)
    {
        var period = PeriodGrammar.Parse(text, Today, March).Within(Records);
        var cuts = Comparison.Parse(compare, Today, March).Earlier(period, [period.Range], null, isOfMoment, March, Records);
        Assert.Equal(
            earlier, string.Join(' ', cuts.Select(cut => isOfMoment ? PeriodText.Iso(cut[^1].To) : PeriodText.Key(cut[0], March))));
    }

    [Fact]
    public void A_key_names_its_days_exactly() =>
        Gen.Select(Gen.Int[0, 40_000], Gen.Int[0, 800], Gen.Int[1, 12], Gen.Enum<TimeUnit>(), Gen.Bool)
        .Sample((start, days, month, unit, whole) =>
        {
            var calendar = new FiscalCalendar(month);
            var from = new DateOnly(1950, 1, 1).AddDays(start);
            var range = whole ? calendar.UnitOf(unit, from) : new DateRange(from, from.AddDays(days));
            Assert.Equal(
                range, PeriodGrammar.Parse(PeriodText.Key(range, calendar), Today, calendar).Within(Records).Range);
        });

    [Fact]
    public void Pieces_cover_a_period_and_so_do_the_earlier_ones() =>
        Gen.Select(Gen.Int[0, 1000], Gen.Int[0, 800], Gen.Enum<TimeUnit>(), Gen.Int[1, 3])
        .Sample((start, days, unit, count) =>
        {
            var period = new Period(
                new DateRange(new DateOnly(2023, 1, 1).AddDays(start), new DateOnly(2023, 1, 1).AddDays(start + days)));
            var pieces = March.Split(period.Range, unit);
            foreach (var cut in new[] { pieces, period.Prior(count, pieces), Period.YearsBefore(count, pieces) })
            {
                Assert.Equal(cut[^1].To.DayNumber - cut[0].From.DayNumber + 1, cut.Sum(piece => piece.Days));
                Assert.All(cut.Zip(cut.Skip(1)), pair => Assert.Equal(
                    pair.First.IsEmpty ? pair.First.From : pair.First.To.AddDays(1), pair.Second.From));
            }
        });
}
