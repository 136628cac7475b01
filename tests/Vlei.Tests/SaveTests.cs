using System.Text.Json;
using System.Text.RegularExpressions;
using Vlei.Core;
using Vlei.Desk;
using Vlei.Tests.Documents;

namespace Vlei.Tests;

/// <summary>Reports and selections that are kept: what is kept is what was asked, and files stay a person's own.</summary>
public sealed partial class SaveTests : IDisposable
{
    // A value or two for every option that does not say itself which words it takes. An option without one fails the test.
    private static readonly Dictionary<string, string[]> Samples = new()
    {
        ["period"] = ["last-month", "2026-03", "fy2026-Q1"], ["as-of"] = ["last-month", "2026-03-31"], ["by"] = ["month", "department"],
        ["compare"] = ["prior-year", "prior-period:2"],
        ["only"] = ["contact.kind=customer", "account=4000/6999"], ["except"] = ["contact=C0001", "kind=journal"],
        ["where"] = ["amount > 0 and contact.name like '%\"o\"%' or amount < 0"],
        ["columns"] = ["+memo", "date,natural:\"Quite, a name\"", "-memo"], ["group-by"] = ["contact", "month,contact"],
        ["having"] = ["total > 0", "amount > 0", "natural > 0", "open > 0"], ["total"] = ["count"], ["measure"] = ["amount,count"],
        ["layout"] = ["balance-sheet", "profit-loss"], ["limits"] = ["15,45"],
        ["sort"] = ["name", "-total"], ["top"] = ["2"],
        ["money"] = ["1234.50"], ["depth"] = ["1", "0"], ["title"] = ["\\ \"Ours\" # 100 %"], ["select"] = ["chosen"],
        ["lang"] = ["de", "en"], ["decimals"] = ["0", "3"], ["dates"] = ["dd.MM.yyyy", "iso"], ["font-size"] = ["9.5", "11"],
        ["widths"] = ["label=30,amount=14"], ["align"] = ["label=right"], ["logo"] = ["logo.png"], ["subtitle"] = ["For the \"board\""],
        ["footer"] = ["Draft"], ["accent"] = ["#1f5f8b"],
    };

    // Of what is refused, the program itself is asked every so often.
    private const int OfProgram = 20;

    // JSON has no room for these; the tests of documents keep them.
    private static readonly string[] OfDocuments = ["chart", "with-detail", "template", "csv-style"];

    private readonly Tool _tool = new Tool().WithDemo();

    // What the demo keeps itself is of other tests.
    public SaveTests() => new List<string> { "reports", "selections", "groups" }.ForEach(
        folder => Directory.Delete(_tool.PathOf($"reedwater/{folder}"), recursive: true));

