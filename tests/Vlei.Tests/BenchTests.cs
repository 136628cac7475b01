using System.Text.RegularExpressions;

namespace Vlei.Tests;

/// <summary>What measures speed runs through, on books that are small; how long it takes is no matter of tests.</summary>
public sealed partial class BenchTests
{
    [Fact]
    public void The_table_of_speed_comes_out_whole()
    {
        using var tool = new Tool();
        var table = tool.Shell($"VLEI='{Tool.Binary}' '{Path.Combine(Tool.Root, "bench", "table.sh")}' 140 2").Done();
        Assert.Empty(table.Messages);
        var lines = Line().Matches(table.Output);
        Assert.Equal(21, lines.Count);
        Assert.All(lines, line => Assert.InRange(int.Parse(line.Groups[1].Value), 4, 400));
        Assert.Contains("Many small documents: ", table.Output, StringComparison.Ordinal);
        Assert.Equal(6, Round().Count(table.Output));
    }

    [Fact]
    public void The_table_of_growth_has_a_line_for_each_size()
    {
        using var tool = new Tool();
        var table = tool.Shell($"VLEI='{Tool.Binary}' '{Path.Combine(Tool.Root, "bench", "growth.sh")}' 140 280").Done();
        Assert.Equal(2, Size().Count(table.Output));
    }

    [GeneratedRegex(@"^round \d, \d at once: +[\d.]+ s, +\d+ MiB$", RegexOptions.Multiline)]
    private static partial Regex Round();

    // How many lines, and what was measured of them.
    [GeneratedRegex(@"^\| \d+( \| [\d.]+){8} \|$", RegexOptions.Multiline)]
    private static partial Regex Size();

    [Fact]
    public void Every_inner_loop_still_runs()
    {
        using var tool = new Tool();
        var loops = Path.Combine(AppContext.BaseDirectory, "..", "..", "Vlei.Loops", "debug", "Vlei.Loops");
        var measured = tool.Shell($"'{loops}' once").Done();
        Assert.Equal(9, Loop().Count(measured.Output));
    }

    [Fact]
    public void The_methods_that_are_laid_side_by_side_are_those_of_the_program()
    {
        Assert.SkipUnless(File.Exists($"{Tool.Binary}.dbg"), "Only what is compiled beforehand lies in an order.");
        using var tool = new Tool();
        var order = File.ReadAllLines(Path.Combine(Tool.Root, "src", "Vlei", "methods.order"));
        var methods = tool.Shell($"nm '{Tool.Binary}.dbg' | awk '{{ print $NF }}'").Done().Output.Split('\n').ToHashSet();
        Assert.Equal(order.Distinct(), order);
        Assert.Contains("vlei_Vlei_Commands_CommandLine__Run", order);
        var gone = order.Where(method => !methods.Contains(method)).ToList();
        Assert.True(gone.Count < order.Length / 10, $"{gone.Count} of {order.Length} are no more: run build/order.sh.");
    }

    // A line of what a set of loops took.
    [GeneratedRegex(@"^\| \w+ +\| +[\d.,]+ \w+ \|", RegexOptions.Multiline)]
    private static partial Regex Loop();

    // What was asked, seconds, mebibytes, the floor, and the same of another program where there is one.
    [GeneratedRegex(
        @"^\| [^|]+\|\s+[\d.]+ \|\s+(\d+) \|\s+[\d.]+ \|\s+(?:[\d.]+|-) \|\s+(?:[\d.]+|-) \|$", RegexOptions.Multiline)]
    private static partial Regex Line();
}
