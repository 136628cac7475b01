using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Deliveries;
using Vlei.Desk.Runs;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary><c>vlei run</c>: produces a group of reports, for one book or for many.</summary>
internal static class RunCommand
{
    private static readonly Argument<string[]> Group = new("GROUP")
    {
        Description = "Which groups; vlei group lists them", Arity = ArgumentArity.OneOrMore,
    };

    private static readonly Option<string?> Period = new("--period")
    {
        Description = "The period to produce it for (else the group's own, else last-month)",
        HelpName = "P",
    };

    private static readonly Option<string[]> Format = new("--format")
    {
        Description =
            $"{Suggestion.Listed([.. ReportFormat.All.Select(format => format.Name)], "or")}, or several with commas between them "
                + $"(else the group's own, else text)",
        HelpName = "LIST",
    };

    private static readonly Option<string?> Summary = new("--summary")
    {
        Description = "Write the summary to a file too, by its ending",
        HelpName = "FILE",
    };

    private static readonly Option<string?> To = new("--to")
    {
        Description = "Write all its reports to a file of this name too, by its ending",
        HelpName = "FILE",
    };

    private static readonly Option<string?> Print = ReportDestination.PrintOption();

    private static readonly Option<string[]> Books = new("--books")
    {
        Description = "Run it for all books that a pattern fits, with quotes around it: 'clients/*'; may be repeated", HelpName = "PATTERN",
    };

    private static readonly Option<int?> Jobs = new("--jobs")
    {
        Description = "With --books: how many at once (else as many as there are processors)",
        HelpName = "N",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("run", "Produce a group of reports for a period, into out/GROUP/PERIOD")
        {
            Examples =
            [
                ("vlei run month-end", "for last month"),
                ("vlei run month-end --period 2026-04 --format text,csv", "for another month, in two formats"),
                ("vlei run month-end --to may.pdf", "all its reports in one file of that name"),
                ("vlei run month-end --books 'clients/*' --summary month.csv", "for every client, and what came of it as a table"),
            ],
        };
        Group.CompletionSources.Clear();
        Group.CompletionSources.Add(
            context => ReportArguments.LibraryOf(context).All(KeptKind.Group)
                .Select(file => new System.CommandLine.Completions.CompletionItem(file.Name)));
        Period.CompletionSources.Add([.. Core.Calendar.PeriodGrammar.Words]);
        Format.CompletionSources.Add([.. ReportFormat.All.Select(format => format.Name)]);
        command.Arguments.Add(Group);
        foreach (var option in new Option[] { Period, Format, To, Print, Summary, Destination.Overwrite, Books, Jobs })
        {
            command.Options.Add(option);
        }

        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var formats = ReportFormat.Named("--format", [.. (result.GetValue(Format) ?? []).SelectMany(list => list.Split(','))]);
        string[] files = [.. new[] { result.GetValue(Summary), result.GetValue(To) }.OfType<string>()];
        foreach (var file in files)
        {
            _ = ReportDestination.FormatFor(file);
            Destination.RefuseForeign(result, file);
        }

        if (files.Length == 0 && result.GetValue(Destination.Overwrite))
        {
            throw new ProblemException(
                ProblemKind.Usage, "--overwrite is for a file that is named, and none is.", "Add --to FILE, or --summary FILE.");
        }

        var groups = result.GetRequiredValue(Group);
        if (result.GetValue(To) is not null && (groups.Length > 1 || result.GetValue(Books) is { Length: > 0 }))
        {
            throw new ProblemException(ProblemKind.Usage, "--to names the file of one group of one book.", "Run one, or leave it out.");
        }

        if (result.GetValue(Books) is { Length: > 0 } patterns)
        {
            if (ReportDestination.PrinterIn(result, Print) is not null)
            {
                throw new ProblemException(ProblemKind.Usage, "--print is for one book.", "Run one, or let the group go to = \"printer\".");
            }

            return RunAll(result, patterns, formats);
        }

        if (result.GetValue(Jobs) is not null)
        {
            throw new ProblemException(ProblemKind.Usage, "--jobs is for many books, and there is one.", "Add --books, or leave it out.");
        }

        // What one group comes to is said before the next is begun; a file of the summaries has all of them.
        var (desk, summaries, status) = (BookOptions.OpenDesk(result), new List<Report>(), (int)ExitStatus.Done);
        foreach (var group in groups)
        {
            status = Math.Max(status, GroupRun.Produce(desk, group, result.GetValue(Period), formats, Terminal.Say, outcome =>
            {
                var summary = RunSummary.Of(outcome);
                Destination.Write(null, (stream, look) => ReportFormat.All[0].WriteAll([summary], stream, look));
                summaries.Add(summary with { Rows = [.. summary.Rows] });
                PutElsewhere(result, outcome);
                return outcome.Status;
            }));
        }

        WriteSummary(result, summaries);
        return status;
    }

    // Into a file of that name, and on paper.
    private static void PutElsewhere(ParseResult result, ProducedGroup outcome)
    {
        if (outcome.Reports.All(report => report.Report is null))
        {
            return;
        }

        if (result.GetValue(To) is { } to)
        {
            Destination.Write(to, (stream, look) => ReportDestination.FormatFor(to).WritePack(GroupRun.PackOf(outcome), stream, look));
        }

        if (ReportDestination.PrinterIn(result, Print) is { } printer)
        {
            using var pages = new MemoryStream();
            ReportFormat.Named("--print", ["pdf"])[0].WritePack(GroupRun.PackOf(outcome), pages, Surface.OfFile(ChartProgram.Beside));
            PrinterRoute.Print(printer, outcome.Group.Title, pages.ToArray());
        }
    }

    private static int RunAll(ParseResult result, IReadOnlyList<string> patterns, IReadOnlyList<ReportFormat> formats)
    {
        if (result.GetResult(BookOptions.Book) is { Implicit: false })
        {
            throw new ProblemException(ProblemKind.Usage, "--book and --books both say which.", "Give one of them.");
        }

        var atOnce = result.GetValue(Jobs) ?? Environment.ProcessorCount;
        if (atOnce < 1)
        {
            throw new ProblemException(ProblemKind.Usage, $"--jobs does not take {atOnce}.", "It takes a whole number: 1 or more.");
        }

        var (outcomes, summaries) = (new List<BookOutcome>(), new List<Report>());
        foreach (var group in result.GetRequiredValue(Group))
        {
            var ofGroup = ManyBooks.Run(
                BookSet.Of(patterns, Terminal.Say), atOnce, group, result.GetValue(Period), formats, BookOptions.ClockTyped(result),
                Terminal.Say);
            var summary = ManyBooks.Summary(ofGroup, group);
            Destination.Write(null, (stream, look) => ReportFormat.All[0].WriteAll(summary, stream, look));
            (outcomes, summaries) = ([.. outcomes, .. ofGroup], [.. summaries, .. summary]);
        }

        WriteSummary(result, summaries);
        return outcomes.Select(outcome => outcome.Status).FirstOrDefault(status => status > ExitStatus.CheckFailed) is > 0
            and var failed ? failed
            : outcomes.Max(outcome => outcome.Status);
    }

    private static void WriteSummary(ParseResult result, IReadOnlyList<Report> reports)
    {
        if (result.GetValue(Summary) is { } file && ReportDestination.FormatFor(file) is var format)
        {
            Destination.Write(file, (stream, look) => format.WriteAll(reports, stream, look));
        }
    }
}
