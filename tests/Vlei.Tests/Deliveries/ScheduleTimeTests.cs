using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Tests.Deliveries;

/// <summary>Times of schedules, against a model that looks at every minute of two years, over every change of daylight saving.</summary>
public class ScheduleTimeTests
{
    [Theory]
    [InlineData("daily 18:00", "Europe/Berlin")]
    [InlineData("daily 02:30", "Europe/Berlin")]
    [InlineData("weekdays 08:00", "America/New_York")]
    [InlineData("weekly sunday 07:00", "Africa/Johannesburg")]
    [InlineData("weekly sunday 02:15", "America/New_York")]
    [InlineData("monthly 3 07:00", "Africa/Johannesburg")]
    [InlineData("monthly last 18:00", "Australia/Lord_Howe")]
    [InlineData("quarterly 5 07:00", "Asia/Kathmandu")]
    [InlineData("quarterly last 23:59", "Europe/Berlin")]
    [InlineData("yearly 02-28 00:00", "Europe/Berlin")]
    public void Every_time_of_two_years_is_there_once_and_no_other(string text, string zoneName)
    {
        var zone = TimeZoneInfo.FindSystemTimeZoneById(zoneName);
        var (from, to) = (new DateTimeOffset(2027, 1, 1, 0, 0, 0, TimeSpan.Zero), new DateTimeOffset(2029, 1, 1, 0, 0, 0, TimeSpan.Zero));
        var actual = ScheduleTime.Parse(text).After(from.AddTicks(-1), zone).TakeWhile(due => due < to).ToList();
        var parts = text.Split(' ');
        var time = TimeOnly.ParseExact(parts[^1], "HH:mm", CultureInfo.InvariantCulture);

        // A day has the time once: at its first minute that is not before it.
        var expected = new List<DateTimeOffset>();
        DateOnly? done = null;
        for (var moment = from.AddDays(-2); moment < to; moment = moment.AddMinutes(1))
        {
            var local = TimeZoneInfo.ConvertTime(moment, zone);
            var day = DateOnly.FromDateTime(local.DateTime);
            if (day != done && TimeOnly.FromDateTime(local.DateTime) >= time)
            {
                done = day;
                if (IsOn(parts, day) && moment >= from)
                {
                    expected.Add(moment);
                }
            }
        }

        Assert.Equal(expected, actual.Select(due => due.ToUniversalTime()));
    }

    [Theory]
    [InlineData("monthly 31 07:00", "write monthly last")]
    [InlineData("montly 3 07:00", "Did you mean monthly?")]
    [InlineData("weekly sundya 07:00", "Did you mean sunday?")]
    [InlineData("daily 25:00", "daily 18:00")]
    [InlineData("", "daily 18:00")]
    [InlineData("* * * * * *", "daily 18:00")]
    [InlineData("yearly 02-30 07:00", "daily 18:00")]
    public void What_is_no_time_is_refused_with_what_is_meant(string text, string advice)
    {
        var problem = Assert.Throws<ProblemException>(() => ScheduleTime.Parse(text));
        Assert.Contains(advice, problem.Advice, StringComparison.Ordinal);
    }

    private static bool IsOn(string[] parts, DateOnly day) => parts switch
    {
        ["daily", _] => true,
        ["weekdays", _] => day.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday),
        ["weekly", var name, _] => day.DayOfWeek.ToString().Equals(name, StringComparison.OrdinalIgnoreCase),
        ["monthly", "last", _] => day.AddDays(1).Day == 1,
        ["monthly", var number, _] => day.Day == int.Parse(number, CultureInfo.InvariantCulture),
        ["quarterly", "last", _] => day.AddDays(1).Day == 1 && day.Month % 3 == 0,
        ["quarterly", var number, _] => day.Day == int.Parse(number, CultureInfo.InvariantCulture) && day.Month % 3 == 1,
        _ => $"{day:MM-dd}" == parts[1],
    };
}
