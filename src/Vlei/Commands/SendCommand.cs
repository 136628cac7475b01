using System.CommandLine;
using System.Globalization;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Deliveries;

namespace Vlei.Commands;

/// <summary><c>vlei send</c>: produces a group, a report or a page, and sends it once.</summary>
internal static class SendCommand
{
    private const int MostShown = 20;

    private static readonly Option<string[]> To = new("--to")
    {
        Description = "Where it goes, instead of what its file says: an address, folder:PATH, printer or printer:NAME; may be repeated",
        HelpName = "ADDRESS",
    };

    private static readonly Option<string?> Message = new("--message")
    {
        Description = "The letter, instead of what its file says; {period} and {REPORT.ROW} in it are replaced", HelpName = "TEXT",
    };

    private static readonly Option<string[]> Formats = new("--formats")
    {
        Description = "The formats of what goes along, with commas between them (else those of its file, else pdf)", HelpName = "LIST",
    };

    private static readonly Option<bool> Yes = new("--yes") { Description = "Send without asking, as scripts need it" };

    private static readonly Option<string?> DryRun = new("--dry-run")
    {
        Description = "Send nothing, and write the letters into this folder, as .eml files", HelpName = "DIR",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("send", "Produce a group, a report or a page, and send it")
        {
            Examples =
            [
                ("vlei send month-end", "for last month, to whom its file says; shown first, and asked"),
                ("vlei send month-end --period 2026-04 --to mara@example.org --yes", "another month to somebody else, without asking"),
                ("vlei send balance-sheet --as-of last-month --to owner@example.org --formats pdf,xlsx", "a report alone"),
                ("vlei send statement-of-account --period last-month", "to each customer their own"),
                ("vlei send overview --to owner@example.org", "a page: how things stand today"),
                ("vlei send month-end --dry-run letters/", "only look at the letters"),
            ],
        };
        foreach (var option in new Option[] { To, Message, Formats, Yes, DryRun })
        {
            command.Options.Add(option);
        }

        var arguments = new ReportArguments(command, orGroup: true);
        command.SetAction(result => Run(result, arguments));
        return command;
    }

    private static int Run(ParseResult result, ReportArguments arguments)
    {
        var desk = BookOptions.OpenDesk(result);
        var order = OrderOf(result, desk, arguments.OrdersOf(result)[0]);
        var folder = result.GetValue(DryRun);
        var mail = MailOf(desk, order, isNeeded: folder is null);
        RefuseWhereNotAllowed(order, mail);
        var log = new DeliveryLog(desk.Book);
        var stamp = string.Create(
            CultureInfo.InvariantCulture, $"{desk.Clock().LocalDateTime:yyyy-MM-ddTHH:mm:ss.fffffff}|{log.All.Count}");
        var made = Terminal.WithProgress(progress =>
        {
            progress("producing", 0);
            return new DeliveryMaker(desk, mail, desk.Clock()).Make(order, to => $"by hand|{stamp}|{to}", isBySelf: false, Terminal.Say);
        });
        Show(made, mail);
        if (made.Ready.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, "There is nobody to send it to.", "Choose others, or give their contacts an email.");
        }

        if (folder is not null)
        {
            return WriteLetters(folder, made);
        }

