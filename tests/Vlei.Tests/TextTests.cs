using System.Collections.Concurrent;
using System.Text;
using System.Text.RegularExpressions;
using Vlei.Core.Problems;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Tests;

/// <summary>Text that people read: alignment with any letters, labels that wrap, columns that stay together.</summary>
public sealed partial class TextTests : IDisposable
{
    private readonly Tool _tool = new();

    [Fact]
    public void Figures_line_up_whatever_letters_the_names_have()
    {
        Import("Séances à l'île", "日本の手漕ぎボート", "Zoë's boats");
        var lines = Show().Split('\n');
        var figures = lines.Where(line => line.Contains(".00", StringComparison.Ordinal)).ToList();
        Assert.Equal(7, figures.Count);

        // An ideograph takes two places of the line.
        Assert.Single(figures.Select(line => line.Length + line.Count(c => c >= 0x3000)).Distinct());
    }

    [Fact]
    public void A_long_name_wraps_and_is_never_cut()
    {
        const string Long = "Hire of rowing boats, canoes and dinghies by the hour, the day and the season";
        Import(Long, "Abcdefghijklmnopqrstuvwxyzabcdefghijklmnopqrstuvwxyz", "Short");
        var text = Show("40");
        var letters = string.Concat(text.Where(c => !char.IsWhiteSpace(c)));
        Assert.Contains(Long.Replace(" ", ""), letters);
        Assert.Contains("Abcdefghijklmnopqrstuvwxyzabcdefghijklmnopqrstuvwxyz", letters);
        Assert.All(text.Split('\n').Skip(4).SkipLast(2), line => Assert.True(line.Length <= 40, line));
    }

    [Theory]
    [InlineData("trace profit-loss --period 2026-05 --basis cash --row gross-profit")]
    [InlineData("show general-ledger --period 2026-05-20/2026-05-31 --only account=1000,4010 --basis cash")]
    [InlineData("changes --since 0")]
    public void A_list_is_never_cut_and_figures_stay_in_their_columns(string command)
    {
        _tool.WithDemo();
        var csv = _tool.Run([.. command.Split(' '), "--book", "reedwater", "--format", "csv"]).Done().Output;
        var words = csv.Split('\n').Skip(1).SelectMany(line => line.Split(',').Skip(4)).SelectMany(cell => cell.Split(' '))
            .Where(word => word.Length is > 0 and <= 10 && char.IsLetter(word[0])).ToHashSet();
        foreach (var width in new[] { "70", "100", "140" })
        {
            var text = _tool.Run([("COLUMNS", width)], [.. command.Split(' '), "--book", "reedwater"]).Done().Output;
            Assert.All(words, word => Assert.Contains(word, text));
            Assert.All(
                text.Split('\n').Skip(4).SkipLast(3),
                line => Assert.True(line.Length <= int.Parse(width, CultureInfo.InvariantCulture), line));
        }
    }

    [Theory]
    [InlineData(80)]
    [InlineData(100)]
    [InlineData(140)]
    public void Every_report_of_the_demo_fits_on_the_terminal_also_compared(int width)
    {
        _tool.WithDemo();
        var (desk, wrong) = (new InProcess(_tool.PathOf("reedwater")), new ConcurrentBag<string>());
        Parallel.ForEach(ReportCatalogue.Standard.Where(report => report.Asks is null), report =>
        {
            foreach (var typed in new string[][]
            {
                [], report.Takes("compare") ? ["--compare", "prior-year", "--change"] : [],
                report.Takes("share") ? ["--share", "column"] : [],
            })
            {
                using var written = new MemoryStream();
                try
                {
                    using var open = desk.Open(report.Key, typed);
                    ReportFormat.All[0].Write(open.Build(), written, new Surface(width, Ascii: false, Colour: true));
                }
                catch (ProblemException)
                {
                    continue;
                }

                var lines = Escape().Replace(Encoding.UTF8.GetString(written.ToArray()), "").Split('\n');
                if (lines.FirstOrDefault(line => DisplayText.Width(line) > width || line.EndsWith(' ')) is { } line)
                {
                    wrong.Add($"{report.Key} {string.Join(' ', typed)}: {line}");
                }

                // A block has something besides percentages: its headings are no percent signs alone.
                var alone = lines.Index().FirstOrDefault(line => line.Item.Length > 0 && line.Item.All(letter => letter is '%' or ' '));
                if (alone.Item is { Length: > 0 } && (alone.Index == 0 || lines[alone.Index - 1].Length == 0))
                {
                    wrong.Add($"{report.Key} {string.Join(' ', typed)}: percentages alone");
                }
            }
        });
        Assert.Empty(wrong);
    }

