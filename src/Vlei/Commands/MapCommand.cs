using System.CommandLine;
using Vlei.Books.Kept;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Desk.Maps;
using Vlei.Records.Maps;
using Vlei.Records.Maps.Finding;

namespace Vlei.Commands;

/// <summary><c>vlei map</c>: finds out how a file of another program is read.</summary>
internal static class MapCommand
{
    private const int ExampleWidth = 28;

    private static readonly Argument<string[]> Files = new("FILE")
    {
        Description = "Texts with separators, or workbooks (.xlsx, .ods)", Arity = ArgumentArity.OneOrMore,
    };

    private static readonly Option<string?> As = new("--as")
    {
        Description = "The name of the map (else that of the file, without months and numbers)", HelpName = "NAME",
    };

    private static readonly Option<string?> ShapeOption = new("--shape")
    {
        Description = "What a row is, where it is not found: " + Suggestion.Listed([.. Shape.All.Select(shape => shape.Name)], "or"),
        HelpName = "SHAPE",
    };

    private static readonly Option<string[]> Set = new("--set")
    {
        Description = "Decide a key of the map, as dates=day-month-year; may be repeated", HelpName = "KEY=VALUE",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("map", "Find out how a foreign file is read, and keep that as a map")
        {
            Examples =
            [
                ("vlei map foreign/invoices-2026.csv", "look, explain, and write maps/invoices.toml"),
                ("vlei map foreign/ledger-2025-26.xlsx --as general-ledger", "under another name"),
                ("vlei map foreign/payments-2026.csv --shape payments --set with=customers", "what the file does not say"),
            ],
        };
        ShapeOption.CompletionSources.Add([.. Shape.All.Select(shape => shape.Name)]);
        command.Arguments.Add(Files);
        foreach (var option in new Option[] { As, ShapeOption, Set, Destination.Overwrite })
        {
            command.Options.Add(option);
        }

        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var (files, name) = (result.GetRequiredValue(Files), result.GetValue(As));
        if (files.Length > 1 && name is not null)
        {
            throw new ProblemException(ProblemKind.Usage, "--as names one map, and there are several files.", "Map them one by one.");
        }

        var desk = BookOptions.OpenDesk(result);
        var (imports, shape) = (new ImportDesk(desk), ShapeOf(result.GetValue(ShapeOption)));
        var status = ExitStatus.Done;
        var proposals = new List<MapProposal>();
        foreach (var file in files)
        {
            proposals.AddRange(imports.Propose(file, name, shape, proposals));
        }

        var places = proposals.Select(proposal => desk.Library.ShelfOf("book").Place(KeptKind.Map, proposal.Map.Name)).ToList();
        if (places.Find(file => File.Exists(file.Path)) is { } there && !result.GetValue(Destination.Overwrite))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{there.Path} is there already.",
                "Give --overwrite to make it anew, or --as NAME for another one.");
        }

        proposals = proposals.ConvertAll(proposal => Decide(proposal, result.GetValue(Set) ?? []));
        foreach (var (decided, file) in proposals.Zip(places))
        {
            Tell(decided, proposals, imports);
            file.Write(MapText.Of(decided));
            Terminal.Say(decided.Questions.Count == 0 ? $"vlei: The map is {file.Path}; vlei import reads files of this kind with it."
                : $"vlei: The map is {file.Path}; it is not complete, and nothing can be imported with it yet.");
            TellQuestions(decided, file);
            status = decided.Questions.Count > 0 ? (int)ProblemKind.BadData : status;
        }

        return status;
    }

    private static Shape? ShapeOf(string? word) => word is null ? null
        : Shape.All.FirstOrDefault(shape => shape.Name == word) ?? throw new ProblemException(
            ProblemKind.Usage, $"There is no shape {word}.",
            Suggestion.DidYouMean(word, Shape.All.Select(shape => shape.Name))
            ?? $"There is {Suggestion.Listed([.. Shape.All.Select(shape => shape.Name)], "and")}.");

    // What is said by hand, and what is asked on a terminal, is read as if it stood in the map.
    private static MapProposal Decide(MapProposal proposal, IReadOnlyList<string> set)
    {
        foreach (var said in set)
        {
            if (said.IndexOf('=') is not (> 0 and var equals))
            {
                throw new ProblemException(
                    ProblemKind.Usage, $"--set does not take \"{said}\".", "Write KEY=VALUE, as dates=day-month-year.");
            }

            proposal = With(proposal, said[..equals].Trim(), said[(equals + 1)..].Trim());
        }

        foreach (var question in Terminal.CanAsk ? proposal.Questions : [])
        {
            proposal = Ask(question) is { } answer ? With(proposal, question.Key, answer) : proposal;
        }

        return proposal;
    }

    private static MapProposal With(MapProposal proposal, string key, string value)
    {
        var decided = proposal with { Questions = [.. proposal.Questions.Where(question => question.Key != key)] };
        var text = TomlEdit.With(MapText.Of(decided), proposal.Map.Path, key, TomlEdit.Quoted(value));
        return decided with
        {
            Map = MapFile.Read(text, proposal.Map.Name, "--set"),
            Findings = [.. decided.Findings.Where(finding => finding.Key != key), new MapFinding(key, value, "you say so")],
        };
    }

    private static string? Ask(OpenQuestion question)
    {
        Terminal.Say($"{question.Question}");
        foreach (var (number, choice) in question.Choices.Index())
        {
            Terminal.Say($"  {number + 1}  {choice}");
        }

        if (question.Choices.Count == 0)
        {
            return Terminal.Ask($"{question.Key}, or nothing to leave it open") is { Length: > 0 } said ? said : null;
        }

        return int.TryParse(Terminal.Ask($"1 to {question.Choices.Count}, or nothing to leave it open"), out var chosen)
            && chosen > 0 && chosen <= question.Choices.Count
            ? question.Choices[chosen - 1] : null;
    }

    private static void Tell(MapProposal proposal, IReadOnlyList<MapProposal> all, ImportDesk imports)
    {
        using var output = Terminal.Output();
        output.WriteLine($"{proposal.File.Name}: {proposal.Map.Shape.Meaning.ToLowerInvariant()[..1]}{proposal.Map.Shape.Meaning[1..]}.\n");
        PlainTable.Write(output, ["column", "taken as", "example", "because"], [.. proposal.Columns.Select(column => (string[])
            [column.Heading, column.TakenAs, column.Example, column.Because])], ExampleWidth);
        output.WriteLine();
        PlainTable.Write(output, ["found", "", "because"], [.. proposal.Findings.Select(finding => (string[])
            [finding.Key, finding.Value, finding.Because])], ExampleWidth);
        if (proposal.Questions.Count == 0)
        {
            TellTrial(output, proposal, all, imports);
        }

        output.WriteLine($"\n{MapText.Of(proposal)}");
    }

    private static void TellTrial(TextWriter output, MapProposal proposal, IReadOnlyList<MapProposal> all, ImportDesk imports)
    {
        var errors = new RecordErrors();
        var trial = imports.Try(proposal, all, errors);
        if (trial.Documents > 0)
        {
            output.WriteLine(
                $"\n{MappedMessages.Count(trial.Documents, "document")} from {trial.Days!.Value.From:yyyy-MM-dd} "
                    + $"to {trial.Days.Value.To:yyyy-MM-dd}; the first:");
            foreach (var document in trial.FirstDocuments)
            {
                output.WriteLine($"  {document}");
            }
        }

        MappedMessages.TellNew(output, trial.New);
        foreach (var note in trial.Notes)
        {
            output.WriteLine($"\n{note}");
        }

        foreach (var fault in errors.First.Select(error => error.ToString())
            .Concat(trial.Faults.Take(RecordErrors.Shown).Select(fault => fault.ToString())))
        {
            Terminal.Say(fault);
        }

        output.WriteLine(trial.Faults.Count + errors.Count > 0
            ? $"\n{MappedMessages.Count((int)errors.Count + trial.Faults.Count, "fault")} of the file would stop an import."
            : $"\n{MappedMessages.Proved(trial)}");
    }

    private static void TellQuestions(MapProposal proposal, KeptFile file)
    {
        var map = MapFile.Read(file);
        foreach (var question in proposal.Questions)
        {
            var choices = question.Choices.Count > 0 ? question.Choices : ["2026-03-31"];
            Terminal.Say($"{map.PlaceOf(question.Key)}: {question.Question}");
            Terminal.Say(
                $"      Write {question.Key} = {Suggestion.Listed([.. choices.Select(choice => $"\"{choice}\"")], "or")} there, or give "
                    + $"--set {question.Key}={choices[0]} --overwrite.");
        }
    }
}
