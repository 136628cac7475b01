using System.Text.Json;
using Vlei.Output;

namespace Vlei.Tests;

/// <summary>Pages of panels, and why figures changed: as they are typed, and what they come to.</summary>
public sealed class PageTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Every_figure_of_the_overview_is_that_of_the_report_that_it_leads_to()
    {
        using var page = JsonDocument.Parse(Show("overview", "--format", "json"));
        var panels = page.RootElement.GetProperty("panels").EnumerateArray().ToList();
        Assert.InRange(panels.Count, 12, 20);
        var compared = 0;
        foreach (var panel in panels.Where(panel => panel.TryGetProperty("figures", out _)))
        {
            Assert.Equal(JsonValueKind.Null, panel.GetProperty("problem").ValueKind);
            var command = panel.GetProperty("command").GetString()!;
            using var report = JsonDocument.Parse(_tool.Shell($"{command} --book reedwater --format json").Done().Output);
            var columns = report.RootElement.GetProperty("columns").EnumerateArray()
                .Select(column => column.GetProperty("key").GetString()).ToList();
            Assert.True(panel.GetProperty("figures").GetArrayLength() > 0, command);
            foreach (var figure in panel.GetProperty("figures").EnumerateArray())
            {
                var row = report.RootElement.GetProperty("rows").EnumerateArray()
                    .First(known => known.GetProperty("key").GetString() == figure.GetProperty("row").GetString());
                var cell = row.GetProperty("cells")[columns.IndexOf(figure.GetProperty("column").GetString())];
                Assert.Equal(cell.GetRawText(), figure.GetProperty("value").GetRawText());
                compared++;
            }
        }

        Assert.InRange(compared, 30, 100);
    }

    [Theory]
    [InlineData(46)]
    [InlineData(100)]
    [InlineData(180)]
    public void The_overview_fits_on_the_terminal_in_every_language(int width)
    {
        foreach (var (language, owed) in new[]
        {
            ("en", "Owed to us"), ("de", "Man schuldet uns"), ("fr", "On nous doit"), ("af", "Aan ons verskuldig"),
        })
        {
            var text = _tool.Run([("COLUMNS", $"{width}")], "show", "overview", "--book", "reedwater", "--lang", language).Done().Output;
            Assert.All(text.Split('\n'), line => Assert.InRange(DisplayText.Width(line), 0, width));
            Assert.Contains(owed, text);
        }
    }

    [Fact]
    public void A_page_of_ones_own_takes_the_place_of_the_standard_one_and_one_broken_panel_hides_no_other()
    {
        _tool.Write("reedwater/pages/overview.toml", """
            title = "Mine"

            [[panel]]
            title = "Broken"
            report = "profit-loss"
            period = "2026-05"
            layout = "nowhere"

            [[panel]]
            title = "Whole"
            report = "profit-loss"
            period = "2026-05"
            rows = ["net-profit"]
            """);
        var text = Show("overview");
        Assert.Contains("Mine", text);
        Assert.Contains("There is no layout nowhere.", text);
        Assert.Contains("75,159.17", text);
        Assert.Contains("<h2><a href=\"#report-2\">Whole</a></h2>", Show("overview", "--format", "html"));
        _tool.Run("show", "overview", "--book", "reedwater", "--to", "page.pdf").Done();
        Assert.Contains("75,159.17", _tool.Shell("pdftotext -layout page.pdf -").Done().Output);
        Assert.Contains("Pages:           1\n", _tool.Shell("pdfinfo page.pdf").Done().Output);
        Assert.Contains("Mine", _tool.Run("reports", "--book", "reedwater").Done().Output + Show("overview", "--help"));
    }

    [Theory]
    [InlineData("title = 1\n", 65, "the page has no panel.")]
    [InlineData("title = \"x\"\n", 65, "the page has no panel.")]
    [InlineData("[[panel]]\nreport = \"profit-los\"\n", 65, "overview.toml:2:1: there is no report profit-los. Did you mean profit-loss?")]
    [InlineData("[[panel]]\nreport = \"profit-loss\"\nshow = \"bar\"\n", 65, "overview.toml:3:1: show does not take \"bar\". Did you "
        + "mean bars?")]
    [InlineData("[[panel]]\nlist = \"moved\"\nrows = \"x\"\n", 65, "rows is of a report, and this panel is a list.")]
    [InlineData("[[panel]]\nreport = \"profit-loss\"\nas-off = \"today\"\n", 65, "Did you mean as-of?")]
    [InlineData("[[panels]]\nreport = \"profit-loss\"\n", 65, "there is no table panels.")]
    public void A_page_that_is_not_as_it_should_be_is_told_with_its_place(string text, int status, string message)
    {
        _tool.Write("reedwater/pages/overview.toml", text);
        var outcome = _tool.Run("show", "overview", "--book", "reedwater");
        Assert.Equal(status, outcome.Status);
        Assert.Contains(message, outcome.Messages.ReplaceLineEndings(" ").Replace("      ", "", StringComparison.Ordinal));
        Assert.Equal(2, _tool.Run("reports", "--book", "reedwater").Messages.Split("overview.toml").Length);
    }

    [Theory]
    [InlineData("show overview --period 2026", "--period does not apply to overview, which is a page of panels.")]
    [InlineData("show overview --format xlsx --to x.xlsx", "overview is a page of panels, which is no xlsx.")]
    [InlineData("explain profit-loss --row nobody", "The report has no row nobody.")]
    [InlineData("explain profit-loss --row net-profit --compare prior-year --against 2020", "It is not compared with 2020.")]
    [InlineData("explain receivables-aging --row total --most 0", "--most is at least 1.")]
    [InlineData("explain general-ledger --row 1000", "--compare does not apply to general-ledger.")]
    [InlineData("show profit-loss --compare prior-year --explain --format csv", "--explain is for text, json, md, html, pdf, xlsx and ods")]
    [InlineData("show profit-loss --explain", "--explain needs money that is compared with something.")]
    [InlineData("show finding/99 --period 2026-05", "Nothing was found under 99 in that period.")]
    public void What_makes_no_sense_is_refused_with_what_does(string typed, string message)
    {
        var outcome = _tool.Run([("VLEI_BOOK", "reedwater")], typed.Split(' '));
        Assert.Contains(outcome.Status, new[] { 2, 66 });
        Assert.Contains(message, outcome.Messages);
    }

    [Fact]
    public void A_page_of_several_books_has_the_lines_of_each_and_says_what_is_wrong_with_one()
    {
        _tool.WithDemo(withClients: true);
        string[] books = [.. Directory.GetDirectories(_tool.PathOf("reedwater/clients")).Order(StringComparer.Ordinal)];
        var page = _tool.Run("show", "overview", "--books", "reedwater/clients/*", "--format", "json").Done().Output;
        foreach (var book in books)
        {
            var profit = JsonDocument.Parse(_tool.Run(
                "show", "profit-loss", "--book", book, "--period", "last-12-months", "--by", "month", "--format", "json").Done().Output)
                .RootElement.GetProperty("rows").EnumerateArray().First(row => row.GetProperty("key").GetString() == "net-profit")
                .GetProperty("cells").EnumerateArray().ToList();
            Assert.Contains(profit[^2].ToString(), page, StringComparison.Ordinal);
            Assert.Contains($"vlei show overview --book reedwater/clients/{Path.GetFileName(book)}", page, StringComparison.Ordinal);
        }

        // A book that cannot be read hides none of the others, and a page without a line says what it needs.
        File.WriteAllText(Path.Combine(books[0], "book.toml"), "name = \n");
        var text = _tool.Run("show", "summary", "--books", "reedwater/clients/*").Done().Output;
        Assert.Equal(books.Length - 1, text.Split("Net profit").Length - 1);
        Assert.Contains("book.toml", text);
        _tool.Write("reedwater/clients/" + Path.GetFileName(books[1]) + "/pages/bare.toml",
            "title = \"Bare\"\n[[panel]]\nreport = \"profit-loss\"\nshow = \"figures\"\n");
        var bare = _tool.Run("show", "bare", "--books", books[1]);
        Assert.Equal(2, bare.Status);
        Assert.Contains("bare has no panel with a line", bare.Messages);
    }

    [Fact]
    public void A_group_begins_with_its_front_page_as_of_the_close_of_its_period_and_is_the_same_again()
    {
        const string Group = "front = \"summary\"\nperiod = \"2026-05\"\nformats = [\"text\", \"html\", \"pdf\"]\n"
            + "[[report]]\nreport = \"profit-loss\"\n";
        _tool.Write("reedwater/groups/owner.toml", Group);
        _tool.Run("run", "owner", "--book", "reedwater").Done();
        string Made(string ending) => _tool.PathOf($"reedwater/out/owner/2026-05/owner.{ending}");
        var text = File.ReadAllText(Made("txt"));
        Assert.StartsWith("Reedwater Boatworks\nSummary\nAs of 31 May 2026\n", text);
        Assert.DoesNotContain("vlei show", text);
        Assert.Contains("Total bank accounts", text);
        Assert.Contains("Man schuldet uns", _tool.Run("show", "summary", "--lang", "de", "--book", "reedwater").Done().Output);
        Assert.StartsWith("Summary", _tool.Shell($"pdftotext -layout {Made("pdf")} -").Done().Output.TrimStart());
        Assert.Contains("<div class=\"panels\">", File.ReadAllText(Made("html")));
        var before = new[] { "txt", "html", "pdf" }.Select(ending => Convert.ToHexString(File.ReadAllBytes(Made(ending)))).ToList();
        _tool.Run("run", "owner", "--book", "reedwater").Done();
        Assert.Equal(before, new[] { "txt", "html", "pdf" }.Select(ending => Convert.ToHexString(File.ReadAllBytes(Made(ending)))));
        _tool.Write("reedwater/groups/owner.toml", Group.Replace("summary", "sumary", StringComparison.Ordinal));
        var outcome = _tool.Run("run", "owner", "--book", "reedwater");
        Assert.Equal(65, outcome.Status);
        Assert.Contains("there is no page sumary. Did you mean summary?", outcome.Messages.ReplaceLineEndings(" ").Replace("      ", ""));
    }

    [Fact]
    public void A_finding_is_shown_by_its_number_in_the_last_review_and_marked_by_it()
    {
        var review = _tool.Run("check", "--book", "reedwater", "--review", "2026-05").Done().Output;
        Assert.Contains("finding/1 ", review);
        var lines = _tool.Run("show", "finding/1", "--book", "reedwater").Done().Output;
        Assert.Contains("BILL-00589", lines);
        Assert.Equal(lines, _tool.Run("show", "finding/new-account/BILL-00589/6400", "--period", "2026-05", "--book",
            "reedwater").Done().Output);
        _tool.Run("check", "--book", "reedwater", "--review", "2026-05", "--seen", "1", "--note", "fine").Done();
        Assert.DoesNotContain("finding/1 ", _tool.Run("check", "--book", "reedwater", "--review", "2026-05").Done().Output);
        Assert.Contains("finding/2 ", _tool.Run("check", "--book", "reedwater", "--review", "2026-05").Done().Output);
    }

    private string Show(params string[] typed) => _tool.Run(["show", .. typed, "--book", "reedwater"]).Done().Output;
}