    [Fact]
    public void Colour_says_nothing_that_is_not_said_without_it()
    {
        _tool.WithDemo();
        string Shown(bool colour)
        {
            using var written = new MemoryStream();
            using var open = new InProcess(_tool.PathOf("reedwater")).Open("profit-loss", "--compare", "prior-year", "--change");
            ReportFormat.All[0].Write(open.Build(), written, new Surface(100, Ascii: false, colour));
            return Encoding.UTF8.GetString(written.ToArray());
        }

        var coloured = Shown(colour: true);
        Assert.Contains("\e[31m", coloured);
        Assert.Contains("\e[1;31m", coloured);
        Assert.Equal(Shown(colour: false), Escape().Replace(coloured, ""));
    }

    [Fact]
    public void A_column_stays_with_what_it_is_about()
    {
        Import("One", "Two", "Three");
        var text = _tool.Run(
            [("COLUMNS", "60")], "show", "profit-loss", "--book", "book", "--period", "2026-Q1", "--by", "month",
            "--compare", "prior-year", "--change", "--share", "income").Done().Output;
        var headings = text.Split('\n').Where(line => line.Contains("2026", StringComparison.Ordinal)).Skip(1).ToList();
        Assert.Equal(3, headings.Count);
        Assert.All(headings, line => Assert.Matches(@"2026 +2025 +Change +%", line));

        // A month each, and the total: whole in its block.
        Assert.Equal(4, text.Split('\n').Count(line => line.StartsWith("Net profit", StringComparison.Ordinal)));
    }

    [Fact]
    public void The_same_report_is_the_same_bytes()
    {
        Import("One", "Two", "Three");
        foreach (var format in new[] { "text", "csv", "json", "md" })
        {
            string[] show = ["show", "profit-loss", "--book", "book", "--period", "2026", "--format", format];
            Assert.Equal(_tool.Run(show).Done().Output, _tool.Run(show).Done().Output);
        }
    }

    [Fact]
    public void A_csv_value_with_commas_and_quotes_is_quoted()
    {
        Import("Oars, \"long\"", "Two", "Three");
        Assert.Contains(
            "4000,\"Oars, \"\"long\"\"\",account,1,",
            _tool.Run("show", "profit-loss", "--book", "book", "--period", "2026", "--format", "csv").Done().Output);
    }

    public void Dispose() => _tool.Dispose();

    private string Show(string columns = "100") =>
        _tool.Run([("COLUMNS", columns)], "show", "profit-loss", "--book", "book", "--period", "2026").Done().Output;

    private void Import(params string[] names)
    {
        static string Quoted(string name) => $"\"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
        _tool.Run("init", "book", "--name", "Test", "--currency", "ZAR").Done();
        var accounts = string.Concat(names.Select((name, index) => $"{4000 + index},{Quoted(name)},income\n"));
        var lines = string.Concat(names.Select((_, index) => $"S,{4000 + index},-{index + 1}000\n"));
        _tool.Write("set/accounts.csv", $"code,name,type\n1000,Bank,bank\n6000,Rent,expense\n{accounts}");
        _tool.Write("set/documents.csv", "id,kind,date\nS,cash-sale,2026-02-05\n");
        _tool.Write("set/lines.csv", $"document,account,amount\nS,1000,5900\nS,6000,100\n{lines}");
        _tool.Run("import", "set", "--book", "book").Done();
    }

    [GeneratedRegex(@"\e\[[\d;]*m")]
    private static partial Regex Escape();
}
