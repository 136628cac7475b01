using System.Security.Cryptography;
using System.Text;
using System.Text.Json;

namespace Vlei.Tests;

/// <summary>Groups: what they produce is what the reports show, whole or not at all, and they say what has moved.</summary>
public sealed class GroupTests : IDisposable
{
    private static readonly string[] Formats = ["txt", "csv", "json", "md"];

    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Every_file_of_the_demos_group_is_what_its_report_shows()
    {
        // The day is the 30th of June; the group is for May, and its words are worked out at the close of the 31st of that.
        var may = _tool.Run("run", "month-end", "--book", "reedwater", "--format", "text,csv,json,md").Done();
        Assert.Contains("May 2026\n40 files in reedwater/out/month-end/2026-05\n", may.Output);
        var names = new List<string>();
        foreach (var (name, report, options) in new[]
        {
            ("profit-by-month", "profit-loss", "--period 2026-03-01/2026-05-31 --basis cash --by month --title Profit_and_loss_by_month"),
            ("profit-against-last-year", "profit-loss",
                "--period 2026-05 --basis cash --compare prior-year --change --title Profit_and_loss_against_last_year"),
            ("balance-sheet", "balance-sheet", "--period 2026-03-01/2026-05-31 --by month"), ("cash-flow", "cash-flow", "--period 2026-05"),
            ("bank-account", "bank-activity", "--period 2026-05-02/2026-05-31 --only account=1000"),
            ("receivables-aging", "receivables-aging", "--as-of 2026-05-31"),
            ("payables-aging", "payables-aging", "--as-of 2026-05-31"),
            ("sales-by-customer", "sales-by-customer", "--period 2026-05 --top 20"),
            ("owners-drawings", "owners-drawings", "--period 2026-05"),
        })
        {
            names.Add(name);
            foreach (var ending in Formats)
            {
                Assert.Equal(
                    _tool.Run(
                        ["show", report, "--book", "reedwater", "--format", ending == "txt" ? "text" : ending,
                            .. options.Split(' ').Select(word => word.Replace('_', ' '))]).Done().Output,
                    File.ReadAllText(Produced($"{name}.{ending}")));
            }
        }

        // All of them are in the one file for all: as they are, as one table, and as JSON.
        var text = File.ReadAllText(Produced("month-end.txt"));
        Assert.All(names, name => Assert.Contains(File.ReadAllText(Produced($"{name}.txt")), text));
        Assert.All(names, name => Assert.Contains(File.ReadAllText(Produced($"{name}.md")), File.ReadAllText(Produced("month-end.md"))));
        var pack = Json(Produced("month-end.json"));
        Assert.Equal(names, pack.GetProperty("reports").EnumerateObject().Select(report => report.Name));
        Assert.Equal("Profit and loss by month", pack.GetProperty("cover").GetProperty("rows")[1].GetProperty("label").GetString());
        var lines = File.ReadAllLines(Produced("month-end.csv"));
        Assert.Equal(
            pack.GetProperty("reports").EnumerateObject().Sum(report => report.Value.GetProperty("rows").EnumerateArray().Sum(row =>
                row.GetProperty("cells").EnumerateArray().Count(cell => cell.ValueKind != JsonValueKind.Null))),
            lines.Length - 1);
        Assert.Contains("balance-sheet,1000,Current account,account,2,2026-05-31,31 May 2026,", string.Join('\n', lines));
    }

