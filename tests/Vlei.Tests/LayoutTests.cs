namespace Vlei.Tests;

/// <summary>Layouts of one's own: what they show, and what is told of those that make no sense.</summary>
public sealed class LayoutTests : IDisposable
{
    private const string Management = """
        statement = "profit-loss"
        title = "Management view"

        [[row]]
        key = "work"
        label = "Work"
        accounts = ["4010,4020"]
        each = false

        [[row]]
        key = "rest-of-income"
        label = "Hire and shop"
        accounts = ["account.type=income"]
        except = ["4010", "402*"]

        [[row]]
        key = "direct"
        label = "Direct costs"
        accounts = ["account.type=cost-of-sales"]
        each = false

        [[row]]
        key = "margin"
        label = "Margin"
        formula = "work + rest-of-income - direct"

        [[row]]
        key = "margin-percent"
        label = "Margin %"
        formula = "margin / (work + rest-of-income)"
        show = "percent"

        [[row]]
        key = "rest"
        label = "All else"
        rest = true
        each = false
        sign = "debit"

        [[row]]
        key = "net-profit"
        label = "Net profit"
        formula = "margin - rest"

        """;

    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void A_management_view_ties_to_the_standard_one_and_traces()
    {
        _tool.Write("reedwater/layouts/management.toml", Management);
        string[] show =
            ["profit-loss", "--book", "reedwater", "--period", "2026-05", "--layout", "management", "--compare", "prior-year", "--change"];
        Snapshot.Matches("layout-management.txt", _tool.Run(["show", .. show]).Done().Output);
        Assert.Contains(
            "margin-percent,Margin %,total,0,54.5213,70.0660,-15.5447,\n", _tool.Run(["show", .. show, "--format", "csv"]).Done().Output);
        Assert.Contains(
            "Checked: The records add up", _tool.Run(["trace", .. show, "--row", "All else", "--column", "2025-05"]).Done().Output);
        Assert.Equal(
            "vlei: Margin % is worked out from other rows.\n      Trace margin, work or rest-of-income.\n",
            _tool.Run(["trace", .. show, "--row", "margin-percent", "--column", "2025-05"]).Messages);
    }

    [Fact]
    public void A_balance_sheet_of_ones_own_ties_and_has_a_current_ratio()
    {
        static string Line(string key, string accounts) =>
            $"[[row]]\nkey = \"{key}\"\nlabel = \"{key}\"\neach = false\naccounts = [\"account.type={accounts}\"]\n";
        _tool.Write("own.toml", $"""
            statement = "balance-sheet"
            {Line("current-assets", "bank,cash,receivable,inventory,current-asset")}
            {Line("other-assets", "fixed-asset,non-current-asset")}
            {Line("current-debts", "card,payable,tax,current-liability")}
            {Line("other-debts", "non-current-liability")}
            [[row]]
            key = "current-ratio"
            label = "Current ratio"
            formula = "current-assets / current-debts"
            show = "ratio"
            {Line("owners", "equity")}
            [[row]]
            key = "kept"
            label = "Kept"
            computed = "retained-earnings"
            [[row]]
            key = "made"
            label = "Made"
            computed = "current-earnings"
            [[row]]
            key = "net-worth"
            label = "Net worth"
            formula = "owners + kept + made"
            """);
        string[] show =
            ["show", "balance-sheet", "--book", "reedwater", "--period", "2026-01/2026-05", "--by", "month", "--layout", "own.toml"];
        var text = _tool.Run(show).Done().Output;
        Assert.EndsWith("Checked: Assets = liabilities + equity.\n", text);
        var csv = _tool.Run([.. show, "--format", "csv"]).Done().Output.Split('\n').Select(line => line.Split(','))
            .ToDictionary(line => line[0]);
        for (var month = 4; month < 9; month++)
        {
            decimal Of(string row) => decimal.Parse(csv[row][month], CultureInfo.InvariantCulture);
            Assert.Equal(Math.Round(Of("current-assets") / Of("current-debts"), 4, MidpointRounding.ToEven), Of("current-ratio"));
            Assert.Equal(Of("current-assets") + Of("other-assets") - Of("current-debts") - Of("other-debts"), Of("net-worth"));
        }
    }

