using System.Text.RegularExpressions;

using Vlei.Core.Problems;

namespace Vlei.Tests.Browsing;

/// <summary>The walk through reports on the full screen, in a real terminal, held against what the other commands write.</summary>
public sealed partial class BrowseTests : IDisposable
{
    private const string Foot = "? keys";

    // Each with what answers it, where it asks.
    private static readonly (string Key, string? Answer)[] Changes =
    [
        ("p", "2026-04"), ("p", "2026-Q1"), ("[", null), ("]", null), ("b", null), ("v", "prior-year"), ("v", "budget"), ("v", ""),
        ("d", null), ("t", "month"), ("t", "department"), ("t", ""), ("s", null), ("o", null), ("x", null), ("u", null),
        (":", "top 2"), (":", "depth 0"),
        (":", "zeros"), (":", "share income"), (":", "title Our month"), ("k", "+share(income)"), (":", "no-such 1"), ("g", "contact"),
    ];

    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("profit-loss --period 2026-03 --compare prior-year --change")]
    [InlineData("receivables-aging")]
    [InlineData("sales-by-item --period 2026-Q1 --by month")]
    [InlineData("bank-activity --period 2026-03-01/2026-03-05 --basis cash")]
    public void Every_cell_is_what_show_writes(string report)
    {
        var shown = RowsOf(_tool.Run([("VLEI_BOOK", "reedwater")], ["show", .. report.Split(' '), "--format", "md"]).Done().Output);
        using var terminal = new TerminalSession(_tool, 80, 24, $"browse {report}");
        var screen = terminal.Type("Home").WhenItSays(Foot);
        var count = int.Parse(Place().Match(string.Join('\n', screen)).Groups[2].Value, CultureInfo.InvariantCulture);
        Assert.Equal(shown.Count, count);
        var columns = shown.Max(row => row.Length) - 1;
        terminal.Type([.. Enumerable.Repeat("Left", columns + 1)]);
        for (var column = 0; column <= columns; column++)
        {
            for (var row = 0; row < count; row++)
            {
                // In snakes: down one column, up the next.
                var here = column % 2 == 0 ? row : count - 1 - row;
                var expected = column == 0 ? shown[here][0] : shown[here][column];
                var cell = $"{(column == 0 ? "" : ": ")}{expected}";
                terminal.When(lines => Array.FindLastIndex(lines, line => Place().IsMatch(line)) is >= 0 and var at
                    && Place().Match(lines[at]) is var place && place.Groups[1].Value == $"{here + 1}"
                    && $"{lines[at][..place.Index].TrimEnd()} {lines[at + 1]}" is var status
                    && status.StartsWith(shown[here][0], StringComparison.Ordinal)
                    && status.Contains(cell, StringComparison.Ordinal));
                _ = row + 1 < count ? terminal.Type(column % 2 == 0 ? "Down" : "Up") : terminal.Type("Right");
            }
        }
    }

    [Fact]
    public void A_figure_opens_into_its_records_they_into_the_document_and_the_way_back_is_the_same()
    {
        using var terminal = new TerminalSession(_tool, 80, 24, "browse profit-loss --period 2026-03");
        var first = terminal.Type("Down").WhenItSays("Repairs, Mar 2026: 118,122.00");
        var trace = TerminalSession.CommandOn(terminal.Type("Enter").WhenItSays("vlei trace "));
        Assert.Equal("vlei trace profit-loss --period 2026-03 --row 4020 --column 2026-03", trace);
        terminal.Type("End", "Right", "Right", "Right", "Right").WhenItSays("118,122.00");
        Assert.EndsWith("118122.00", _tool.Shell($"{trace} --format csv", "reedwater").Done().Output.TrimEnd());
        var document = terminal.Type("Home", "Enter").WhenItSays("--only document=INV-00762");
        Assert.Contains(document, line => line.StartsWith("Only document INV-00762", StringComparison.Ordinal));
        terminal.Type("Enter").WhenItSays("This is the whole document.");
        terminal.Type("Escape").WhenItSays("vlei trace ");
        Assert.Equal(first, terminal.Type("Escape").When(lines =>
            TerminalSession.CommandOn(lines).StartsWith("vlei show", StringComparison.Ordinal)));
        terminal.Type("Escape").WhenItSays("This is where you began");
        terminal.Type("q").WhenItSays("left with 0");
    }

    // Random keys: whatever they ask for, what stands on the screen is what the command at its foot writes.
    [Theory]
    [InlineData("profit-loss --period 2026-03", 1)]
    [InlineData("sales-by-customer --period 2026-Q1", 2)]
    [InlineData("payables-aging", 3)]
    [InlineData("transactions-by-account --period 2026-03 --only account=1000", 4)]
    public void The_command_at_the_foot_gives_the_report_on_the_screen(string report, int seed)
    {
        var random = new Random(seed);
        using var terminal = new TerminalSession(_tool, 240, 60, $"browse {report}");
        terminal.WhenItSays(Foot);
        for (var change = 0; change < 20; change++)
        {
            var (key, answer) = Changes[random.Next(Changes.Length)];
            terminal.Type(key);
            if (answer is not null)
            {
                // Somewhere else than the hint, a question stands at the foot.
                terminal.When(lines => IsAsked(lines));
                terminal.Type("C-u").Write(answer).Type("Enter");
            }

            // Keys that do nothing but take a message away tell that what was typed before them is done.
            terminal.Type("Left", "Home", "Down", "Right");
            var lines = terminal.When(lines => !IsAsked(lines) && Place().IsMatch(string.Join('\n', lines)));
            var written = _tool.Shell($"{TerminalSession.CommandOn(lines)} --format md", "reedwater").Done().Output;
            Assert.Contains(lines[0].Split("  ")[0], written);

            // As many rows and columns as are in sight for certain; long words may be cut.
            Assert.All(
                RowsOf(written).Take(20).Select(row => string.Join(' ', row.Take(4).Where(cell => cell.Length is > 0 and < 20))),
                row => Assert.Contains(lines, line => row.Split(' ').All(word => line.Contains(word, StringComparison.Ordinal))));
        }

        static bool IsAsked(string[] lines) => !lines[^1].Contains(Foot, StringComparison.Ordinal);
    }

    [Fact]
    public void A_long_list_is_gone_through_folded_searched_and_seen_on_any_size()
    {
        var rows = RowsOf(_tool.Run([("VLEI_BOOK", "reedwater")], "show", "general-ledger", "--period", "2025-01/2026-06", "--format", "md")
            .Done().Output);
        using var terminal = new TerminalSession(_tool, 80, 24, "browse general-ledger --period 2025-01/2026-06");
        terminal.Type("End").WhenItSays($"{rows.Count} of {rows.Count}");
        terminal.Type("PageUp", "PageUp", "PageDown", "Home").WhenItSays($" 1 of {rows.Count}");
        terminal.Type("/").WhenItSays("Find:");
        terminal.Write("engine SERVICE").Type("Enter").WhenItSays("Memo: Engine service");
        var found = Place().Match(string.Join('\n', terminal.Type("n").When(_ => true))).Groups[1].Value;
        Assert.NotEqual("1", found);
        terminal.Type("/").Write("no such words").Type("Enter").WhenItSays("\"no such words\" is nowhere in this report.");
        var headings = rows.Count(row => row.Length > 1 && row.Skip(1).All(cell => cell.Length == 0));
        terminal.Type("F", "End").When(lines => Place().Match(string.Join('\n', lines)) is { Success: true } place
            && int.Parse(place.Groups[2].Value, CultureInfo.InvariantCulture) < rows.Count / 4);
        Assert.True(headings > 10);
        foreach (var (columns, lines) in new[] { (40, 12), (200, 50), (80, 24) })
        {
            terminal.Resize(columns, lines);
            terminal.When(seen => seen[0].Length == columns && seen.All(line => line.Length <= columns) && seen.Length <= lines
                && seen[0].StartsWith("General ledger", StringComparison.Ordinal)
                && TerminalSession.CommandOn(seen).StartsWith("vlei show general-ledger", StringComparison.Ordinal));
        }

        terminal.Type("?").When(seen => seen.Length <= 24 && seen.Any(line => line.Contains("Copy the command", StringComparison.Ordinal)));
    }

    [Fact]
    public void What_is_found_is_kept_written_and_left_alone()
    {
        using var terminal = new TerminalSession(_tool, 100, 30, "browse");
        terminal.WhenItSays("profit-loss");
        terminal.Type("/").Write("receivables-aging").Type("Enter").WhenItSays("receivables-aging, Title");
        terminal.Type("Enter").WhenItSays("As of 30 June 2026");
        terminal.Type("w").Write("who-owes").Type("Enter").WhenItSays("reports/who-owes.toml is kept");
        terminal.Type("e").Write("../owes.csv").Type("Enter").WhenItSays("../owes.csv is written.");
        Assert.Equal(
            _tool.Run([("VLEI_BOOK", "reedwater")], "show", "who-owes", "--format", "csv").Done().Output,
            File.ReadAllText(_tool.PathOf("owes.csv")));
        terminal.Type("e").Write("no/folder/x.csv").Type("Enter").WhenItSays("no/folder");
        terminal.Type("C-c").WhenItSays("left with 0");
    }

    [Fact]
    public void Elsewhere_than_on_a_terminal_and_of_what_is_no_report_it_says_so()
    {
        var outcome = _tool.Run("browse", "profit-loss", "--book", "reedwater");
        Assert.Equal((int)ProblemKind.Usage, outcome.Status);
        Assert.Contains("browse needs a terminal", outcome.Messages);
        Assert.Contains("Did you mean profit-loss?", _tool.Run("browse", "profit-lost", "--book", "reedwater").Messages);
        Assert.Contains("vlei show overview", _tool.Run("browse", "overview", "--book", "reedwater").Messages);
        using var terminal = new TerminalSession(_tool, 80, 24, "browse profit-loss --only account=9999");
        terminal.WhenItSays("left with 66");
    }

    public void Dispose() => _tool.Dispose();

    // The rows of a table in Markdown, without its headings.
    private static List<string[]> RowsOf(string markdown) =>
    [
        .. markdown.Split('\n').Where(line => line.StartsWith('|')).Skip(2)
            .Select(line => line.Trim('|').Replace("\\|", "│", StringComparison.Ordinal).Split('|')
                .Select(cell => Emphasis().Replace(cell, "").Trim(' ', '\u00a0')).ToArray()),
    ];

    [GeneratedRegex(@"(\d+) of (\d+)$", RegexOptions.Multiline)]
    private static partial Regex Place();

    [GeneratedRegex(@"\*\*|&nbsp;|&emsp;|\\(?=[^|])")]
    private static partial Regex Emphasis();
}