    [Fact]
    public void Every_option_is_kept_and_gives_the_same_report()
    {
        _tool.Write("reedwater/selections/chosen.toml", "only = \"contact=C0001/C0030\"\n");
        File.WriteAllBytes(_tool.PathOf("logo.png"), Logo.Png);
        var options = JsonDocument.Parse(_tool.Run("schema", "report").Done().Output).RootElement.GetProperty("properties")
            .EnumerateObject()
            .Where(
                option => (option.Name == "title" || Vlei.Books.Kept.ReportFile.Own.All(key => key.Name != option.Name))
                    && option.Name != "schedule" && !OfDocuments.Contains(option.Name)).ToList();
        var reports = ReportCatalogue.Standard.Select(report => report.Key).ToList();
        Assert.InRange(reports.Count, 60, 200);
        var random = new Random(20261123);
        var (kept, desk) = (options.ToDictionary(option => option.Name, _ => 0), new InProcess(_tool.PathOf("reedwater")));
        for (var round = 0; kept.Values.Any(times => times < 4); round++)
        {
            Assert.True(
                round < 4000, $"never accepted: {string.Join(", ", kept.Where(option => option.Value < 4).Select(option => option.Key))}");
            var report = reports[random.Next(reports.Count)];
            var chosen = options.Where(option => kept[option.Name] < 4).OrderBy(_ => random.Next()).Take(random.Next(1, 3))
                .Select(option => (option.Name, Value: ValueOf(option, random))).ToList();

            // What needs another option has it.
            if (chosen.Any(option => option.Name == "measure"))
            {
                chosen = [.. chosen.Where(option => option.Name is not ("group-by" or "by")), ("group-by", "contact"), ("by", "month")];
            }
            else if (chosen.Any(option => option.Name == "change"))
            {
                chosen = [.. chosen.Where(option => option.Name != "compare"), ("compare", "prior-year")];
            }

            // A month says of a table what a year does.
            if (StandardTables.Find(report) is { Date: not null, IsOfMoment: false }
                && !chosen.Any(option => option.Name is "period" or "as-of"))
            {
                chosen = [.. chosen, ("period", "2026-05")];
            }

            var typed = chosen.SelectMany(
                option => option.Value == "true" ? new[] { $"--{option.Name}" } : [$"--{option.Name}", option.Value]).ToArray();
            if (!desk.Takes(report, typed))
            {
                Assert.NotEqual(0, round % OfProgram == 0 ? Document([report, .. typed]).Status : 1);
                continue;
            }

            // What has failed checks has its own tests.
            if (Document([report, .. typed]) is not { Status: 0 } shown)
            {
                continue;
            }

            var name = $"kept{round}";
            _tool.Run(["save", name, "--from", report, "--book", "reedwater", .. typed]).Done();
            Assert.Equal(
                shown.Output.Replace($"\"report\": \"{report}\"", $"\"report\": \"{name}\"", StringComparison.Ordinal),
                Document([name]).Done().Output);

            // A copy, and one that is made from it, say the same.
            File.WriteAllText(_tool.PathOf("reedwater/reports/from-it.toml"), $"from = \"{name}\"\n");
            Assert.Equal(Figures(shown.Output), Figures(Document(["from-it"]).Done().Output));
            chosen.ForEach(option => kept[option.Name]++);
        }
    }

    [Fact]
    public void What_is_changed_by_a_command_leaves_the_rest_of_the_file_alone()
    {
        const string Text =
            "# Mine.\nfrom = 'sales-by-item' # the items\n\nperiod = \"last-month\"   # moves on\n# how many\ntop = 3\nonly = [\n  "
                + "\"item=BOAT*\", # boats\n]\nsubject = \"Sales, mine\"";
        var path = _tool.Write("reedwater/reports/mine.toml", Text);
        Save("mine", "--basis", "cash", "--favourite", "--top", "5").Done();
        Assert.Equal(
            $"{Text.Replace("top = 3", "top = 5", StringComparison.Ordinal)}\nbasis = \"cash\"\nfavourite = true\n",
            File.ReadAllText(path));
        Save("mine", "--unset", "basis,top", "--favourite", "false").Done();
        Assert.Equal($"{Text.Replace("top = 3\n", "", StringComparison.Ordinal)}\nfavourite = false\n", File.ReadAllText(path));

        // What is typed wins over what is kept, which wins over what it is made from.
        var own = Show(["mine", "--only", "item=OAR*", "--period", "2026-04"]).Done().Output;
        Assert.Equal(Figures(Show(["sales-by-item", "--only", "item=OAR*", "--period", "2026-04"]).Done().Output), Figures(own));
        Save("copy", "--from", "mine", "--question", "Which \"boats\"?\nAnd when?").Done();
        Assert.StartsWith("# Mine.\nfrom = 'sales-by-item' # the items\n", File.ReadAllText(_tool.PathOf("reedwater/reports/copy.toml")));
        _tool.Write("reedwater/groups/all.toml", "[[report]]\nreport = \"copy\"\n");
        Assert.Contains("reedwater/groups/all.toml still names copy.", Save("copy", "--rename", "other").Done().Messages);
        Assert.Equal(66, Show(["copy"]).Status);
        Save("other", "--remove").Done();
        Assert.Equal(["mine.toml"], Directory.GetFiles(_tool.PathOf("reedwater/reports")).Select(Path.GetFileName));
    }