        return IsWanted(result, made.Ready.Count) ? Send(desk, log, made) : (int)ProblemKind.Usage;
    }

    private static DeliveryOrder OrderOf(ParseResult result, ReportDesk desk, ReportOrder asked)
    {
        var (schedules, group) = (new BookSchedules(desk), asked.IsStandard ? null : desk.Library.Find(KeptKind.Group, asked.Name));
        var names = new ReportCatalogue(desk.Library).Names.ToList();
        var page = group is null && !names.Contains(asked.Name) ? PageFile.Find(desk.Library, asked.Name) : null;
        if (group is null && page is null && !names.Contains(asked.Name))
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"There is no group, no report and no page {asked.Name}.",
                Suggestion.DidYouMean(
                    asked.Name, desk.Library.All(KeptKind.Group).Select(file => file.Name).Concat(names)
                        .Concat(PageFile.NamesIn(desk.Library)))
                    ?? "vlei group lists the groups, vlei reports the reports.");
        }

        if (asked.Revision is not null)
        {
            throw new ProblemException(ProblemKind.Usage, "--revision is for looking back.", "Send the records as they stand.");
        }

        var kind = group is not null ? KeptKind.Group : page is not null ? KeptKind.Page : KeptKind.Report;
        if (kind != KeptKind.Report && asked.Options.Keys.FirstOrDefault(name => name != ReportOptions.Period.Name) is { } other)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{other} is of a report, and {asked.Name} is a {kind.Word}.",
                $"Say it in the file of the {kind.Word}.");
        }

        var period = asked.Options.GetValueOrDefault(ReportOptions.Period.Name)?[0];
        var options = asked.Options.Where(option => option.Key != ReportOptions.Period.Name).ToDictionary();
        var order = group is not null ? schedules.Order(group)
            : page is not null ? schedules.Order(page)
            : schedules.Order(
                asked.Name, options,
                desk.Library.Find(KeptKind.Report, asked.Name) is { } kept ? schedules.Order(kept).Plan : new DeliveryPlan());
        var (to, formats) = (result.GetValue(To) ?? [], (result.GetValue(Formats) ?? []).SelectMany(list => list.Split(',')).ToList());
        if (result.GetValue(Message) is { } letter)
        {
            LetterTemplate.Check(letter, [.. order.Group.Members.Select(member => member.Name)]);
        }

        if (order.IsEach && to.Length > 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{asked.Name} goes to each customer alone, and --to is somebody else.",
                "Leave it out; vlei show --to FILE makes one to look at.");
        }

        var plan = order.Plan with
        {
            To = to.Length > 0 ? [.. to.Select(Recipient.Parse)] : order.Plan.To,
            Message = result.GetValue(Message) ?? order.Plan.Message,
            Formats = formats.Count > 0 ? formats : order.Plan.Formats,
        };
        return plan.To.Count > 0 || order.IsEach ? order with { Plan = plan, Period = period }
            : throw new ProblemException(
                ProblemKind.Usage, "It is not said where it goes.",
                $"Add --to name@example.org, or to = [\"…\"] to the file of {asked.Name}.");
    }

    // To look at letters nothing need be known of a server.
    private static MailSettings? MailOf(ReportDesk desk, DeliveryOrder order, bool isNeeded)
    {
        if (!order.IsEach && order.Plan.To.All(one => one.Kind != RecipientKind.Mail))
        {
            return null;
        }

        return isNeeded ? MailFile.Of(desk.Library) : MailFile.Find(desk.Library);
    }

    private static void RefuseWhereNotAllowed(DeliveryOrder order, MailSettings? mail)
    {
        if (mail is not null && order.Plan.To.Concat(order.Plan.Copies)
            .FirstOrDefault(one => one.Kind == RecipientKind.Mail && !mail.Allows(one.Place)) is { } other)
        {
            throw new ProblemException(
                ProblemKind.BadConfiguration, $"{mail.Path} does not allow {other.Place}.",
                $"It allows {Suggestion.Listed(mail.Allow, "and")}; change allow there if it may go.");
        }
    }

    private static void Show(ReadyDeliveries made, MailSettings? mail)
    {
        using var output = Terminal.Output();
        foreach (var ready in made.Ready.Take(MostShown))
        {
            output.WriteLine($"To       {ready.Delivery.ToInWords}");
            output.WriteLine($"Subject  {ready.Delivery.Subject}");
            foreach (var file in ready.Delivery.Attachments)
            {
                output.WriteLine(string.Create(CultureInfo.InvariantCulture, $"File     {file.Name}, {file.Bytes:N0} bytes"));
            }

            if (ready.Delivery.State == DeliveryState.Held)
            {
                output.WriteLine($"HELD     {ready.Delivery.Problem}");
            }

            output.WriteLine();
        }

        if (made.Ready.Count > MostShown)
        {
            output.WriteLine($"and {made.Ready.Count - MostShown} more\n");
        }

        if (made.Ready.Count > 0)
        {
            output.WriteLine(made.Ready.Count > 1 ? "The first letter:\n" : "The letter:\n");
            output.WriteLine(
                string.Join('\n', made.Ready[0].Text.ReplaceLineEndings("\n").Split('\n').Select(line => $"  {line}".TrimEnd())));
            output.WriteLine();
        }

        foreach (var without in made.WithoutAddress)
        {
            output.WriteLine($"No address: {without}");
        }

        if (mail is not null)
        {
            output.WriteLine($"From {mail.From.Text}, through {mail.Server} ({mail.Path})");
        }
    }

    private static int WriteLetters(string folder, ReadyDeliveries made)
    {
        _ = Directory.CreateDirectory(folder);
        var number = 0;
        foreach (var ready in made.Ready)
        {
            var name = string.Create(CultureInfo.InvariantCulture, $"{++number:D3}.eml");
            Destination.Write(Path.Combine(folder, name), (stream, _) => stream.Write(ready.Letter));
        }

        Terminal.Say($"Nothing was sent; {MappedMessages.Count(number, "letter")} {(number == 1 ? "is" : "are")} in {folder}");
        return made.Ready.Any(ready => ready.Delivery.State == DeliveryState.Held) ? ExitStatus.CheckFailed : ExitStatus.Done;
    }

    private static bool IsWanted(ParseResult result, int count)
    {
        if (result.GetValue(Yes))
        {
            return true;
        }

        if (!Terminal.CanAsk)
        {
            Terminal.Say("vlei: Nothing was sent: nobody is there to be asked.\n      Add --yes to send it.");
            return false;
        }

        if (Terminal.Agrees(count == 1 ? "Send it?" : $"Send these {count} letters?"))
        {
            return true;
        }

        Terminal.Say("Nothing was sent.");
        return false;
    }

    private static int Send(ReportDesk desk, DeliveryLog log, ReadyDeliveries made)
    {
        var numbers = made.Ready.Select(ready => log.Add(ready.Delivery with { Noted = desk.Clock() }, ready.Letter)?.Number
            ?? throw new ProblemException(
                ProblemKind.TryAgain, "Somebody sends the same just now.", "vlei outbox shows what; send it again if it is meant twice."))
            .ToList();
        if (!Terminal.WithProgress(progress =>
        {
            progress("sending", 0);
            return new Dispatcher(desk, log, desk.Clock).Send();
        }))
        {
            Terminal.Say("Another vlei is sending just now, and sends this too.");
        }

        log.Catch();
        var sent = numbers.Select(number => log[number]).ToList();
        OutboxCommand.Tell(sent.Count > MostShown ? [.. sent.Where(delivery => delivery.State != DeliveryState.Sent)] : sent);
        if (sent.Count(delivery => delivery.State == DeliveryState.Sent) is var count && sent.Count > MostShown)
        {
            Terminal.Say($"{count} of {sent.Count} letters are sent.");
        }

        return OutboxCommand.StatusOf(sent);
    }
}
