namespace Vlei.Tests;

/// <summary>A book whose records have no settlements, and that asks for them to be computed: oldest first.</summary>
public sealed class SettleTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    public SettleTests()
    {
        Tool.Copy(_tool.PathOf("reedwater/records"), _tool.PathOf("bare"));
        File.Delete(_tool.PathOf("bare/settlements.csv"));
        File.Delete(_tool.PathOf("bare/datapackage.json"));
        _tool.Run("init", "book", "--name", "Bare", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        _tool.Run("import", "bare", "--book", "book").Done();
    }

    [Fact]
    public void What_is_open_and_the_cash_basis_follow_from_the_oldest_first()
    {
        var before = Aging("2026-05-31");
        Settle();
        var records = NaiveRecords.Read(_tool.PathOf("bare"), settlesOldestFirst: true);
        foreach (var (type, report) in new[] { ("receivable", "open-receivables"), ("payable", "open-payables") })
        {
            var shown = _tool.Run(
                "show", report, "--book", "book", "--as-of", "2026-05-20", "--columns", "document,open", "--format", "csv")
                    .Done().Output.TrimEnd()
                .Split('\n')
                .Skip(1).SkipLast(1).Select(line => line.Split(',')).Select(cells => (cells[4], cells[^1])).Order();
            Assert.Equal(
                records.Open(type, "2026-05-20").Where(item => item.Open != 0)
                    .Select(item => (item.Document, item.Open.ToString("F2", CultureInfo.InvariantCulture))).Order(),
                shown);
        }

        var expected = records.ByAccountAndMonth(cash: true).Where(sum => sum.Key.Month == "2026-03" && sum.Key.Account == "4020")
            .Sum(sum => -sum.Value);
        var cash = _tool.Run("show", "profit-loss", "--book", "book", "--period", "2026-03", "--basis", "cash", "--format", "csv")
            .Done().Output;
        Assert.Contains($"\n4020,Repairs,account,1,{expected.ToString("F2", CultureInfo.InvariantCulture)}\n", cash);
        Assert.NotEqual(before, Aging("2026-05-31"));
        _tool.Run("check", "--book", "book").Done();

        // Without the line, the book is as it was.
        File.WriteAllText(
            _tool.PathOf("book/book.toml"), File.ReadAllText(_tool.PathOf("book/book.toml")).Replace("settle = ", "# settle = "));
        Assert.Equal(before, Aging("2026-05-31"));
    }

    [Fact]
    public void It_is_marked_wherever_it_is_shown()
    {
        Settle();
        const string Note = "Settlements are computed, oldest first: the records have none.";
        foreach (var report
            in new[] { "receivables-aging", "open-payables", "customer-ledger", "supplier-balances", "money-to-come", "collection" })
        {
            Assert.Contains(Note, Show(report));
        }

        Assert.Contains(Note, Show("profit-loss", "--basis", "cash"));
        Assert.DoesNotContain(Note, Show("profit-loss", "--basis", "accrual"));
        Assert.Contains(" (computed)", Show("customer-ledger"));
        Assert.Contains(" (computed)", _tool.Run(
            "trace", "payables-aging", "--book", "book", "--as-of", "2025-06-30", "--row", "total", "--column", "total").Done().Output);
    }

    [Fact]
    public void Later_imports_settle_anew_and_earlier_revisions_stay_as_they_were()
    {
        Settle();
        var before = Aging("2026-12-31");
        _tool.Write("more/documents.csv", "id,kind,date,contact\nLATE-1,receipt,2026-06-29,L02\n");
        _tool.Write("more/lines.csv", "document,account,amount\nLATE-1,1020,100000.00\nLATE-1,1100,-100000.00\n");
        _tool.Run("import", "more", "--book", "book").Done();
        var after = Aging("2026-12-31");
        Assert.NotEqual(before, after);
        Assert.Equal(before, Aging("2026-12-31", "--revision", "1"));
        _tool.Run("check", "--book", "book").Done();

        // The same records in one go settle in the same way.
        _tool.Run("check", "--book", "book", "--rebuild").Done();
        Assert.Equal(after, Aging("2026-12-31"));

        // Once the records have a settlement of their own, only theirs count.
        _tool.Write("more/settlements.csv", "from,to,amount\nLATE-1,INV-00818,1.00\n");
        _tool.Run("import", "more", "--book", "book").Done();
        Assert.DoesNotContain("Settlements are computed", Show("receivables-aging"));
        Assert.Contains("4,366.70", Show("open-receivables", "--only", "contact=L02"));
        _tool.Run("check", "--book", "book").Done();
    }

    public void Dispose() => _tool.Dispose();

    private void Settle() => File.AppendAllText(_tool.PathOf("book/book.toml"), "settle = \"oldest-first\"\n");

    private string Show(string report, params string[] more) =>
        _tool.Run(["show", report, "--book", "book", "--clock", "2026-06-30", .. more]).Done().Output;

    private string Aging(string day, params string[] more) =>
        _tool.Run(["show", "receivables-aging", "--book", "book", "--as-of", day, "--detail", "--format", "csv", .. more]).Done().Output;
}
