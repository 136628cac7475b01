using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>What stands where on paper: letters in their envelopes, tables over the page, the first pages of groups.</summary>
public sealed partial class PaperTests : IDisposable
{
    private const double PointsPerMillimetre = 72 / 25.4;

    private readonly Tool _tool = new Tool().WithDemo();

    private sealed record Word(string Text, double Left, double Top, double Right, double Bottom);

    private sealed record PaperPage(double Width, double Height, IReadOnlyList<Word> Words)
    {
        public string Text => string.Join(' ', Words.Select(word => word.Text));
    }

    [Theory]
    [InlineData("C0055", "en", "Balance due", "Please return this part with your payment.")]
    [InlineData("C0041", "de", "Offener Saldo", "Bitte legen Sie diesen Abschnitt Ihrer Zahlung bei.")]
    [InlineData("C0041", "fr", "Solde dû", "Merci de joindre ce coupon à votre paiement.")]
    [InlineData("C0041", "af", "Saldo verskuldig", "Stuur asseblief hierdie deel saam met u betaling terug.")]
    public void A_statement_of_account_has_its_address_in_the_window_what_is_due_and_a_part_to_return(
        string contact, string language, string due, string slip)
    {
        var pages = Pages($"statement-of-account --only contact={contact} --lang {language}");
        var page = Assert.Single(pages);
        var all = File.ReadLines(_tool.PathOf("reedwater/records/contacts.csv")).Select(NaiveRecords.Values).ToList();
        var known = all.Single(row => row[0] == contact);
        string[] rows = [known[1], known[all[0].ToList().IndexOf("address")]];
        Assert.Contains(due, page.Text);
        Assert.Contains(slip, page.Text);
        AssertNothingOverlaps(page);

        // The window of an envelope DL, form B of DIN 5008: 20 to 105 mm from the left, 45 to 90 mm from the top.
        foreach (var word in $"{rows[0]} {rows[1]}".Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries))
        {
            Assert.Contains(page.Words, shown => shown.Text == word && shown.Left > 20 * PointsPerMillimetre
                && shown.Right < 105 * PointsPerMillimetre && shown.Top > 45 * PointsPerMillimetre
                && shown.Bottom < 90 * PointsPerMillimetre);
        }

