namespace Vlei.Tests;

/// <summary>What looks off is found, what does not is not, and what was said about it stays until the records change.</summary>
public sealed class ReviewTests : IDisposable
{
    private const string Accounts =
        "code,name,type\n1000,Bank,bank\n1020,Petty cash,cash\n1100,Receivables,receivable\n2000,Payables,payable\n"
        + "2200,Tax,tax\n3000,Capital,equity\n4000,Sales,income\n6000,Rent,expense\n6100,Timber,expense\n6200,Marketing,expense\n";

    private const string Contacts = "id,name,kind\nC1,Alder,customer\nC2,Birch,customer\nS1,Sawmill,supplier\nS2,Landlord,supplier\n";

    private const string TaxCodes = "code,name,rate,direction\nT10,Sales,10,sales\nP10,Purchases,10,purchases\n";

    private readonly Tool _tool = new();
    private readonly List<string> _documents = [];
    private readonly List<string> _lines = [];
    private readonly List<string> _settlements = [];

    // A document with its lines, each as account amount [tax code part].
    private void Add(
        string id, string kind, string date, string contact, string lines, string number = "", string reference = "", string created = "")
    {
        _documents.Add($"{id},{kind},{date},{number},{contact},{reference},{(created.Length > 0 ? $"{created}T09:00:00" : "")}");
        _lines.AddRange(
            lines.Split(';').Select(line => line.Trim().Split(' '))
                .Select(line => $"{id},{line[0]},{line[1]},{(line.Length > 2 ? $"{line[2]},{line[3]}" : ",")}"));
    }

    private void Import()
    {
        _tool.Write("set/accounts.csv", Accounts);
        _tool.Write("set/contacts.csv", Contacts);
        _tool.Write("set/tax_codes.csv", TaxCodes);
        _tool.Write(
            "set/documents.csv", "id,kind,date,number,contact,reference,created_at\n" + string.Concat(
                _documents.Select(line => line + "\n")));
        _tool.Write("set/lines.csv", "document,account,amount,tax_code,tax_part\n" + string.Concat(_lines.Select(line => line + "\n")));
        _tool.Write("set/settlements.csv", "from,to,amount,date\n" + string.Concat(_settlements.Select(line => line + "\n")));
        if (!Directory.Exists(_tool.PathOf("book")))
        {
            _tool.Run("init", "book", "--name", "B", "--currency", "ZAR").Done();
        }

        _tool.Run("import", "set", "--book", "book").Done();
    }

    private string Found(string period = "2026-05", params string[] more) => string.Join(' ', _tool.Run(
        ["show", "findings", "--book", "book", "--period", period, "--clock", "2026-06-30", "--format", "csv", "--sort", "finding",
            "--columns", "date", .. more]).Done()
        .Output.TrimEnd().Split('\n').Skip(1).Select(line => line.Split(',')[0]));

    [Fact]
    public void Duplicates_are_found_and_what_comes_regularly_is_not()
    {
        Add("B1", "bill", "2026-05-04", "S1", "6100 500; 2000 -500", reference: "X1");
        Add("B2", "bill", "2026-05-06", "S1", "6100 500; 2000 -500");
        Add("B3", "bill", "2026-05-30", "S1", "6100 500; 2000 -500");
        Add("B4", "bill", "2026-05-31", "S1", "6100 77; 2000 -77", reference: "X1");
        foreach (var month in Enumerable.Range(1, 5))
        {
            Add($"R{month}", "bill", $"2026-0{month}-01", "S2", "6000 900; 2000 -900");
        }

        // Rent twice within days is the same as before, and so is taken for what it mostly is.
        Add("I1", "invoice", "2026-05-04", "C1", "1100 500; 4000 -500", reference: "PO-7");
        Add("I2", "invoice", "2026-05-20", "C1", "1100 501; 4000 -501", reference: "PO-7");
        Import();
        Assert.Equal("duplicate/B2 duplicate/B4", Found());
        Assert.Equal("", Found("2026-04"));
        var reasons = _tool.Run(
            "show", "findings", "--book", "book", "--period", "2026-05", "--format", "csv", "--columns", "reason,command,amount")
                .Done().Output;
        Assert.Contains("The same contact, kind and amount as B1 of 2026-05-04", reasons);
        Assert.Contains("The same contact and kind as B1 of 2026-05-04; both have the reference X1", reasons);
        Assert.Contains("vlei show lines --period 2026-05-04/2026-05-06 --only \"\"document=B1,B2\"\"", reasons);
    }

