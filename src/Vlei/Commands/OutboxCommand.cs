using System.CommandLine;
using System.Globalization;
using Vlei.Core.Problems;
using Vlei.Desk.Deliveries;

namespace Vlei.Commands;

/// <summary><c>vlei outbox</c>: what is held, waits, failed and was sent; and what a person does about it.</summary>
internal static class OutboxCommand
{
    private const int DaysShown = 31;

    private static readonly Option<bool> All = new("--all") { Description = "List everything that ever was in it" };

    private static readonly Option<string?> Period = new("--period")
    {
        Description = "List what was sent in a period, as 2026-05 or last-month", HelpName = "P",
    };

    private static readonly Option<int?> Shown = Number("--show", "Show one: what is known of it, and its letter");
    private static readonly Option<int?> Letter = Number("--letter", "Write the letter of one as it was sent (.eml) to standard output");
    private static readonly Option<int?> Approve = Number("--approve", "Let one go that is held, and send it");
    private static readonly Option<int?> Retry = Number("--retry", "Try one once more that failed or waits");
    private static readonly Option<int?> Withdraw = Number("--withdraw", "Take one back that was not sent");

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("outbox", "List what is held, waits, failed, and was sent lately")
        {
            Examples =
            [
                ("vlei outbox", "what needs somebody, and what was sent in the last month"),
                ("vlei outbox --period 2026-05", "what was sent in May?"),
                ("vlei outbox --show 12", "all that is known of one, and its letter"),
                ("vlei outbox --approve 12", "it may go"),
                ("vlei outbox --letter 12 > letter.eml", "the letter as it was sent, with all its files"),
            ],
        };
        foreach (var option in new Option[] { All, Period, Shown, Letter, Approve, Retry, Withdraw })
        {
            command.Options.Add(option);
        }

