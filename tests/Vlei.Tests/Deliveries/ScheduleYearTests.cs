using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Desk;
using Vlei.Desk.Deliveries;

namespace Vlei.Tests.Deliveries;

/// <summary>
/// A year of schedules with a clock of the test, over both changes of daylight saving, with outages and a clock that jumps: exactly what
/// was due is done, each once; what was missed is made up for once, and marked late.
/// </summary>
public sealed class ScheduleYearTests : IDisposable
{
    private static readonly TimeZoneInfo Zone = TimeZoneInfo.FindSystemTimeZoneById("Europe/Berlin");

    private readonly Tool _tool = new Tool().WithDemo();

    public void Dispose() => _tool.Dispose();

    [Fact]
    public void A_year_with_outages_has_exactly_the_runs_that_were_due()
    {
        string[] whens = ["daily 02:30", "weekly sunday 03:00", "monthly last 23:45", "*/40 6-7 1 * *", "yearly 03-28 02:15"];
        _tool.Write(
            "reedwater/groups/year.toml",
            "period = \"2026-05\"\nhold = \"never\"\nformats = \"csv\"\nto = \"folder:year\"\n[[report]]\nreport = \"bank-activity\"\n"
                + string.Concat(whens.Select(when => $"[[schedule]]\nwhen = \"{when}\"\ntime-zone = \"Europe/Berlin\"\n")));
        var book = Book.Open(_tool.PathOf("reedwater"));
        var random = new Random(6);
        var start = new DateTimeOffset(2027, 1, 1, 0, 0, 0, TimeSpan.Zero);
        var (now, passes) = (start, new List<DateTimeOffset>());
        while (now < start.AddYears(1))
        {
            passes.Add(now);
            now += random.Next(40) switch
            {
                0 => TimeSpan.FromHours(random.Next(1, 200)),
                1 => TimeSpan.FromDays(random.Next(1, 40)),
                _ => TimeSpan.FromHours(random.Next(1, 30)),
            };
        }

        File.SetLastWriteTimeUtc(_tool.PathOf("reedwater/groups/year.toml"), start.UtcDateTime);
        var log = new DeliveryLog(book);
        foreach (var pass in passes)
        {
            Run(pass);

            // A clock that goes back, and a second pass at the same time, change nothing.
            if (random.Next(5) == 0)
            {
                Run(pass.AddHours(-random.Next(100)));
                Run(pass);
            }
        }

        log.Catch();
        foreach (var when in whens)
        {
            var time = ScheduleTime.Parse(when);
            var (expected, last) = (new List<(DateTimeOffset Due, int Missed, bool IsLate)>(), passes[0]);
            foreach (var pass in passes.Skip(1))
            {
                var due = time.After(last, Zone).TakeWhile(moment => moment <= pass).ToList();
                if (due.Count > 0)
                {
                    expected.Add((due[^1].ToUniversalTime(), due.Count - 1, pass - due[^1] > TimeSpan.FromMinutes(15)));
                    last = due[^1];
                }
            }

            Assert.Equal(
                expected,
                log.All.Where(delivery => delivery.Schedule.Contains($"|{when}|", StringComparison.Ordinal))
                    .OrderBy(delivery => delivery.Due)
                    .Select(delivery => (delivery.Due!.Value.ToUniversalTime(), delivery.Missed, delivery.IsLate)));
        }

        Assert.All(log.All, delivery => Assert.Equal(DeliveryState.Sent, delivery.State));

        void Run(DateTimeOffset at)
        {
            var desk = new ReportDesk(book, DateOnly.FromDateTime(at.UtcDateTime));
            Assert.Equal(new PassOutcome(0, 0, IsBusy: false), new SchedulePass(desk, () => at).Run(_ => { }));
        }
    }
}
