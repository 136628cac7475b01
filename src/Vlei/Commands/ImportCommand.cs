using System.CommandLine;
using System.Globalization;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Books.Import;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Desk;
using Vlei.Desk.Exporting;
using Vlei.Desk.Maps;
using Vlei.Output;
using Vlei.Records;
using Vlei.Records.Maps.Reading;

namespace Vlei.Commands;

/// <summary><c>vlei import</c>: takes records in.</summary>
internal static class ImportCommand
{
    private const int MostChanges = 20;

    private static readonly Argument<string[]> Paths = new("PATH")
    {
        Description =
            "Record sets (folders, CSV files or workbooks named after kinds of records), audit files (.xml), or any other files that "
            + "there is a map of",
        Arity = ArgumentArity.OneOrMore,
    };

    private static readonly Option<bool> DryRun = new("--dry-run")
    {
        Description = "Check everything and say what would change, but keep nothing",
    };

    private static readonly Option<bool> Complete = new("--complete")
    {
        Description = "The records are all there are: remove from the book what they do not have",
    };

    private static readonly Option<string?> Map = new("--map")
    {
        Description = "Read the files with this map (else with the one whose headings fit)", HelpName = "NAME",
    };

    private static readonly Option<string?> New = new("--new")
    {
        Description =
            "Accounts, contacts, items that the book does not have: ask, take or refuse (else ask on a terminal, refuse in scripts)",
        HelpName = "HOW",
    };

    private static readonly Option<string?> CompleteFor = new("--complete-for")
    {
        Description = "The files have all documents of a period: remove from the book those of it that they do not have", HelpName = "P",
    };

    private static readonly Option<bool> TakeAnyway = new("--take-anyway")
    {
        Description = "Take in what does not prove; vlei check lists the differences until a later import proves them",
    };

    private static readonly string[] NewWords = ["ask", "take", "refuse"];

