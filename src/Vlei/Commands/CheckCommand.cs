using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Review;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei check</c>: everything that should tie, ties.</summary>
internal static class CheckCommand
{
    private static readonly Option<string?> Period = new("--period")
    {
        Description = "Look at the months of this period; all months of the records without it", HelpName = "P",
    };

    private static readonly Option<string?> Review = new("--review")
    {
        Description = "List what looks off in the records of this period", HelpName = "P",
    };

    private static readonly Option<string[]> Seen = new("--seen")
    {
        Description = "With --review: this finding was seen and is fine; may be repeated", HelpName = "FINDING",
    };

    private static readonly Option<string[]> Question = new("--question")
    {
        Description = "With --review: this finding is a question for the client; may be repeated", HelpName = "FINDING",
    };

    private static readonly Option<string[]> Unmark = new("--unmark")
    {
        Description = "With --review: this finding is new again; may be repeated", HelpName = "FINDING",
    };

    private static readonly Option<string?> Note = new("--note")
    {
        Description = "What is said about it: why it is fine, or what is asked", HelpName = "TEXT",
    };

    private static readonly Option<bool> Rebuild = new("--rebuild")
    {
        Description = "Make the derived columns anew from the records first",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("check", "Prove that everything in the book that should tie does")
        {
            Examples =
            [
                ("vlei check", "check the book here"),
                ("vlei check --period fiscal-year-to-date", "and, of the reports, only these months"),
                ("vlei check --rebuild", "mend damaged columns"),
                ("vlei check --review last-month", "what looks off in the records of last month"),
                ("vlei check --review 2026-03 --seen duplicate/BILL-00563 --note \"Two deliveries\"", "mark a finding as seen"),
                ("vlei check --review 2026-05 --question new-account/BILL-00589/6400 --note \"Is this timber?\"",
                    "keep a question for the client"),
            ],
        };
        Period.CompletionSources.Add([.. PeriodGrammar.Words]);
        command.Options.Add(Period);
        command.Options.Add(Rebuild);
        foreach (var option in new Option[] { Review, Seen, Question, Unmark, Note })
        {
            command.Options.Add(option);
        }

        var destination = new ReportDestination(command);
        command.SetAction(result => Run(result, destination));
        return command;
    }

    private static int Run(ParseResult result, ReportDestination destination)
    {
        var desk = BookOptions.OpenDesk(result);
        var book = desk.Book;
        if (result.GetValue(Review) is { } reviewed)
        {
            return ReviewRecords(result, desk, reviewed, destination);
        }

        if (new Option[] { Seen, Question, Unmark, Note }.FirstOrDefault(
            option => result.GetResult(option) is { Implicit: false }) is { } marking)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{marking.Name} is about findings of the review.",
                "Add --review and the period in which they were found.");
        }

        destination.RefuseIn(result, "goes with --review: the other checks are lines of text");
        if (result.GetValue(Rebuild))
        {
            Terminal.WithProgress(progress =>
            {
                BookCheck.Rebuild(book, progress);
                return true;
            });
        }

        OpenPeriod? period = result.GetValue(Period) is { } text ? PeriodGrammar.Parse(text, desk.Today, book.Settings.Calendar) : null;
        var checks = Terminal.WithProgress(progress => BookCheck.Run(book, progress)).ToList();
        checks.AddRange(Terminal.WithProgress(progress => TieOutsOf(desk, period, progress)));
        using var output = Terminal.Output();
        foreach (var check in checks)
        {
            output.WriteLine($"{(!check.Ok ? "FAILED" : check.Notes.Count > 0 ? "note  " : "ok    ")}  {check.Name}");
            foreach (var fault in check.Faults.Concat(check.Notes))
            {
                output.WriteLine($"        {fault}");
            }
        }

        return checks.All(check => check.Ok) ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    private static int ReviewRecords(ParseResult result, ReportDesk desk, string period, ReportDestination destination)
    {
        if (new Option[] { Period, Rebuild }.FirstOrDefault(option => result.GetResult(option) is { Implicit: false }) is { } other)
        {
            throw new ProblemException(ProblemKind.Usage, $"{other.Name} does not go with --review.", "Give the period behind --review.");
        }

        var asked = new Dictionary<string, IReadOnlyList<string>> { [ReportOptions.Period.Name] = [period] };
        using var open = desk.Open(new ReportOrder("review", asked) { IsStandard = true });
        if (!new[] { Seen, Question, Unmark }.Any(option => result.GetResult(option) is { Implicit: false }))
        {
            if (result.GetValue(Note) is not null)
            {
                throw new ProblemException(
                    ProblemKind.Usage, "--note is said of a finding.", "Add --seen or --question and the finding.");
            }

            var status = destination.Write(result, destination.TargetsOf(result), open.Build());
            RecentReports.Note(desk.Book, desk.Today.Date, open.Definition.Key, asked);
            return status;
        }

        destination.RefuseIn(result, "does not go with marking findings");
        var count = new FindingMarks(desk, open, period).Mark(
            result.GetValue(Seen) ?? [], result.GetValue(Question) ?? [], result.GetValue(Unmark) ?? [], result.GetValue(Note) ?? "");
        Terminal.Say($"{count} {(count == 1 ? "finding" : "findings")} marked.");
        return ExitStatus.Done;
    }

    // The reports are held against one another even where the columns are damaged, as far as they can be read.
    private static List<BookCheckResult> TieOutsOf(ReportDesk desk, OpenPeriod? period, Action<string, long> progress)
    {
        using var ledger = LedgerReader.Open(desk.Book);
        progress("holding the reports against one another", 0);
        try
        {
            return
            [
                .. TieOuts.Run(
                    desk.ContextOf(ledger), StandardReports.All, period,
                    amount => DecimalText.Write(amount.MinorUnits, desk.Settings.Currency.Decimals))
                    .Select(tie => new BookCheckResult(tie.Name, tie.Faults)),
            ];
        }
        catch (ProblemException damaged) when (damaged.Kind == ProblemKind.BadData)
        {
            return [new BookCheckResult("Reports tie with one another", [damaged.Message])];
        }
    }
}
