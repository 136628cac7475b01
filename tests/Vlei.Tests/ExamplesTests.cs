using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.RegularExpressions;

namespace Vlei.Tests;

/// <summary>What help shows as an example works as it stands, on the demo.</summary>
public sealed partial class ExamplesTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo(withClients: true);

    [Theory]
    [InlineData("show", 40)]
    [InlineData("trace", 3)]
    [InlineData("promise", 4)]
    [InlineData("reports", 2)]
    [InlineData("layout", 1)]
    [InlineData("save", 7)]
    [InlineData("schema", 1)]
    [InlineData("map", 3)]
    [InlineData("export", 3)]
    [InlineData("group", 6)]
    [InlineData("run", 3)]
    public void Every_example_of_a_commands_help_works(string command, int atLeast)
    {
        var examples = Example().Matches(_tool.Run(command, "--help").Done().Output).Select(match => match.Groups[1].Value)
            .Where(example => !example.EndsWith("[options]", StringComparison.Ordinal)).ToList();
        Assert.InRange(examples.Count, atLeast, 200);
        var wrong = new ConcurrentBag<string>();

        // In their order where they change something.
        Parallel.ForEach(
            examples, new ParallelOptions { MaxDegreeOfParallelism = command is "promise" or "save" or "group" or "map" ? 1 : 4 },
            example =>
        {
            var start = new ProcessStartInfo("sh", ["-c", $"\"{Tool.Binary}\" {example[5..]}"])
            {
                WorkingDirectory = _tool.PathOf("reedwater"), RedirectStandardOutput = true, RedirectStandardError = true,
            };
            Tool.SetUp(start, _tool.Folder);
            using var process = Process.Start(start)!;
            var messages = process.StandardError.ReadToEndAsync();
            var output = process.StandardOutput.ReadToEnd();
            process.WaitForExit();
            if (process.ExitCode != 0 || (output.Length + messages.Result.Length == 0 && !example.Contains('>')))
            {
                wrong.Add($"{example}: {process.ExitCode} {messages.Result}");
            }
        });
        Assert.Empty(wrong);
    }

    public void Dispose() => _tool.Dispose();

    [GeneratedRegex(@"^  (vlei .+?)(?:  .*)?$", RegexOptions.Multiline)]
    private static partial Regex Example();
}