    [Fact]
    public void The_same_run_leaves_the_same_bytes_whatever_day_it_is()
    {
        string Run(params string[] arguments)
        {
            _tool.Run(["run", "month-end", "--book", "reedwater", "--format", "text,json", .. arguments]).Done();
            return SumsOf(_tool.PathOf("reedwater/out/month-end/2026-05"));
        }

        var first = Run();
        Assert.Equal(first, Run());
        Assert.Equal(first, Run("--period", "2026-05", "--clock", "2026-08-15"));
        Assert.Equal(first, Run("--clock", "2026-06-01"));
        // Where the records end well before the period, that is told.
        Assert.DoesNotContain("The records", _tool.Run("run", "month-end", "--book", "reedwater").Output);
        Assert.Contains(
            "The records end on 2026-06-30, before the period does.",
            _tool.Run("run", "month-end", "--book", "reedwater", "--period", "2026-08", "--clock", "2026-09-03").Output);
        Assert.Contains("The period has not begun yet.", _tool.Run("run", "month-end", "--book", "reedwater", "--period", "2030").Output);
        Assert.Contains(
            "The records start on 2023-03-01, after the period.",
            _tool.Run("run", "month-end", "--book", "reedwater", "--period", "2022").Output);
        Assert.All(
            _tool.Run("run", "month-end", "--book", "reedwater").Done().Output.Split('\n')[6..^1],
            line => Assert.EndsWith("as the last time", line));
    }

    [Fact]
    public void What_has_moved_is_told_with_the_documents_that_moved_it()
    {
        _tool.Run("run", "month-end", "--book", "reedwater", "--format", "json").Done();
        var before = Figure("profit-against-last-year", "net-profit");
        ImportBill("8102.00", "8420.00");
        var moved = _tool.Run("run", "month-end", "--book", "reedwater", "--summary", "moved.json").Done().Output;
        Assert.Contains("moved since revision 1", moved);
        Assert.Matches(@"BILL-00585 +changed, 2026-05-01 +8,102\.00 +8,420\.00 +318\.00", moved);
        Assert.Contains("What changed in the records since revision 1", moved);

        // Every figure that is said to have moved was kept before, and is now, as is said.
        var rows = Json(_tool.PathOf("moved.json")).GetProperty("rows").EnumerateArray().ToList();
        var assets = rows.First(row => row.GetProperty("key").GetString()!.StartsWith("balance-sheet/", StringComparison.Ordinal))
            .GetProperty("cells");
        Assert.Equal(assets[2].GetDecimal() - assets[1].GetDecimal(), assets[3].GetDecimal());
        Assert.Equal(before, Figure("profit-against-last-year", "net-profit"));

        // The same again has nothing more to say, and the next month's cover tells of it.
        Assert.DoesNotContain("moved", _tool.Run("run", "month-end", "--book", "reedwater").Done().Output);
        ImportBill("8420.00", "8500.00");
        var june = _tool.Run("run", "month-end", "--book", "reedwater", "--period", "2026-06").Done().Output;
        Assert.Matches(@"May 2026 +has moved since it was produced: balance-sheet", june);
        Assert.Matches(
            @"(?s)Earlier periods that have moved.*May 2026 +balance-sheet,.* [\d,]+\.\d\d +[\d,]+\.\d\d\n",
            File.ReadAllText(_tool.PathOf("reedwater/out/month-end/2026-06/month-end.txt")));

        // An account that is of another kind now moves figures, though no document has changed.
        Replace("reedwater/records/accounts.csv", "Refreshments,expense", "Refreshments,other-expense");
        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
        Assert.Matches(
            @"May 2026 +has moved since it was produced: profit-by-month",
            _tool.Run("run", "month-end", "--book", "reedwater", "--period", "2026-06").Done().Output);

        // Another question is not the records' doing.
        Replace("reedwater/groups/month-end.toml", "top = 20", "top = 3");
        _tool.Run("run", "month-end", "--book", "reedwater").Done();
        Replace("reedwater/groups/month-end.toml", "top = 3", "top = 5");
        Assert.Matches(
            @"sales-by-customer +asked otherwise than the last time", _tool.Run("run", "month-end", "--book", "reedwater").Done().Output);
    }

