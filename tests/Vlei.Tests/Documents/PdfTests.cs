using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>PDF: what is on each page, what leads where, and the same bytes for the same report.</summary>
public sealed partial class PdfTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Every_page_has_headings_and_says_what_it_is_of_and_no_total_stands_alone()
    {
        var pages = Pages("general-ledger --period 2026-05", "ledger.pdf");
        Assert.InRange(pages.Count, 5, 100);
        for (var page = 0; page < pages.Count; page++)
        {
            Assert.Contains($"Page {page + 1} of {pages.Count}", pages[page]);
            Assert.Contains("Reedwater Boatworks: General ledger, May 2026. Accrual basis, in ZAR.", pages[page]);
            var lines = pages[page].Split('\n').Where(line => line.Trim().Length > 0).ToList();
            var headings = lines.FindIndex(line => Headings().IsMatch(line));
            Assert.True(headings >= 0, pages[page]);

            // What is first below the headings adds nothing up, and what is last above the foot begins nothing.
            Assert.DoesNotMatch("^ *(Total|Closing balance)", lines[headings + 1]);
            var last = lines[lines.FindLastIndex(line => line.Contains("Reedwater Boatworks: General", StringComparison.Ordinal)) - 1];
            Assert.DoesNotMatch(@"^\d{4} [A-Z][a-z ]+$", last);
        }
    }

    [Fact]
    public void Columns_that_do_not_fit_go_on_to_further_pages_with_the_labels_again()
    {
        var pages = Pages("profit-loss --period fy2026 --by month --compare prior-year --change --share income --depth 0", "wide.pdf");
        Assert.InRange(pages.Count, 4, 20);
        Assert.All(pages, page => Assert.Contains("Net profit", page));
        Assert.All(
            Enumerable.Range(1, 12), month => Assert.Contains(
                pages,
                page => page.Contains(
                    new DateOnly(2025, month, 1).AddMonths(month < 3 ? 12 : 0).ToString("MMM yyyy", CultureInfo.InvariantCulture),
                    StringComparison.Ordinal)));
    }

    [Fact]
    public void The_same_report_is_the_same_bytes_whole_and_with_its_font_inside()
    {
        _tool.Run(
            "show", "balance-sheet", "--book", "reedwater", "--chart", "--with-detail", "--logo", Logo(), "--to", "a.pdf", "--to",
            "b.pdf").Done();
        Assert.Equal(File.ReadAllBytes(_tool.PathOf("a.pdf")), File.ReadAllBytes(_tool.PathOf("b.pdf")));
        Assert.Contains("No syntax or stream encoding errors found", Shell.Run(_tool.Folder, "qpdf", "--check", "a.pdf"));
        Assert.All(
            Shell.Run(_tool.Folder, "pdffonts", "a.pdf").Split('\n').Skip(2).Where(line => line.Length > 0),
            font => Assert.Matches(@"TrueType\s+\S+\s+yes ", font));
        Assert.Equal(
            2, Shell.Run(_tool.Folder, "pdfimages", "-list", "-l", "1", "a.pdf").Split('\n').Skip(2)
                .Count(line => line.Contains(" image ", StringComparison.Ordinal) && !line.Contains("smask", StringComparison.Ordinal)));
    }

    [Fact]
    public void A_group_is_one_document_whose_contents_and_outline_lead_to_its_reports()
    {
        var group = File.ReadAllText(_tool.PathOf("reedwater/groups/month-end.toml"));
        _tool.Write("reedwater/groups/bare.toml", $"cover = false\n{group}");
        _tool.Run("run", "bare", "--book", "reedwater", "--format", "pdf,json").Done();
        var path = _tool.PathOf("reedwater/out/bare/2026-05/bare.pdf");
        Shell.Run(_tool.Folder, "qpdf", "--check", path);
        var pages = Shell.Run(_tool.Folder, "pdftotext", "-layout", path, "-").Split('\f')[..^1];
        var contents = Contents().Matches(pages[0]).ToDictionary(
            match => match.Groups[1].Value.Trim(), match => int.Parse(match.Groups[2].Value, CultureInfo.InvariantCulture));
        Assert.Equal(9, contents.Count);
        Assert.All(contents, line => Assert.StartsWith(line.Key, pages[line.Value - 1].TrimStart()));
        Assert.All(
            pages.Select((text, place) => (text, place)), page => Assert.Contains($"Page {page.place + 1} of {pages.Length}", page.text));
        var links = Shell.Run(_tool.Folder, "qpdf", "--qdf", "--object-streams=disable", path, "-");
        Assert.True(Count(links, "/Subtype /Link") >= contents.Count);
        Assert.True(Count(links, "/Title") > contents.Count);
    }

    [Fact]
    public void Looks_of_paper_are_kept_and_letters_that_the_font_does_not_have_are_told()
    {
        _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n4000,日本の売上,income\n");
        _tool.Write("set/documents.csv", "id,kind,date\nD,cash-sale,2026-03-14\n");
        _tool.Write("set/lines.csv", "document,account,amount\nD,1000,5.00\nD,4000,-5.00\n");
        _tool.Run("init", "far", "--name", "Far", "--currency", "JPY").Done();
        _tool.Write("set/lines.csv", "document,account,amount\nD,1000,5\nD,4000,-5\n");
        _tool.Run("import", "set", "--book", "far").Done();
        _tool.Run(
            "show", "profit-loss", "--period", "2026-03", "--book", "far", "--paper", "letter", "--orientation", "landscape",
            "--font-size", "12", "--footer", "Draft", "--to", "f.pdf").Done();
        Assert.Contains("792 x 612 pts (letter)", Shell.Run(_tool.Folder, "pdfinfo", "f.pdf"));
        var text = Shell.Run(_tool.Folder, "pdftotext", "-layout", "f.pdf", "-");
        Assert.Matches(@"\?\?\?\?\? +5", text);
        Assert.Contains("The font has no letters for U+306E, U+4E0A, U+58F2, U+65E5, U+672C; a question mark stands for each.", text);
        Assert.Contains("Draft – Far: Profit and loss, March 2026.", text);
    }

    // A font on a page has room for 255 letters, and its codes for some of them are brackets and ends of lines.
    [Fact]
    public void More_letters_than_a_font_has_room_for_can_be_read_off_a_page()
    {
        var letters = Enumerable.Range(0x20, 0x160).Concat(Enumerable.Range(0x391, 0x39)).Concat(Enumerable.Range(0x410, 0x40))
            .Select(code => (char)code).Where(letter => char.IsLetter(letter) || letter is '(' or ')' or '\\' or '\'').ToList();
        var names = letters.Chunk(7).Select(chunk => string.Concat(chunk)).ToList();
        _tool.Write(
            "set/accounts.csv",
            $"code,name,type\n1,Bank,bank\n{string.Concat(names.Select((name, at) => $"{at + 2},{name},income\n"))}");
        _tool.Write("set/documents.csv", "id,kind,date\nD,cash-sale,2026-03-14\n");
        _tool.Write(
            "set/lines.csv",
            $"document,account,amount\nD,1,{names.Count}.00\n{string.Concat(names.Select((_, at) => $"D,{at + 2},-1.00\n"))}");
        _tool.Run("init", "far", "--name", "Far", "--currency", "EUR").Done();
        _tool.Run("import", "set", "--book", "far").Done();
        _tool.Run("show", "profit-loss", "--period", "2026-03", "--book", "far", "--to", "f.pdf").Done();
        var text = Shell.Run(_tool.Folder, "pdftotext", "-raw", "f.pdf", "-");
        Assert.True(letters.Count > 255);
        Assert.DoesNotContain("The font has no letters", text);
        Assert.All(names, name => Assert.Contains($"{name} 1.00", text));
    }

    [Theory]
    [InlineData("--columns date,memo,amount")]
    [InlineData("--columns date,memo,amount --widths memo=12 --orientation landscape --font-size 14")]
    [InlineData("--columns date,kind,account,memo,contact,department,project,item,quantity,amount --group-by account")]
    public void What_is_higher_than_a_page_goes_on_and_nothing_of_it_is_lost(string options)
    {
        string[] words = [.. Enumerable.Range(0, 1500).Select(number => $"w{number:D4}")];
        var letters = new string('x', 2000);
        _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n4000,Sales,income\n");
        _tool.Write("set/documents.csv", "id,kind,date\nD,cash-sale,2026-03-14\nE,cash-sale,2026-03-15\n");
        _tool.Write(
            "set/lines.csv",
            $"document,account,amount,memo\nD,1000,5.00,first\nD,4000,"
                + $"-5.00,{string.Join(' ', words)}\nE,1000,7.00,{letters}\nE,4000,-7.00,last\n");
        _tool.Run("init", "tall", "--name", "Tall", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "tall").Done();
        File.WriteAllBytes(_tool.PathOf("logo.png"), Documents.Logo.Png);
        string[] show =
            ["show", "postings", "--period", "2026-03", "--book", "tall", .. options.Split(' '), "--subtitle",
                string.Join(' ', words.Select(word => $"s{word}")), "--logo", "logo.png"];
        _tool.Run([.. show, "--to", "tall.pdf"]).Done();
        Shell.Run(_tool.Folder, "qpdf", "--check", "tall.pdf");
        var pages = Shell.Run(_tool.Folder, "pdftotext", "-layout", "tall.pdf", "-").Split('\f')[..^1];
        var text = string.Join('\n', pages);
        Assert.Equal(words, Tokens(text).Where(token => token.Length == 5 && token[0] == 'w'));
        Assert.Equal(words.Select(word => $"s{word}"), Tokens(text).Where(token => token.StartsWith("sw", StringComparison.Ordinal)));
        Assert.Equal(letters.Length, text.Count(letter => letter == 'x'));
        Assert.All(new[] { "first", "last", "5.00", "-7.00" }, figure => Assert.Equal(1, Tokens(text).Count(token => token == figure)));
        Assert.All(
            pages.Select((page, place) => (page, place)), one => Assert.Contains($"Page {one.place + 1} of {pages.Length}", one.page));

        // Nothing is written over the foot, nor below it.
        Shell.Run(_tool.Folder, "pdftotext", "-bbox", "tall.pdf", "tall.bbox");
        foreach (var page in File.ReadAllText(_tool.PathOf("tall.bbox")).Split("<page ")[1..])
        {
            var foot = Top().Matches(page).Where(word => word.Groups[2].Value == "Page")
                .Max(word => double.Parse(word.Groups[1].Value, CultureInfo.InvariantCulture));
            Assert.All(
                Top().Matches(page).Where(word => word.Groups[2].Value[0] is 'w' or 'x' or 's'),
                word => Assert.True(double.Parse(word.Groups[1].Value, CultureInfo.InvariantCulture) < foot - 10));
        }
    }

    public void Dispose() => _tool.Dispose();

    private static string[] Tokens(string text) => text.Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries);

    private static int Count(string text, string part) => text.Split(part).Length - 1;

    private string Logo()
    {
        File.WriteAllBytes(_tool.PathOf("logo.png"), Documents.Logo.Png);
        return "logo.png";
    }

    private List<string> Pages(string options, string file)
    {
        _tool.Run(["show", .. options.Split(' '), "--book", "reedwater", "--to", file]).Done();
        return [.. Shell.Run(_tool.Folder, "pdftotext", "-layout", file, "-").Split('\f')[..^1]];
    }

    [GeneratedRegex("yMin=\"([\\d.]+)\"[^>]*>([^<]+)<")]
    private static partial Regex Top();

    [GeneratedRegex("Date +Kind.*Balance")]
    private static partial Regex Headings();

    [GeneratedRegex(@"^ *([A-Z].*?)  +.*?(\d+)$", RegexOptions.Multiline)]
    private static partial Regex Contents();
}
