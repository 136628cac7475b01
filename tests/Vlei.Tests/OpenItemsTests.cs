namespace Vlei.Tests;

/// <summary>What is open where records are not of the simplest kind, and books not of the luckiest.</summary>
public sealed class OpenItemsTests : IDisposable
{
    private readonly Tool _tool = new();

    public OpenItemsTests()
    {
        _tool.Run("init", "book", "--name", "Test", "--currency", "ZAR").Done();
        _tool.Write(
            "set/accounts.csv",
            "code,name,type\n1000,Bank,bank\n1100,Trade,receivable\n1150,Loans,receivable\n2000,Payables,payable\n3000,Capital,equity\n"
                + "4000,Sales,income\n6000,Rent,expense\n");
        _tool.Write(
            "set/contacts.csv", "id,name,kind,terms_days,tag.language\nA,Alder,both,30,\nB,Birch,customer,,de\nC,Cedar,customer,,\n");
    }

    [Fact]
    public void A_document_of_several_contacts_is_an_item_of_each_and_is_settled_with_the_right_one()
    {
        Import(
            """
            O-1,opening,2026-01-01,,,
            R-B,receipt,2026-01-20,,B,
            N-A,credit-note,2026-02-03,,A,
            """,
            """
            O-1,1100,100.00,A
            O-1,1100,200.00,B
            O-1,1150,50.00,B
            O-1,3000,-350.00,
            R-B,1000,150.00,
            R-B,1100,-150.00,
            N-A,4000,30.00,
            N-A,1100,-30.00,
            """,
            "O-1,R-B,150.00,\nO-1,N-A,30.00,\n");
        Assert.Equal(
            ["A/O-1 100.00 30.00 70.00", "B/O-1 200.00 150.00 50.00", "B/O-1 50.00 0.00 50.00", "total 350.00 180.00 170.00"],
            Open("2026-02-03"));
        Assert.Equal(
            ["A/O-1 100.00 0.00 100.00", "B/O-1 200.00 150.00 50.00", "B/O-1 50.00 0.00 50.00", "total 350.00 150.00 200.00"],
            Open("2026-02-02"));
        Assert.Contains(
            "\n1100,1100 Trade,account,0,0.00,0.00,120.00,",
            Show("receivables-aging", "--as-of", "2026-02-03", "--summary", "--limits", "30,40", "--format", "csv"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void What_somebody_else_paid_is_a_line_of_its_own_on_a_statement()
    {
        Import(
            "I-A,invoice,2026-03-01,2026-03-31,A,\nR-C,receipt,2026-03-20,,C,\nI-C,invoice,2026-03-25,,C,\n",
            "I-A,1100,80.00,\nI-A,4000,-80.00,\nR-C,1000,100.00,\nR-C,1100,-100.00,\nI-C,1100,15.00,\nI-C,4000,-15.00,\n",
            "I-A,R-C,60.00,2026-04-02\n");
        string Balances(string contact, string period) =>
            string.Join(' ', Show("statement-of-account", "--only", $"contact={contact}", "--period", period, "--format", "csv")
            .Split('\n').Skip(1).TakeWhile(line => !line.StartsWith("by-age", StringComparison.Ordinal))
            .Select(line => $"{line.Split(',')[0].Split('/')[^1]}={line.Split(',')[^1]}"));
        Assert.Equal("opening=0.00 I-A=80.00 closing=80.00", Balances("A", "2026-03"));
        Assert.Equal("opening=80.00 elsewhere=20.00 closing=20.00", Balances("A", "2026-04"));
        Assert.Equal("opening=20.00 closing=20.00", Balances("A", "2026-05"));
        Assert.Equal("opening=-85.00 elsewhere=-25.00 closing=-25.00", Balances("C", "2026-04"));
        Assert.Contains(
            "total,Total,total,0,,,,,,,95.00,60.00,35.00",
            Show("open-receivables", "--as-of", "2026-04-30", "--only", "kind=invoice", "--format", "csv"));
        Assert.Equal(
            "ok",
            Show("trace", "statement-of-account", "--only", "contact=C", "--period", "2026-04", "--row", "elsewhere", "--column", "charged")
            .Contains("Checked: The records add up to the figure.", StringComparison.Ordinal) ? "ok" : "not traced");
    }

    [Fact]
    public void A_document_is_due_when_it_says_or_after_its_own_terms_or_at_once()
    {
        Import(
            "I-1,invoice,2026-03-01,2026-03-11,A,\nI-2,invoice,2026-03-01,,A,20\nI-3,invoice,2026-03-01,,A,\nI-4,invoice,2026-03-01,"
                + "2026-03-06,A,90\n",
            string.Concat(Enumerable.Range(1, 4).Select(number => $"I-{number},1100,{number}.00,\nI-{number},4000,-{number}.00,\n")), "");
        var due = Show("open-receivables", "--as-of", "2026-03-31", "--sort", "open", "--format", "csv").Split('\n').Skip(1).Take(4)
            .Select(line => line.Split(','));
        Assert.Equal(["2026-03-11 20", "2026-03-21 10", "2026-03-01 30", "2026-03-06 25"], due.Select(cells => $"{cells[8]} {cells[9]}"));
        Assert.Contains(
            "A,Alder,account,0,0.00,2.00,5.00,3.00,10.00",
            Show("receivables-aging", "--as-of", "2026-03-31", "--limits", "15,29", "--format", "csv"));
        Assert.Contains(
            "A,Alder,account,0,0.00,0.00,0.00,10.00,10.00",
            Show("receivables-aging", "--as-of", "2026-03-31", "--limits", "15,29", "--age-by", "document", "--format", "csv"));
    }

    [Fact]
    public void Postings_without_a_contact_are_a_row_of_their_own()
    {
        Import(
            "J-1,journal,2026-03-01,,,\nI-1,invoice,2026-03-01,,B,\n",
            "J-1,2000,-40.00,\nJ-1,6000,40.00,\nI-1,1100,9.00,\nI-1,4000,-9.00,\n", "");
        var aging = Show("payables-aging", "--as-of", "2026-03-31");
        Assert.Matches(@"\nNo contact +– +40\.00 ", aging);
        Assert.Contains("Checked: Open items = balance of the control accounts.", aging);
        Assert.Contains("none/J-1,J-1,record", Show("payables-aging", "--as-of", "2026-03-31", "--detail", "--format", "csv"));
        Assert.Contains(
            "\nnone,No contact,account,0,0.00,0.00,40.00,40.00\n", Show("supplier-balances", "--period", "2026", "--format", "csv"));
        Assert.DoesNotContain("none", Show("payables-aging", "--as-of", "2026-03-31", "--except", "contact=none", "--format", "csv"));
    }

    [Theory]
    [InlineData("en", "Statement of account", "invoice", "Not yet due")]
    [InlineData("de", "Kontoauszug", "Rechnung", "Noch nicht fällig")]
    [InlineData("af", "Rekeningstaat", "faktuur", "Nog nie betaalbaar nie")]
    public void A_statement_has_every_word_in_its_language(string language, string title, string invoice, string current)
    {
        File.AppendAllText(_tool.PathOf("book/book.toml"), $"language = \"{language}\"\n");
        Import(
            "I-1,invoice,2026-03-01,2026-05-01,C,\nI-2,invoice,2026-03-01,2026-05-01,B,\n",
            "I-1,1100,9.00,\nI-1,4000,-9.00,\nI-2,1100,9.00,\nI-2,4000,-9.00,\n", "");
        var shown = Show("statement-of-account", "--only", "contact=C", "--period", "2026-03", "--unapplied");
        Assert.All(new[] { title, invoice, current }, word => Assert.Contains(word, shown));
        string[] english =
            ["Statement", "Amounts", "Opening", "invoice", "Charged", "Balance due", "By age", "Not yet due", "days late", "Not applied"];
        Assert.All(english, word => Assert.Equal(language == "en", shown.Contains(word, StringComparison.Ordinal)));

        // A contact's own language comes first.
        Assert.StartsWith("Test\nKontoauszug\n", Show("statement-of-account", "--only", "contact=B", "--period", "2026-03"));
    }

    [Fact]
    public void Notes_that_are_made_at_once_are_all_kept()
    {
        Import("I-1,invoice,2026-03-01,,A,\n", "I-1,1100,900.00,\nI-1,4000,-900.00,\n", "");
        var outcomes = new Outcome[8];
        Parallel.For(0, outcomes.Length, place => outcomes[place] = _tool.Run(
            "promise", "I-1", "--by", "2026-12-01", "--amount", "1.00", "--clock", "2026-04-01", "--book", "book"));
        Assert.All(outcomes, outcome => Assert.True(outcome.Status is 0 or 75, outcome.Messages));
        Assert.Equal(outcomes.Count(outcome => outcome.Status == 0), File.ReadAllLines(_tool.PathOf("book/promises.csv")).Length - 1);
        Assert.Equal(
            File.ReadAllLines(_tool.PathOf("book/promises.csv")).Skip(1).Select((_, place) => $"{place + 1}"),
            File.ReadAllLines(_tool.PathOf("book/promises.csv")).Skip(1).Select(line => line.Split(',')[0]));
    }

    public void Dispose() => _tool.Dispose();

    private void Import(string documents, string lines, string settlements)
    {
        _tool.Write("set/documents.csv", $"id,kind,date,due,contact,terms_days\n{documents.TrimEnd()}\n");
        _tool.Write("set/lines.csv", $"document,account,amount,contact\n{lines.TrimEnd()}\n");
        _tool.Write("set/settlements.csv", $"from,to,amount,date\n{settlements}");
        _tool.Run("import", "set", "--book", "book").Done();
    }

    private string Show(string report, params string[] more) => (report == "trace"
        ? _tool.Run(["trace", .. more, "--book", "book"])
        : _tool.Run(["show", report, "--book", "book", .. more])).Done().Output;

    // The key, what it came to, what was settled and what is open.
    private string[] Open(string day) =>
    [
        .. Show(
            "open-receivables", "--as-of", day, "--columns", "contact.id,document,total,settled,open", "--format", "csv").TrimEnd()
            .Split('\n').Skip(1).Select(line => line.Split(','))
            .Select(cells => $"{(cells[0] == "total" ? "total" : $"{cells[4]}/{cells[5]}")} {string.Join(' ', cells[^3..])}")
            .Order(StringComparer.Ordinal),
    ];
}