    [Fact]
    public void Money_below_zero_is_found_from_its_first_day_to_its_last()
    {
        Add("O1", "opening", "2026-01-01", "", "1020 100; 1000 50; 3000 -150");
        Add("E1", "expense", "2026-04-20", "", "6100 120; 1020 -120");
        Add("T1", "transfer", "2026-05-03", "", "1020 30; 1000 -30");
        Add("E2", "expense", "2026-05-10", "", "6100 15; 1020 -15");
        Add("T2", "transfer", "2026-05-12", "", "1020 5; 1000 -5");
        Import();
        Assert.Equal("below-zero/1020/2026-04-20 below-zero/1020/2026-05-10", Found());
        Assert.Equal("below-zero/1020/2026-05-10", Found("2026-05-10/2026-05-11"));
        Assert.Equal("", Found("2026-05-12/2026-05-31"));
        var text = _tool.Run("show", "findings", "--book", "book", "--period", "2026-05", "--format", "csv", "--columns", "reason")
            .Done().Output;
        Assert.Contains("1020 Petty cash was below zero from 2026-04-20 to 2026-05-02, at the lowest -20.00", text);
        Assert.Contains("from 2026-05-10 to 2026-05-11, at the lowest -5.00", text);
    }

    [Fact]
    public void What_is_far_larger_or_on_another_account_than_ever_before_is_found()
    {
        foreach (var number in Enumerable.Range(0, 24))
        {
            Add(
                $"B{number:D2}", "bill", $"2025-{1 + (number / 2):D2}-{5 + (number % 2 * 14):D2}", "S1",
                $"6100 {100 + number}; 2000 -{100 + number}");
        }

        Add("BIG", "bill", "2026-05-04", "S1", "6100 400; 2000 -400");
        Add("FAIR", "bill", "2026-05-09", "S1", "6100 700; 2000 -700");
        Add("WRONG", "bill", "2026-05-20", "S1", "6200 90; 2000 -90");
        Import();
        Assert.Equal("new-account/WRONG/6200 unusual-amount/BIG unusual-amount/BIG/6100", Found());
        var text = _tool.Run("show", "findings", "--book", "book", "--period", "2026-05", "--format", "csv", "--columns", "reason")
            .Done().Output;
        Assert.Contains("3.3 times the largest of 24 earlier postings to 6100 Timber", text);
        Assert.Contains("3.3 times the largest of 24 earlier documents of its kind with Sawmill", text);
        Assert.Contains("The first time that Sawmill is on 6200 Marketing; so far on 6100 Timber (26 ×)", text);
    }

    [Fact]
    public void How_documents_were_entered_is_looked_at()
    {
        Add("J1", "journal", "2026-05-02", "", "6000 12.34; 3000 -12.34");
        Add("J2", "journal", "2026-05-31", "", "6000 12.34; 3000 -12.34");
        Add("J3", "journal", "2026-05-05", "", "6000 4000; 3000 -4000");
        Add("J4", "journal", "2026-05-06", "", "6000 4000.01; 3000 -4000.01");
        foreach (var number in new[] { 7, 8, 9, 12, 13, 15 })
        {
            Add(
                $"I{number}", "invoice", $"2026-05-{number:D2}", "C1", $"1100 {number}; 4000 -{number}", number: $"INV-{number:D3}",
                created: number == 9 ? "2026-06-02" : "2026-05-20");
        }

        Add("I99", "invoice", "2026-05-16", "C2", "1100 3; 4000 -3", number: "INV-013");
        Add("B1", "bill", "2026-05-16", "S1", "6100 3; 2000 -3", number: "5");
        Add("B2", "bill", "2026-05-17", "S2", "6100 3; 2000 -3", number: "5");
        Import();
        Assert.Equal(
            "late-entry/I9 missing-number/INV-010 missing-number/INV-014 repeated-number/I99 round-journal/J3 weekend-journal/J1", Found());
        var text = _tool.Run("show", "findings", "--book", "book", "--period", "2026-05", "--format", "csv", "--columns", "reason")
            .Done().Output;
        Assert.Contains("INV-010 to INV-011 are missing: after INV-009 comes INV-012", text);
        Assert.Contains("Entered on 2026-06-02, 24 days after its date", text);
        Assert.Contains("A journal on a Saturday", text);
    }

