using System.Text.Json;

namespace Vlei.Tests;

/// <summary>What contacts commit to: noted in the book, shown with what is open, and never touched by an import.</summary>
public sealed class PromiseTests : IDisposable
{
    private const string Header = "number,kind,document,amount,by,open,noted,noted_by,withdrawn,note\n";

    private readonly Tool _tool = new Tool().WithRecords();

    public PromiseTests() => _tool.Run("import", "set", "--book", "book").Done();

    [Fact]
    public void A_promise_is_shown_and_kept_by_what_an_import_brings()
    {
        Assert.Equal(
            "Noted under 1: 57.50 of INV-1 promised by 2026-05-10.\n",
            Promise("INV-1", "--by", "2026-05-10", "--note", "By \"Friday\", surely").Done().Messages);
        Assert.Equal(
            "Noted under 2: 100.00 of INV-2 promised by 2026-05-31.\n",
            Promise("INV-2", "--by", "this-month", "--amount", "100").Done().Messages);
        Assert.Equal("Noted under 3: 30.00 of INV-2 disputed.\n", Promise("INV-2", "--dispute", "--amount", "30").Done().Messages);
        var aging = Show("2026-05-01", "receivables-aging");
        Assert.Equal(
            [("C1", 57.50m, 0m), ("C2", 100m, 30m), ("total", 157.50m, 30m)],
            Rows(aging).Select(row => (row.Key, row.Cell("promised"), row.Cell("disputed"))));
        Assert.Equal(
            ["by 2026-05-10", "by 2026-05-31; disputed"], Rows(Show("2026-05-01", "open-receivables")).SkipLast(1)
                .Select(row => row.Words("promise")));

        // The ledger is as it was, and so is what is noted after imports, of whatever kind.
        var trial = Show("2026-05-01", "trial-balance", "--period", "2026").GetProperty("rows").GetRawText();
        _tool.Write(
            "set/settlements.csv",
            "from,to,amount,date\nINV-1,REC-1,57.50,2026-04-10\nINV-1,REC-2,57.50,2026-05-09\nINV-2,REC-2,40.00,2026-06-02\n");
        _tool.Write("set/documents.csv", RecordFiles.Sound["documents.csv"] + "REC-2,receipt,2026-05-09,,C1,\n");
        _tool.Write("set/lines.csv", RecordFiles.Sound["lines.csv"] + "REC-2,1000,97.50,,,,,,,\nREC-2,1100,-97.50,,,,,,,\n");
        _tool.Run("import", "set", "--book", "book", "--complete").Done();
        Assert.NotEqual(trial, Show("2026-05-01", "trial-balance", "--period", "2026").GetProperty("rows").GetRawText());
        string State(string day) => string.Join(
            ' ', Rows(Show(day, "promises")).TakeWhile(row => row.Key != "total").Select(row => row.Words("state")));
        Assert.Equal("pending pending disputed", State("2026-05-08"));
        Assert.Equal("kept pending disputed", State("2026-05-31"));
        Assert.Equal("kept broken disputed", State("2026-06-01"));
        Assert.Equal(0, Rows(Show("2026-06-30", "promises"))[1].Cell("paid"));

        Assert.Equal("What is noted under 3 is taken back.\n", Promise("--withdraw", "3").Done().Messages);
        Assert.Equal("kept pending withdrawn", State("2026-05-31"));
        Assert.StartsWith(
            Header + "1,promise,INV-1,57.50,2026-05-10,57.50,2026-05-01,", File.ReadAllText(_tool.PathOf("book/promises.csv")));
        Assert.Contains("\"By \"\"Friday\"\", surely\"", File.ReadAllText(_tool.PathOf("book/promises.csv")));
        Assert.Equal(
            State("2026-06-01"), string.Join(
                ' ', Rows(JsonDocument.Parse(Promise("--clock", "2026-06-01", "--format", "json").Done().Output).RootElement)
                    .SkipLast(1).Select(row => row.Words("state"))));
    }

    [Fact]
    public void Money_is_expected_when_it_is_promised_and_not_where_it_is_disputed()
    {
        Promise("INV-2", "--by", "2026-07-20", "--amount", "100").Done();
        Promise("INV-2", "--dispute", "--amount", "30").Done();
        var rows = Rows(Show("2026-05-01", "money-to-come", "--by", "month")).ToDictionary(row => row.Key);
        Assert.Equal((57.50m - 0, 57.50m), (rows["opening"].Cell("balance"), rows["overdue"].Cell("receipts") - 100m));
        Assert.Equal(
            (100m, 100m, 30m),
            (rows["2026-07"].Cell("receipts"), rows["overdue"].Cell("receipts") - 57.50m, rows["disputed"].Cell("receipts")));
        Assert.Equal((40m, "lowest"), (rows["overdue"].Cell("payments"), rows["opening"].Words("low-point")));
        var bills = Rows(Show("2026-05-01", "bills-to-pay", "--money", "25"));
        Assert.Equal(
            ("S1/BILL-1", 40m, -15m, "in part"), (bills[1].Key, bills[1].Cell("to-pay"), bills[1].Cell("left"), bills[1].Words("enough")));
    }

