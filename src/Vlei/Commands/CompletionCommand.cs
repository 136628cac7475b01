using System.CommandLine;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei completion</c>: what a shell needs to complete words; it asks the program itself for them.</summary>
internal static class CompletionCommand
{
    private const string Bash = """
        # Completion of vlei for bash.
        _vlei() {
            local words typed=${COMP_LINE:0:COMP_POINT} word=${COMP_WORDS[COMP_CWORD]}
            words=$(vlei "[suggest:$COMP_POINT]" "$COMP_LINE" 2>/dev/null)
            typed=${typed##* }
            # The shell takes what stands behind an equals sign for a word of its own.
            case $typed in *=*) words=$(sed 's/^[^=]*=//' <<< "$words"); word=${typed#*=} ;; esac
            COMPREPLY=($(compgen -W "$words" -- "$word"))
        }
        complete -o default -F _vlei vlei

        """;

    private const string Zsh = """
        #compdef vlei
        # Completion of vlei for zsh.
        _vlei() {
            local -a words
            words=("${(@f)$(vlei "[suggest:$CURSOR]" "$BUFFER" 2>/dev/null)}")
            compadd -a words
            _files
        }
        compdef _vlei vlei

        """;

    private const string Fish = """
        # Completion of vlei for fish.
        complete -c vlei -a '(vlei "[suggest:"(commandline -C)"]" (commandline) 2>/dev/null)'

        """;

    private static readonly string[] Shells = ["bash", "zsh", "fish"];

    private static readonly Argument<string> Shell = new("SHELL") { Description = "bash, zsh or fish" };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("completion", "Write what a shell needs to complete vlei's words")
        {
            Examples = [("vlei completion bash > ~/.local/share/bash-completion/completions/vlei", "for bash")],
        };
        Shell.CompletionSources.Add(Shells);
        command.Arguments.Add(Shell);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var shell = result.GetRequiredValue(Shell);
        using var output = new StreamWriter(Console.OpenStandardOutput());
        output.Write(shell switch
        {
            "bash" => Bash,
            "zsh" => Zsh,
            "fish" => Fish,
            _ => throw new ProblemException(
                ProblemKind.Usage, $"There is no completion for {shell}.",
                Suggestion.DidYouMean(shell, Shells) ?? $"There is one for {Suggestion.Listed(Shells, "and")}."),
        });
        return ExitStatus.Done;
    }
}
