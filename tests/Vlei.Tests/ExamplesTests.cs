using System.Collections.Concurrent;
using System.Text.RegularExpressions;

namespace Vlei.Tests;

/// <summary>What help shows as an example works as it stands, on the demo.</summary>
public sealed partial class ExamplesTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo(withClients: true);

    [Theory]
    [InlineData("show", 3)]
    [InlineData("fields", 4)]
    [InlineData("trace", 3)]
    [InlineData("promise", 4)]
    [InlineData("reports", 4)]
    [InlineData("layout", 1)]
    [InlineData("save", 7)]
    [InlineData("schema", 1)]
    [InlineData("map", 3)]
    [InlineData("export", 3)]
    [InlineData("group", 6)]
    [InlineData("run", 3)]
    public void Every_example_of_a_commands_help_works(string command, int atLeast)
    {
        var examples = Example().Matches(Broken().Replace(_tool.Run(command, "--help").Done().Output, " "))
            .Select(match => match.Groups[1].Value)
            .Where(example => !example.EndsWith("[options]", StringComparison.Ordinal)).ToList();
        Assert.InRange(examples.Count, atLeast, 200);
        var wrong = new ConcurrentBag<string>();

        // In their order where they change something.
        Parallel.ForEach(
            examples, new ParallelOptions { MaxDegreeOfParallelism = command is "promise" or "save" or "group" or "map" ? 1 : 4 },
            example =>
        {
            var outcome = _tool.Shell(example, "reedwater");
            var isSilent = example.Contains('>') || example.Contains(" --to ");
            if (outcome.Status != 0 || (outcome.Output.Length + outcome.Messages.Length == 0 && !isSilent))
            {
                wrong.Add($"{example}: {outcome.Status} {outcome.Messages}");
            }
        });
        Assert.Empty(wrong);
    }

    public void Dispose() => _tool.Dispose();

    [GeneratedRegex(@" \\\n *")]
    private static partial Regex Broken();

    [GeneratedRegex(@"^  (vlei .+?)(?:  .*)?$", RegexOptions.Multiline)]
    private static partial Regex Example();
}
