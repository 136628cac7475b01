namespace Vlei.Tests;

/// <summary>Statements of account: for one customer, in their language, and a file each for all.</summary>
public sealed class StatementOfAccountTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithRecords(
        ("contacts.csv", "id,name,kind,email,tag.region", "id,name,kind,address,tag.language"),
        ("contacts.csv", "alma@example.com,north", "\"2 Reed Street\nReedwater\",af"));

    public StatementOfAccountTests()
    {
        _tool.Run("import", "set", "--book", "book").Done();
        File.AppendAllText(_tool.PathOf("book/book.toml"), "remittance = \"\"\"\nTest, account 1 234\nGive the number.\"\"\"\n");
    }

    [Fact]
    public void It_says_what_is_owed_in_the_customers_language() => Assert.StartsWith(
        """
        Test
        Rekeningstaat
        2026-03-15 tot 2026-04-30
        Bedrae in ZAR

        Alma Acker
        2 Reed Street
        Reedwater

        """,
        Show("--only", "contact=C1").Done().Output);

    [Fact]
    public void Its_foot_is_what_is_open_by_age_and_the_details_of_how_to_pay()
    {
        var shown = Show("--only", "contact=C1", "--limits", "10,20", "--age-by", "document").Done().Output;
        Assert.Matches(@"\n  Meer as 20 dae laat +57,50\n", shown);
        Assert.Matches(@"\nREC-1 +2026-04-10 +kwitansie +57,50 +57,50\n", shown);
        Assert.EndsWith("\n\nHoe om te betaal\nTest, account 1 234\nGive the number.\n", shown);
        Assert.DoesNotContain("Checked", shown);
        Assert.Contains("\"addressed_to\":", Show("--only", "contact=C2", "--format", "json").Done().Output);
    }

    [Fact]
    public void A_file_each_is_written_for_whom_there_is_something_to_say()
    {
        var outcome = Show("--to", "out/april/").Done();
        Assert.Equal(("", "2 files in out/april/\n"), (outcome.Output, outcome.Messages));
        Assert.Equal(["C1.txt", "C2.txt"], Directory.EnumerateFiles(_tool.PathOf("out/april")).Select(Path.GetFileName).Order());
        Assert.Equal(Show("--only", "contact=C2").Done().Output, File.ReadAllText(_tool.PathOf("out/april/C2.txt")));
        Show("--to", "out/april/", "--format", "csv", "--except", "contact=C1").Done();
        Assert.StartsWith(
            "row,label,kind,level,date,kind,due,memo,charged,settled,balance\n", File.ReadAllText(_tool.PathOf("out/april/C2.csv")));
        Assert.False(File.Exists(_tool.PathOf("out/april/C1.csv")));
    }

    [Fact]
    public void What_is_chosen_says_whom_it_is_for_and_never_leaves_out_what_they_paid()
    {
        Assert.Equal(Show("--only", "contact=C1").Done().Output, Show("--only", "contact=C1", "--except", "kind=receipt").Done().Output);
        string Ledger(params string[] more) =>
            _tool.Run(["show", "customer-ledger", "--book", "book", "--period", "2026", .. more]).Done().Output;
        Assert.Contains("Customer ledger (in part)\n", Ledger("--except", "kind=receipt"));
        Assert.DoesNotContain("(in part)", Ledger("--only", "contact=C1"));
    }

    [Theory]
    [InlineData(2, "vlei: A statement of account is for one customer, and 2 are asked for.")]
    [InlineData(2, "vlei: There is nothing to say to any of those customers in that period.", "--only", "contact=S1")]
    [InlineData(66, "vlei: There is no contact \"C9\".", "--only", "contact=C9")]
    [InlineData(73, "vlei: set/lines.csv/ cannot be made", "--to", "set/lines.csv/")]
    public void What_cannot_be_sent_is_refused(int status, string message, params string[] more)
    {
        var outcome = Show(more);
        Assert.Equal(status, outcome.Status);
        Assert.StartsWith(message, outcome.Messages);
    }

    [Theory]
    [InlineData("language = \"xx\"", "there is no language \"xx\".")]
    [InlineData("settle = \"newest-first\"", "there is no such way to settle.")]
    public void A_book_that_asks_for_what_there_is_not_is_refused(string line, string message)
    {
        File.AppendAllText(_tool.PathOf("book/book.toml"), $"{line}\n");
        var outcome = Show();
        Assert.Equal(78, outcome.Status);
        Assert.Contains(message, outcome.Messages);
    }

    public void Dispose() => _tool.Dispose();

    private Outcome Show(params string[] more) => _tool.Run(
        ["show", "statement-of-account", "--book", "book", "--period", "2026-03-15/2026-04-30", .. more]);
}