    [Fact]
    public void A_report_that_fails_does_not_stop_the_others_and_what_is_asked_of_the_client_is_on_the_cover()
    {
        _tool.Write("reedwater/groups/own.toml", """
            title = "Ours"
            questions = true
            basis = "cash"
            notes = ["One.", "Two."]
            to = ["owner@reedwater.example"]
            hold = "never"
            [[report]]
            report = "profit-loss"
            only = "account=9999"
            [[report]]
            report = "mine"
            [[report]]
            report = "balance-sheet"
            basis = "accrual"
            """);
        _tool.Write("reedwater/reports/mine.toml", "from = \"sales-by-item\"\nperiod = \"last-3-months\"\ntop = 2\n");
        var finding = JsonDocument.Parse(
            _tool.Run("check", "--book", "reedwater", "--review", "2026-05", "--format", "json").Done().Output).RootElement
            .GetProperty("rows").EnumerateArray().First(row => row.GetProperty("kind").GetString() == "record").GetProperty("key")
            .GetString()!;
        _tool.Run("check", "--book", "reedwater", "--review", "2026-05", "--question", finding, "--note", "Is this yours?").Done();
        var run = _tool.Run("run", "own", "--book", "reedwater");
        Assert.Equal(65, run.Status);
        Assert.Matches(@"profit-loss +NOT PRODUCED: reedwater/groups/own.toml:7:1: There is no account ""9999""", run.Output);
        var cover = File.ReadAllText(_tool.PathOf("reedwater/out/own/2026-05/own.txt"));
        Assert.Matches(@"(?s)Ours\nMay 2026\nIn ZAR\nOne.\nTwo.\n.*profit-loss +Not produced.*\nQuestions\n.*Is this yours\?", cover);
        Assert.Contains("Sales by item\nQuarter 1 of fiscal year 2027 (1 March to 31 May 2026)\nCash basis", cover);
        Assert.Contains("As of 31 May 2026\nAccrual basis", cover);

        // What a kept report says of its basis and its days counts more than what the group says.
        Replace("reedwater/reports/mine.toml", "top = 2", "top = 2\nbasis = \"accrual\"");
        _tool.Run("run", "own", "--book", "reedwater");
        Assert.Contains(
            "Sales by item\nQuarter 1 of fiscal year 2027 (1 March to 31 May 2026)\nAccrual basis",
            File.ReadAllText(_tool.PathOf("reedwater/out/own/2026-05/mine.txt")));

        // A report that does not move on is told every time; lists tell where a report was run last.
        Replace("reedwater/reports/mine.toml", "last-3-months", "2026-03");
        Assert.Matches(@"mine +asked otherwise than the last time", _tool.Run("run", "own", "--book", "reedwater").Output);
        Assert.Matches(@"mine +as the last time, always 2026-03", _tool.Run("run", "own", "--book", "reedwater").Output);
        Assert.Matches(
            @"Kept in reports/mine.toml, from sales-by-item; always 2026-03.\nIn own.\nLast run in own 2026-06-30.",
            _tool.Run("reports", "mine", "--book", "reedwater").Done().Output);
        Assert.StartsWith("Lately\n  2026-06-30  vlei run own\n", _tool.Run("show", "--book", "reedwater").Done().Output);

        // Where nothing can be made, what was there stays.
        var sums = SumsOf(_tool.PathOf("reedwater/out/own"));
        _tool.Write("reedwater/groups/own.toml", "[[report]]\nreport = \"profit-loss\"\nonly = \"account=9999\"\n");
        Assert.Contains("Nothing was written", _tool.Run("run", "own", "--book", "reedwater").Output);
        Assert.Equal(sums, SumsOf(_tool.PathOf("reedwater/out/own")));
    }