    [Fact]
    public void What_rests_on_a_row_that_is_left_out_is_left_out_with_it_and_no_row_rests_on_what_it_stands_under()
    {
        var layout = _tool.Run("layout", "cash-flow").Done().Output;
        _tool.Write(
            "own.toml",
            layout.Replace(
                "\"change-in-money + opening-money\"\nwhole-only = true", "\"change-in-money + opening-money\"", StringComparison.Ordinal));
        var text = _tool.Run(
            "show", "cash-flow", "--book", "reedwater", "--layout", "own.toml", "--only", "project=none", "--period", "2026-05")
                .Done().Output;
        Assert.Contains("Change in money", text);
        Assert.DoesNotContain("Money at the end", text);

        _tool.Write("own.toml", layout.Replace("computed = \"net-profit\"", "formula = \"operating\"", StringComparison.Ordinal));
        var refused = _tool.Run("show", "cash-flow", "--book", "reedwater", "--layout", "own.toml");
        Assert.Equal(65, refused.Status);
        Assert.Contains("there is no row operating above it.", refused.Messages);
    }

    [Theory]
    [InlineData("work - direct - rest", 1, -1, -1)]
    [InlineData("work - (direct - rest)", 1, -1, 1)]
    [InlineData("work + rest - direct", 1, -1, 1)]
    public void A_sum_reads_from_the_left_and_brackets_bind(string formula, int work, int direct, int rest)
    {
        var cells = WithFormula(formula, "money");
        Assert.Equal((work * cells["work"]) + (direct * cells["direct"]) + (rest * cells["rest"]), cells["net-profit"]);
    }

    [Theory]
    [InlineData("work + direct * 2 / work", "ratio")]
    [InlineData("(work - direct) / work", "percent")]
    [InlineData("0.5 * work / rest", "ratio")]
    [InlineData("work / (rest - rest)", "ratio")]
    public void A_quotient_is_worked_out_exactly_and_nothing_is_divided_by_zero(string formula, string show)
    {
        var cells = WithFormula(formula, show);
        var (work, direct, rest) = (cells["work"], cells["direct"], cells["rest"]);
        decimal? expected = formula switch
        {
            "work + direct * 2 / work" => work + (direct * 2 / work),
            "(work - direct) / work" => (work - direct) / work * 100,
            "0.5 * work / rest" => work / rest / 2,
            _ => null,
        };
        Assert.Equal(expected is { } known ? Math.Round(known, 4, MidpointRounding.ToEven) : null, cells["net-profit"]);
    }

