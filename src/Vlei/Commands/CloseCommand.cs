using System.CommandLine;
using System.Globalization;
using Vlei.Books;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei close</c>: marks a period as reported.</summary>
internal static class CloseCommand
{
    private static readonly Argument<string?> Period = new("PERIOD")
    {
        Description = "The period that was reported; without one, those that are closed are listed",
        Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<bool> Reopen = new("--reopen") { Description = "Take the mark of the period away" };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("close", "Mark a period as reported, so that changes to it are told")
        {
            Examples =
            [
                ("vlei close last-month", "last month has been reported"), ("vlei close", "which periods are closed"),
                ("vlei close 2026-05 --reopen", "it will be reported anew"),
            ],
        };
        Period.CompletionSources.Add([.. PeriodGrammar.Words]);
        command.Arguments.Add(Period);
        command.Options.Add(Reopen);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var desk = BookOptions.OpenDesk(result);
        var book = desk.Book;
        if (result.GetValue(Period) is not { } text)
        {
            List(book);
            return ExitStatus.Done;
        }

        var today = desk.Today.Date;
        var (records, revision) = RecordsOf(book);
        var days = PeriodGrammar.Parse(text, today, book.Settings.Calendar).Within(records ?? new DateRange(today, today)).Range;
        var words = PeriodText.Words(days, book.Settings.Calendar);
        if (!result.GetValue(Reopen))
        {
            Revisions.Close(book, days, desk.Now, Environment.UserName);
            Terminal.Say($"{words} is closed, on revision {revision}.");
            return ExitStatus.Done;
        }

        if (!Revisions.Reopen(book, days))
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"{words} is not closed.", "vlei close lists the periods that are.");
        }

        Terminal.Say($"{words} is open again.");
        return ExitStatus.Done;
    }

    // Read and let go of: who writes waits for who reads.
    private static (DateRange? Days, long Revision) RecordsOf(Book book)
    {
        using var ledger = LedgerReader.Open(book);
        return (ledger.Extent, ledger.Revision);
    }

    private static void List(Book book)
    {
        using var output = Terminal.Output();
        foreach (var period in Revisions.Closed(book))
        {
            output.WriteLine(string.Create(
                CultureInfo.InvariantCulture,
                $"{PeriodText.Key(period.Days, book.Settings.Calendar),-22}  on revision {period.Revision}, "
                + $"{period.At.LocalDateTime:yyyy-MM-dd HH:mm}, by {period.By}"));
        }
    }
}
