using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>How reports look: numbers and days as they are asked for, in every language, from the book, the kept report and the command line.</summary>
public sealed partial class LookTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Numbers_are_written_in_every_style_and_read_back_as_what_they_are()
    {
        string[] report = ["show", "profit-loss", "--period", "2025-06", "--compare", "prior-year", "--change", "--depth", "0", "--book", "reedwater"];
        _tool.Run([.. report, "--to", "r.json"]).Done();
        var json = JsonFigures.Read(_tool.PathOf("r.json"));
        foreach (var (negatives, before, behind) in new[] { ("minus", "-", ""), ("brackets", "(", ")"), ("trailing-minus", "", "-") })
        {
            foreach (var (thousands, mark) in new[] { ("comma", ","), ("point", "."), ("space", "\u00a0"), ("apostrophe", "'"), ("none", "") })
            {
                foreach (var (scale, digits, decimals) in new[] { ("units", 0, 2), ("units", 0, 0), ("units", 0, 3), ("thousands", 3, 0), ("thousands", 3, 1), ("millions", 6, 2) })
                {
                    var point = thousands == "point" ? "," : ".";
                    var shown = _tool.Run([.. report, "--negatives", negatives, "--thousands", thousands, "--decimal-mark", point == "," ? "comma" : "point", "--scale", scale, "--decimals", $"{decimals}"]).Done().Output;
                    foreach (var row in json.Rows)
                    {
                        var amount = Math.Round(row.Cells[0].Number / (decimal)Math.Pow(10, digits), decimals, MidpointRounding.ToEven);
                        var plain = Math.Abs(amount).ToString($"N{decimals}", new NumberFormatInfo { NumberGroupSeparator = mark, NumberDecimalSeparator = point, NumberGroupSizes = [3] });
                        Assert.Matches($@"\n{Regex.Escape(row.Label)} +{Regex.Escape(amount < 0 ? before + plain + behind : plain)} ", shown);
                    }
                }
            }
        }
    }

    [Fact]
    public void What_is_typed_counts_more_than_what_is_kept_and_that_more_than_the_book()
    {
        File.AppendAllText(_tool.PathOf("reedwater/book.toml"), "\n[look]\nnegatives = \"brackets\"\nfooter = \"For members only\"\nfont-size = 8.5\nchart = false\n");
        string[] show = ["show", "profit-loss", "--period", "2025-06", "--depth", "0", "--book", "reedwater"];
        var ofBook = _tool.Run(show).Done().Output;
        Assert.Matches(@"\nNet profit +\([\d,.]+\)\n", ofBook);
        Assert.EndsWith("\nFor members only\n", ofBook);
        _tool.Run("save", "ours", "--from", "profit-loss", "--period", "2025-06", "--depth", "0", "--negatives", "trailing-minus", "--subtitle", "Ours", "--book", "reedwater").Done();
        Assert.Matches(@"\nNet profit +[\d,.]+-\n", _tool.Run("show", "ours", "--book", "reedwater").Done().Output);
        Assert.Matches(@"Profit and loss\nOurs\n(.*\n)+Net profit +-[\d,.]+\n", _tool.Run("show", "ours", "--negatives", "minus", "--book", "reedwater").Done().Output);
        _tool.Run("group", "pack", "--add", "ours", "--book", "reedwater").Done();
        _tool.Run("run", "pack", "--book", "reedwater").Done();
        Assert.Matches(@"\nNet profit +[\d,.]+-\n", File.ReadAllText(_tool.PathOf("reedwater/out/pack/2026-05/ours.txt")));
    }

    [Theory]
    [InlineData("de", "31.05.2026", "1.706.162,56", "Bilanz")]
    [InlineData("fr", "31/05/2026", "1\u00a0706\u00a0162,56", "Bilan")]
    [InlineData("af", "2026-05-31", "1\u00a0706\u00a0162,56", "Balansstaat")]
    public void A_language_has_every_caption_of_every_report_and_its_numbers_and_days(string language, string day, string money, string title)
    {
        var names = Directory.EnumerateFiles(_tool.PathOf("reedwater/records"), "*.csv").SelectMany(File.ReadLines).SelectMany(NaiveRecords.Values).ToHashSet();
        var reports = Key().Matches(_tool.Run("reports").Done().Output).Select(match => match.Groups[1].Value).Where(report => report != "statement-of-account").ToList();
        Assert.InRange(reports.Count, 60, 200);
        List<string[]> shown = [.. reports.Select(report => new[] { report }), ["statement-of-account", "--only", "contact.name=Heron*"], ["balance-sheet", "--period", "2026-Q1", "--by", "month"], ["profit-loss", "--period", "fy2026", "--by", "fiscal-quarter", "--compare", "prior-year", "--change", "--percent", "income"]];
        foreach (var report in shown)
        {
            _tool.Run(["show", .. report, "--lang", language, "--book", "reedwater", "--to", "t.html", "--to", "e.json", "--overwrite"]).Done();
            var (page, english) = (File.ReadAllText(_tool.PathOf("t.html")), JsonFigures.Read(_tool.PathOf("e.json")));
            var captions = English().Matches(page).Select(match => System.Net.WebUtility.HtmlDecode(match.Groups[1].Value)).ToHashSet();

            // What is the same in both languages is a name, a number, or a word that both have.
            string[] both = ["%", "Total", "Budget", "Status", "Type", "Date", "Note", "Action", "Stock", "Direction", "Base", "Contact", "Description", "Name", "Original", "Item", "Items", "Question", "Code", "State", "Memo", "Debit", "Credit", "Article", "Solde", "Contacts", "Min", "Opening", "Later", "Rate", "Revision", "Natural", "Net", "Parent"];
            var left = english.Rows.Where(row => row.Kind is "heading" or "total").Select(row => row.Label).Append(english.Title).Concat(english.Headings)
                .Where(caption => caption.Any(char.IsLetter) && captions.Contains(caption) && !both.Contains(caption) && !names.Contains(caption) && !names.Any(name => name.Length > 2 && caption.Contains(name, StringComparison.Ordinal)));
            Assert.True(!left.Any(), $"{string.Join(' ', report)}: {string.Join(", ", left)}");
        }

        var sheet = _tool.Run("show", "balance-sheet", "--as-of", "2026-05-31", "--lang", language, "--book", "reedwater").Done().Output;
        Assert.Contains(title, sheet);
        Assert.Contains(money, sheet);
        Assert.Contains(day, _tool.Run("show", "documents", "--period", "2026-05-31", "--lang", language, "--book", "reedwater").Done().Output);
    }

    [Fact]
    public void A_language_of_ones_own_is_one_file_and_what_is_wrong_with_it_is_told()
    {
        const string Head = "msgid \"\"\nmsgstr \"\"\n\"X-Months: a,b,c,d,e,f,g,h,i,j,k,l\\n\"\n\"X-Months-Short: A,B,C,D,E,F,G,H,I,J,K,L\\n\"\n\"X-Date-Words: yyyy MMMM d\\n\"\n";
        _tool.Write("reedwater/languages/xx.po", Head + "\nmsgid \"Balance sheet\"\nmsgstr \"Blatt\"\n");
        var shown = _tool.Run("show", "balance-sheet", "--as-of", "2026-05-31", "--lang", "xx", "--book", "reedwater").Done().Output;
        Assert.StartsWith("Reedwater Boatworks\nBlatt\n", shown);
        Assert.Contains("  2026 E 31\n", shown);
        Assert.Contains("Total assets", shown);
        foreach (var (text, message) in new[]
        {
            (Head + "msgid \"a\"\nmsgstr b\n", "xx.po:7: there are no quotes around the text."), (Head + "x\n", "xx.po:6: it is no line of such a file."), ("msgid \"\"\nmsgstr \"\"\n", "has no twelve months in X-Months"),
            (Head + "msgid \"{0\"\nmsgstr \"b\"\n\n", "has a bracket that is not closed."),
        })
        {
            _tool.Write("reedwater/languages/xx.po", text);
            var refused = _tool.Run("show", "balance-sheet", "--lang", "xx", "--book", "reedwater");
            Assert.Equal(78, refused.Status);
            Assert.Contains(message, refused.Messages);
        }
    }

    [Theory]
    [InlineData("--lang", "dx", "There is no language \"dx\".")]
    [InlineData("--negatives", "red", "--negatives does not take \"red\".")]
    [InlineData("--dates", "dd.MM", "--dates does not take \"dd.MM\".")]
    [InlineData("--dates", "dd.MM.yyyy HH", "--dates does not take")]
    [InlineData("--accent", "blue", "It takes a colour as #1f5f8b.")]
    [InlineData("--font-size", "3", "It takes a number from 5 to 24.")]
    [InlineData("--decimals", "1.5", "It takes a number from 0 to 6.")]
    [InlineData("--widths", "label", "Write columns and values: label=…,memo=….")]
    [InlineData("--align", "memo=up", "It takes left, center or right behind a column: memo=right.")]
    [InlineData("--csv-style", "heading", "Did you mean headings?")]
    public void A_look_that_makes_no_sense_is_refused(string option, string value, string message)
    {
        var refused = _tool.Run("show", "balance-sheet", option, value, "--format", "csv", "--book", "reedwater");
        Assert.Equal(2, refused.Status);
        Assert.Contains(message, refused.Messages);
    }

    [Fact]
    public void A_logo_or_a_column_that_is_not_there_is_refused()
    {
        _tool.Write("logo.png", "no picture");
        var other = _tool.Run("show", "balance-sheet", "--widths", "memo=20", "--book", "reedwater");
        Assert.Equal(66, other.Status);
        Assert.Contains("--widths: the report has no column memo.", other.Messages);
        Assert.Equal((65, 66), (_tool.Run("show", "balance-sheet", "--logo", "logo.png", "--book", "reedwater").Status, _tool.Run("show", "balance-sheet", "--logo", "none.png", "--book", "reedwater").Status));
    }

    public void Dispose() => _tool.Dispose();

    [GeneratedRegex(@"^  ([a-z][a-z-]+)  ", RegexOptions.Multiline)]
    private static partial Regex Key();

    [GeneratedRegex("<(?:h1|th[^>]*)>(?:<a[^>]*>)?([^<]+)<")]
    private static partial Regex English();
}
