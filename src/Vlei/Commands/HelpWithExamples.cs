using System.CommandLine;
using System.CommandLine.Help;
using System.CommandLine.Invocation;

namespace Vlei.Commands;

/// <summary>Help as the library writes it, with the command's examples below.</summary>
internal sealed class HelpWithExamples(HelpAction help) : SynchronousCommandLineAction
{
    /// <summary>Lets the tree's help show examples.</summary>
    public static void AddTo(RootCommand root)
    {
        var option = root.Options.OfType<HelpOption>().Single();
        option.Action = new HelpWithExamples((HelpAction)option.Action!);
    }

    /// <inheritdoc/>
    public override int Invoke(ParseResult parseResult)
    {
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