        command.SetAction(Run);
        return command;
    }

    /// <summary>The exit status that some deliveries lead to.</summary>
    public static int StatusOf(IReadOnlyCollection<Delivery> deliveries) =>
        deliveries.Any(delivery => delivery.State is DeliveryState.Failed or DeliveryState.Held) ? ExitStatus.CheckFailed
        : deliveries.Any(delivery => delivery.State is DeliveryState.Waiting or DeliveryState.Sending or DeliveryState.Due)
            ? (int)ProblemKind.TryAgain : ExitStatus.Done;

    /// <summary>Tells on standard error how some deliveries stand.</summary>
    public static void Tell(IReadOnlyList<Delivery> deliveries)
    {
        foreach (var delivery in deliveries)
        {
            Terminal.Say($"{delivery.Number}  {Outbox.Words(delivery.State)}: {delivery.ToInWords}{Why(delivery)}");
        }
    }

    private static Option<int?> Number(string name, string meaning) => new(name) { Description = meaning, HelpName = "N" };

    private static int Run(ParseResult result)
    {
        var desk = BookOptions.OpenDesk(result);
        var log = new DeliveryLog(desk.Book);
        var outbox = new Outbox(log, desk.Clock);
        (Option<int?> Option, Action<int> Do)[] actions = [(Approve, outbox.Approve), (Retry, outbox.Retry), (Withdraw, outbox.Withdraw)];
        var typed = new Option[] { All, Period, Shown, Letter, Approve, Retry, Withdraw }
            .Where(option => result.GetResult(option) is { Implicit: false }).ToList();
        if (typed.Count > 1)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{typed[0].Name} and {typed[1].Name} do not go together.", "Do one after the other.");
        }

        if (result.GetValue(Shown) is { } shown)
        {
            Show(log, log[shown]);
            return ExitStatus.Done;
        }

        if (result.GetValue(Letter) is { } wanted)
        {
            Destination.Write(null, (stream, _) => stream.Write(log.Letter(log[wanted])));
            return ExitStatus.Done;
        }

        foreach (var (option, act) in actions)
        {
            if (result.GetValue(option) is { } number)
            {
                act(number);
                _ = new SchedulePass(desk, desk.Clock).GoOn(Terminal.Say);
                log.Catch();
                Tell([log[number]]);
                return log[number].State == DeliveryState.Withdrawn ? ExitStatus.Done : StatusOf([log[number]]);
            }
        }

        return List(result, desk, log);
    }

    private static int List(ParseResult result, Desk.ReportDesk desk, DeliveryLog log)
    {
        var now = desk.Clock();
        var days = result.GetValue(Period) is { } period
            ? Core.Calendar.PeriodGrammar.Parse(period, desk.Today, desk.Settings.Calendar)
                .Within(new Core.Calendar.DateRange(DateOnly.MinValue, DateOnly.MaxValue)).Range
            : (Core.Calendar.DateRange?)null;
        var shown = log.All.Where(delivery => days is { } asked ? delivery.Sent is { } sent && asked.Contains(DayOf(sent))
            : result.GetValue(All) || !delivery.IsDone || (delivery.Sent is { } lately && now - lately < TimeSpan.FromDays(DaysShown)))
                .ToList();
        using var output = Terminal.Output();
        if (shown.Count == 0)
        {
            output.WriteLine(days is not null ? "Nothing was sent then." : "The outbox is empty.");
            return ExitStatus.Done;
        }

        PlainTable.Write(output, ["no.", "state", "when", "what", "period", "to"], [.. shown.Select(delivery => (string[])
        [
            delivery.Number.ToString(CultureInfo.InvariantCulture), Outbox.Words(delivery.State) + (delivery.IsLate ? ", late" : ""),
            TimeOf(delivery.Sent ?? delivery.Made ?? delivery.Due), delivery.What, delivery.Period, delivery.ToInWords,
        ])]);
        foreach (var delivery in shown.Where(delivery => delivery.Problem.Length + delivery.Remark.Length > 0))
        {
            output.WriteLine($"{delivery.Number}{Why(delivery)}");
        }

        return StatusOf([.. log.All.Where(delivery => !delivery.IsDone)]);
    }

    private static void Show(DeliveryLog log, Delivery delivery)
    {
        using var output = Terminal.Output();
        (string Name, string Value)[] known =
        [
            ("State", Outbox.Words(delivery.State) + (delivery.IsLate ? ", late" : "")), ("What", $"{delivery.What}: {delivery.Title}"),
            ("Period", delivery.Period), ("To", delivery.ToInWords), ("Subject", delivery.Subject), ("Due", TimeOf(delivery.Due)),
            ("Missed before", delivery.Missed == 0 ? "" : delivery.Missed.ToString(CultureInfo.InvariantCulture)),
            ("Made", TimeOf(delivery.Made)),
            ("Revision", delivery.Revision == 0 ? "" : delivery.Revision.ToString(CultureInfo.InvariantCulture)),
            ("Sent", TimeOf(delivery.Sent)), ("Tries", delivery.Tries == 0 ? "" : delivery.Tries.ToString(CultureInfo.InvariantCulture)),
            ("Next try", TimeOf(delivery.NextTry)), ("Why", delivery.Problem), ("Remark", delivery.Remark),
            ("Message-ID", delivery.MessageId),
            .. delivery.Attachments.Select(file => (
                "File", string.Create(CultureInfo.InvariantCulture, $"{file.Name}, {file.Bytes:N0} bytes, sha256 {file.Sum}"))),
        ];
        foreach (var (name, value) in known.Where(pair => pair.Value.Length > 0))
        {
            output.WriteLine($"{name,-13}  {value}");
        }

        if (delivery.LetterSum.Length > 0)
        {
            output.WriteLine();
            output.WriteLine(LetterParts.Text(log.Letter(delivery)).TrimEnd());
        }
    }

    private static string Why(Delivery delivery) => string.Concat(new[]
    {
        delivery.Problem, delivery.State == DeliveryState.Waiting && delivery.NextTry is { } next ? $"Next try {TimeOf(next)}." : "",
        delivery.Remark,
    }.Where(text => text.Length > 0).Select(text => $"  {text}"));

    private static DateOnly DayOf(DateTimeOffset moment) => DateOnly.FromDateTime(moment.LocalDateTime);

    private static string TimeOf(DateTimeOffset? moment) =>
        moment?.LocalDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture) ?? "";
}
