using System.CommandLine;
using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Exporting;

namespace Vlei.Commands;

/// <summary><c>vlei export</c>: writes the records of a book, so that any other program can have them.</summary>
internal static class ExportCommand
{
    private const int VersionParts = 3;

    private static readonly Argument<string?> Folder = new("DIR")
    {
        Description = "The folder to make, or an empty one", Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> AuditFile = new("--audit-file")
    {
        Description = "Write an audit file instead, as the OECD's Standard Audit File for Tax 2.0 has it", HelpName = "FILE.xml",
    };

    private static readonly Option<string?> Period = new("--period")
    {
        Description =
            "The documents of this period, with those before it that were open then; all others before it as one opening document",
        HelpName = "P",
    };

    private static readonly Option<string[]>[] Narrowing =
    [
        .. new[] { ReportOptions.Only, ReportOptions.Except, ReportOptions.Where }.Select(option => new Option<string[]>($"--{option.Name}")
        {
            Description = $"As in lists of documents: {option.Help}", HelpName = option.ValueName,
        }),
    ];

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("export", "Write the records out: CSV files with their description")
        {
            Examples =
            [
                ("vlei export out/", "all of them"),
                ("vlei export fy2026/ --period fy2026", "a year, with what was open before it"),
                ("vlei export one/ --only contact=C0020", "the documents of one customer"),
                ("vlei export --audit-file fy2026.xml --period fy2026", "for the tax office or an auditor"),
            ],
        };
        Period.CompletionSources.Add([.. PeriodGrammar.Words]);
        command.Arguments.Add(Folder);
        command.Options.Add(Period);
        command.Options.Add(AuditFile);
        foreach (var option in Narrowing)
        {
            command.Options.Add(option);
        }

        command.Options.Add(Destination.Overwrite);

        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var desk = BookOptions.OpenDesk(result);
        var (folder, auditFile) = (result.GetValue(Folder), result.GetValue(AuditFile));
        if ((folder is null) == (auditFile is null))
        {
            throw new ProblemException(
                ProblemKind.Usage, folder is null ? "Nothing says where the records go." : "A folder and --audit-file are two exports.",
                "Name a folder for a record set, or --audit-file FILE.xml.");
        }

        if (folder is not null && result.GetValue(Destination.Overwrite))
        {
            throw new ProblemException(
                ProblemKind.Usage, "--overwrite goes with --audit-file: a record set is written into a folder that is not there, or empty.",
                "Choose another folder, or remove that one first.");
        }

        DateRange? period = result.GetValue(Period) is { } text
            ? PeriodGrammar.Parse(text, desk.Today, desk.Settings.Calendar)
                .Within(new DateRange(DateOnly.MinValue, DateOnly.MaxValue)).Range : null;
        var narrowing = Narrowing.Where(option => result.GetValue(option) is { Length: > 0 })
            .ToDictionary(option => option.Name.TrimStart('-'), option => (IReadOnlyList<string>)result.GetValue(option)!);
        period = period == new DateRange(DateOnly.MinValue, DateOnly.MaxValue) ? null : period;
        var outcome = Terminal.WithProgress(progress =>
        {
            progress("writing the records", 0);
            return auditFile is null ? new RecordExport(desk).Write(folder!, period, narrowing)
                : WriteAuditFile(result, desk, auditFile, period, narrowing);
        });
        using var output = Terminal.Output();
        foreach (var (table, count) in outcome.Counts.Where(counted => counted.Count > 0))
        {
            output.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{table.Name,-12} {count,9:N0}"));
        }

        if (outcome.Before > 0)
        {
            output.WriteLine(
                $"{MappedMessages.Count(outcome.Before, "document")} of these {(outcome.Before == 1 ? "is" : "are")} from before the "
                    + $"period: open then, or settled with one that was.");
        }

        if (outcome.HasOpening)
        {
            output.WriteLine("What all others before it came to is in an opening document.");
        }

        Terminal.Say(auditFile is null ? $"The record set is in {folder}." : $"The audit file is {auditFile}.");
        return ExitStatus.Done;
    }

    private static ExportOutcome WriteAuditFile(
        ParseResult result, ReportDesk desk, string path, DateRange? period, Dictionary<string, IReadOnlyList<string>> narrowing)
    {
        if (narrowing.Count > 0)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                $"--{narrowing.Keys.First()} does not go with --audit-file: an audit file has all documents of its days.",
                "Narrow it with --period, or write a record set.");
        }

        ExportOutcome? outcome = null;
        Destination.RefuseForeign(result, path);
        Destination.Write(path, (stream, _) => outcome = new RecordExport(desk).WriteAuditFile(
            stream, period, typeof(ExportCommand).Assembly.GetName().Version!.ToString(VersionParts)));
        return outcome!;
    }
}
