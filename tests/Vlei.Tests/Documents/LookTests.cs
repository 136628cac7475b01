using System.Text.RegularExpressions;
using Vlei.Desk;

namespace Vlei.Tests.Documents;

/// <summary>
/// How reports look: numbers and days as they are asked for, in every language, from the book, the kept report and the command
/// line.
/// </summary>
public sealed partial class LookTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Numbers_are_written_in_every_style_and_read_back_as_what_they_are()
    {
        string[] report =
            ["show", "profit-loss", "--period", "2025-06", "--compare", "prior-year", "--change", "--depth", "0", "--book", "reedwater"];
        _tool.Run([.. report, "--to", "r.json"]).Done();
        var json = JsonFigures.Read(_tool.PathOf("r.json"));
        foreach (var (negatives, before, behind) in new[] { ("minus", "-", ""), ("brackets", "(", ")"), ("trailing-minus", "", "-") })
        {
            foreach (var (thousands, mark) in new[] { ("comma", ","), ("point", "."), ("space", "\u00a0"), ("apostrophe", "'"),
                ("none", "") })
            {
                foreach (var (scale, digits, decimals) in new[] { ("units", 0, 2), ("units", 0, 0), ("units", 0, 3),
                    ("thousands", 3, 0), ("thousands", 3, 1), ("millions", 6, 2) })
                {
                    var point = thousands == "point" ? "," : ".";
                    var shown = _tool.Run(
                        [.. report, "--negatives", negatives, "--thousands", thousands, "--decimal-mark", point == "," ? "comma"
                            : "point", "--scale", scale, "--decimals", $"{decimals}"]).Done().Output;
                    foreach (var row in json.Rows)
                    {
                        var amount = Math.Round(row.Cells[0].Number / (decimal)Math.Pow(10, digits), decimals, MidpointRounding.ToEven);
                        var plain = Math.Abs(amount).ToString(
                            $"N{decimals}",
                            new NumberFormatInfo { NumberGroupSeparator = mark, NumberDecimalSeparator = point, NumberGroupSizes = [3] });
                        Assert.Matches(
                            $@"\n{Regex.Escape(row.Label)} +{Regex.Escape(amount < 0 ? before + plain + behind : plain)} ", shown);
                    }
                }
            }
        }
    }

    [Fact]
    public void What_is_typed_counts_more_than_what_is_kept_and_that_more_than_the_book()
    {
        File.AppendAllText(
            _tool.PathOf("reedwater/book.toml"),
            "\n[look]\nnegatives = \"brackets\"\nfooter = \"For members only\"\nfont-size = 8.5\nchart = false\n");
        string[] show = ["show", "profit-loss", "--period", "2025-06", "--depth", "0", "--book", "reedwater"];
        var ofBook = _tool.Run(show).Done().Output;
        Assert.Matches(@"\nNet profit +\([\d,.]+\)\n", ofBook);
        Assert.EndsWith("\nFor members only\n", ofBook);
        _tool.Run(
            "save", "ours", "--from", "profit-loss", "--period", "2025-06", "--depth", "0", "--negatives", "trailing-minus",
            "--subtitle", "Ours", "--book", "reedwater").Done();
        Assert.Matches(@"\nNet profit +[\d,.]+-\n", _tool.Run("show", "ours", "--book", "reedwater").Done().Output);
        Assert.Matches(
            @"Profit and loss\nOurs\n(.*\n)+Net profit +-[\d,.]+\n",
            _tool.Run("show", "ours", "--negatives", "minus", "--book", "reedwater").Done().Output);
        _tool.Run("group", "pack", "--add", "ours", "--book", "reedwater").Done();
        _tool.Run("run", "pack", "--book", "reedwater").Done();
        Assert.Matches(@"\nNet profit +[\d,.]+-\n", File.ReadAllText(_tool.PathOf("reedwater/out/pack/2026-05/ours.txt")));
    }

    [Theory]
    [InlineData("de", "31.05.2026", "1.706.162,56", "Bilanz")]
    [InlineData("fr", "31/05/2026", "1\u00a0706\u00a0162,56", "Bilan")]
    [InlineData("af", "2026-05-31", "1\u00a0706\u00a0162,56", "Balansstaat")]
    public void A_language_has_every_caption_of_every_report_and_its_numbers_and_days(
        string language, string day, string money, string title)
    {
        var names = Directory.EnumerateFiles(_tool.PathOf("reedwater/records"), "*.csv").SelectMany(File.ReadLines)
            .SelectMany(NaiveRecords.Values).ToHashSet();
        var reports = ReportCatalogue.Standard.Where(report => report.Asks is null).Select(report => report.Key).ToList();
        Assert.InRange(reports.Count, 60, 200);
        List<string[]> shown =
            [.. reports.Select(report => new[] { report }), ["statement-of-account", "--only", "contact.name=Heron*"],
                ["balance-sheet", "--period", "2026-Q1", "--by", "month"],
                ["profit-loss", "--period", "fy2026", "--by", "fiscal-quarter", "--compare", "prior-year", "--change", "--share",
                    "income"]];
        foreach (var report in shown)
        {
            // What a report of a whole year calls things is what one of a month does.
            string[] month = report is [var name] && name != "changes" && ReportCatalogue.FindStandard(name).Takes("period")
                ? ["--period", "2026-05"] : [];
            _tool.Run(
                ["show", .. report, .. month, "--lang", language, "--book", "reedwater", "--to", "t.html", "--to", "e.json",
                    "--overwrite"]).Done();
            var (page, english) = (File.ReadAllText(_tool.PathOf("t.html")), JsonFigures.Read(_tool.PathOf("e.json")));
            var captions = English().Matches(page).Select(match => System.Net.WebUtility.HtmlDecode(match.Groups[1].Value)).ToHashSet();

            // What is the same in both languages is a name, a number, or a word that both have.
            string[] both =
                ["%", "Total", "Budget", "Status", "Type", "Date", "Note", "Action", "Stock", "Direction", "Base", "Contact",
                    "Description", "Name", "Original", "Item", "Items", "Question", "Code", "State", "Memo", "Debit", "Credit",
                    "Article", "Solde", "Contacts", "Min", "Opening", "Later", "Rate", "Revision", "Natural", "Net", "Parent"];
            var left = english.Rows.Where(row => row.Kind is "heading" or "total").Select(row => row.Label).Append(english.Title)
                .Concat(english.Headings)
                .Where(
                    caption => caption.Any(char.IsLetter) && captions.Contains(caption) && !both.Contains(caption)
                        && !names.Contains(caption) && !names.Any(
                            name => name.Length > 2 && caption.Contains(name, StringComparison.Ordinal)));
            Assert.True(!left.Any(), $"{string.Join(' ', report)}: {string.Join(", ", left)}");
        }

        var sheet = _tool.Run("show", "balance-sheet", "--as-of", "2026-05-31", "--lang", language, "--book", "reedwater").Done().Output;
        Assert.Contains(title, sheet);

        // What documents are, how they stand, and what looks off is said in it too.
        foreach (var (report, columns) in new[] { ("documents", "kind,status"), ("accounts", "type"), ("findings", "kind,reason,status") })
        {
            string[] asked = ["show", report, "--columns", columns, "--period", "all", "--book", "reedwater", "--format", "md"];
            asked = report == "accounts" ? [.. asked.Where(word => word is not ("--period" or "all"))] : asked;
            var (own, said) = (Said(asked), Said([.. asked, "--lang", language]));
            Assert.Equal(own.Count, said.Count);
            Assert.Empty(own.Intersect(said).Except(["bank", "tax", "journal", "expense", "dette", "stock", "cash", "opening"]));
        }

        HashSet<string> Said(string[] asked) => [.. _tool.Run(asked).Done().Output.Split('\n').Where(line => line.StartsWith('|')).Skip(2)
            .SelectMany(line => line.Split('|')[2..^1]).Select(cell => cell.Trim()).Where(cell => cell.Any(char.IsLetter))];

        Assert.Contains(money, sheet);
        Assert.Contains(
            day, _tool.Run("show", "documents", "--period", "2026-05-31", "--lang", language, "--book", "reedwater").Done().Output);
    }

    [Fact]
    public void A_language_of_ones_own_is_one_file_and_what_is_wrong_with_it_is_told()
    {
        const string Head =
            "msgid \"\"\nmsgstr \"\"\n\"X-Months: a,b,c,d,e,f,g,h,i,j,k,l\\n\"\n\"X-Months-Short: A,B,C,D,E,F,G,H,I,J,K,L\\n\"\n"
                + "\"X-Date-Words: yyyy MMMM d\\n\"\n";
        _tool.Write("reedwater/languages/xx.po", Head + "\nmsgid \"Balance sheet\"\nmsgstr \"Blatt\"\n");
        var shown = _tool.Run("show", "balance-sheet", "--as-of", "2026-05-31", "--lang", "xx", "--book", "reedwater").Done().Output;
        Assert.StartsWith("Reedwater Boatworks\nBlatt\n", shown);
        Assert.Contains("  2026 E 31\n", shown);
        Assert.Contains("Total assets", shown);
        foreach (var (text, message) in new[]
        {
            (Head + "msgid \"a\"\nmsgstr b\n", "xx.po:7: there are no quotes around the text."),
            (Head + "x\n", "xx.po:6: it is no line of such a file."), ("msgid \"\"\nmsgstr \"\"\n", "has no twelve months in X-Months"),
            (Head + "msgid \"{0\"\nmsgstr \"b\"\n\n", "has a bracket that is not closed."),
            (Head + "msgid \"}{0\"\nmsgstr \"b\"\n\n", "has a bracket that is not closed."),
        })
        {
            _tool.Write("reedwater/languages/xx.po", text);
            var refused = _tool.Run("show", "balance-sheet", "--lang", "xx", "--book", "reedwater");
            Assert.Equal(78, refused.Status);
            Assert.Contains(message, refused.Messages);
        }
    }

    [Fact]
    public void The_words_of_the_program_itself_can_be_others_too()
    {
        const string Months = "January,February,March,April,May,June,July,August,September,October,November,December";
        _tool.Write(
            "reedwater/languages/en.po",
            $"msgid \"\"\nmsgstr \"\"\n\"X-Months: {Months}\\n\"\n\"X-Months-Short: {Months}\\n\"\n\nmsgid \"Net profit\"\nmsgstr "
                + $"\"Surplus \\\\n\\\"x\\\"\"\n\nmsgid \"Total {{0}}\"\nmsgstr \"{{0}}, all\"\n");
        string[] show = ["show", "profit-loss", "--period", "2026-05", "--book", "reedwater"];
        var plain = _tool.Run(show).Done().Output;
        var own = _tool.Run([.. show, "--lang", "en"]).Done().Output;
        Assert.Contains("\nSurplus \\n\"x\" ", own);
        Assert.Contains("\nincome, all ", own);
        Assert.Equal(plain.Split('\n').Select(line => line.Split(' ')[^1]), own.Split('\n').Select(line => line.Split(' ')[^1]));
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
        var refused = _tool.Run("show", "balance-sheet", option, value, "--to", "x.csv", "--to", "x.pdf", "--book", "reedwater");
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
        Assert.Equal(
            (65, 66),
            (_tool.Run("show", "balance-sheet", "--logo", "logo.png", "--book", "reedwater", "--to", "x.html").Status,
                _tool.Run("show", "balance-sheet", "--logo", "none.png", "--book", "reedwater", "--to", "x.html").Status));
    }

    [Theory]
    [InlineData("--paper", "letter", "html, pdf, xlsx and ods")]
    [InlineData("--logo", "logo.png", "html, pdf and xlsx")]
    [InlineData("--font-size", "9", "html, pdf, xlsx and ods")]
    [InlineData("--csv-style", "plain", "csv")]
    public void A_look_that_nothing_has_of_what_is_written_is_refused_where_it_is_typed_and_kept_for_what_has_it(
        string option, string value, string takers)
    {
        File.WriteAllBytes(_tool.PathOf("logo.png"), Logo.Png);
        var refused = _tool.Run("show", "balance-sheet", option, value, "--book", "reedwater", "--to", "x.md");
        Assert.Equal(2, refused.Status);
        Assert.Contains($"{option} is for {takers}, and nothing of that kind is written.", refused.Messages);
        _tool.Run("save", "ours", "--from", "balance-sheet", option, value, "--book", "reedwater").Done();
        _tool.Run("show", "ours", "--book", "reedwater", "--to", "x.md", "--to", "x.pdf", "--to", "x.csv").Done();
        Assert.Contains(
            "--lang is for text, csv, md, html, pdf, xlsx, ods, svg and png",
            _tool.Run("show", "balance-sheet", "--lang", "de", "--format", "json", "--book", "reedwater").Messages);
    }

    [Fact]
    public void A_picture_that_is_no_picture_or_one_of_another_kind_is_told_and_others_are_as_large_in_every_format_as_they_may_be()
    {
        byte[] head = [0xFF, 0xD8, 0xFF, 0xE0, 0, 4, 1, 1, 0xFF, 0xC0, 0, 17, 8];
        byte[] Jpeg(byte height, byte width, byte colours) => [.. head, 0, height, 0, width, colours, .. new byte[60]];
        var png = Logo.Png;
        foreach (var (name, bytes, message) in new (string, byte[], string)[]
        {
            ("none.jpg", Jpeg(0, 0, 3), "none.jpg is no picture that is known."),
            ("printer.jpg", Jpeg(20, 30, 4), "printer.jpg is in the colours of printers (CMYK)"),
            ("none.png", [.. png[..16], .. new byte[8], .. png[24..]], "none.png is no picture that is known."),
            ("cut.png", png[..60], "The logo cannot be put on a page: it is damaged"),
            ("short.png", png[..12], "short.png is no picture that is known."),
            ("text.jpg", [0xFF, 0xD8, 0xFF], "text.jpg is no picture that is known."),
            ("huge.png", [.. png, .. new byte[5 << 20]], "huge.png is larger than 4 MiB."),
        })
        {
            File.WriteAllBytes(_tool.PathOf(name), bytes);
            var refused = _tool.Run("show", "balance-sheet", "--logo", name, "--book", "reedwater", "--to", "x.pdf");
            Assert.Equal(65, refused.Status);
            Assert.Contains(message, refused.Messages);
            Assert.Empty(Directory.EnumerateFiles(_tool.Folder, "x.*"));
        }

        File.WriteAllBytes(_tool.PathOf("logo.jpg"), Jpeg(20, 30, 3));
        File.WriteAllBytes(_tool.PathOf("logo.png"), png);
        foreach (var (name, mark) in new[] { ("logo.jpg", "data:image/jpeg;base64,"), ("logo.png", "data:image/png;base64,") })
        {
            _tool.Run("show", "balance-sheet", "--logo", name, "--book", "reedwater", "--to", "x.html", "--to", "x.xlsx", "--overwrite")
                .Done();
            Assert.Contains(mark + Convert.ToBase64String(File.ReadAllBytes(_tool.PathOf(name))), File.ReadAllText(_tool.PathOf("x.html")));
            using var workbook = new WorkbookFile(_tool.PathOf("x.xlsx"));
            Assert.Empty(workbook.Faults);
        }
    }

    [Fact]
    public void Columns_are_as_wide_as_they_are_asked_to_be_and_things_stand_in_them_where_they_should()
    {
        string[] show =
            ["show", "documents", "--period", "2026-05-28/2026-05-31", "--columns", "date,memo,total", "--book", "reedwater",
                "--widths", "label=6,memo=8", "--align", "memo=right,Total=left,date=center"];
        _tool.Run([.. show, "--to", "w.txt", "--to", "w.html", "--to", "w.xlsx", "--to", "w.md", "--to", "w.pdf", "--to", "w.json"]).Done();
        var json = JsonFigures.Read(_tool.PathOf("w.json"));

        // Lines of text are broken into the widths, and put together again they are what there was.
        var lines = File.ReadAllLines(_tool.PathOf("w.txt")).SkipWhile(line => !line.Contains("Date", StringComparison.Ordinal)).Skip(1)
            .TakeWhile(line => line.Length > 0).Select(line => line.PadRight(60)).ToList();
        Assert.Equal(
            string.Concat(json.Rows.Select(row => row.Label)).Replace(" ", "", StringComparison.Ordinal),
            string.Concat(lines.Select(line => line[..6])).Replace(" ", "", StringComparison.Ordinal));
        Assert.Equal(
            string.Concat(json.Rows.Select(row => row.Cells[1].Value)).Replace(" ", "", StringComparison.Ordinal),
            string.Concat(lines.Select(line => line[20..28])).Replace(" ", "", StringComparison.Ordinal));
        Assert.All(lines, line => Assert.True(line[20..28] is var memo && (memo.Trim().Length == 0 || memo.TrimEnd() == memo), line));
        Assert.All(lines.Where(line => line[30..].Trim().Length > 0), line => Assert.NotEqual(' ', line[30]));

        var page = File.ReadAllText(_tool.PathOf("w.html"));
        Assert.Contains("<td style=\"width:6ch\">", page);
        Assert.Contains("<th scope=\"col\" class=\"n\" style=\"width:8ch\">Memo</th>", page);
        Assert.Contains("<th scope=\"col\" class=\"c\">Date</th><th scope=\"col\" class=\"n\"", page);
        Assert.Contains("<th scope=\"col\">Total</th>", page);
        Assert.Matches(@"\n\| *:?-+ *\| *:-+: *\| *-+: *\| *:?-+ *\|\n", File.ReadAllText(_tool.PathOf("w.md")));
        using var workbook = new WorkbookFile(_tool.PathOf("w.xlsx"));
        Assert.Empty(workbook.Faults);
        Assert.Equal((6.0, 8.0), (workbook.WidthOf("Documents", 1), workbook.WidthOf("Documents", 3)));
    }

    public void Dispose() => _tool.Dispose();


    [GeneratedRegex("<(?:h1|th[^>]*)>(?:<a[^>]*>)?([^<]+)<")]
    private static partial Regex English();
}
