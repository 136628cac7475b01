using System.CommandLine;
using System.CommandLine.Help;
using System.CommandLine.Invocation;

namespace Vlei.Commands;

/// <summary>Help as the library writes it, as wide as the screen is, with the command's examples below.</summary>
internal sealed class HelpWithExamples(HelpAction help) : SynchronousCommandLineAction
{
    private const int WidthWithoutScreen = 80;
    private const int WidestToRead = 100;

    /// <summary>Lets the tree's help show examples, and call what is typed by its name rather than by all that it may be.</summary>
    public static void AddTo(RootCommand root)
    {
        foreach (var argument in root.Subcommands.SelectMany(command => command.Arguments))
        {
            argument.HelpName = argument.Name;
        }

        var option = root.Options.OfType<HelpOption>().Single();
        option.Action = new HelpWithExamples((HelpAction)option.Action!);
    }

    /// <inheritdoc/>
    public override int Invoke(ParseResult parseResult)
    {
        help.MaxWidth = Math.Min(Terminal.Width() ?? WidthWithoutScreen, WidestToRead);
        var status = help.Invoke(parseResult);
        if (parseResult.CommandResult.Command is DocumentedCommand { Examples: { Count: > 0 } examples })
        {
            var output = parseResult.InvocationConfiguration.Output;
            output.WriteLine("Examples:");
            var width = examples.Max(example => example.Line.Length);
            foreach (var (line, meaning) in examples)
            {
                output.WriteLine(width < 60 ? $"  {line.PadRight(width)}  {meaning}" : $"  {line}\n      {meaning}");
            }
        }

        return status;
    }
}
