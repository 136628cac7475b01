using System.CommandLine;
using System.Globalization;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Desk;
using Vlei.Desk.Deliveries;
using Vlei.Desk.Runs;

namespace Vlei.Commands;

/// <summary><c>vlei schedule</c>: what is sent by itself and when, and doing what is due.</summary>
internal static class ScheduleCommand
{
    private const int NextShown = 5;

    private static readonly (string Name, Func<ParseResult, int> Run)[] Actions =
    [
        ("list", List), ("add", Add), ("remove", Remove), ("due", Due), ("run", Forever), ("install", ScheduleInstall.Run),
    ];

    private static readonly string[] Headings = ["book", "what", "when", "next", "last"];

    private static readonly Argument<string> Action = new("ACTION")
    {
        Description =
            "list: what there is, and what came of it; add and remove: change the file of a group or a report; due: do what is due, "
            + "and send what waits, once; run: the same again and again; install: have the computer do it",
        DefaultValueFactory = _ => "list",
    };

    private static readonly Argument<string?> What = new("GROUP")
    {
        Description = "With add and remove: the group or the kept report", Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> When = new("--when")
    {
        Description = $"When it is due: {ScheduleTime.Forms}",
        HelpName = "TIME",
    };

    private static readonly Option<string?> TimeZone = new("--time-zone")
    {
        Description = "With add: the time zone, as Africa/Johannesburg (else the computer's)", HelpName = "ZONE",
    };

    private static readonly Option<string?> Period = new("--period")
    {
        Description = "With add: the period, seen from the day that it is due (else the group's)", HelpName = "P",
    };

    private static readonly Option<string[]> To = new("--to")
    {
        Description = "With add: where it goes, if not where the file says; may be repeated", HelpName = "ADDRESS",
    };

    private static readonly Option<bool> Next = new("--next") { Description = $"With list: the next {NextShown} times of each" };

    /// <summary>The books that it is about.</summary>
    public static Option<string[]> OfBooks { get; } = new("--books")
    {
        Description = "All books that a pattern fits, with quotes around it: 'clients/*'; may be repeated", HelpName = "PATTERN",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("schedule", "Send groups and reports by themselves, at their times")
        {
            Examples =
            [
                ("vlei schedule", "every schedule: next and last time, and what came of it"),
                ("vlei schedule add month-end --when \"monthly 3 07:00\" --to mara@example.org", "on every third"),
                ("vlei schedule --next", "the next times, to see that they are meant"),
                ("vlei schedule due", "do what is due now, and send what waits"),
                ("vlei schedule install --books 'clients/*'", "have systemd do that every five minutes"),
                ("vlei schedule remove month-end", "no more"),
            ],
        };
        Action.CompletionSources.Add([.. Actions.Select(action => action.Name)]);
        What.CompletionSources.Add(context => ReportArguments.LibraryOf(context) is var library
            ? BookSchedules.Kinds.SelectMany(library.All)
                .Select(file => new System.CommandLine.Completions.CompletionItem(file.Name)) : []);
        command.Arguments.Add(Action);
        command.Arguments.Add(What);
        foreach (var option in new Option[] { When, TimeZone, Period, To, Next, OfBooks, ScheduleInstall.Cron, ScheduleInstall.Remove })
        {
            command.Options.Add(option);
        }

        command.SetAction(Run);
        return command;
    }

    /// <summary>The books that are meant: those that a pattern fits, else the one here; each by its folder or address.</summary>
    public static IReadOnlyList<string> BooksOf(ParseResult result) => result.GetValue(OfBooks) is { Length: > 0 } patterns
        ? result.GetResult(BookOptions.Book) is { Implicit: false }
            ? throw new ProblemException(ProblemKind.Usage, "--book and --books both say which.", "Give one of them.")
            : BookSet.Of(patterns, Terminal.Say)
        : [BookOptions.Named(result) ?? BookOptions.OpenBook(result).Folder];

    private static int Run(ParseResult result)
    {
        var name = result.GetRequiredValue(Action);
        var names = Actions.Select(action => action.Name).ToList();
        if (!names.Contains(name))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"vlei schedule does not {name}.",
                Suggestion.DidYouMean(name, names) ?? $"It takes {Suggestion.Listed(names, "or")}.");
        }