    [Fact]
    public void The_last_report_shown_is_kept_and_fixed_dates_are_pointed_out()
    {
        Assert.Contains("none was shown lately", Save("x").Messages);
        Assert.Contains("none was shown lately", _tool.Run("show", "--book", "reedwater").Messages);
        var shown = Show(["profit-loss", "--period", "2026-05", "--compare", "prior-year"]).Done();
        Assert.Contains(
            "Its period is always 2026-05; --period last-month is the same today, and moves on.",
            Save("may", "--favourite").Done().Messages);
        Assert.Equal(Figures(shown.Output), Figures(Show(["may"]).Done().Output));
        Assert.Matches(
            @"Kept in reports/may.toml, from profit-loss; always 2026-05.\nLast shown 2026-06-30.",
            _tool.Run("reports", "may", "--book", "reedwater").Done().Output);
        Assert.Matches(@"\n  \* may +Profit and loss\n", _tool.Run("reports", "--book", "reedwater").Done().Output);
        Assert.Equal(
            "Favourites\n  vlei show may  Profit and loss\nLately\n  2026-06-30  vlei show may\n  2026-06-30  vlei show profit-loss "
                + "--period 2026-05 --compare prior-year\n",
            _tool.Run("show", "--book", "reedwater").Done().Output);
        Assert.DoesNotContain("always", Save("may", "--period", "last-month").Done().Messages);
    }

    [Fact]
    public void A_default_changes_the_plain_report_of_this_book_and_says_so()
    {
        var standard = Show(["profit-loss"]).Done().Output;
        Save("--default", "profit-loss", "--basis", "cash", "--share", "income").Done();
        var own = Show(["profit-loss"]).Done();
        Assert.Equal("profit-loss is shown as reedwater/reports/profit-loss.toml has it; --standard shows it without.\n", own.Messages);
        Assert.NotEqual(standard, own.Output);
        Assert.Equal(standard, Show(["profit-loss", "--standard"]).Done().Output);

        // What is made from the standard report is not changed by what the book makes of it.
        _tool.Write("reedwater/reports/plain.toml", "from = \"profit-loss\"\n");
        Assert.Equal(Figures(standard), Figures(Show(["plain"]).Done().Output));
        Save("--default", "profit-loss", "--remove").Done();
        Assert.Equal(standard, Show(["profit-loss"]).Done().Output);
    }

    [Fact]
    public void Selections_narrow_any_report_that_has_their_fields()
    {
        Save("--selection", "coast", "--only", "contact=C0001/C0020", "--title", "The coast").Done();
        Save("--selection", "sold", "--only", "contact=C0010/C0040", "--except", "kind=credit-note").Done();
        _tool.Write("reedwater/selections/large.toml", "where = \"amount > 1000\"\n");
        string Of(params string[] arguments) => Show([.. arguments]).Done().Output;

        // Both must hold; alternatives are those of one selection alone.
        Assert.Equal(
            RowsOf(Of("lines", "--period", "2026", "--only", "contact=C0010/C0020", "--except", "kind=credit-note")),
            RowsOf(Of("lines", "--period", "2026", "--select", "coast", "--select", "sold")));
        Assert.Equal(
            RowsOf(Of("profit-loss", "--period", "2026", "--only", "contact=C0010/C0020", "--except", "kind=credit-note")),
            RowsOf(Of("profit-loss", "--period", "2026", "--select", "coast,sold")));
        Assert.Equal(
            RowsOf(Of("receivables-aging", "--only", "contact=C0001/C0020")), RowsOf(Of("receivables-aging", "--select", "coast")));
        Assert.Equal(
            RowsOf(Of("lines", "--period", "2026-05", "--where", "amount > 1000")),
            RowsOf(Of("lines", "--period", "2026-05", "--select", "large")));
        Save("narrow", "--from", "sales-by-customer", "--select", "coast").Done();
        Save("--selection", "coast", "--except", "contact=C0003").Done();
        Save("--selection", "inland", "--only", "contact=C0003").Done();
        Assert.Equal("reedwater/selections/inland.toml is removed.\n", Save("--selection", "inland", "--remove").Done().Messages);
        Assert.EndsWith(
            "shore.toml now.\nreedwater/reports/narrow.toml still names coast.\n",
            Save("--selection", "coast", "--rename", "shore").Done().Messages);
        Save("--selection", "shore", "--rename", "coast").Done();
        Save("--selection", "coast", "--unset", "except").Done();
        Assert.Equal(RowsOf(Of("sales-by-customer", "--select", "coast,sold")), RowsOf(Of("narrow", "--select", "sold")));
        Assert.Equal(RowsOf(Of("sales-by-customer", "--select", "sold")), RowsOf(Of("narrow", "--select", "none,sold")));
        foreach (var (message, arguments) in new (string, string[])[]
        {
            ("vlei: selection sold (reedwater/selections/sold.toml): There is no kind \"credit-note\".", ["contacts", "--select", "sold"]),
            ("vlei: There is no selection caost.\n      Did you mean coast?", ["lines", "--select", "caost"]),
            ("vlei: selection wrong (reedwater/selections/wrong.toml): There is no contact \"C00O1\".\n      Did you mean C0001",
                ["lines", "--select", "wrong"]),
            ("vlei: selection wrong (reedwater/selections/wrong.toml): There is no contact \"C00O1\".\n      Did you mean C0001",
                ["balance-sheet", "--select", "wrong"]),
        })
        {
            _tool.Write("reedwater/selections/wrong.toml", "only = \"contact=C00O1\"\n");
            Assert.StartsWith(message, Show(arguments).Messages);
        }
    }

