using System.CommandLine;
using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Review;

namespace Vlei.Commands;

/// <summary><c>vlei check</c>: everything that should tie, ties.</summary>
internal static class CheckCommand
{
    private static readonly Option<string?> Period = new("--period")
    {
        Description = "Look at the months of this period; all months of the records without it", HelpName = "P",
    };

    private static readonly Option<bool> Rebuild = new("--rebuild")
    {
        Description = "Make the derived columns anew from the records first",
    };

    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("check", "Prove that everything in the book that should tie does")
        {
            Examples = [("vlei check", "check the book here"), ("vlei check --period this-fiscal-year-to-date", "and, of the reports, only these months"), ("vlei check --rebuild", "mend damaged columns")],
        };
        Period.CompletionSources.Add([.. PeriodGrammar.Words]);
        command.Options.Add(Period);
        command.Options.Add(Rebuild);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var book = BookOptions.OpenBook(result);
        if (result.GetValue(Rebuild))
        {
            Terminal.WithProgress(progress =>
            {
                BookCheck.Rebuild(book, progress);
                return true;
            });
        }

        var today = BookOptions.TodayOf(result, book.Settings);
        OpenPeriod? period = result.GetValue(Period) is { } text ? PeriodGrammar.Parse(text, today, book.Settings.Calendar) : null;
        var checks = Terminal.WithProgress(progress => BookCheck.Run(book, progress)).ToList();
        checks.AddRange(Terminal.WithProgress(progress => TieOutsOf(book, today, period, progress)));
        using var output = new StreamWriter(Console.OpenStandardOutput());
        foreach (var check in checks)
        {
            output.WriteLine($"{(check.Ok ? "ok    " : "FAILED")}  {check.Name}");
            foreach (var fault in check.Faults)
            {
                output.WriteLine($"        {fault}");
            }
        }

        return checks.All(check => check.Ok) ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    // The reports are held against one another even where the columns are damaged, as far as they can be read.
    private static List<BookCheckResult> TieOutsOf(Book book, DateOnly today, OpenPeriod? period, Action<string, long> progress)
    {
        using var ledger = LedgerReader.Open(book);
        progress("holding the reports against one another", 0);
        try
        {
            return
            [
                .. TieOuts.Run(
                    ReportArguments.ContextOf(book, today, ledger), StandardReports.All, period,
                    amount => DecimalText.Write(amount.MinorUnits, book.Settings.Currency.Decimals))
                    .Select(tie => new BookCheckResult(tie.Name, tie.Faults)),
            ];
        }
        catch (ProblemException damaged) when (damaged.Kind == ProblemKind.BadData)
        {
            return [new BookCheckResult("Reports tie with one another", [damaged.Message])];
        }
    }
}
