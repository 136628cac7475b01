using System.CommandLine;
using System.CommandLine.Parsing;
using Vlei.Books;
using Vlei.Core.Problems;
using Vlei.Desk;
using Vlei.Desk.Deliveries;

namespace Vlei.Commands;

/// <summary>
/// The program as it is typed: finds the command, runs it, and turns whatever goes wrong into a message on standard error
/// and the right exit status.
/// </summary>
internal static class CommandLine
{
    private const string Version = "--version", Help = "--help", ShortHelp = "-h";

    // The manual is of all commands.
    private const string Manual = "manual";

    // These tell it themselves.
    private static readonly string[] Telling = ["schedule", "outbox", "send"];

    // What is typed is meant as it is: an argument that begins with @ names no file of further ones.
    private static readonly ParserConfiguration Typed = new() { ResponseFileTokenReplacer = null };

    /// <summary>Runs the program.</summary>
    public static int Run(string[] args)
    {
        try
        {
            var root = CreateRoot(args is [var first, ..] ? first : Help);
            var result = root.Parse(args.Length == 0 ? ["--help"] : args, Typed);
            if (result.Action is not HelpAction && (result.Errors.Count > 0 || MistypedOption(result) is not null))
            {
                throw UsageProblem(result);
            }

            Terminal.UsesPager = !result.GetValue(Terminal.NoPager);
            var status = result.Invoke(new InvocationConfiguration { EnableDefaultExceptionHandler = false });
            TellOverdue(result);
            return status;
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
        catch (Exception missing) when (missing is FileNotFoundException or DirectoryNotFoundException)
        {
            Terminal.Say($"vlei: {missing.Message}");
            Terminal.Say("      A file or a folder is not there any more, or a link leads nowhere.");
            return (int)ProblemKind.NotFound;
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            Terminal.Say($"vlei: A file cannot be read, or the output not be written: {cannot.Message}");
            Terminal.Say("      Check who may read and write there, and whether the disk is full.");
            return (int)ProblemKind.CannotWrite;
        }
        catch (Exception impossible) when (BookOptions.Opened is { } book && BookCheck.Damage(book) is { } damage)
        {
            Terminal.Say($"vlei: The book's records are damaged: {damage}. ({impossible.Message})");
            Terminal.Say("      Put back a copy of them, or make the book anew and import its record sets again.");
            return (int)ProblemKind.BadData;
        }
        catch (Exception bug)
        {
            Terminal.Say("vlei: This is a bug of the program, not of your records.");
            Terminal.Say("      Please report it with the lines below.");
            Terminal.Say(bug.ToString());
            return ExitStatus.Bug;
        }
    }

    /// <summary>The tree of commands: the whole of it, or, where the first word is all that is needed, that part.</summary>
    /// <param name="first">The first word that was typed; nothing for the whole tree.</param>
    public static RootCommand CreateRoot(string? first = null)
    {
        var root = new RootCommand("Builds, checks, keeps and sends the reports of a small business from its ledger records.");
        root.Options.Add(BookOptions.Book);
        root.Options.Add(BookOptions.Clock);
        root.Options.Add(Terminal.NoPager);
        var isNamed = first != Manual && CommandTable.All.Any(command => command.Name == first);
        foreach (var (name, create) in first is Version or Help or ShortHelp ? [] : CommandTable.All)
        {
            if (!isNamed || name == first)
            {
                root.Subcommands.Add(create());
            }
        }

        HelpAction.AddTo(root);
        return root;
    }

    // What should have gone by itself and did not is said by whatever is done with the book, once a day.
    private static void TellOverdue(ParseResult result)
    {
        if (BookOptions.Opened is not { } book || Telling.Contains(result.CommandResult.Command.Name))
        {
            return;
        }

        try
        {
            foreach (var line in Overdue.OnceADay(new ReportDesk(book, BookOptions.ClockTyped(result))))
            {
                Terminal.Say($"vlei: {line}");
            }
        }
        catch (ProblemException)
        {
            // A file that is not as it should be is told by what reads it: vlei schedule.
        }
    }

    // Where several arguments are taken, an option that there is none of would be one of them; what begins with a dash and is meant so
    // stands behind "--", as POSIX has it.
    private static string? MistypedOption(ParseResult result)
    {
        string? mistyped = null;
        foreach (var part in result.CommandResult.Children)
        {
            foreach (var token in part is ArgumentResult ? part.Tokens : [])
            {
                mistyped ??= token.Value is ['-', not (>= '0' and <= '9'), ..] ? token.Value : null;
            }
        }

        return mistyped is not null && result.Tokens.Any(token => token.Type == TokenType.DoubleDash) ? null : mistyped;
    }

    private static ProblemException UsageProblem(ParseResult result)
    {
        var command = result.CommandResult.Command;
        var path = command is RootCommand ? "vlei" : $"vlei {command.Name}";
        var unknown = MistypedOption(result) ?? (result.UnmatchedTokens is [var first, ..] ? first : null);
        if (unknown is not null && unknown.StartsWith('-'))
        {
            var name = unknown.Split('=')[0];
            var options = command.Options.Concat([BookOptions.Book, BookOptions.Clock, Terminal.NoPager]).Select(option => option.Name);
            return new ProblemException(
                ProblemKind.Usage, $"{path} has no option {name}.",
                Suggestion.DidYouMean(name, options) ?? $"{path} --help lists them.");
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