    [Fact]
    public void A_library_serves_every_book_and_a_books_own_wins()
    {
        _tool.Run("init", "other", "--name", "Other", "--currency", "ZAR").Done();
        File.AppendAllText(_tool.PathOf("reedwater/book.toml"), "library = \"../firm\"\n");
        Assert.Contains("there is no library reedwater/../firm", Show(["profit-loss"]).Messages);
        _tool.Write("firm/reports/ours.toml", "from = \"profit-loss\"\ntitle = \"Of the firm\"\n");
        _tool.Write("firm/selections/coast.toml", "only = \"contact=C9*\"\n");
        _tool.Write(".config/vlei/reports/ours.toml", "from = \"profit-loss\"\ntitle = \"Of the user\"\n");
        _tool.Write(
            ".config/vlei/layouts/short.toml",
            "statement = \"profit-loss\"\n[[row]]\nkey = \"all\"\nlabel = \"All\"\naccounts = [\"type=income\"]\nrest = true\n");
        Assert.Contains("Of the firm", Show(["ours"]).Done().Output);
        Assert.Contains("Of the user", _tool.Run("show", "ours", "--book", "other").Done().Output);
        Save("ours", "--title", "Of the book", "--from", "ours").Done();
        Assert.Contains("Of the book", Show(["ours"]).Done().Output);
        Save("firms", "--from", "balance-sheet", "--in", "library").Done();
        Save("mine", "--from", "balance-sheet", "--in", "user").Done();
        Assert.Contains("made from", File.ReadAllText(_tool.PathOf("firm/reports/firms.toml")) + "made from");
        var listed = _tool.Run("reports", "--book", "reedwater").Done().Output;
        foreach (var (name, place) in new[]
        {
            ("ours", "reports/ours.toml"), ("firms", "library's reports/firms.toml"), ("mine", "user's reports/mine.toml"),
        })
        {
            Assert.Contains($"  + {name} ", listed);
            Assert.Contains($"Kept in {place}, from ", _tool.Run("reports", name, "--book", "reedwater").Done().Output);
        }

        Assert.Matches(@"\+ coast +only contact=C9\*", listed);
        Assert.StartsWith(
            "vlei: selection coast (reedwater/../firm/selections/coast.toml): No contact fits \"C9*\".",
            Show(["lines", "--select", "coast"]).Messages);
        Assert.Contains("short", _tool.Run("show", "profit-loss", "--layout", "shrt", "--book", "other").Messages);
    }