    [Theory]
    [InlineData("rest = true\n", "accounts = [\"60*\"]\n", 1, "CHECK FAILED: Every account stands in a line: 6100 Premises, ")]
    [InlineData("\"4010,4020\"", "\"40*\"", 65, "management.toml:10:1: account 4030 Boat rentals is in row work already.")]
    [InlineData("statement = \"profit-loss\"", "statement = \"profit\"", 65,
        "there is no kind of statement profit. Did you mean profit-loss?")]
    [InlineData("margin - rest", "margin - res", 65,
        "management.toml:40:1: there is no row res above it. Did you mean rest or rest-of-income?")]
    [InlineData("margin - rest", "margin -", 65, "\"margin -\" is not a formula.")]
    [InlineData("show = \"percent\"", "show = \"procent\"", 65, "management.toml:31:1: show is not \"procent\". Did you mean percent?")]
    [InlineData("show = \"percent\"\n", "", 65, "money comes from adding rows and taking them away.")]
    [InlineData("each = false", "eech = false", 65, "management.toml:8:1: there is no key eech. Did you mean each?")]
    [InlineData("key = \"margin\"", "key = \"work\"", 65, "there is a row work already.")]
    [InlineData("key = \"margin\"", "key = \"1\"", 65, "\"1\" is no key. Start with a letter")]
    [InlineData("key = \"direct\"", "key = \"direct\"\nunder = \"costs\"", 65, "there is no row costs above it to stand under.")]
    [InlineData("accounts = [\"account.type=cost-of-sales\"]", "", 65, "row direct shows nothing.")]
    [InlineData("account.type=income", "account.tipe=income", 65, "There is no field account.tipe. Did you mean account.type?")]
    [InlineData("account.type=income", "contact=C0001", 65, "contact says nothing about accounts.")]
    [InlineData("sign = \"debit\"", "", 65, "row rest has accounts of both natural signs.")]
    [InlineData("rest = true", "computed = \"cash\"", 65, "a profit-loss has no cash.")]
    [InlineData("[[row]]\nkey = \"direct\"", "[row]\nkey = \"direct\"", 65, "management.toml:16:1: The key `row` is already defined")]
    [InlineData("rest = true", "rest = true\naccounts = [\"60*\"]", 65,
        "row rest has accounts and rest. A row shows one thing; make two rows of it.")]
    [InlineData("formula = \"margin - rest\"", "formula = \"margin - rest\"\ncomputed = \"net-profit\"", 65,
        "row net-profit has a formula and computed.")]
    [InlineData("key = \"direct\"", "key = \"direct\"\nunder = \"work\"", 65, "row work has accounts and other rows under it.")]
    [InlineData("label = \"Direct costs\"\naccounts = [\"account.type=cost-of-sales\"]", "label = \"Direct costs\"\nrest = true", 65,
        "there is a rest already.")]
    [InlineData("rest = true", "rest = true\nexcept = [\"60*\"]", 65, "except leaves out accounts, and the row names none.")]
    [InlineData("sign = \"debit\"", "sign = \"debit\"\nshow = \"ratio\"", 65, "show = \"ratio\" is for formulas.")]
    [InlineData("label = \"Margin\"", "label = Margin", 65, "management.toml:24:9: Unexpected token `Margin` for a value")]
    public void What_makes_no_sense_is_told_with_its_place(string sound, string broken, int status, string message)
    {
        Assert.Contains(sound, Management);
        _tool.Write("reedwater/layouts/management.toml", Management.Replace(sound, broken, StringComparison.Ordinal));
        var shown = _tool.Run("show", "profit-loss", "--book", "reedwater", "--period", "2026-05", "--layout", "management");
        Assert.Equal(status, shown.Status);
        Assert.Contains(message, (shown.Output + shown.Messages).Replace("\n      ", " ", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("profit-loss", "profit-loss", "--period 2026-05")]
    [InlineData("balance-sheet", "balance-sheet", "--as-of 2026-05")]
    [InlineData("cash-flow", "cash-flow", "--period 2026-05")]
    [InlineData("cash-flow-direct", "cash-flow", "--period 2026-05 --method direct")]
    [InlineData("equity-movements", "equity-movements", "--period 2026-05")]
    [InlineData("working-capital", "working-capital", "--period 2026-05")]
    public void A_standard_layout_is_a_file_like_any_other(string layout, string report, string options)
    {
        _tool.Write("own.toml", _tool.Run("layout", layout).Done().Output);
        string[] show = ["show", report, "--book", "reedwater", .. options.Split(' ')];
        Assert.Equal(_tool.Run(show).Done().Output, _tool.Run([.. show, "--layout", "own.toml"]).Done().Output);
    }

    public void Dispose() => _tool.Dispose();

    // The management view with another last row, and what its rows come to.
    private Dictionary<string, decimal?> WithFormula(string formula, string show)
    {
        _tool.Write("own.toml", Management.Replace("\"margin - rest\"", $"\"{formula}\"\nshow = \"{show}\"", StringComparison.Ordinal));
        return _tool.Run(
            "show", "profit-loss", "--book", "reedwater", "--period", "2026-05", "--layout", "own.toml", "--format", "csv").Output
            .Split('\n').Skip(1).Select(line => line.Split(',')).Where(line => line.Length > 4)
            .ToDictionary(
                line => line[0], line => line[4].Length == 0 ? (decimal?)null : decimal.Parse(line[4], CultureInfo.InvariantCulture));
    }
}
