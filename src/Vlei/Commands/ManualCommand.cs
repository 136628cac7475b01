using System.CommandLine;
using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei manual</c>: the manual pages, made from the same commands and options that help shows.</summary>
internal static class ManualCommand
{
    private const string Ending = ".1";

    private static readonly Argument<string?> Named = new("COMMAND")
    {
        Description = "The command that the page is of; without one, the page is of the program", Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> To = new("--to")
    {
        Description = "Write all pages into this folder, as man looks for them", HelpName = "DIR",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("manual", "Write the manual pages, for man")
        {
            Examples = [("vlei manual | man -l -", "read it"), ("vlei manual show | man -l -", "read that of a command")],
        };
        Named.CompletionSources.Clear();
        Named.CompletionSources.Add([.. CommandTable.All.Select(known => known.Name)]);
        command.Arguments.Add(Named);
        command.Options.Add(To);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var name = result.GetValue(Named);
        if (result.GetValue(To) is { } folder)
        {
            if (name is not null)
            {
                throw new ProblemException(ProblemKind.Usage, "--to writes all pages, and a command is named.", "Leave one of them out.");
            }

            Directory.CreateDirectory(folder);
            File.WriteAllText(Path.Combine(folder, $"vlei{Ending}"), OfProgram());
            foreach (var (known, create) in CommandTable.All)
            {
                File.WriteAllText(Path.Combine(folder, $"vlei-{known}{Ending}"), Of(create()));
            }

            return ExitStatus.Done;
        }

        var page = name is null ? OfProgram() : Of(CommandTable.Find(name) ?? throw new ProblemException(
            ProblemKind.NotFound, $"There is no command {name}.",
            Suggestion.DidYouMean(name, CommandTable.All.Select(known => known.Name)) ?? "vlei --help lists them."));
        using var output = new StreamWriter(Console.OpenStandardOutput());
        output.Write(page);
        return ExitStatus.Done;
    }

    private static string OfProgram()
    {
        var page = Begun("vlei", "reports from ledger records", ".B vlei\n.I COMMAND\n[OPTION]...");
        page.Append(".SH DESCRIPTION\nBuilds, checks, keeps and sends reports from the ledger records of a business.\n");
        page.Append(".SH OPTIONS\n");
        AddOptions(page, [BookOptions.Book, BookOptions.Clock, Terminal.NoPager]);
        page.Append(".SH COMMANDS\n");
        foreach (var (heading, commands) in CommandTable.Parts)
        {
            page.Append(".SS ").Append(Text(heading)).Append('\n');
            foreach (var (name, create) in commands)
            {
                page.Append(".TP\n.BR vlei\\-").Append(Text(name)).Append(" (1)\n").Append(Text(create().Description ?? "")).Append('\n');
            }
        }

        page.Append("""
            .SH ENVIRONMENT
            .TP
            .B VLEI_BOOK
            The book's folder.
            .TP
            .B VLEI_CLOCK
            The day that words like last\-month are worked out from.
            .TP
            .B VLEI_PAGER, PAGER
            What shows output that is longer than the terminal (else less \-FRSX); empty for nothing.
            .TP
            .B NO_COLOR
            No colour and no bold text.
            .TP
            .B XDG_CONFIG_HOME
            The folder in which vlei/ has reports, selections, layouts and groups for all books (else ~/.config).
            .TP
            .B XDG_STATE_HOME
            The folder in which vlei/ notes what was shown lately (else ~/.local/state).
            .SH EXIT STATUS
            0 done; 1 done, but a check of the report failed; 2 wrong usage; 65 bad records or definitions; 66 no such
            book, file or report; 70 a bug; 73 cannot write; 75 try again later; 78 bad configuration.

            """);
        return page.ToString();
    }

    private static string Of(DocumentedCommand command)
    {
        var arguments = string.Concat(command.Arguments.Select(argument => $"\n.I {Text(argument.Name)}"));
        var page = Begun($"vlei-{command.Name}", command.Description ?? "", $".B vlei {command.Name}{arguments}\n[OPTION]...");
        page.Append(".SH DESCRIPTION\n").Append(Text(command.Description ?? "")).Append(".\n");
        foreach (var argument in command.Arguments)
        {
            page.Append(".TP\n.I ").Append(Text(argument.Name)).Append('\n').Append(Text(argument.Description ?? "")).Append('\n');
        }

        page.Append(".SH OPTIONS\n");
        AddOptions(page, command.Options);
        page.Append(".SH EXAMPLES\n");
        foreach (var (line, meaning) in command.Examples)
        {
            page.Append(".PP\n.nf\n").Append(Text(line)).Append("\n.fi\n.RS\n").Append(Text(meaning)).Append("\n.RE\n");
        }

        return page.Append(".SH SEE ALSO\n.BR vlei (1)\n").ToString();
    }

    private static StringBuilder Begun(string name, string purpose, string synopsis) => new StringBuilder()
        .Append(".TH ").Append(Text(name.ToUpperInvariant())).Append(" 1\n.SH NAME\n").Append(Text(name)).Append(" \\- ")
        .Append(Text(purpose)).Append("\n.SH SYNOPSIS\n").Append(synopsis).Append('\n');

    private static void AddOptions(StringBuilder page, IEnumerable<Option> options)
    {
        foreach (var option in options.Where(option => !option.Hidden))
        {
            var value = option.HelpName is { } name ? $" {name}" : "";
            page.Append(".TP\n.B ").Append(Text($"{option.Name}{value}")).Append('\n');
            page.Append(Text(option.Description ?? "")).Append('\n');
        }
    }

    // A leading dot or apostrophe would be a request to the formatter, and a dash is not a minus.
    private static string Text(string text)
    {
        var escaped = text.Replace("\\", "\\e", StringComparison.Ordinal).Replace("-", "\\-", StringComparison.Ordinal);
        return escaped.StartsWith('.') || escaped.StartsWith('\'') ? $"\\&{escaped}" : escaped;
    }
}