    [Theory]
    [InlineData(2, "\"../x\" is no name for a report. Start with a letter or a digit", "../x", "--from", "profit-loss")]
    [InlineData(2, "\"a?b\" is no name", "a\u0007b", "--from", "profit-loss")]
    [InlineData(2, "\".hidden\" is no name", ".hidden", "--from", "profit-loss")]
    [InlineData(2, "There is a report mine already, which differs by capitals alone.", "Mine", "--from", "profit-loss")]
    [InlineData(2, "profit-loss is a standard report. Take another name, or change what it shows in this book: --default profit-loss.",
        "Profit-Loss")]
    [InlineData(2, "There is a report mine already: reedwater/reports/mine.toml. Leave --from out", "mine", "--from", "profit-loss")]
    [InlineData(66, "There is no report profit-los. Did you mean profit-loss?", "x", "--from", "profit-los")]
    [InlineData(2, "--as-of does not apply to profit-loss.", "x", "--from", "profit-loss", "--as-of", "today")]
    [InlineData(2, "\"lst-month\" is not a period. Did you mean last-month?", "x", "--from", "profit-loss", "--period", "lst-month")]
    [InlineData(66, "There is no contact \"C00011\". Did you mean ", "x", "--from", "profit-loss", "--only", "contact=C00011")]
    [InlineData(2, "mine has no basis to take out. It has period.", "mine", "--unset", "basis")]
    [InlineData(66, "There is no report mien to change in reedwater/reports. Did you mean mine?", "mien", "--remove")]
    [InlineData(2, "--basis does not go with removing or renaming.", "mine", "--remove", "--basis", "cash")]
    [InlineData(2, "--in does not take \"bok\". Did you mean book?", "x", "--in", "bok")]
    [InlineData(66, "The book has no library. Write library = \"FOLDER\" into book.toml", "x", "--in", "library")]
    [InlineData(2, "It is not said under which name.")]
    [InlineData(2, "mine has no title to take out.", "mine", "--unset", "title")]
    [InlineData(2, "--default says which report, so there is no other name. Leave x out.", "x", "--default", "profit-loss")]
    [InlineData(2, "--period does not belong to a selection.", "--selection", "s", "--period", "2026")]
    [InlineData(65, "reedwater/selections/s.toml: the selection takes everything.", "--selection", "s")]
    public void What_cannot_be_kept_is_refused_and_nothing_is_written(int status, string message, params string[] arguments)
    {
        _tool.Write("reedwater/reports/mine.toml", "from = \"profit-loss\"\nperiod = \"last-month\"\n");
        var outcome = Save(arguments);
        Assert.StartsWith($"vlei: {message}", outcome.Messages.Replace("\n      ", " ", StringComparison.Ordinal));
        Assert.Equal(status, outcome.Status);
        Assert.Single(Directory.GetFiles(_tool.PathOf("reedwater/reports")));
        Assert.False(Directory.Exists(_tool.PathOf("reedwater/selections")));
    }

    [Theory]
    [InlineData("reports", "from = \"profit-loss\"\nperod = \"2026\"\n", ":2:1: there is no key perod. Did you mean period?")]
    [InlineData("reports", "title = \"x\"\n", ": the key from is missing.")]
    [InlineData("reports", "from = \"x\"\n", ": the report is made from itself: x, from x.")]
    [InlineData("reports", "from = \"profit-loss\"\nas-of = \"2026\"\n", ":2:1: as-of does not apply to profit-loss.")]
    [InlineData("reports", "from = \"profit-loss\"\nbasis = true\n", ":2:9: basis is not written as it should be. Write basis = \"…\".")]
    [InlineData("reports", "from = \"profit-loss\"\n[basis]\n", ":2:1: there is no table basis.")]
    [InlineData("reports", "from = [[[[", ":1:")]
    [InlineData("reports", "from = [[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[",
        ":1: there are too many brackets")]
    [InlineData("reports", "deep", ":1: there are too many brackets within each other.")]
    [InlineData("reports", "huge", " is larger than 1 MiB.")]
    [InlineData("reports", "latin", " cannot be read: ")]
    [InlineData("reports", "pipe", " is a pipe or a device, and no file.")]
    [InlineData("reports", "device", " is a pipe or a device, and no file.")]
    [InlineData("reports", "dots", ":1:1: there is no key a.a.a.")]
    [InlineData("selections", "only = 3\n", ":1:8: only is no list of texts.")]
    [InlineData("selections", "only = \"contact\"\n", "): \"contact\" does not say which field.")]
    public void A_file_that_is_not_as_it_should_be_is_told_with_its_place(string folder, string text, string message)
    {
        var path = _tool.Write(
            $"reedwater/{folder}/x.toml",
            text switch { "deep" => $"from = {new string('[', 100_000)}", "huge" => new string('#', 2_000_000), _ => text });
        switch (text)
        {
            case "latin":
                File.WriteAllBytes(path, [.. "from = \"caf"u8, 0xE9, (byte)'"']);
                break;
            case "dots":
                File.WriteAllText(path, $"{string.Join('.', Enumerable.Repeat("a", 100_000))} = 1\n");
                break;
            case "pipe":
                File.Delete(path);
                System.Diagnostics.Process.Start("mkfifo", path).WaitForExit();
                break;
            case "device":
                File.Delete(path);
                File.CreateSymbolicLink(path, "/dev/zero");
                break;
        }

        var outcome = folder == "reports" ? Show(["x"]) : Show(["profit-loss", "--select", "x"]);
        Assert.Contains($"reedwater/{folder}/x.toml{message}", outcome.Messages.Replace("\n      ", " ", StringComparison.Ordinal));
        Assert.Equal(folder == "selections" && text.Contains("contact", StringComparison.Ordinal) ? 2 : 65, outcome.Status);

        // The others can be found all the same.
        Assert.Contains("profit-loss", _tool.Run("reports", "--book", "reedwater").Output);
    }