        // Nothing but the sender's line above the address shows in the window besides.
        var visible = page.Words.Where(shown => shown.Left > 20 * PointsPerMillimetre && shown.Right < 105 * PointsPerMillimetre
            && shown.Top > 46 * PointsPerMillimetre && shown.Bottom < 89 * PointsPerMillimetre).Select(shown => shown.Text).ToList();
        Assert.Equal($"Reedwater Boatworks {rows[0]} {rows[1]}".Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries), visible);
        Assert.Equal(2, page.Words.Count(word => word.Text == contact));
    }

    [Fact]
    public void Who_owes_nothing_gets_nothing_to_return()
    {
        var credit = _tool.Run("show", "receivables-aging", "--book", "reedwater", "--format", "csv").Done().Output.Split('\n')
            .Select(line => line.Split(',')).First(cells => cells.Length > 9 && cells[9].StartsWith('-'))[0];
        var page = Assert.Single(Pages($"statement-of-account --only contact={credit}"));
        Assert.Contains("Balance due", page.Text);
        Assert.DoesNotContain("return this part", page.Text);
    }

    [Fact]
    public void An_address_of_many_lines_and_a_long_title_are_whole_and_move_what_stands_below_them()
    {
        string[] address = [.. Enumerable.Range(1, 9).Select(line => $"Line{line}")];
        const string Title = "Everything that stands open between us and you after the long season of repairs in the upper yard";
        _tool.Write("set/accounts.csv", "code,name,type\n1100,Receivables,receivable\n4000,Sales,income\n");
        _tool.Write("set/contacts.csv", $"id,name,kind,address\nC1,Ida Long,customer,\"{string.Join('\n', address)}\"\n");
        _tool.Write("set/documents.csv", "id,kind,date,due,contact\nI1,invoice,2026-03-02,2026-04-01,C1\n");
        _tool.Write("set/lines.csv", "document,account,amount\nI1,1100,5.00\nI1,4000,-5.00\n");
        _tool.Run("init", "far", "--name", "Far", "--currency", "EUR").Done();
        _tool.Run("import", "set", "--book", "far").Done();
        _tool.Run("show", "statement-of-account", "--book", "far", "--period", "2026", "--title", Title, "--to", "far.pdf").Done();
        var page = Assert.Single(Read("far.pdf"));
        Assert.All(address, line => Assert.Contains(page.Words, word => word.Text == line));
        Assert.Contains(Title, page.Text);
        AssertNothingOverlaps(page);
    }

    // As many rows as there may be: what was checked stands below some of them, never alone on a page.
    [Fact]
    public void No_page_has_a_check_alone_and_nothing_on_one_overlaps()
    {
        for (var top = 1; top <= 60; top += 3)
        {
            var pages = Pages($"sales-by-item --period fy2026 --top {top} --title {top}");
            Assert.All(pages, page => Assert.Matches(@"\d{1,3},\d{3}\.\d\d", page.Text));
            AssertNothingOverlaps(pages[^1]);
        }

        foreach (var report in new[]
        {
            "profit-loss --by month --period 2026-03/2026-05", "balance-sheet --compare prior-year --change", "cash-flow", "trial-balance",
            "money-to-come", "receivables-aging --detail", "tax-return", "working-capital --by month --period 2026-Q1",
            "profit-loss --compare prior-year --explain --share income",
        })
        {
            var pages = Pages(report);
            Assert.All(pages, page => Assert.Matches(@"\d[,.]\d{2}", page.Text));
            Assert.All(pages, AssertNothingOverlaps);
        }
    }

    [Theory]
    [InlineData("profit-loss")]
    [InlineData("balance-sheet --compare prior-year --change")]
    [InlineData("sales-by-customer --period fy2026")]
    [InlineData("general-ledger --period 2026-05 --only account=1020")]
    public void A_table_is_as_wide_as_its_page(string report)
    {
        var page = Pages(report)[0];
        Assert.InRange(page.Words.Where(word => word.Bottom < page.Height - 80).Max(word => word.Right), page.Width - 62, page.Width - 40);
        Assert.InRange(page.Words.Min(word => word.Left), 40, 64);
    }

    [Fact]
    public void A_group_begins_with_its_page_and_one_list_that_says_on_which_page_each_report_is()
    {
        var group = File.ReadAllText(_tool.PathOf("reedwater/groups/month-end.toml"));
        _tool.Write("reedwater/groups/fronted.toml", $"front = \"summary\"\n{group}");
        _tool.Run("run", "fronted", "--book", "reedwater", "--to", "fronted.pdf").Done();
        var pages = Read("fronted.pdf");
        Assert.StartsWith("Summary", pages[0].Text);
        Assert.StartsWith("Month end", pages[1].Text);
        Assert.All(pages.Take(2), AssertNothingOverlaps);

        // A number at the end of a line of the list is that of the page on which its report begins.
        var numbered = pages[1].Words.Where(word => word.Left > pages[1].Width - 78 && word.Bottom < pages[1].Height - 80
            && int.TryParse(word.Text, out _)).ToList();
        Assert.Equal(9, numbered.Count);
        foreach (var number in numbered)
        {
            var title = string.Join(' ', pages[1].Words.Where(word => Math.Abs(word.Top - number.Top) < 2 && word.Left < 200)
                .Select(word => word.Text));
            Assert.StartsWith(title.Split(' ')[0], pages[int.Parse(number.Text, CultureInfo.InvariantCulture) - 1].Text);
        }

        Assert.DoesNotContain(pages.Skip(2), page => page.Text.StartsWith("Contents", StringComparison.Ordinal));
    }

    [Fact]
    public void A_page_of_many_panels_is_as_high_as_they_are_and_the_same_as_a_picture()
    {
        var panels = string.Concat(Enumerable.Range(0, 24).Select(place => $"""

            [[panel]]
            title = "Part {place}"
            report = "profit-loss"
            period = "2026-05"
            rows = ["total-income", "net-profit"]
            show = "figures"

            """));
        _tool.Write("reedwater/pages/many.toml", $"title = \"Many\"\n{panels}");
        _tool.Run("show", "many", "--book", "reedwater", "--to", "many.pdf", "--to", "many.png", "--to", "many.svg").Done();
        var page = Assert.Single(Read("many.pdf"));
        Assert.Equal(24, page.Words.Count(word => word.Text == "Part"));
        Assert.All(page.Words, word => Assert.InRange(word.Bottom, 0, page.Height));
        AssertNothingOverlaps(page);
        var drawn = File.ReadAllText(_tool.PathOf("many.svg"));
        Assert.Contains("<svg", drawn);
        var png = File.ReadAllBytes(_tool.PathOf("many.png"));
        Assert.Equal("PNG"u8.ToArray(), png[1..4]);
        var (width, height) = (BigEndian(png, 16), BigEndian(png, 20));
        Assert.Equal(Math.Ceiling(page.Width * 2), width);
        Assert.InRange(height, width * 0.5, width * 3);
        static int BigEndian(byte[] bytes, int place) => System.Buffers.Binary.BinaryPrimitives.ReadInt32BigEndian(bytes.AsSpan(place));
    }

    public void Dispose() => _tool.Dispose();

    private List<PaperPage> Pages(string report)
    {
        _tool.Run(["show", .. report.Split(' '), "--book", "reedwater", "--to", "paper.pdf", "--overwrite"]).Done();
        return Read("paper.pdf");
    }

    private List<PaperPage> Read(string file)
    {
        Shell.Run(_tool.Folder, "pdftotext", "-bbox", file, "paper.bbox");
        return
        [
            .. PageText().Matches(File.ReadAllText(_tool.PathOf("paper.bbox"))).Select(page => new PaperPage(
                Number(page.Groups[1].Value), Number(page.Groups[2].Value),
                [
                    .. WordText().Matches(page.Groups[3].Value).Select(word => new Word(
                        System.Net.WebUtility.HtmlDecode(word.Groups[5].Value), Number(word.Groups[1].Value), Number(word.Groups[2].Value),
                        Number(word.Groups[3].Value), Number(word.Groups[4].Value))),
                ])),
        ];
    }

    // Boxes of words are a little higher than their letters.
    private static void AssertNothingOverlaps(PaperPage page)
    {
        const double Slack = 2.5;
        foreach (var (place, word) in page.Words.Index())
        {
            Assert.All(page.Words.Skip(place + 1), other => Assert.False(
                Math.Min(word.Right, other.Right) - Math.Max(word.Left, other.Left) > 0.5
                    && Math.Min(word.Bottom, other.Bottom) - Math.Max(word.Top, other.Top) > Slack,
                $"{word} over {other}"));
        }
    }

    private static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);

    [GeneratedRegex("<page width=\"([\\d.]+)\" height=\"([\\d.]+)\">(.*?)</page>", RegexOptions.Singleline)]
    private static partial Regex PageText();

    [GeneratedRegex("<word xMin=\"([-\\d.]+)\" yMin=\"([-\\d.]+)\" xMax=\"([-\\d.]+)\" yMax=\"([-\\d.]+)\">(.*?)</word>")]
    private static partial Regex WordText();
}
