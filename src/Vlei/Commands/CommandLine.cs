using System.CommandLine;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary>
/// The program as it is typed: finds the command, runs it, and turns whatever goes wrong into a message on standard error
/// and the right exit status.
/// </summary>
internal static class CommandLine
{
    /// <summary>Every command, in the order of help; made only when it is needed, for the sake of the start.</summary>
    public static IReadOnlyList<Func<Command>> Commands { get; } =
    [
        DemoCommand.Create, InitCommand.Create, ImportCommand.Create, CheckCommand.Create, ReportsCommand.Create, FieldsCommand.Create,
        ShowCommand.Create, TraceCommand.Create, SaveCommand.Create, GroupCommand.Create, RunCommand.Create, ChangesCommand.Create, CloseCommand.Create, PromiseCommand.Create,
        LayoutCommand.Create, SchemaCommand.Create,
        CompletionCommand.Create, ManualCommand.Create,
    ];

    /// <summary>Runs the program.</summary>
    public static int Run(string[] args)
    {
        try
        {
            var root = CreateRoot();
            var result = root.Parse(args.Length == 0 ? ["--help"] : args);
            if (result.Errors.Count > 0 && result.Action is not HelpWithExamples)
            {
                throw UsageProblem(result);
            }

            return result.Invoke(new InvocationConfiguration { EnableDefaultExceptionHandler = false });
        }
        catch (ProblemException problem)
        {
            Terminal.Say($"vlei: {problem.Message}");
            if (problem.Advice is { } advice)
            {
                Terminal.Say($"      {advice.Replace("\n", "\n      ", StringComparison.Ordinal)}");
            }

            return (int)problem.Kind;
        }
        catch (IOException cannot)
        {
            Terminal.Say($"vlei: The output cannot be written: {cannot.Message}");
            return (int)ProblemKind.CannotWrite;
        }
        catch (Exception bug)
        {
            Terminal.Say("vlei: This is a bug of the program, not of your records; nothing was changed.");
            Terminal.Say("      Please report it with the lines below.");
            Terminal.Say(bug.ToString());
            return ExitStatus.Bug;
        }
    }

    /// <summary>The whole tree of commands.</summary>
    public static RootCommand CreateRoot()
    {
        var root = new RootCommand("Builds, checks, keeps and sends the reports of a small business from its ledger records.");
        root.Options.Add(BookOptions.Book);
        root.Options.Add(BookOptions.Today);
        foreach (var create in Commands)
        {
            root.Subcommands.Add(create());
        }

        HelpWithExamples.AddTo(root);
        return root;
    }

    private static ProblemException UsageProblem(ParseResult result)
    {
        var command = result.CommandResult.Command;
        var path = command is RootCommand ? "vlei" : $"vlei {command.Name}";
        var unknown = result.UnmatchedTokens is [var first, ..] ? first : null;
        if (unknown is not null && unknown.StartsWith('-'))
        {
            var options = command.Options.Append(BookOptions.Book).Append(BookOptions.Today).Select(option => option.Name);
            return new ProblemException(
                ProblemKind.Usage, $"{path} has no option {unknown}.",
                Suggestion.DidYouMean(unknown, options) ?? $"{path} --help lists them.");
        }

        if (unknown is not null)
        {
            var commands = command.Subcommands.Select(sub => sub.Name);
            return new ProblemException(
                ProblemKind.Usage,
                command.Subcommands.Count > 0 ? $"There is no command {unknown}." : $"{path} does not take \"{unknown}\".",
                Suggestion.DidYouMean(unknown, commands) ?? $"{path} --help says what it takes.");
        }

        var missing = result.Errors[0].Message.TrimEnd('.');
        return new ProblemException(ProblemKind.Usage, $"{missing}.", $"{path} --help says what it takes.");
    }
}
