using System.CommandLine;
using System.CommandLine.Help;
using System.CommandLine.Invocation;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary>What <c>--help</c> does: it tells of the program, of the command, or of the report that is named.</summary>
internal sealed class HelpAction : SynchronousCommandLineAction
{
    /// <summary>Lets the tree's help be ours.</summary>
    public static void AddTo(RootCommand root) => root.Options.OfType<HelpOption>().Single().Action = new HelpAction();

    /// <inheritdoc/>
    public override bool ClearsParseErrors => true;

    /// <inheritdoc/>
    public override int Invoke(ParseResult parseResult)
    {
        using var output = Terminal.Output();
        var page = new HelpPage(output);
        if (parseResult.CommandResult.Command is DocumentedCommand command)
        {
            if (command.OfItsReport is not { } tell || !tell(parseResult, page))
            {
                CommandHelp.Write(command, page);
            }
        }
        else
        {
            ProgramHelp.Write(page);
        }

        return ExitStatus.Done;
    }
}