    [Fact]
    public void Tax_that_does_not_fit_its_code_is_found_to_the_cent()
    {
        Add("I1", "invoice", "2026-05-04", "C1", "1100 110; 4000 -100 T10 base; 2200 -10 T10 tax");
        Add("I2", "invoice", "2026-05-05", "C1", "1100 109.98; 4000 -100 T10 base; 2200 -9.98 T10 tax");
        Add("I3", "invoice", "2026-05-06", "C1", "1100 109; 4000 -100 T10 base; 2200 -9 T10 tax");
        Add("I4", "invoice", "2026-05-07", "C1", "1100 100; 4000 -100 T10 base");
        Add("B1", "bill", "2026-05-08", "S1", "6100 100 T10 base; 2200 10 T10 tax; 2000 -110");
        Add("N1", "credit-note", "2026-05-08", "C1", "4000 40 T10 base; 2200 4 T10 tax; 1100 -44");
        Import();
        Assert.Equal("tax/B1/T10/side tax/I3/T10 tax/I4/T10", Found());
        Assert.Contains(
            "10 % of 100.00 (T10) is 10.00, and the tax is 9.00",
            _tool.Run("show", "findings", "--book", "book", "--period", "2026-05", "--format", "csv", "--columns", "reason").Done().Output);
    }

    [Fact]
    public void Money_that_was_never_applied_and_customers_in_credit_are_found()
    {
        Add("I1", "invoice", "2026-01-04", "C1", "1100 100; 4000 -100");
        Add("R1", "receipt", "2026-02-04", "C1", "1000 130; 1100 -130");
        Add("R2", "receipt", "2026-04-20", "C2", "1000 5; 1100 -5");
        _settlements.Add("R1,I1,100,2026-02-04");
        Import();
        Assert.Equal("credit-balance/customer/C1 credit-balance/customer/C2 unapplied/R1/1100", Found());
        Assert.Contains(
            "30.00 of 130.00 is not applied after 116 days",
            _tool.Run("show", "findings", "--book", "book", "--period", "2026-05", "--format", "csv", "--columns", "reason").Done().Output);
    }

    [Fact]
    public void A_mark_stays_after_imports_until_the_records_behind_it_change()
    {
        Add("J1", "journal", "2026-05-02", "", "6000 12.34; 3000 -12.34");
        Add("J3", "journal", "2026-05-05", "", "6000 4000; 3000 -4000");
        Import();
        string[] check = ["check", "--book", "book", "--review", "2026-05", "--clock", "2026-06-30"];
        _tool.Run([.. check, "--seen", "weekend-journal/J1", "--note", "Stock count"]).Done();
        _tool.Run([.. check, "--question", "round-journal/J3", "--note", "What is this for, \"exactly\"?"]).Done();
        Assert.Equal("round-journal/J3", Found("2026-05", "--except", "status=seen"));
        Assert.Contains(
            "What is this for, \"exactly\"?", _tool.Run("show", "questions", "--book", "book", "--period", "2026-05").Done().Output);
        Add("J5", "journal", "2026-05-05", "", "6000 5.55; 3000 -5.55");
        Import();
        Assert.Equal("round-journal/J3", Found("2026-05", "--except", "status=seen"));
        _lines[0] = "J1,6000,12.35,,";
        _lines[1] = "J1,3000,-12.35,,";
        Import();
        Assert.Equal("round-journal/J3 weekend-journal/J1", Found("2026-05", "--except", "status=seen"));
        _tool.Run([.. check, "--unmark", "round-journal/J3"]).Done();
        Assert.Equal("", Found("2026-05", "--only", "status=question"));
        var text = _tool.Run(check).Done().Output;
        Assert.Contains("What looks off", text);
        Assert.Contains("weekend-journal", text);
    }

