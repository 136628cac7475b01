using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>A schedule of a group, a report or a page of a book.</summary>
/// <param name="File">The file that has it.</param>
/// <param name="Schedule">The schedule.</param>
public sealed record BookSchedule(KeptFile File, DeliverySchedule Schedule)
{
    /// <summary>What tells it from all others of the book.</summary>
    public string Key => $"{File.Kind.Word}/{File.Name}|{Schedule.Key}";
}

/// <summary>The schedules of a book, and what of them is due.</summary>
/// <param name="desk">The book.</param>
public sealed class BookSchedules(ReportDesk desk)
{
    /// <summary>The kinds of files that say where what they are of goes.</summary>
    public static IReadOnlyList<KeptKind> Kinds { get; } = [KeptKind.Group, KeptKind.Report, KeptKind.Page];

    private readonly List<ProblemException> _problems = [];

    // What was due longer ago than this is late.
    private static readonly TimeSpan Grace = TimeSpan.FromMinutes(15);

    // A file that was written long ago and is seen for the first time, as after a move, does not make up for the past.
    private static readonly TimeSpan Lookback = TimeSpan.FromDays(1);

    /// <summary>What is wrong with files that have a schedule, or may have one: nothing of them goes out.</summary>
    public IReadOnlyList<ProblemException> Problems => _problems;

    /// <summary>All of them. A file that is not as it should be keeps no other from being read, and is among the problems.</summary>
    public IReadOnlyList<BookSchedule> All()
    {
        _problems.Clear();
        var all = new List<BookSchedule>();
        foreach (var file in Kinds.SelectMany(desk.Library.All).Where(file => !IsOfOtherBook(file)))
        {
            try
            {
                all.AddRange(HasOne(file) ? Read(file, file.Read()).Schedules.Select(schedule => new BookSchedule(file, schedule)) : []);
            }
            catch (ProblemException problem)
            {
                _problems.Add(problem);
            }
        }

        return all;
    }

    /// <summary>Whether something was due and is not noted in the outbox, each with when.</summary>
    public IEnumerable<(BookSchedule Schedule, DateTimeOffset Due, int Missed)> Due(DeliveryLog log, DateTimeOffset now)
    {
        foreach (var schedule in All())
        {
            var after = log.LastDue(schedule.Key) ?? log.Since(schedule.Key) ?? FirstSeen(schedule, now);
            if (schedule.Schedule.Time.LastWithin(after, now, schedule.Schedule.TimeZone) is var (due, missed))
            {
                yield return (schedule, due, missed);
            }
        }
    }

    /// <summary>Whether a moment is long enough ago that what was due then is late.</summary>
    public static bool IsLate(DateTimeOffset due, DateTimeOffset now) => now - due > Grace;

    /// <summary>Notes in the outbox since when each schedule is known.</summary>
    public void NoteAll(DeliveryLog log, DateTimeOffset now)
    {
        foreach (var schedule in All().Where(schedule => log.Since(schedule.Key) is null))
        {
            log.NoteSchedule(schedule.Key, FirstSeen(schedule, now));
        }
    }

    /// <summary>What is sent at a due time of a schedule.</summary>
    public DeliveryOrder OrderOf(BookSchedule schedule)
    {
        var order = Order(schedule.File);
        var own = schedule.Schedule;
        return order with
        {
            Period = own.Period ?? order.Period,
            Plan = order.Plan with
            {
                To = own.To.Count > 0 ? own.To : order.Plan.To,
                Formats = own.Formats.Count > 0 ? own.Formats : order.Plan.Formats,
                Message = own.Message ?? order.Plan.Message,
            },
        };
    }

    /// <summary>Where what a file is of goes, and when. Throws a <see cref="ProblemException"/> where it is not as it should be.</summary>
    /// <param name="file">The file.</param>
    /// <param name="text">What it says, or would say.</param>
    public DeliveryPlan Read(KeptFile file, string text) => file.Kind == KeptKind.Group ? GroupFile.Read(file, text).Delivery
        : file.Kind == KeptKind.Page ? PageFile.Read(text, file.Name, file.Path, desk.Library).Delivery
        : desk.Library.Read(file, text).Delivery;

    /// <summary>What is sent of a page.</summary>
    public DeliveryOrder Order(KeptPage page) => new(
        new ReportGroup(page.Name, page.Title, []) { Period = "today", HasCover = false, Front = page.Name },
        desk.Library.Find(KeptKind.Page, page.Name) is { } file ? PlanOf(file, page.Delivery) : page.Delivery);

    /// <summary>What is sent of a group, a report or a page that is kept.</summary>
    public DeliveryOrder Order(KeptFile file)
    {
        if (file.Kind == KeptKind.Page)
        {
            return Order(PageFile.Read(file.Read(), file.Name, file.Path, desk.Library));
        }

        if (file.Kind == KeptKind.Group)
        {
            var group = GroupFile.Whole(file, desk.Library);
            var plan = PlanOf(file, group.Delivery) with { Formats = group.Formats };
            _ = Naming.Of(file.Path, () =>
            {
                foreach (var letter in plan.Schedules.Select(schedule => schedule.Message).Append(plan.Message).OfType<string>())
                {
                    LetterTemplate.Check(letter, [.. group.Members.Select(member => member.Name)]);
                }

                return group;
            });
            return new DeliveryOrder(group, plan);
        }

        return Order(file.Name, new Dictionary<string, IReadOnlyList<string>>(), PlanOf(file, desk.Library.Read(file).Delivery));
    }

    // A book may serve another as its library; to whom its own reports go is no matter of the other's.
    private static bool IsOfOtherBook(KeptFile file) => file.Shelf.Word != "book" && Book.IsBook(file.Shelf.Folder);

    private static DeliveryPlan PlanOf(KeptFile file, DeliveryPlan plan) => IsOfOtherBook(file) ? new DeliveryPlan() : plan;

    /// <summary>What is sent of a report.</summary>
    /// <param name="name">The report, standard or kept.</param>
    /// <param name="options">What is asked of it.</param>
    /// <param name="plan">Where it goes.</param>
    public DeliveryOrder Order(string name, IReadOnlyDictionary<string, IReadOnlyList<string>> options, DeliveryPlan plan)
    {
        var definition = desk.Find(new ReportOrder(name, options));
        return new DeliveryOrder(
            new ReportGroup(name, definition.Title, [new GroupMember(name, name, "", options, name)])
            {
                Period = definition.Defaults.GetValueOrDefault("period") is [var period] ? period : GroupFile.DefaultPeriod,
                HasCover = false,
            }, plan)
        {
            Options = options, IsEach = definition.Each is not null,
        };
    }

    private static DateTimeOffset FirstSeen(BookSchedule schedule, DateTimeOffset now)
    {
        var written = new DateTimeOffset(File.GetLastWriteTimeUtc(schedule.File.Path), TimeSpan.Zero);
        return written > now ? now : written < now - Lookback ? now - Lookback : written;
    }

    // Nearly no file has one, and reading all of them as TOML takes a while. One that cannot be read at all says no word of it.
    private static bool HasOne(KeptFile file)
    {
        try
        {
            return file.Read().Contains(DeliveryKeys.ScheduleTable, StringComparison.Ordinal);
        }
        catch (ProblemException)
        {
            return false;
        }
    }
}