    [Theory]
    [InlineData("who owes us money", "receivables-aging")]
    [InlineData("whom do we owe", "payables-aging")]
    [InlineData("what did we earn", "profit-loss")]
    [InlineData("inventory", "stock-on-hand")]
    [InlineData("vat", "tax-by-code")]
    [InlineData("who buys most from us", "top-customers")]
    [InlineData("what did the owner take out", "owners-drawings")]
    [InlineData("how much money is in the bank", "bank-activity")]
    [InlineData("which figures look wrong", "review")]
    [InlineData("phone", "customer-list")]
    public void Reports_are_found_by_question(string question, string report) =>
        Assert.Contains(
            report, ReportName().Matches(_tool.Run(["reports", .. question.Split(' ')]).Done().Output).Take(2)
                .Select(match => match.Groups[1].Value));

    [Theory]
    [InlineData("report")]
    [InlineData("selection")]
    [InlineData("page")]
    [InlineData("group")]
    [InlineData("map")]
    [InlineData("mail")]
    public void The_schemas_of_the_documentation_are_those_of_the_program(string kind)
    {
        var path = Path.Combine(Tool.Root, "docs", "schemas", $"{kind}.schema.json");
        var real = _tool.Run("schema", kind).Done().Output;
        if (Environment.GetEnvironmentVariable("VLEI_APPROVE") == "1")
        {
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            File.WriteAllText(path, real);
        }

        Assert.Equal(File.ReadAllText(path), real);
    }

    public void Dispose() => _tool.Dispose();

    private Outcome Save(params string[] arguments) => _tool.Run(["save", "--book", "reedwater", .. arguments]);

    // The JSON, and the web page behind it, which has the looks.
    private Outcome Document(string[] arguments)
    {
        var outcome = _tool.Run(["show", "--book", "reedwater", "--to", "shown.json", "--to", "shown.html", "--overwrite", .. arguments]);
        return outcome.Status != 0 ? outcome
            : outcome with { Output = File.ReadAllText(_tool.PathOf("shown.json")) + File.ReadAllText(_tool.PathOf("shown.html")) };
    }

    private Outcome Show(string[] arguments) => _tool.Run(["show", "--book", "reedwater", "--format", "json", .. arguments]);

    private static string ValueOf(JsonProperty option, Random random)
    {
        var values = option.Value.TryGetProperty("enum", out var words)
            || (option.Value.TryGetProperty("items", out var items) && items.TryGetProperty("enum", out words))
            ? [.. words.EnumerateArray().Select(word => word.GetString()!)]
            : option.Value.GetProperty("type").ToString() == "boolean" ? ["true"]
            : Samples.GetValueOrDefault(option.Name) ?? throw new InvalidOperationException($"no sample of {option.Name}");
        return values[random.Next(values.Length)];
    }

    // Columns and rows, without what the report is called.
    private static string Figures(string json) => json[json.IndexOf("\"columns\"", StringComparison.Ordinal)..];

    private static string RowsOf(string json) => json[json.IndexOf("\"rows\"", StringComparison.Ordinal)..];

    [GeneratedRegex(@"^  [ *+] ([a-z0-9-]+) ", RegexOptions.Multiline)]
    private static partial Regex ReportName();
}
