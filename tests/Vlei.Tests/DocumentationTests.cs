using System.Diagnostics;
using System.Text;
using System.Text.RegularExpressions;
using Vlei.Books.Tests;

namespace Vlei.Tests;

/// <summary>
/// Every example of the documentation is run, in the order of its page, in one empty folder per page; what it prints is
/// what the reader sees. <c>VLEI_APPROVE=1</c> writes the real output into the page.
/// </summary>
public sealed partial class DocumentationTests
{
    public static TheoryData<string> Pages => [.. Directory.EnumerateFiles(
        Path.Combine(Tool.Root, "docs", "guide"), "*.md")
        .Append(Path.Combine(Tool.Root, "README.md")).Select(path => Path.GetRelativePath(Tool.Root, path)).Order(StringComparer.Ordinal)];

    [Theory]
    [MemberData(nameof(Pages))]
    public void Examples_print_what_the_page_shows(string page)
    {
        using var tool = new Tool();
        var path = Path.Combine(Tool.Root, page);
        var text = File.ReadAllText(path);
        using var server = text.Contains("```console\n$ createdb", StringComparison.Ordinal) ? new TestServer() : null;
        Assert.True(Block().IsMatch(text), $"{page} has no example");
        var real = Block().Replace(text, block => $"```console\n{Run(tool, server, block.Groups[1].Value)}```\n");
        if (Environment.GetEnvironmentVariable("VLEI_APPROVE") == "1")
        {
            File.WriteAllText(path, real);
        }

        Assert.Equal(text, real);
    }

    [Fact]
    public void Links_lead_somewhere()
    {
        foreach (var page in Pages.Select(row => Path.Combine(Tool.Root, (string)row)))
        {
            foreach (Match link in Link().Matches(File.ReadAllText(page)))
            {
                Assert.True(
                    Path.Exists(Path.Combine(Path.GetDirectoryName(page)!, link.Groups[1].Value)),
                    $"{page}: {link.Value}");
            }
        }
    }

    // A block is commands after "$ ", each with its output below; one goes on behind a backslash, and with lines after "> ".
    private static string Run(Tool tool, TestServer? server, string block)
    {
        var shown = new StringBuilder();
        foreach (Match command in Command().Matches(block))
        {
            shown.Append(command.Value);
            var typed = command.Groups[1].Value.Replace("\n> ", "\n", StringComparison.Ordinal)
                .Replace("vlei ", $"{Tool.Binary} ", StringComparison.Ordinal);
            var start = new ProcessStartInfo("sh", ["-c", $"{{ {typed}\n}} 2>&1"])
            {
                WorkingDirectory = tool.Folder, RedirectStandardOutput = true, StandardOutputEncoding = Encoding.UTF8,
            };
            Tool.SetUp(start, tool.Folder);
            start.Environment["COLUMNS"] = "100";
            start.Environment["PATH"] = $"{Path.GetDirectoryName(Deliveries.Postbox.Program)}:{start.Environment["PATH"]}";
            if (server is not null)
            {
                start.Environment["PGHOST"] = "127.0.0.1";
                start.Environment["PGPORT"] = server.Port.ToString(CultureInfo.InvariantCulture);
                start.Environment["PGUSER"] = "owner";
            }

            using var process = Process.Start(start)!;
            shown.Append(process.StandardOutput.ReadToEnd());
            process.WaitForExit();
        }

        return shown.ToString();
    }

    [GeneratedRegex(@"```console\n(.*?)```\n", RegexOptions.Singleline)]
    private static partial Regex Block();

    [GeneratedRegex(@"^\$ ((?:.*\\\n)*.*(?:\n> .*)*)\n", RegexOptions.Multiline)]
    private static partial Regex Command();

    [GeneratedRegex(@"\]\((?!https?:)([^)#]+)\)")]
    private static partial Regex Link();
}
