using System.Collections.Concurrent;
using System.Text.RegularExpressions;
using Vlei.Core.Calendar;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Tests;

/// <summary>Help, the catalogue, the manual, and what a terminal is asked: that all of it fits, is whole, and is true.</summary>
public sealed partial class HelpTests : IDisposable
{
    private const int MostLines = 40;
    private const int MostLinesOfShow = 95;

    private static readonly string[] Topics =
        ["periods", "selecting", "comparing", "columns", "formulas", "looks", "formats", "files", "statuses"];

    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Every_command_is_in_the_help_and_has_help_and_a_manual_page_with_all_its_options()
    {
        var help = Lines("--help");
        Assert.InRange(help.Count, 20, MostLines);
        var commands = help.Select(line => Command().Match(line)).Where(match => match.Success)
            .Select(match => match.Groups[1].Value).ToList();
        Assert.InRange(commands.Count, 24, 40);
        _tool.Run("manual", "--to", "man").Done();
        Assert.Equal(commands.Count + 1, Directory.GetFiles(_tool.PathOf("man")).Length);
        foreach (var command in commands)
        {
            var lines = Lines(command, "--help");
            Assert.InRange(lines.Count, 8, command == "show" ? MostLinesOfShow : 60);
            Assert.Contains(lines, line => line.StartsWith($"  vlei {command}", StringComparison.Ordinal));
            var page = File.ReadAllText(_tool.PathOf($"man/vlei-{command}.1")).Replace("\\-", "-", StringComparison.Ordinal);
            Assert.All(OptionNames().Matches(string.Join('\n', lines)).Select(match => match.Value).Where(
                option => option is not ("--book" or "--clock" or "--no-pager" or "--help")), option => Assert.Contains($".B {option}",
                    page));
        }
    }

    [Theory]
    [InlineData(50)]
    [InlineData(80)]
    [InlineData(300)]
    public void No_line_of_help_is_longer_than_the_terminal_or_than_is_pleasant(int width)
    {
        var wide = new ConcurrentBag<string>();
        Parallel.ForEach(
            Topics.Select(topic => new[] { "help", topic }).Concat([["--help"], ["help"], ["reports"], ["show", "--help"],
                ["send", "--help"], ["show", "receivables-aging", "--help"], ["reports", "sales-by-item"]]),
            typed =>
        {
            foreach (var line in _tool.Run([("COLUMNS", $"{width}")], typed).Done().Output.Split('\n'))
            {
                // What is typed is not broken within a word.
                if (DisplayText.Width(line) > Math.Min(width, 100) && !line.TrimStart().StartsWith("vlei ", StringComparison.Ordinal)
                    && !line.StartsWith("    --", StringComparison.Ordinal))
                {
                    wide.Add($"{string.Join(' ', typed)}: {line}");
                }
            }
        });
        Assert.Empty(wide);
    }

    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    [InlineData("fr")]
    [InlineData("af")]
    public void Topics_name_every_word_that_there_is_in_every_language(string language)
    {
        string Topic(string name) => _tool.Run([("COLUMNS", "300")], "help", name, "--lang", language).Done().Output;
        static IEnumerable<string> Typed(string topic) => topic.Split('\n')
            .Where(line => line.Length > 2 && line.StartsWith("  ", StringComparison.Ordinal) && line[2] != ' ')
            .Select(line => line.Trim().Split("  ")[0]);
        Assert.All(FiscalCalendar.UnitNames, unit => Assert.Contains(unit, Topic("periods")));
        Assert.All(Comparison.Words, word => Assert.Contains(word, Topic("comparing")));
        Assert.All(ReportFormat.All, format => Assert.Matches($@"(?s)\b{format.Name}\b.*\.{format.Ending}\b", Topic("formats")));
        var looks = Topic("looks");
        Assert.All(
            LookOptions.All.Where(option => option != LookOptions.WithDetail && option != LookOptions.Template
                && option != LookOptions.CsvStyle), option => Assert.Contains($"--{option.Name}", looks));
        var list = _tool.Run("help").Done().Output;
        Assert.All(Topics, topic => Assert.Contains($"  {topic}", list));
        foreach (var topic in Topics)
        {
            var english = _tool.Run([("COLUMNS", "300")], "help", topic, "--lang", "en").Done().Output;
            Assert.Equal(Typed(english), Typed(Topic(topic)));
            Assert.Equal(language == "en", english == Topic(topic));
        }

        _tool.Write("reedwater/book.toml", $"{File.ReadAllText(_tool.PathOf("reedwater/book.toml"))}\nlanguage = \"{language}\"\n");
        Assert.Equal(Topic("looks"), _tool.Run([("COLUMNS", "300"), ("VLEI_BOOK", "reedwater")], "help", "looks").Done().Output);
    }