    [Fact]
    public void What_a_person_put_there_or_changed_is_kept()
    {
        _tool.Run("run", "month-end", "--book", "reedwater").Done();
        var made = File.ReadAllText(Produced("cash-flow.txt"));
        File.AppendAllText(Produced("cash-flow.txt"), "\nChecked by hand.\n");
        _tool.Write("reedwater/out/month-end/2026-05/letters/to-the-owner.txt", "Dear owner");
        File.Delete(Produced("balance-sheet.txt"));
        var again = _tool.Run("run", "month-end", "--book", "reedwater").Done();
        Assert.Equal(
            "reedwater/out/month-end/2026-05/cash-flow.txt was edited; what it said is in cash-flow.edited.txt.\n", again.Messages);
        Assert.Equal(made, File.ReadAllText(Produced("cash-flow.txt")));
        Assert.EndsWith("Checked by hand.\n", File.ReadAllText(Produced("cash-flow.edited.txt")));
        Assert.Equal("Dear owner", File.ReadAllText(Produced("letters/to-the-owner.txt")));
        Assert.True(File.Exists(Produced("balance-sheet.txt")));
        Assert.Empty(_tool.Run("run", "month-end", "--book", "reedwater").Done().Messages);
        Assert.True(File.Exists(Produced("cash-flow.edited.txt")));

        // Files that say the same already are left as they are; where one does not, all are of this run.
        var then = new DateTime(2026, 6, 1, 12, 0, 0, DateTimeKind.Utc);
        File.SetLastWriteTimeUtc(Produced("cash-flow.txt"), then);
        _tool.Run("run", "month-end", "--book", "reedwater").Done();
        Assert.Equal(then, File.GetLastWriteTimeUtc(Produced("cash-flow.txt")));
        File.Delete(Produced("balance-sheet.txt"));
        _tool.Run("run", "month-end", "--book", "reedwater").Done();
        Assert.NotEqual(then, File.GetLastWriteTimeUtc(Produced("cash-flow.txt")));
        Assert.True(File.Exists(Produced("balance-sheet.txt")));
    }

    [Fact]
    public void A_run_that_is_killed_leaves_what_was_there_and_runs_at_once_do_not_mix()
    {
        string[] run = ["run", "month-end", "--book", "reedwater", "--period", "2026-05", "--format"];
        _tool.Run([.. run, "text"]).Done();
        var whole = new HashSet<string> { SumsOf(Produced("")) };
        _tool.Run([.. run, "csv"]).Done();
        whole.Add(SumsOf(Produced("")));
        var random = new Random(7);
        for (var round = 0; round < 25; round++)
        {
            using var killed = _tool.Start([], [.. run, round % 2 == 0 ? "text" : "csv"]);
            Thread.Sleep(random.Next(0, 120));
            killed.Kill();
            killed.WaitForExit();
            Assert.Contains(SumsOf(Produced("")), whole);
        }

        // As a run that was killed between taking the old folder away and putting the new one there would leave it.
        Directory.Move(Produced(""), _tool.PathOf("reedwater/out/month-end/.2026-05.old"));
        var four = Enumerable.Range(0, 4).Select(number => _tool.Start([], [.. run, number % 2 == 0 ? "text" : "csv"])).ToList();
        four.ForEach(process => process.WaitForExit());
        Assert.All(four, process => Assert.Equal(0, process.ExitCode));
        four.ForEach(process => process.Dispose());
        Assert.Contains(SumsOf(Produced("")), whole);
        Assert.Equal(
            [".lock", "2026-05"], Directory.GetFileSystemEntries(_tool.PathOf("reedwater/out/month-end")).Select(Path.GetFileName).Order());
    }

