using System.CommandLine;
using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei manual</c>: the manual page, made from the same commands and options that help shows.</summary>
internal static class ManualCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("manual", "Write the manual page, for man")
        {
            Examples = [("vlei manual | man -l -", "read it")],
        };
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var root = (RootCommand)result.RootCommandResult.Command;
        var page = new StringBuilder();
        page.Append(".TH VLEI 1\n.SH NAME\nvlei \\- ledger reports\n.SH SYNOPSIS\n.B vlei\n.I COMMAND\n[OPTION]...\n");
        page.Append(".SH DESCRIPTION\n").Append(Text(root.Description ?? "")).Append('\n');
        page.Append(".SH OPTIONS\n");
        AddOptions(page, root);
        page.Append(".SH COMMANDS\n");
        foreach (var command in root.Subcommands.Where(command => !command.Hidden))
        {
            var arguments = string.Concat(command.Arguments.Select(argument => $" {argument.Name}"));
            page.Append(".SS ").Append(Text($"vlei {command.Name}{arguments}")).Append('\n');
            page.Append(Text(command.Description ?? "")).Append(".\n");
            AddOptions(page, command);
            foreach (var (line, meaning) in (command as DocumentedCommand)?.Examples ?? [])
            {
                page.Append(".PP\n.nf\n").Append(Text(line)).Append("\n.fi\n.RS\n").Append(Text(meaning)).Append("\n.RE\n");
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
            .B NO_COLOR
            No bold text.
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
        using var output = new StreamWriter(Console.OpenStandardOutput());
        output.Write(page);
        return ExitStatus.Done;
    }

    private static void AddOptions(StringBuilder page, Command command)
    {
        foreach (var option in command.Options.Where(option => !option.Hidden))
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
