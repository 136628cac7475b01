using System.Text;
using System.Text.RegularExpressions;

namespace Vlei.Tests;

/// <summary>The program as it is typed: help, wrong words, wrong places, and how text looks where.</summary>
public sealed partial class CommandLineTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData(2, "vlei: There is no command shwo. Did you mean show?", "shwo")]
    [InlineData(
        2, "vlei: vlei show has no option --perod. Did you mean --period?", "show", "profit-loss", "--perod", "2026")]
    [InlineData(2, "vlei: vlei import has no option --boook. Did you mean --book?", "import", "set", "--boook", "book")]
    [InlineData(2, "vlei: vlei run has no option --priod. Did you mean --period?", "run", "month-end", "--priod=2026-05")]
    [InlineData(2, "vlei: vlei import has no option -b.", "import", "set", "-b", "book")]
    [InlineData(66, "vlei: --set is not there.", "import", "--", "--set")]
    [InlineData(
        2,
        "vlei: \"project\" does not say which field. Write the field, an equals sign and its values: contact=C-12, account=4000/4999, "
            + "kind=invoice.",
        "show", "profit-loss", "--only", "project")]
    [InlineData(2, "vlei: There is no field custmer. There are account,", "show", "profit-loss", "--only", "custmer=C0001")]
    [InlineData(2, "vlei: There is no field contct. Did you mean contact?", "show", "profit-loss", "--only", "contct=C0001")]
    [InlineData(66, "vlei: There is no contact \"C00011\". Did you mean ", "show", "profit-loss", "--only", "contact=C00011")]
    [InlineData(66, "vlei: No account fits \"9*\".", "show", "profit-loss", "--except", "account=9*")]
    [InlineData(66, "vlei: No record has a tag seson. Did you mean season?", "show", "profit-loss", "--by", "tag.seson")]
    [InlineData(2, "vlei: \"4000,,5000\" has an empty place", "show", "profit-loss", "--only", "account=4000,,5000")]
    [InlineData(2, "vlei: The quote in \"Oak is not closed.", "show", "profit-loss", "--only", "contact=\"Oak")]
    [InlineData(
        2, "vlei: A budget plans income and costs month by month, so only a profit and loss compares with it.", "show",
        "balance-sheet", "--compare", "budget")]
    [InlineData(
        2, "vlei: A budget is by account, project and department; of other fields it says nothing.", "show",
        "profit-loss", "--compare", "budget", "--only", "contact=C0001")]
    [InlineData(2, "vlei: There is one budget for each month.", "show", "profit-loss", "--compare", "budget:2")]
    [InlineData(66, "vlei: There is no layout mangement.", "show", "profit-loss", "--layout", "mangement")]
    [InlineData(
        2, "vlei: The layout cash-flow.toml is for a cash-flow, not for a profit-loss.", "show", "profit-loss",
        "--layout", "cash-flow")]
    [InlineData(66, "vlei: There is no revision 2. Imports are numbered from 1 to 1; vlei changes lists them.", "show", "profit-loss",
        "--revision", "2")]
    [InlineData(2, "vlei: \"may\" is no revision.", "changes", "--since", "may")]
    [InlineData(2, "vlei: It is not said since when the report is to have moved. Add --since", "changes", "profit-loss")]
    [InlineData(2, "vlei: --by is for reports, and none is named. Name a report", "changes", "--since", "1", "--by", "month")]
    [InlineData(66, "vlei: The report has no row 4011. Did you mean ", "trace", "profit-loss", "--row", "4011")]
    [InlineData(66, "vlei: Income is a heading, without figures.", "trace", "profit-loss", "--row", "Income")]
    [InlineData(
        2, "vlei: The report has several columns. Add --column 2026-03, 2026-04, 2026-05, 2026-06 or total.", "trace",
        "profit-loss", "--by", "month", "--row", "4010")]
    [InlineData(66, "vlei: The report has no column 2026-07. Did you mean 2026-0", "trace", "profit-loss", "--by", "month", "--row",
        "4010", "--column", "2026-07")]
    [InlineData(66, "vlei: June 2026 is not closed. vlei close lists the periods that are.", "close", "2026-06", "--reopen")]
    [InlineData(
        2, "vlei: The limits are out of order: 15 comes after 30. Write them growing: 15,30.", "show", "receivables-aging", "--limits",
        "30,15")]
    [InlineData(2, "vlei: \"x\" is no number of days.", "show", "payables-aging", "--limits", "30,x")]
    [InlineData(66, "vlei: --sort: the report has no column totel. Did you mean total?", "show", "receivables-aging", "--sort", "-totel")]
    [InlineData(2, "vlei: \"name,\" has an empty place where a column should be.", "show", "receivables-aging", "--sort", "name,")]
    [InlineData(2, "vlei: --top does not take \"0\". It takes a whole number: 1 or more.", "show", "customer-balances", "--top", "0")]
    [InlineData(
        2,
        "vlei: total is a number, and \"many\" says none. Write a number, a range or a comparison: total=100, total=100/500, "
            + "\"total=>=100\".",
        "show", "receivables-aging", "--only", "total=many")]
    [InlineData(2, "vlei: open-items have no field \"opne\". Did you mean open?", "show", "open-payables", "--only", "opne=100..")]
    [InlineData(66, "vlei: There is no contact \"C00O1\". Did you mean C0001", "show", "customer-ledger", "--only", "contact=C00O1")]
    [InlineData(
        2,
        "vlei: --share income does not apply to what is open. Take --share row, the share of the row's total, or --share column, "
            + "the share of the column's.",
        "show", "payables-aging", "--share", "income")]
    [InlineData(2, "vlei: What is open has no budget. Compare with prior-period, prior-year or a day.", "show", "payables-aging",
        "--compare", "budget")]
    [InlineData(2, "vlei: --change needs something to compare with. Add --compare prior-period, or a day.", "show", "payables-aging",
        "--change")]
    [InlineData(2, "vlei: Money to come is by week or by month. Take --by week, or --by month.", "show", "money-to-come", "--by",
        "contact")]
    [InlineData(2, "vlei: --money does not take \"1,000\".", "show", "bills-to-pay", "--money", "1,000")]
    [InlineData(2,
        "vlei: Collection has columns of time. Take --by month, or another unit; vlei show days-to-pay has a row per customer.", "show",
        "collection", "--by", "contact")]
    [InlineData(2, "vlei: Average days late is worked out from other rows. Trace charged, settled, receivables or overdue.", "trace",
        "collection", "--row", "days-late")]
    [InlineData(2, "vlei: Days to pay is an average over documents. Trace settled: those are the documents.", "trace", "days-to-pay",
        "--row", "total", "--column", "days-to-pay")]
    [InlineData(2, "vlei: out/ is a folder, and this is one report.", "show", "receivables-aging", "--to", "out/")]
    [InlineData(2, "vlei: --detail does not apply to customer-balances.", "show", "customer-balances", "--detail")]
    [InlineData(66, "vlei: There is no report receivable-aging. Did you mean receivables-aging", "show", "receivable-aging")]
    [InlineData(66, "vlei: There is no report profit-los. Did you mean profit-loss?", "show", "profit-los")]
    [InlineData(2, "vlei: There is no field mounth. Did you mean month?", "show", "profit-loss", "--by", "mounth")]
    [InlineData(
        2,
        "vlei: There is no field fortnight. There are account, account.name, account.type, account.cash-flow, contact, contact.name, "
            + "project, project.name, department, department.name, item, item.name, kind, tag.NAME, week, month, quarter, year, "
            + "fiscal-quarter and fiscal-year, and what vlei fields postings lists.",
        "show", "profit-loss", "--by", "fortnight")]
    [InlineData(
        2, "vlei: --basis does not take \"cahs\". Did you mean cash?", "show", "profit-loss", "--basis", "cahs")]
    [InlineData(
        2, "vlei: --share does not take \"asets\". Did you mean assets?", "show", "profit-loss", "--share",
        "asets")]
    [InlineData(
        2, "vlei: --share assets does not apply to profit-loss, which has no such total. It takes income, column, row or group.", "show",
        "profit-loss", "--share", "assets")]
    [InlineData(
        2,
        "vlei: --share row is a share of the row's total across columns, and balances of different days do not add up. Take "
            + "--share assets, or spread the columns over a field: --by project.",
        "show", "balance-sheet", "--share", "row")]
    [InlineData(
        2,
        "vlei: --as-of does not apply to profit-loss. It covers days, not a moment: write --period.",
        "show", "profit-loss", "--as-of", "2026-03")]
    [InlineData(
        2, "vlei: --period and --as-of both say when. Give one of them; with --by, --period.", "show",
        "balance-sheet", "--period", "2026", "--as-of", "2026-03")]
    [InlineData(
        2,
        "vlei: --share row is a share of the row's total across columns, and there is only one column. Add --by month, or another unit.",
        "show", "profit-loss", "--share", "row")]
    [InlineData(
        2, "vlei: --change needs something to compare with. Add --compare prior-period or --compare prior-year.",
        "show", "profit-loss", "--change")]
    [InlineData(
        2, "vlei: \"prior-yaer\" is nothing to compare with. Did you mean prior-year?", "show", "profit-loss",
        "--compare", "prior-yaer")]
    [InlineData(
        2,
        "vlei: \"0\" is not how many periods to compare with. Write a whole number from 1 to 99, as in prior-year:2.",
        "show", "profit-loss", "--compare", "prior-year:0")]
    [InlineData(
        2,
        "vlei: 2024 has 12 columns by month, 2026-Q1 has 3. Compare with a period of the same length, or leave out --by.",
        "show", "profit-loss", "--period", "2026-Q1", "--by", "month", "--compare", "2024")]
    [InlineData(
        2, "vlei: --depth does not take \"-1\". It takes a whole number: 0 for totals alone, 1, 2 …", "show",
        "profit-loss", "--depth", "-1")]
    [InlineData(
        2, "vlei: --format does not take \"jsn\". Did you mean json?", "show", "profit-loss", "--format", "jsn")]
    [InlineData(
        2,
        "vlei: The ending of r.pages says no format. End it in .txt, .csv, .json, .md, .html, .pdf, .xlsx, .ods, .svg or "
            + ".png, or add --format text, csv, json, md, html, pdf, xlsx, ods, svg or png.",
        "show", "profit-loss", "--to", "r.pages")]
    [InlineData(73, "vlei: nowhere/r.csv cannot be written: ", "show", "profit-loss", "--to", "nowhere/r.csv")]
    [InlineData(
        2, "vlei: --clock: \"2026-06-31\" is no day. Write a day as 2026-06-30.", "show", "profit-loss", "--clock",
        "2026-06-31")]
    [InlineData(
        66, "vlei: There is no folder nowhere. Name a folder that vlei init or vlei demo made.", "show",
        "profit-loss", "--book", "nowhere")]
    [InlineData(66, "vlei: No report answers \"xylophone\". vlei reports lists all of them.", "reports", "xylophone")]
    [InlineData(73, "vlei: reedwater is a book already. Choose another folder, or remove that one first.", "demo")]
    [InlineData(2, "vlei: \"ZAX\" is no currency. Did you mean ZAR?", "init", "x", "--name", "X", "--currency", "ZAX")]
    [InlineData(
        2, "vlei: There is no month 13. Write a number from 1 to 12.", "init", "x", "--name", "X", "--currency",
        "ZAR", "--fiscal-year-start", "13")]
    [InlineData(
        2, "vlei: Option '--name' is required. vlei init --help says what it takes.", "init", "x", "--currency",
        "ZAR")]
    [InlineData(
        2, "vlei: Required argument 'REPORT' missing for command: 'trace'. vlei trace --help says what it takes.",
        "trace", "--row", "x")]
    public void What_is_wrong_is_answered(int status, string message, params string[] arguments)
    {
        var outcome = _tool.Run([("VLEI_BOOK", "reedwater")], arguments);
        Assert.Equal((status, ""), (outcome.Status, outcome.Output));
        Assert.StartsWith(message, outcome.Messages.Replace("\n      ", " ", StringComparison.Ordinal).TrimEnd());
    }

    [Theory]
    [InlineData("name = \"X\"\ncurency = \"ZAR\"\n", "book.toml:2:1: there is no key curency. Did you mean currency?")]
    [InlineData("name = \"X\"\ncurrency = \"ZA\"\n", "book.toml:2:12: \"ZA\" is no currency. Did you mean ZAR?")]
    [InlineData("name = \"X\"\n", "book.toml: the key currency is missing. Add a line: currency = \"…\".")]
    [InlineData(
        "name = \"X\"\ncurrency = \"ZAR\"\nfiscal-year-start = 13\n",
        "book.toml:3:21: fiscal-year-start is no month. Write a number from 1 to 12.")]
    [InlineData(
        "name = \"X\"\ncurrency = \"ZAR\"\nbasis = \"money\"\n",
        "book.toml:3:9: there is no such basis. Write \"accrual\" or \"cash\".")]
    [InlineData("name = \"X\"\ncurrency = \"ZAR\"\nclock = 2026-02-30\n", "book.toml:3:9: ")]
    [InlineData("name = \n", "book.toml:1:")]
    [InlineData(
        "[book]\nname = \"X\"\n",
        "book.toml:1:1: there is no table [book]. Expected name, currency, fiscal-year-start, basis, clock, language, remittance, "
            + "settle, library and store, and below them [look].")]
    public void A_wrong_book_file_is_answered_with_its_place(string text, string message)
    {
        _tool.Write("reedwater/book.toml", text);
        var outcome = _tool.Run("show", "profit-loss", "--book", "reedwater");
        Assert.Equal(78, outcome.Status);
        Assert.StartsWith(
            $"vlei: reedwater/{message}",
            outcome.Messages.Replace("\n      ", " ", StringComparison.Ordinal).TrimEnd());
    }

    [Fact]
    public void The_book_and_today_are_found_in_their_order()
    {
        string Title(params (string, string)[] variables) =>
            _tool.Run([.. variables, ("VLEI_BOOK", "reedwater")], "show", "profit-loss", "--period", "last-month")
                .Done().Output.Split('\n')[2];
        Assert.Equal("May 2026", Title());
        Assert.Equal("January 2025", Title(("VLEI_CLOCK", "2025-02-11")));
        Assert.Equal(
            "March 2024",
            _tool.Run(
                [("VLEI_CLOCK", "2025-02-11")], "show", "profit-loss", "--book", "reedwater", "--clock", "2024-04-01", "--period",
                "last-month").Done().Output.Split('\n')[2]);
        Directory.CreateDirectory(_tool.PathOf("reedwater/out/deep"));
        var inside = new System.Diagnostics.ProcessStartInfo(
            Tool.Binary, ["show", "profit-loss"])
        { WorkingDirectory = _tool.PathOf("reedwater/out/deep"), RedirectStandardOutput = true };
        inside.Environment.Remove("VLEI_BOOK");
        using var process = System.Diagnostics.Process.Start(inside)!;
        Assert.StartsWith("Reedwater Boatworks\n", process.StandardOutput.ReadToEnd());
    }

    [Theory]
    [InlineData(60)]
    [InlineData(80)]
    [InlineData(132)]
    public void Text_never_passes_the_width_and_nothing_is_cut(int width)
    {
        string[] show =
            ["show", "profit-loss", "--book", "reedwater", "--period", "fy2026", "--by", "month", "--compare", "prior-year", "--change"];
        var narrow = _tool.Run([("COLUMNS", $"{width}")], show).Done().Output;
        Assert.All(narrow.Split('\n').Skip(4).SkipLast(2), line => Assert.True(line.Length <= width, line));
        var wide = _tool.Run(show).Done().Output;
        Assert.Equal(Figures(wide), Figures(narrow));

        // A figure stands again where what is said about it goes on.
        static List<string> Figures(string text) =>
            [.. FigureText().Matches(text).Select(m => m.Value).Distinct().Order(StringComparer.Ordinal)];
    }

    [Fact]
    public void Where_the_terminal_is_not_utf8_all_is_plain_ascii()
    {
        _tool.Write(
            "reedwater/book.toml",
            File.ReadAllText(_tool.PathOf("reedwater/book.toml")).Replace("Reedwater", "Réedwater"));
        var plain = _tool.Run([("LANG", "C")], "show", "profit-loss", "--book", "reedwater", "--compare", "prior-year", "--change")
            .Done().Output;
        Assert.True(Ascii.IsValid(plain));
        Assert.StartsWith("R?edwater Boatworks\n", plain);
        Assert.Contains("---", plain);
        Assert.Contains("===", plain);
        Assert.Contains(" v ", plain);
    }

    [Fact]
    public void Records_cannot_steer_the_terminal()
    {
        using var tool = new Tool().WithRecords(("accounts.csv", "Sales of boats", "Sales \e[31mof\tboats"));
        tool.Run("import", "set", "--book", "book").Done();
        var text = tool.Run("show", "profit-loss", "--book", "book", "--period", "2026-03", "--title", "P\e[2JL").Done().Output;
        Assert.DoesNotContain('\e', text);
        Assert.Contains("Sales  [31mof boats", text);
    }

    [Fact]
    public void A_file_is_written_as_a_whole_in_the_format_of_its_ending()
    {
        foreach (var (name, start) in new[] { ("r.txt", "Reedwater"), ("r.csv", "row,label,kind,level,"),
            ("r.json", "{\n  \"schema\": \"vlei/report/1\"") })
        {
            var outcome = _tool.Run("show", "profit-loss", "--book", "reedwater", "--to", name).Done();
            Assert.Equal("", outcome.Output);
            Assert.StartsWith(start, File.ReadAllText(_tool.PathOf(name)));
        }

        Assert.Empty(Directory.EnumerateFiles(_tool.Folder, "*.tmp"));
    }

    [Fact]
    public void Output_that_cannot_be_written_is_no_success()
    {
        var full = _tool.Run("show", "profit-loss", "--book", "reedwater", "--to", "/dev/full");
        Assert.Equal((2, ""), (full.Status, full.Output));
        full = _tool.Run("show", "profit-loss", "--book", "reedwater", "--format", "csv", "--to", "/dev/full");
        Assert.Equal(73, full.Status);
        Assert.Contains("vlei: /dev/full cannot be written: ", full.Messages);
        Assert.Equal(
            "73\n", Shell($"{Tool.Binary} show profit-loss --book reedwater > /dev/full 2>/dev/null; echo $?"));
        Assert.Equal(
            "Reedwater Boatworks\n",
            Shell($"{Tool.Binary} show profit-loss --book reedwater --by week --period all | head -n 1"));
        Assert.Contains("Usage:", _tool.Run().Done().Output);

        string Shell(string command)
        {
            using var process = System.Diagnostics.Process.Start(new System.Diagnostics.ProcessStartInfo(
                "sh", ["-c", command])
            {
                WorkingDirectory = _tool.Folder, RedirectStandardOutput = true,
            })!;
            return process.StandardOutput.ReadToEnd();
        }
    }

    [Fact]
    public void A_book_that_may_not_be_written_can_still_be_read()
    {
        var report = _tool.Run("show", "profit-loss", "--book", "reedwater").Done().Output;
        File.SetUnixFileMode(
            _tool.PathOf("reedwater"),
            UnixFileMode.UserRead | UnixFileMode.UserExecute | UnixFileMode.OtherRead | UnixFileMode.OtherExecute);
        File.SetUnixFileMode(_tool.PathOf("reedwater/records.db"), UnixFileMode.UserRead | UnixFileMode.OtherRead);
        try
        {
            Assert.Equal(report, _tool.Run("show", "profit-loss", "--book", "reedwater").Done().Output);
        }
        finally
        {
            File.SetUnixFileMode(
                _tool.PathOf("reedwater"), UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        }
    }

    [Theory]
    [InlineData("vlei sh", "show")]
    [InlineData("vlei show pro", "profit-loss")]
    [InlineData("vlei show profit-loss --by ", "fiscal-quarter")]
    [InlineData("vlei show profit-loss --period last-f", "last-fiscal-year")]
    [InlineData("vlei show profit-loss --com", "--compare")]
    [InlineData("vlei completion ", "fish")]
    [InlineData("vlei show profit-loss --book reedwater --only contact=C00", "contact=C0001")]
    [InlineData("vlei show sales-by-item --columns date,am", "date,amount")]
    public void The_shell_is_told_what_could_follow(string typed, string word)
    {
        var words = _tool.Run($"[suggest:{typed.Length}]", typed).Done().Output.Split('\n');
        Assert.Contains(word, words);
    }

    [Theory]
    [InlineData("bash")]
    [InlineData("zsh")]
    [InlineData("fish")]
    public void There_is_completion_for_each_shell(string shell) =>
        Assert.Contains("[suggest:", _tool.Run("completion", shell).Done().Output);

    [Fact]
    public void The_catalogue_lists_reports_with_their_question_and_finds_them_by_words()
    {
        var all = _tool.Run("reports").Done().Output;
        Assert.Contains("What did we earn, what did it cost, what is left?", all);
        Assert.Contains("profit-loss", _tool.Run("reports", "what", "did", "we", "earn").Done().Output.Split('\n')[0]);
        Assert.DoesNotContain("balance-sheet", _tool.Run("reports", "margin").Done().Output);
    }

    public void Dispose() => _tool.Dispose();

    [GeneratedRegex(@"-?[\d,]+\.\d+")]
    private static partial Regex FigureText();
}