    [Fact]
    public void Groups_are_made_and_changed_by_commands()
    {
        Outcome Group(params string[] arguments) => _tool.Run(["group", "--book", "reedwater", .. arguments]);
        _tool.Write("reedwater/groups/q.toml", "# Ours\ntitle = \"Quarter\"\n\n# first\n[[report]]\nreport = \"profit-loss\" # pl\n");
        Group(
            "q", "--add", "profit-loss", "--as", "by-department", "--by", "department", "--only", "contact=C0001", "--only",
            "project=none", "--note", "Who \"earned\" it?").Done();
        Group("q", "--add", "top-customers", "--top", "5").Done();
        Assert.Equal(
            "# Ours\ntitle = \"Quarter\"\n\n# first\n[[report]]\nreport = \"profit-loss\" # pl\n\n[[report]]\nreport = "
                + "\"profit-loss\"\nname = \"by-department\"\nnote = \"Who \\\"earned\\\" it?\"\nby = \"department\"\nonly = "
                + "[\"contact=C0001\", \"project=none\"]\n\n[[report]]\nreport = \"top-customers\"\ntop = 5\n",
            File.ReadAllText(_tool.PathOf("reedwater/groups/q.toml")));
        Assert.Equal(
            "Quarter, for last-month\n  profit-loss    profit-loss\n  by-department  profit-loss --by department --only contact=C0001 "
                + "--only project=none\n                 Who \"earned\" it?\n  top-customers  top-customers --top 5\n",
            Group("q").Done().Output);
        Group("q", "--drop", "by-department").Done();
        Assert.Equal(
            "# Ours\ntitle = \"Quarter\"\n\n# first\n[[report]]\nreport = \"profit-loss\" # pl\n\n[[report]]\nreport = "
                + "\"top-customers\"\ntop = 5\n", File.ReadAllText(_tool.PathOf("reedwater/groups/q.toml")));
        Assert.Contains("\nq          Quarter, for last-month: profit-loss, top-customers\n", Group().Done().Output);
        foreach (var (message, arguments) in new (string, string[])[]
        {
            ("q.toml:12:1: reedwater/groups/q.toml has two reports under the name profit-loss.", ["q", "--add", "profit-loss"]),
            ("--as-of does not apply to profit-loss.", ["q", "--add", "profit-loss", "--as", "x", "--as-of", "today"]),
            ("There is no report profit-los. Did you mean profit-loss?", ["q", "--add", "profit-los"]),
            ("The group has no report by-month. It has profit-loss and top-customers.", ["q", "--drop", "by-month"]),
            ("There is no group moth-end. Did you mean month-end?", ["moth-end"]),
            ("--by is of a report that is added.", ["q", "--by", "month"]),
            ("--add and --remove do not go together.", ["q", "--add", "profit-loss", "--remove"]),
            ("It is not said which group --remove is for.", ["--remove"]),
            ("\"../q\" is no name for a group.", ["../q", "--add", "profit-loss"]),
        })
        {
            Assert.Contains(message, Group(arguments).Messages.Replace("\n      ", " ", StringComparison.Ordinal));
        }

        Group("q", "--remove").Done();
        Assert.False(File.Exists(_tool.PathOf("reedwater/groups/q.toml")));
    }

    [Theory]
    [InlineData("vlei run mon", "month-end")]
    [InlineData("vlei group mon", "month-end")]
    [InlineData("vlei show reb", "rebate")]
    [InlineData("vlei save reb", "rebate")]
    [InlineData("vlei show lines --select sh", "shop-goods")]
    [InlineData("vlei run month-end --format m", "md")]
    public void Names_are_completed(string line, string name) => Assert.Contains(
        name, _tool.Run([("VLEI_BOOK", "reedwater")], $"[suggest:{line.Length}]", line).Done().Output.Split('\n'));

    [Fact]
    public void A_group_of_a_library_is_run_in_each_book_and_changed_where_it_is()
    {
        _tool.Run("init", "other", "--name", "Other", "--currency", "ZAR").Done();
        File.AppendAllText(_tool.PathOf("other/book.toml"), "library = \"../reedwater\"\nclock = 2026-06-30\n");
        _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n4000,Sales,income\n");
        _tool.Write("set/documents.csv", "id,kind,date\nS,cash-sale,2026-05-05\n");
        _tool.Write("set/lines.csv", "document,account,amount\nS,1000,500\nS,4000,-500\n");
        _tool.Run("import", "set", "--book", "other").Done();
        var run = _tool.Run("run", "month-end", "--book", "other").Done();
        Assert.Contains("The records end on 2026-05-05, before the period does.", run.Output);
        Assert.Contains("other/out/month-end/2026-05", run.Output);
        Assert.False(Directory.Exists(_tool.PathOf("reedwater/out")));
        Assert.Contains(
            "The group month-end is not the book's own: other/../reedwater/groups/month-end.toml. Change that file.",
            _tool.Run("group", "month-end", "--drop", "cash-flow", "--book", "other").Messages.Replace(
                "\n      ", " ", StringComparison.Ordinal));

        // An account that this book does not have is named, with the report of the group that asks for it.
        Replace("reedwater/groups/month-end.toml", "account=1000", "account=1010");
        run = _tool.Run("run", "month-end", "--book", "other");
        Assert.Equal(65, run.Status);
        Assert.Matches(
            @"bank-account +NOT PRODUCED: other/\.\./reedwater/groups/month-end\.toml:\d+:1: There is no account .1010.", run.Output);
    }