    [Theory]
    [InlineData(66, "Nothing was found under round-journal/J1 in that period.", "--review", "2026-05", "--seen", "round-journal/J1")]
    [InlineData(2, "--seen is about findings of the review.", "--seen", "round-journal/J3")]
    [InlineData(2, "--note is said of a finding.", "--review", "2026-05", "--note", "x")]
    [InlineData(2, "--period does not go with --review.", "--review", "2026-05", "--period", "2026-04")]
    [InlineData(2, "round-journal/J3 is marked twice.", "--review", "2026-05", "--seen", "round-journal/J3", "--question",
        "round-journal/J3")]
    [InlineData(2, "--format goes with --review", "--format", "json")]
    [InlineData(2, "--to does not go with marking", "--review", "2026-05", "--seen", "round-journal/J3", "--to", "x.csv")]
    [InlineData(2, "is not a period", "--review", "last-moon")]
    public void What_cannot_be_marked_is_told(int status, string message, params string[] options)
    {
        Add("J3", "journal", "2026-05-05", "", "6000 4000; 3000 -4000");
        Import();
        var outcome = _tool.Run(["check", "--book", "book", .. options]);
        Assert.Equal((status, ""), (outcome.Status, outcome.Output));
        Assert.Contains(message, outcome.Messages);
    }

    [Theory]
    [InlineData("finding,status,note,by,on\n", "review.csv:1: the header is another one.")]
    [InlineData("finding,status,note,by,on,records\na,b\n", "review.csv:2: there are 2 columns.")]
    [InlineData("finding,status,note,by,on,records\na,sein,,me,2026-05-01,0000000000000000\n", "review.csv:2: \"sein\" is no status.")]
    [InlineData("finding,status,note,by,on,records\na,seen,,me,2026-05-32,0000000000000000\n",
        "review.csv:2: the on \"2026-05-32\" is no day.")]
    [InlineData("finding,status,note,by,on,records\na,seen,,me,2026-05-01,xyz\n", "review.csv:2: \"xyz\" is no fingerprint of records.")]
    public void A_damaged_file_of_marks_is_refused(string text, string message)
    {
        Add("J3", "journal", "2026-05-05", "", "6000 4000; 3000 -4000");
        Import();
        File.WriteAllText(_tool.PathOf("book/review.csv"), text);
        var outcome = _tool.Run("check", "--book", "book", "--review", "2026-05");
        Assert.Equal(65, outcome.Status);
        Assert.Contains(message, outcome.Messages);
        Assert.Equal(text, File.ReadAllText(_tool.PathOf("book/review.csv")));
    }

    // Every mistake that is planted in the demo, and the command of each finding works.
    [Fact]
    public void What_is_wrong_in_the_demo_is_found_and_shown_by_its_command()
    {
        _tool.WithDemo();
        var rows = _tool.Run(
            "show", "findings", "--book", "reedwater", "--period", "2026", "--format", "json", "--columns", "command,contact,account")
                .Done().Output;
        var findings = System.Text.Json.JsonDocument.Parse(rows).RootElement.GetProperty("rows").EnumerateArray()
            .Select(row => (Key: row.GetProperty("key").GetString()!, Command: row.GetProperty("cells")[0].GetString()!)).ToList();
        foreach (var planted
            in new[] { "duplicate/BILL-00563", "below-zero/1020/2026-06-18", "late-entry/BILL-00575", "late-entry/BILL-00576",
                "new-account/BILL-00589/6400", "unusual-amount/EXP-00658/6130" })
        {
            Assert.Contains(planted, findings.Select(finding => finding.Key));
        }

        Assert.InRange(findings.Count, 10, 40);
        foreach (var (key, command) in findings.DistinctBy(finding => finding.Key.Split('/')[0]))
        {
            Assert.StartsWith("vlei show ", command);
            var shown = _tool.Run(
                [.. command[5..].Split(' ').Select(word => word.Trim('"')), "--book", "reedwater", "--clock", "2026-06-30"]).Done().Output;
            Assert.True(shown.Split('\n').Length > 8, $"{key}: {command}\n{shown}");
        }
    }

    public void Dispose() => _tool.Dispose();
}