    private static readonly Option<string?> ErrorsFile = new("--errors")
    {
        Description = "Write all errors to this file; the first twenty are shown", HelpName = "FILE",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("import", "Take records in: all of them, or none")
        {
            Examples =
            [
                ("vlei import export/", "a folder of CSV files into the book here"),
                ("vlei import export/ --dry-run", "what would it change?"),
                ("vlei import records.xlsx", "a workbook with the sheets accounts, documents, lines and so on"),
                ("vlei import journal.csv --new take", "a file that vlei map has made a map of, with the accounts that are new"),
                ("vlei import invoices.csv payments.csv --complete-for 2026-03", "all there is of March: what it no longer has is removed"),
                ("vlei import documents.csv lines.csv --errors errors.txt", "two files, with all errors kept"),
            ],
        };
        command.Arguments.Add(Paths);
        command.Options.Add(DryRun);
        New.CompletionSources.Add([.. NewWords]);
        foreach (var option in new Option[] { Map, New, Complete, CompleteFor, TakeAnyway, ErrorsFile })
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
        var book = desk.Book;
        var paths = result.GetRequiredValue(Paths);
        var trial = result.GetValue(DryRun);
        using var errorsFile = OpenErrors(result, paths);
        var errorsText = errorsFile is null ? null : new StreamWriter(errorsFile.Stream, leaveOpen: true);
        var errors = new RecordErrors(errorsText);
        var order = OrderOf(result, desk, trial);
        var imports = new ImportDesk(desk);
        var (sets, files) = imports.Sort(paths, result.GetValue(Map));
        if (files.Count == 0 && new Option[] { New, TakeAnyway }.FirstOrDefault(option => result.GetResult(option) is { Implicit: false })
            is { } unused)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{unused.Name} is about files that are read with a map; a record set has all of its own records.",
                "Leave it out.");
        }

        var mapped = files.Count == 0 ? null : Terminal.WithProgress(progress => imports.Read(files, errors, progress));
        if (mapped is not null)
        {
            TakeFaults(mapped, errors, order);
            if (errors.Count == 0 && !trial && mapped.New.Count > 0 && !TakesNew(result, mapped))
            {
                return (int)ProblemKind.BadData;
            }
        }

        var outcome = errors.Count > 0 ? null : Terminal.WithProgress(progress =>
            Importer.Run(book, RecordSet.Open(sets, book.Settings.Currency, errors, mapped), errors, order, progress));
        if (outcome is null || errors.Count > 0)
        {
            errorsText?.Flush();
            errorsFile?.Commit();
            if (errorsFile is { IsRegular: true })
            {
                WrittenFiles.Note(Path.GetFullPath(errorsFile.Path));
            }

            TellErrors(errors, result.GetValue(ErrorsFile));
            return (int)ProblemKind.BadData;
        }

        return Finish(desk, outcome, mapped, order, sets, [.. files.Select(file => file.File.Name)]);
    }

    // What is noted beside the records is noted before anything is said, as the place that it is said to may be full.
    private static int Finish(
        ReportDesk desk, ImportOutcome outcome, MappedImport? mapped, ImportOrder order, IReadOnlyList<string> sets,
        IReadOnlyCollection<string> sources)
    {
        if (!order.Trial)
        {
            var notes = NotesImport.Run(desk.Book, sets);
            if (notes > 0)
            {
                Terminal.Say(
                    $"vlei: Noted beside the records: {MappedMessages.Count(notes, "promise, dispute or "
                        + "mark", "promises, disputes or marks")} of findings.");
            }

            if (mapped is not null)
            {
                NoteDifferences(desk, order, outcome, mapped, sources);
            }
        }

        try
        {
            TellOutcome(outcome, mapped, order.Trial);
        }
        catch (Exception cannot) when (outcome.Revision is not null && cannot is IOException or UnauthorizedAccessException)
        {
            Terminal.Say(
                $"vlei: The records are imported, as revision {outcome.Revision}; what that did cannot be written: {cannot.Message}");
            Terminal.Say("      vlei changes shows it.");
            return (int)ProblemKind.CannotWrite;
        }

        TellClosed(desk, outcome);
        return ExitStatus.Done;
    }

    private static ImportOrder OrderOf(ParseResult result, ReportDesk desk, bool trial)
    {
        var completeFor = result.GetValue(CompleteFor) is { } period
            ? PeriodGrammar.Parse(period, desk.Today, desk.Settings.Calendar)
                .Within(new DateRange(DateOnly.MinValue, DateOnly.MaxValue)).Range
            : (DateRange?)null;
        return new ImportOrder(Environment.UserName, desk.Now, result.GetValue(Complete), trial)
        {
            CompleteFor = completeFor is not null && result.GetValue(Complete) ? throw new ProblemException(
                ProblemKind.Usage, "--complete and --complete-for do not go together.", "Take one of them.") : completeFor,
            TakesDifferences = result.GetValue(TakeAnyway),
        };
    }

    // What a file says of itself and its rows do not come to is an error, unless it is taken anyway.
    private static void TakeFaults(MappedImport mapped, RecordErrors errors, ImportOrder order)
    {
        foreach (var (file, line, column, message) in order.TakesDifferences ? [] : mapped.Faults)
        {
            errors.Add(file, line, column, message);
        }
    }

    private static bool TakesNew(ParseResult result, MappedImport mapped)
    {
        var how = result.GetValue(New) ?? (Terminal.CanAsk ? "ask" : "refuse");
        if (!NewWords.Contains(how))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--new does not take \"{how}\".",
                Suggestion.DidYouMean(how, NewWords) ?? $"It takes {Suggestion.Listed(NewWords, "or")}.");
        }

        if (how == "take")
        {
            return true;
        }

        using (var output = Terminal.Output())
        {
            MappedMessages.TellNew(output, mapped.New);
        }

        if (how == "ask" && Terminal.Agrees("Take them?"))
        {
            return true;
        }

        Terminal.Say("vlei: The book does not have these; nothing was imported, the book is as it was.");
        Terminal.Say("      Give --new take to take them; or say in the map which of the book's are meant: [accounts], [contacts].");
        return false;
    }

    private static void NoteDifferences(
        ReportDesk desk, ImportOrder order, ImportOutcome outcome, MappedImport mapped, IReadOnlyCollection<string> sources)
    {
        var on = DateOnly.FromDateTime(order.At.LocalDateTime);
        var differences = mapped.Faults.Select(fault => (fault.File, Message: fault.ToString()))
            .Concat(outcome.Differences.Select(difference => (difference.File, Message: difference.ToString())))
            .Select(difference => new ImportDifference(outcome.Revision ?? 0, difference.File, difference.Message, order.By, on)).ToList();
        DifferenceFile.Replace(desk.Book, sources, differences);
        foreach (var difference in differences)
        {
            Terminal.Say(difference.Message);
        }

        if (differences.Count > 0)
        {
            Terminal.Say(
                $"vlei: Taken in with {(differences.Count == 1 ? "a difference" : $"{differences.Count} differences")}; vlei check "
                    + $"lists what is not proved.");
        }
    }

    // Where there are no errors, the file stays as it was.
    private static WholeFile? OpenErrors(ParseResult result, IReadOnlyList<string> sources)
    {
        if (result.GetValue(ErrorsFile) is not { } path)
        {
            return null;
        }

        var full = Path.GetFullPath(path);
        if (sources.Select(Path.GetFullPath).Any(source => full == source
            || full.StartsWith(source.TrimEnd(Path.DirectorySeparatorChar) + Path.DirectorySeparatorChar, StringComparison.Ordinal)))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} is where the records are read from.", "Write the errors to another place.");
        }

        Destination.RefuseForeign(result, path);
        try
        {
            return WholeFile.Begin(path);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} cannot be written: {cannot.Message}", "Choose a place that you may write to.", cannot);
        }
    }

    private static void TellErrors(RecordErrors errors, string? path)
    {
        foreach (var error in errors.First)
        {
            Terminal.Say(error.ToString());
        }

        var more = errors.Count - errors.First.Count;
        var count = errors.Count == 1 ? "1 error" : string.Create(CultureInfo.InvariantCulture, $"{errors.Count:N0} errors");
        Terminal.Say($"vlei: {count}; nothing was imported, the book is as it was.");
        if (path is not null)
        {
            Terminal.Say($"      All of them are in {path}.");
        }
        else if (more > 0)
        {
            Terminal.Say(string.Create(
                CultureInfo.InvariantCulture, $"      {more:N0} more are not shown; --errors FILE writes them all."));
        }
    }

    // What was reported has changed: which documents, and, once the records are kept, which figures.
    private static void TellClosed(ReportDesk desk, ImportOutcome outcome)
    {
        var (calendar, closed) = (desk.Settings.Calendar, outcome.Changes.Count == 0 ? [] : Revisions.Closed(desk.Book));
        foreach (var period in ChangeList.Touched(outcome.Changes, closed))
        {
            var touching = outcome.Changes.Where(change => change.Touches(period.Days)).ToList();
            Terminal.Say($"vlei: {PeriodText.Words(period.Days, calendar)} is closed, and has changed: "
                + string.Join(", ", touching.Take(MostChanges).Select(change => $"{change.Id} {change.Kind.ToString().ToLowerInvariant()}"))
                + (touching.Count > MostChanges ? $" and {touching.Count - MostChanges:N0} more." : "."));
            if (outcome.Revision is { } revision)
            {
                TellMoved(desk, revision, period);
            }
        }
    }

    private static void TellMoved(ReportDesk desk, long revision, ClosedPeriod period)
    {
        using var since = RecordsSince.Open(desk, revision - 1);
        using var text = new MemoryStream();
        foreach (var key in new[] { "profit-loss", "balance-sheet" })
        {
            var moved = since.MovedIn(StandardReports.Find(key)!, new ReportRequest { Period = new OpenPeriod(period.Days) });
            if (moved.Rows.Count > 0)
            {
                text.WriteByte((byte)'\n');
                ReportFormat.All[0].Write(moved, text, Surface.OfFile(null));
            }
        }

        Terminal.Say(System.Text.Encoding.UTF8.GetString(text.ToArray()));
    }

    private static void TellOutcome(ImportOutcome outcome, MappedImport? mapped, bool trial)
    {
        using var output = Terminal.Output();
        if (mapped is not null && trial)
        {
            MappedMessages.TellNew(output, mapped.New);
        }

        var counts = outcome.Counts.Where(count => count.Counts.AnyChange || count.Counts.Unchanged > 0).ToList();
        if (counts.Count > 0)
        {
            output.WriteLine($"{"",-12} {"added",9} {"changed",9} {"unchanged",9} {"removed",9}");
        }

        foreach (var (table, count) in counts)
        {
            output.WriteLine(string.Create(
                CultureInfo.InvariantCulture,
                $"{table.Name,-12} {count.Added,9:N0} {count.Changed,9:N0} {count.Unchanged,9:N0} {count.Removed,9:N0}"));
        }

        if (mapped is not null)
        {
            MappedMessages.TellProof(output, mapped, outcome);
        }

        output.WriteLine(outcome.Revision is { } revision ? $"Imported as revision {revision}."
            : !outcome.Counts.Any(count => count.Counts.AnyChange) ? "Nothing has changed; no new revision."
            : trial ? "A trial: nothing was kept."
            : "");
    }
}
