using System.Text.Json;

namespace Vlei.Tests;

/// <summary>The demo book, and its reports as a whole, in every format.</summary>
public sealed class DemoTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("profit-loss.txt", "--period last-month")]
    [InlineData(
        "profit-loss-compared.txt",
        "--period fiscal-year-to-date --compare prior-year:2 --change --share income")]
    [InlineData(
        "profit-loss-cash-quarters.txt", "--period fy2026 --by fiscal-quarter --basis cash --share row --depth 1")]
    [InlineData(
        "profit-loss-weeks.csv", "--period 2026-05-10/2026-06-09 --by week --compare prior-period --format csv")]
    [InlineData("profit-loss.json", "--period 2026-03 --compare prior-year --change --share income --format json")]
    [InlineData(
        "balance-sheet.txt", "--as-of last-month --compare prior-year --change --share assets", "balance-sheet")]
    [InlineData("balance-sheet-months.csv", "--period fy2026 --by month --basis cash --format csv", "balance-sheet")]
    [InlineData("balance-sheet.json", "--as-of fy2026 --compare prior-period --depth 1 --format json", "balance-sheet")]
    [InlineData("cash-flow.txt", "--period fy2026 --compare prior-year --change", "cash-flow")]
    [InlineData("cash-flow-months.csv", "--period last-3-months --by month --basis cash --format csv", "cash-flow")]
    [InlineData("trial-balance.txt", "--period last-month", "trial-balance")]
    [InlineData(
        "trial-balance.json", "--period 2025-11-20/2026-03-10 --basis cash --zeros --format json", "trial-balance")]
    [InlineData("cash-flow-direct.txt", "--period fy2026 --method direct --by fiscal-quarter --depth 1", "cash-flow")]
    [InlineData("equity-movements.txt", "--period fy2026 --compare prior-year --change", "equity-movements")]
    [InlineData("working-capital.txt", "--period fy2026 --compare prior-year --change", "working-capital")]
    [InlineData("general-ledger.txt", "--period last-month --only account=1020,1030 --basis cash", "general-ledger")]
    [InlineData("general-ledger.json", "--period 2026-05-25/2026-05-31 --only account=1000 --format json", "general-ledger")]
    [InlineData("profit-loss-departments.txt", "--period fy2026 --by department --share row --compare budget --depth 1")]
    [InlineData(
        "profit-loss-narrowed.txt", "--period fy2026 --only project=BOAT-01* --except kind=journal --share group --share column")]
    [InlineData("balance-sheet-in-part.json", "--as-of last-month --only project=none --depth 0 --format json", "balance-sheet")]
    [InlineData("receivables-aging.txt", "--as-of last-month --unapplied", "receivables-aging")]
    [InlineData("receivables-detail.txt", "--as-of last-month --detail --only contact.name=H/M --limits 30,90", "receivables-aging")]
    [InlineData("payables-aging.json", "--as-of 2026-05-20 --age-by document --format json", "payables-aging")]
    [InlineData("receivables-compared.json",
        "--as-of last-month --compare prior-period --change --only total=>9000 --sort -total --format json", "receivables-aging")]
    [InlineData("open-receivables.txt", "--only days-late=>30 --sort contact", "open-receivables")]
    [InlineData("customer-balances.txt", "--period last-month --sort -closing --top 8", "customer-balances")]
    [InlineData("supplier-ledger.txt", "--period last-month --only contact.name=B/F", "supplier-ledger")]
    [InlineData("statement-of-account.txt", "--period last-3-months --only contact.name=Heron*", "statement-of-account")]
    [InlineData("balance-sheet.md", "--as-of last-month --compare prior-year --change --depth 1 --format md", "balance-sheet")]
    [InlineData("rebate.md", "--period fy2026 --top 6 --format md", "rebate")]
    [InlineData("statement-of-account.md", "--period last-month --only contact.name=Heron* --format md", "statement-of-account")]
    [InlineData("money-to-come.txt", "--as-usual --money 12000", "money-to-come")]
    [InlineData("bills-to-pay.txt", "--money 60000", "bills-to-pay")]
    [InlineData("collection.txt", "--period fy2026 --by fiscal-quarter", "collection")]
    [InlineData("days-to-pay.txt", "--period last-12-months --top 6 --sort -days-late", "days-to-pay")]
    [InlineData(
        "profit-loss-totals.csv",
        "--period all --by year --basis cash --depth 0 --zeros --title Totals --format csv")]
    public void Reports_are_as_approved(string snapshot, string options, string report = "profit-loss") =>
        Snapshot.Matches(
        snapshot, _tool.Run(["show", report, "--book", "reedwater", .. options.Split(' ')]).Done().Output);

    [Fact]
    public void The_demo_shows_four_things_to_try_and_they_give_what_it_shows()
    {
        var shown = _tool.Run("demo", "again").Done();
        var blocks = shown.Output.Split("\n$ vlei ").Skip(1).ToList();
        Assert.Equal(4, blocks.Count);
        foreach (var block in blocks)
        {
            var (command, output) = (block[..block.IndexOf('\n')], block[(block.IndexOf('\n') + 2)..]);
            Assert.Equal(_tool.Run(command.Split(' ')).Done().Output.TrimEnd(), output.TrimEnd());
        }
    }

    [Fact]
    public void Json_keeps_to_the_schema_and_adds_up()
    {
        var report = JsonDocument.Parse(_tool.Run(
            "show", "profit-loss", "--book", "reedwater", "--period", "2026-03", "--compare", "prior-year", "--change", "--share",
            "income", "--format", "json").Done().Output).RootElement;
        Assert.Equal(
            ["schema", "report", "title", "book", "currency", "basis", "period", "as_of", "columns", "rows", "checks", "revision"],
            report.EnumerateObject().Select(property => property.Name));
        Assert.Equal("vlei/report/1", report.GetProperty("schema").GetString());
        Assert.Equal(
            ["2026-03", "2025-03", "change(2026-03,2025-03)", "percent-change(2026-03,2025-03)", "share-of-income(2026-03)"],
            report.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("key").GetString()!));
        var rows = report.GetProperty("rows").EnumerateArray().ToDictionary(row => row.GetProperty("key").GetString()!);
        var income = rows.Values.Where(row => row.GetProperty("kind").GetString() == "account"
            && row.GetProperty("key").GetString()!.StartsWith('4')).Sum(row => row.GetProperty("cells")[0].GetDecimal());
        Assert.Equal(rows["total-income"].GetProperty("cells")[0].GetDecimal(), income);
        Assert.Equal("null", rows["income"].GetProperty("cells")[0].GetRawText());
        Assert.Matches(@"^-?\d+\.\d\d$", rows["net-profit"].GetProperty("cells")[0].GetRawText());
        Assert.Matches(@"^-?\d+\.\d{4}$", rows["net-profit"].GetProperty("cells")[3].GetRawText());
    }

    [Fact]
    public void Figures_are_those_that_sql_finds_in_the_records()
    {
        const string Sum =
            "SELECT printf('%.2f', -sum(l.amount) / 100.0) FROM documents d JOIN lines l ON l.document = d.key AND l.added = d.added "
            + "JOIN accounts a ON a.key = l.account AND a.replaced IS NULL JOIN accounts_keys k ON k.key = a.key WHERE d.replaced IS NULL "
            + "AND d.date BETWEEN '2026-02-10' AND '2026-05-20' AND ";
        var csv = _tool.Run("show", "profit-loss", "--book", "reedwater", "--period", "2026-02-10/2026-05-20", "--format", "csv")
            .Done().Output;
        Assert.Contains($"4020,Repairs,account,1,{_tool.Sql("reedwater", Sum + "k.id = '4020'")}\n", csv);
        Assert.Contains(
            $"net-profit,Net profit,total,0,{_tool.Sql("reedwater", Sum + "a.type IN ('income', 'cost-of-sales', 'expense', "
                + "'other-income', 'other-expense')")}\n", csv);
    }

    [Fact]
    public void The_demo_has_what_a_bookkeeper_meets()
    {
        long Count(string sql) => long.Parse(
            _tool.Sql("reedwater", $"SELECT count(*) FROM {sql}"), CultureInfo.InvariantCulture);
        Assert.InRange(Count("documents"), 4_000, 7_000);
        Assert.All(
            new[] { "invoice", "credit-note", "receipt", "cash-sale", "bill", "purchase-return", "payment", "expense", "deposit",
                "transfer", "journal", "opening" },
            kind => Assert.NotEqual(0, Count($"documents WHERE kind = '{kind}'")));
        Assert.Equal(3, Count("departments"));
        Assert.NotEqual(0, Count("documents WHERE tags LIKE '%dispute%'"));
        Assert.NotEqual(0, Count("documents WHERE substr(created_at, 1, 7) > substr(date, 1, 7)"));
        Assert.NotEqual(
            0,
            Count(
                "documents a JOIN documents b ON b.key > a.key AND b.reference = a.reference AND a.kind = 'bill' AND b.kind = 'bill' "
                    + "AND a.contact = b.contact"));
        Assert.NotEqual(
            0,
            Count(
                "(SELECT sum(l.amount) OVER (ORDER BY d.date, d.key) AS held FROM lines l JOIN documents d ON d.key = l.document JOIN "
                    + "accounts_keys k ON k.key = l.account WHERE k.id = '1020') WHERE held < 0"));
    }

    [Fact]
    public void The_generator_gives_the_same_records_every_time_and_others_for_another_seed()
    {
        foreach (var (folder, seed) in new[] { ("one", "5"), ("two", "5"), ("three", "6") })
        {
            _tool.Run("demo", folder, "--record-set", "--documents", "400", "--years", "1", "--seed", seed).Done();
        }

        string Lines(string folder) => File.ReadAllText(_tool.PathOf($"{folder}/lines.csv"));
        Assert.Equal(Lines("one"), Lines("two"));
        Assert.NotEqual(Lines("one"), Lines("three"));
        _tool.Run("init", "book", "--name", "B", "--currency", "ZAR").Done();
        _tool.Run("import", "one", "--book", "book").Done();
        _tool.Run("check", "--book", "book").Done();
    }

    public void Dispose() => _tool.Dispose();
}