        (Option Option, string[] Of)[] belongs =
        [
            (When, ["add", "remove"]), (TimeZone, ["add"]), (Period, ["add"]), (To, ["add"]), (Next, ["list"]),
            (OfBooks, ["list", "due", "run", "install"]), (ScheduleInstall.Cron, ["install"]), (ScheduleInstall.Remove, ["install"]),
        ];
        if (belongs.FirstOrDefault(option => result.GetResult(option.Option) is { Implicit: false } && !option.Of.Contains(name))
            is { Option: not null } misplaced)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{misplaced.Option.Name} is of vlei schedule {Suggestion.Listed(misplaced.Of, "and")}.",
                "Leave it out.");
        }

        return result.GetValue(What) is null == name is "add" or "remove"
            ? throw new ProblemException(
                ProblemKind.Usage, name is "add" or "remove" ? $"It is not said what to {name}." : $"vlei schedule {name} takes no name.",
                name is "add" or "remove" ? $"Name a group or a kept report: vlei schedule {name} month-end." : "Leave it out.")
            : Actions[names.IndexOf(name)].Run(result);
    }

    private static int List(ParseResult result)
    {
        var (rows, trouble, books) = (new List<string[]>(), new List<string>(), BooksOf(result));
        foreach (var folder in books)
        {
            var desk = new ReportDesk(Book.Open(folder), BookOptions.ClockTyped(result));
            var (log, now) = (new DeliveryLog(desk.Book), desk.Clock());
            foreach (var schedule in new BookSchedules(desk).All())
            {
                var next = schedule.Schedule.Time.After(now, schedule.Schedule.TimeZone).Take(result.GetValue(Next) ? NextShown : 1);
                var last = log.All.LastOrDefault(delivery => delivery.Schedule == schedule.Key);
                rows.AddRange(next.Select((time, place) => (string[])[
                    .. books.Count > 1 ? new[] { place == 0 ? BookSet.NameOf(folder) : "" } : [], place == 0 ? schedule.File.Name : "",
                    place == 0 ? schedule.Schedule.Time.Text + (schedule.Schedule.Zone is { } zone ? $" {zone}" : "") : "",
                    TimeOf(time), place > 0 ? "" : last is null ? "never"
                        : $"{TimeOf(TimeZoneInfo.ConvertTime(last.Due!.Value, schedule.Schedule.TimeZone))} {Outbox.Words(last.State)}"]));
            }

            trouble.AddRange(Overdue.In(desk, now));
        }

        using var output = Terminal.Output();
        if (rows.Count == 0)
        {
            output.WriteLine("Nothing is scheduled.");
        }
        else
        {
            PlainTable.Write(output, Headings[(books.Count > 1 ? 0 : 1)..], rows);
        }

        var isRed = Terminal.Look().Colour;
        foreach (var line in trouble)
        {
            output.WriteLine(isRed ? $"\u001b[31m{line}\u001b[0m" : line);
        }

        return trouble.Count > 0 ? ExitStatus.CheckFailed : ExitStatus.Done;
    }

    private static int Add(ParseResult result)
    {
        var desk = BookOptions.OpenDesk(result);
        var when = result.GetValue(When) ?? throw new ProblemException(
            ProblemKind.Usage, "It is not said when.", "Add --when \"monthly 3 07:00\".");
        using var turn = FileTurn.Take(desk.Book.Folder);
        var schedule = new KeptSchedules(desk).Add(
            result.GetRequiredValue(What)!, when, result.GetValue(TimeZone), result.GetValue(Period), result.GetValue(To) ?? []);
        var next = schedule.Schedule.Time.After(desk.Clock(), schedule.Schedule.TimeZone).Select(TimeOf).FirstOrDefault() ?? "never";
        Terminal.Say($"{schedule.File.Path}: next on {next}. vlei schedule install has the computer do it.");
        return ExitStatus.Done;
    }

    private static int Remove(ParseResult result)
    {
        var desk = BookOptions.OpenDesk(result);
        using var turn = FileTurn.Take(desk.Book.Folder);
        Terminal.Say(new KeptSchedules(desk).Remove(result.GetRequiredValue(What)!, result.GetValue(When)));
        return ExitStatus.Done;
    }

    private static int Due(ParseResult result) => Pass(result, BooksOf(result));

    // Each book by itself: what is wrong with one keeps no other from being looked at.
    private static int Pass(ParseResult result, IReadOnlyList<string> books)
    {
        var (waiting, troubled) = (0, 0);
        foreach (var folder in books)
        {
            try
            {
                var desk = new ReportDesk(Book.Open(folder), BookOptions.ClockTyped(result));
                var outcome = new SchedulePass(desk, desk.Clock).Run(Terminal.Say);
                (waiting, troubled) = (waiting + outcome.Waiting, troubled + outcome.Troubled);
                if (outcome.Troubled > 0)
                {
                    Terminal.Say(
                        $"{BookSet.NameOf(folder)}: {MappedMessages.Count(outcome.Troubled, "delivery", "deliveries")} held or failed: "
                            + $"vlei outbox");
                }
            }
            catch (ProblemException problem)
            {
                troubled++;
                Terminal.Say($"{BookSet.NameOf(folder)}: {problem.Message} {problem.Advice}".TrimEnd());
            }
        }

        return troubled > 0 ? ExitStatus.CheckFailed : waiting > 0 ? (int)ProblemKind.TryAgain : ExitStatus.Done;
    }

    private static int Forever(ParseResult result)
    {
        using var stop = new CancellationTokenSource();
        using var term = System.Runtime.InteropServices.PosixSignalRegistration.Create(
            System.Runtime.InteropServices.PosixSignal.SIGTERM, Stop);
        using var interrupt = System.Runtime.InteropServices.PosixSignalRegistration.Create(
            System.Runtime.InteropServices.PosixSignal.SIGINT, Stop);
        var books = BooksOf(result);
        Terminal.Say($"ready {Now()} {MappedMessages.Count(books.Count, "book")}");
        while (!stop.IsCancellationRequested)
        {
            var status = Pass(result, books);
            Terminal.Say($"pass {Now()} {(status == ExitStatus.Done ? "ok" : status == ExitStatus.CheckFailed ? "trouble" : "waiting")}");
            _ = stop.Token.WaitHandle.WaitOne(TimeSpan.FromSeconds(60 - DateTime.Now.Second));

            // What was added meanwhile is a book too.
            books = stop.IsCancellationRequested ? books : BooksOf(result);
        }

        Terminal.Say($"stopped {Now()}");
        return ExitStatus.Done;

        void Stop(System.Runtime.InteropServices.PosixSignalContext context)
        {
            context.Cancel = true;
            stop.Cancel();
        }
    }

    private static string Now() => DateTimeOffset.Now.ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture);

    private static string TimeOf(DateTimeOffset time) => time.ToString("ddd yyyy-MM-dd HH:mm zzz", CultureInfo.InvariantCulture);
}