    [Theory]
    [InlineData("title = \"x\"\n", ": the group has no report.")]
    [InlineData("[[report]]\nname = \"x\"\n", ":1:1: it is not said which report.")]
    [InlineData("[[report]]\nreport = \"profit-loss\"\nname = \"G\"\n",
        ":1:1: the report has the name of the group, whose file has all reports.")]
    [InlineData("[report]\nreport = \"x\"\n", ":1:1: there is no table report. Write a report as [[report]], a schedule as [[schedule]].")]
    [InlineData("[[report]]\nreport = \"profit-loss\"\nbassis = \"cash\"\n", ":3:1: there is no key bassis. Did you mean basis?")]
    [InlineData("[[report]]\nreport = \"profit-loss\"\nname = \"../../x\"\n", ":1:1: \"../../x\" is no name for a report.")]
    [InlineData("to = \"owner\"\n[[report]]\nreport = \"profit-loss\"\n", ":1:6: \"owner\" is no address.")]
    [InlineData("formats = \"pages\"\n[[report]]\nreport = \"profit-loss\"\n", " does not take \"pages\".")]
    [InlineData("period = \"lst-month\"\n[[report]]\nreport = \"profit-loss\"\n",
        ": \"lst-month\" is not a period. Did you mean last-month?")]
    public void A_group_that_is_not_as_it_should_be_is_told_with_its_place(string text, string message)
    {
        _tool.Write("reedwater/groups/g.toml", text);
        var outcome = _tool.Run("run", "g", "--book", "reedwater");
        Assert.Contains($"reedwater/groups/g.toml{message}", outcome.Messages.Replace("\n      ", " ", StringComparison.Ordinal));
        Assert.True(outcome.Status is 65 or 2, $"{outcome.Status}");
        Assert.False(Directory.Exists(_tool.PathOf("reedwater/out")));
        Assert.Contains("g.toml", _tool.Run("reports", "--book", "reedwater").Messages + "g.toml");
    }

    public void Dispose() => _tool.Dispose();

    private string Produced(string name) => _tool.PathOf($"reedwater/out/month-end/2026-05/{name}".TrimEnd('/'));

    private static JsonElement Json(string path) => JsonDocument.Parse(File.ReadAllText(path)).RootElement;

    private decimal Figure(string report, string row) => Json(Produced($".run/{report}.json")).GetProperty("rows").EnumerateArray()
        .First(known => known.GetProperty("key").GetString() == row).GetProperty("cells")[0].GetDecimal();

    private void Replace(string name, string from, string to) =>
        File.WriteAllText(_tool.PathOf(name), File.ReadAllText(_tool.PathOf(name)).Replace(from, to, StringComparison.Ordinal));

    // The demo's records again, with another amount on one bill of May.
    private void ImportBill(string from, string to)
    {
        var path = _tool.PathOf("reedwater/records/lines.csv");
        File.WriteAllLines(
            path, File.ReadAllLines(path).Select(
                line => line.StartsWith("BILL-00585,", StringComparison.Ordinal) ? line.Replace(from, to, StringComparison.Ordinal)
                    : line));
        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
    }

    // What is in a folder, by the names and the sums of its files.
    private static string SumsOf(string folder)
    {
        var sums = new StringBuilder();
        foreach (var path in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal))
        {
            sums.Append(null, $"{Path.GetRelativePath(folder, path)} {Convert.ToHexString(SHA256.HashData(File.ReadAllBytes(path)))}\n");
        }

        return sums.ToString();
    }
}
