using System.Globalization;

namespace Vlei.Desk.Deliveries;

/// <summary>Finds what should have gone by itself and did not, as nothing was there to do it.</summary>
public static class Overdue
{
    private const string ToldName = "told";

    /// <summary>A line for each schedule whose last time has passed and that nothing has looked at.</summary>
    public static IReadOnlyList<string> In(ReportDesk desk, DateTimeOffset now)
    {
        var (log, schedules) = (new DeliveryLog(desk.Book), new BookSchedules(desk));
        return
        [
            .. schedules.Due(log, now).Select(due => !BookSchedules.IsLate(due.Due, now) ? null : string.Create(
                CultureInfo.InvariantCulture,
                $"{due.Schedule.File.Name} was due on {due.Due:yyyy-MM-dd} at {due.Due:HH:mm}, and nothing has run it: "
                    + $"vlei schedule due does it now, vlei schedule install has the computer do it.")).OfType<string>(),
            .. schedules.Problems.Select(problem => $"{problem.Message} {problem.Advice}".TrimEnd()),
        ];
    }

    /// <summary>The same, at most once a day: what every command says of its book.</summary>
    public static IReadOnlyList<string> OnceADay(ReportDesk desk)
    {
        var now = desk.Clock();
        var told = Path.Combine(desk.Book.PathOf(DeliveryLog.FolderName), ToldName);
        if ((File.Exists(told) && File.GetLastWriteTime(told).Date == now.LocalDateTime.Date) || In(desk, now) is not { Count: > 0 } lines)
        {
            return [];
        }

        try
        {
            _ = Directory.CreateDirectory(Path.GetDirectoryName(told)!);
            File.WriteAllBytes(told, []);
            File.SetLastWriteTime(told, now.LocalDateTime);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            // Who may only read the book is told each time.
        }

        return lines;
    }
}