    [Theory]
    [InlineData(2, "vlei: 57.51 is more than can be promised of INV-1: 57.50 is open.", "INV-1", "--by", "2026-05-10", "--amount", "57.51")]
    [InlineData(2, "vlei: Nothing is open of REC-1", "REC-1", "--by", "2026-05-10")]
    [InlineData(66, "vlei: There is no document INV-9", "INV-9", "--by", "2026-05-10")]
    [InlineData(2, "vlei: 2026-04-30 has passed", "INV-1", "--by", "2026-04-30")]
    [InlineData(2, "vlei: It is either promised by a day, or disputed.", "INV-1")]
    [InlineData(2, "vlei: It is either promised by a day, or disputed.", "INV-1", "--dispute", "--by", "2026-05-10")]
    [InlineData(2, "vlei: --amount does not take \"1,000\".", "INV-1", "--dispute", "--amount", "1,000")]
    [InlineData(2, "vlei: What is promised or disputed is more than nothing.", "INV-1", "--dispute", "--amount", "-5")]
    [InlineData(66, "vlei: Nothing stands under 7.", "--withdraw", "7")]
    public void What_cannot_be_promised_is_refused_and_nothing_is_noted(int status, string message, params string[] arguments)
    {
        var outcome = Promise(arguments);
        Assert.Equal((status, ""), (outcome.Status, outcome.Output));
        Assert.StartsWith(message, outcome.Messages);
        Assert.False(File.Exists(_tool.PathOf("book/promises.csv")));
    }

    [Theory]
    [InlineData("number,kind\n", "promises.csv:1: the header is another one.")]
    [InlineData(Header + "1,vow,INV-1,5.00,2026-05-10,57.50,2026-05-01,me,,\n", "promises.csv:2: \"vow\" is no kind.")]
    [InlineData(Header + "1,promise,INV-1,5.00,2026-05-40,57.50,2026-05-01,me,,\n", "promises.csv:2: the by \"2026-05-40\" is no day.")]
    [InlineData(Header + "1,promise,INV-1,-5.00,2026-05-10,57.50,2026-05-01,me,,\n", "promises.csv:2: the amount \"-5.00\" is no amount.")]
    [InlineData(Header + "1,promise,INV-1\n", "promises.csv:2: there are 3 columns.")]
    public void A_damaged_file_is_refused_with_its_place(string text, string message)
    {
        _tool.Write("book/promises.csv", text);
        var outcome = Promise();
        Assert.Equal(65, outcome.Status);
        Assert.Contains(message, outcome.Messages);
    }

    [Fact]
    public void A_check_tells_of_what_is_noted_about_documents_that_are_gone()
    {
        Promise("INV-2", "--dispute").Done();
        _tool.Run("check", "--book", "book").Done();
        File.WriteAllText(_tool.PathOf("book/promises.csv"), File.ReadAllText(_tool.PathOf("book/promises.csv")).Replace("INV-2", "INV-X"));
        var outcome = _tool.Run("check", "--book", "book");
        Assert.Equal(1, outcome.Status);
        Assert.Contains("what is noted under 1 is about INV-X, which is not in the records", outcome.Output);
        Assert.Empty(Rows(Show("2026-05-01", "promises")).SkipLast(1));
    }

    public void Dispose() => _tool.Dispose();

    private Outcome Promise(params string[] arguments) => _tool.Run(
        ["promise", .. arguments, "--book", "book", .. arguments.Contains("--clock") ? Array.Empty<string>() : ["--clock", "2026-05-01"]]);

    private JsonElement Show(string today, string report, params string[] more) => JsonDocument.Parse(_tool.Run(
        ["show", report, "--book", "book", "--clock", today, "--format", "json", .. more]).Done().Output).RootElement;

    private static List<Row> Rows(JsonElement report)
    {
        var columns = report.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("key").GetString()!).ToList();
        return [.. report.GetProperty("rows").EnumerateArray()
            .Select(row => new Row(row.GetProperty("key").GetString()!, columns, row.GetProperty("cells")))];
    }

    private sealed record Row(string Key, List<string> Columns, JsonElement Cells)
    {
        public decimal Cell(string column) => Cells[Columns.IndexOf(column)] is { ValueKind: JsonValueKind.Number } number
            ? number.GetDecimal() : 0;

        public string? Words(string column) => Cells[Columns.IndexOf(column)].GetString();
    }
}
