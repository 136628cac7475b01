using Vlei.Core.Calendar;
using Vlei.Core.Reports;
using Vlei.Desk.Deliveries;

namespace Vlei.Desk;

/// <summary>What a page says that is no report: what moved since it was sent, what is to go out, what is asked, what is liked.</summary>
internal static class PageLists
{
    private const int Most = 5;

    /// <summary>The command that shows all of a list.</summary>
    public static string CommandOf(string list) => list switch
    {
        "questions" => "vlei show questions",
        "moved" => "vlei changes --since sent",
        "deliveries" => "vlei outbox",
        _ => "vlei show",
    };

    /// <summary>The lines of a list, each with the command that leads on, or nothing.</summary>
    public static IReadOnlyList<(string Text, string Command)> Of(ReportDesk desk, ReportContext context, string list) => list switch
    {
        "questions" => Questions(context),
        "moved" => Moved(desk),
        "deliveries" => DeliveriesOf(desk),
        _ => Favourites(desk),
    };

    private static List<(string Text, string Command)> Questions(ReportContext context)
    {
        var open = context.Ledger.Marks.Where(mark => mark.IsQuestion).Select(mark => ($"{mark.Finding}: {mark.Note}", "")).ToList();
        return open.Count > 0 ? [.. open.Take(Most)] : [("Nothing is asked.", "")];
    }

    private static List<(string Text, string Command)> Moved(ReportDesk desk)
    {
        if (new DeliveryLog(desk.Book).All.LastOrDefault(known => known.Sent is not null && known.Revision > 0) is not { } sent)
        {
            return [("Nothing was sent yet.", "")];
        }

        using var since = RecordsSince.Open(desk, sent.Revision);
        var count = since.Changes.Rows.Count(row => row.Kind == RowKind.Record);
        var day = PeriodText.Iso(DateOnly.FromDateTime(sent.Sent!.Value.LocalDateTime));
        return
        [
            ($"{sent.What}, {sent.Period}, sent {day}: " + (count switch
            {
                0 => "nothing has changed since.", 1 => "one document has changed since.", _ => $"{count} documents have changed since.",
            }), ""),
        ];
    }

    private static List<(string Text, string Command)> DeliveriesOf(ReportDesk desk)
    {
        var log = new DeliveryLog(desk.Book);
        var now = desk.Clock();
        List<(string, string)> lines =
        [
            .. log.All.Where(delivery => !delivery.IsDone).Take(Most).Select(delivery => (
                $"{Outbox.Words(delivery.State)}: {delivery.What}, {delivery.Period}, {delivery.ToInWords}",
                $"vlei outbox --show {delivery.Number}")),
            .. new BookSchedules(desk).All()
                .Select(schedule => (Next: schedule.Schedule.Time.After(now, schedule.Schedule.TimeZone).FirstOrDefault(), schedule))
                .Where(next => next.Next != default).OrderBy(next => next.Next).Take(Most)
                .Select(next => ($"{next.schedule.File.Name}: {PeriodText.Iso(DateOnly.FromDateTime(next.Next.DateTime))}", "")),
        ];
        return lines.Count > 0 ? lines : [("Nothing waits, and nothing is scheduled.", "")];
    }

    private static List<(string Text, string Command)> Favourites(ReportDesk desk)
    {
        var all = desk.Catalogue.Read().Kept.Where(report => report.IsFavourite).Select(report => report.Definition).ToList();
        return all.Count > 0 ? [.. all.Take(Most).Select(report => (report.Title, $"vlei show {report.Key}"))]
            : [("No report is a favourite yet.", "vlei save NAME --favourite")];
    }
}