    [Fact]
    public void Every_report_tells_about_itself_and_its_examples_work()
    {
        var wrong = new ConcurrentBag<string>();
        var examples = 0;
        Parallel.ForEach(ReportCatalogue.Standard, report =>
        {
            var help = _tool.Run([("VLEI_BOOK", "reedwater")], "show", report.Key, "--help").Done().Output;
            var page = _tool.Run([("VLEI_BOOK", "reedwater")], "reports", report.Key).Done().Output;
            if (help != page || !help.Contains(report.Question.Split(' ')[0], StringComparison.Ordinal)
                || !(help.Contains("\nColumns:\n", StringComparison.Ordinal) || report.Asks is not null))
            {
                wrong.Add($"{report.Key}: {help}");
            }

            foreach (var example in ExamplesIn(help))
            {
                Interlocked.Increment(ref examples);
                if (_tool.Shell(example, "reedwater") is { Status: not 0 } outcome)
                {
                    wrong.Add($"{example}: {outcome.Messages}");
                }
            }
        });
        Assert.Empty(wrong);
        Assert.InRange(examples, 80, 400);
    }

    [Fact]
    public void What_a_report_must_be_told_is_said()
    {
        void Says(string report, string message)
        {
            var outcome = _tool.Run("show", report, "--book", "reedwater");
            Assert.Equal(2, outcome.Status);
            Assert.StartsWith($"vlei: {message}", outcome.Messages);
        }

        Says("journals-by-batch", "journals-by-batch is of some document.batch, and it is not said which.");
        Says("statement-of-account", "A statement of account is for one customer");
    }

    [Fact]
    public void The_inventory_has_every_report_with_all_that_is_known_of_it()
    {
        var rows = _tool.Run([("VLEI_BOOK", "reedwater")], "reports", "--format", "csv").Done().Output.TrimEnd('\n').Split('\n');
        Assert.Equal(1 + ReportCatalogue.Standard.Count + 2, rows.Length);
        Assert.Contains(rows, row => row.StartsWith("rebate,", StringComparison.Ordinal) && row.Contains("reports/rebate.toml,lines"));
        Assert.Contains(rows, row => row.StartsWith("profit-loss,", StringComparison.Ordinal) && row.Contains("month-end"));
    }

    [Fact]
    public void What_does_not_fit_on_the_terminal_goes_through_the_pager_and_else_nothing_does()
    {
        string Seen(string command, string pager) => _tool.Shell(
            $"VLEI_PAGER='{pager}' script -qec \"stty rows 24 cols 80; '{Tool.Binary}' {command}\" /dev/null < /dev/null",
                "reedwater").Output;
        Assert.Contains("seen\r\n", Seen("reports", "echo seen; cat > /dev/null"));
        Assert.DoesNotContain("seen", Seen("reports --no-pager", "echo seen; cat > /dev/null"));
        Assert.DoesNotContain("seen", Seen("help", "echo seen; cat > /dev/null"));
        Assert.Contains("trial-balance", Seen("reports", ""));
        Assert.Contains("trial-balance", Seen("reports", "no-such-pager -x"));
        Assert.Contains("Net profit", Seen("show profit-loss --period last-month", "cat -"));

        // Who has seen enough leaves.
        Assert.DoesNotContain("vlei:", Seen("show lines --period all", "head -1"));
    }

    private static IEnumerable<string> ExamplesIn(string help) => Example().Matches(
        help[Math.Max(0, help.IndexOf("\nExamples:", StringComparison.Ordinal))..].Replace(" \\\n    ", " ", StringComparison.Ordinal))
        .Select(match => match.Groups[1].Value);

    private List<string> Lines(params string[] typed) => [.. _tool.Run(typed).Done().Output.TrimEnd('\n').Split('\n')];

    [GeneratedRegex(@"^  ([a-z]+) {2,}[A-Z]")]
    private static partial Regex Command();

    [GeneratedRegex(@"(?<=^  )--[a-z][a-z-]+", RegexOptions.Multiline)]
    private static partial Regex OptionNames();

    [GeneratedRegex(@"^  (vlei .+?)(?:  .*)?$", RegexOptions.Multiline)]
    private static partial Regex Example();
}
