namespace Vlei.Tests;

/// <summary>What later imports change is told: documents, settlements, figures, and first of all what was closed.</summary>
public sealed class ChangesTests : IDisposable
{
    private readonly Tool _tool = new();

    public ChangesTests()
    {
        _tool.Run("init", "book", "--name", "B", "--currency", "ZAR").Done();
        _tool.Write("set/accounts.csv", "code,name,type\n1,Bank,bank\n2,Owed,receivable\n4,Sales,income\n5,Rent,expense\n");
        Documents("A,invoice,2026-01-10\nB,receipt,2026-02-05\nC,expense,2026-02-20\nD,invoice,2026-03-01\n");
        Lines("A,2,100\nA,4,-100\nB,1,100\nB,2,-100\nC,5,30\nC,1,-30\nD,2,7\nD,4,-7\n");
        _tool.Write("set/settlements.csv", "from,to,amount\nA,B,60\n");
        _tool.Run("import", "set", "--book", "book").Done();
    }

    [Fact]
    public void An_import_that_touches_a_closed_period_says_what_moved()
    {
        _tool.Run("close", "2026-02", "--book", "book").Done();
        _tool.Run("close", "2026-Q4", "--book", "book").Done();
        Assert.Matches(@"^2026-02\s+on revision 1, .*\n2026-Q4\s+on revision 1, ", _tool.Run("close", "--book", "book").Done().Output);

        Lines("A,2,100\nA,4,-100\nB,1,100\nB,2,-100\nC,5,42\nC,1,-42\nD,2,7\nD,4,-7\n");
        var trial = _tool.Run("import", "set", "--book", "book", "--dry-run").Done();
        Assert.Equal("vlei: February 2026 is closed, and has changed: C changed.\n", trial.Messages);
        var import = _tool.Run("import", "set", "--book", "book").Done();
        Assert.StartsWith("vlei: February 2026 is closed, and has changed: C changed.\n", import.Messages);
        Assert.Contains("Profit and loss: what moved since revision 1\nFebruary 2026\n", import.Messages);
        Assert.Matches(@"\nRent\s+30.00\s+42.00\s+12.00 ▲\n", import.Messages);
        Assert.Matches(@"\n\s*Bank\s+70.00\s+58.00\s+-12.00 ▼\n", import.Messages);
        Assert.DoesNotContain("Quarter 4", import.Messages);

        _tool.Run("close", "2026-02", "--reopen", "--book", "book").Done();
        Lines("A,2,100\nA,4,-100\nB,1,100\nB,2,-100\nC,5,1\nC,1,-1\nD,2,7\nD,4,-7\n");
        Assert.Equal("", _tool.Run("import", "set", "--book", "book").Done().Messages);
    }

    [Fact]
    public void Documents_and_settlements_are_listed_with_what_they_were()
    {
        _tool.Run("close", "2026-02", "--book", "book").Done();
        Documents("A,invoice,2026-01-12\nB,receipt,2026-02-05\nE,expense,2026-04-02\nD,invoice,2026-03-01\n");
        Lines("A,2,100\nA,4,-100\nB,1,100\nB,2,-100\nE,5,9\nE,1,-9\nD,2,7\nD,4,-7\n");
        _tool.Write("set/settlements.csv", "from,to,amount\nA,B,100\n");
        _tool.Run("import", "set", "--complete", "--book", "book").Done();
        Assert.Equal(
            """
            row,label,kind,level,change,date,was-date,kind,number,closed,before,after
            A with B,A with B,record,0,settled,2026-02-05,,,,2026-02,,100.00
            A with B,A with B,record,0,unsettled,2026-02-05,,,,2026-02,60.00,
            C,C,record,0,removed,2026-02-20,,expense,,2026-02,30.00,
            A,A,record,0,changed,2026-01-12,2026-01-10,invoice,,,100.00,100.00
            E,E,record,0,added,2026-04-02,,expense,,,,9.00

            """, _tool.Run("changes", "--since", "1", "--book", "book", "--format", "csv").Done().Output);
        Assert.Contains("Nothing has changed.\n", _tool.Run("changes", "--since", "2", "--book", "book").Done().Output);
        Assert.Matches(
            @"\n1 +\d{4}-\d\d-\d\d \d\d:\d\d  .* 4 +0 +0\n2 +.* 1 +1 +1\n", _tool.Run("changes", "--book", "book").Done().Output);

        // The closed month comes first, then the period that is asked for.
        var text = _tool.Run("changes", "--since", "1", "profit-loss", "--basis", "cash", "--period", "2026", "--book", "book")
            .Done().Output;
        Assert.Matches(
            @"(?s)What has changed.*\nFebruary 2026\n.*Sales +60.00 +100.00 .*Rent +30.00 +0.00 .*\n2026\n.*Rent +30.00 +9.00 ", text);
        Assert.Equal(2, _tool.Run("changes", "--since", "1", "profit-loss", "balance-sheet", "--book", "book", "--format", "csv").Status);
    }

    [Fact]
    public void An_account_that_becomes_another_type_is_told_apart_in_each_revision()
    {
        string Cash(params string[] more) => _tool.Run(
            ["show", "profit-loss", "--book", "book", "--basis", "cash", "--period", "2026", "--format", "csv", .. more]).Done().Output;
        var before = Cash();
        _tool.Write("set/accounts.csv", "code,name,type\n1,Bank,bank\n2,Owed,current-asset\n4,Sales,income\n5,Rent,expense\n");
        _tool.Write("set/settlements.csv", "from,to,amount\n");
        _tool.Run("import", "set", "--complete", "--book", "book").Done();
        Assert.Contains("4,Sales,account,1,107.00\n", Cash());
        Assert.Equal(before, Cash("--revision", "1"));
        var early = _tool.Run("show", "profit-loss", "--book", "book", "--revision", "2020-01-01");
        Assert.Equal(
            (66, true),
            (early.Status, early.Messages.StartsWith("vlei: Nothing was imported up to 2020-01-01.", StringComparison.Ordinal)));
        _tool.Run("check", "--book", "book").Done();
    }

    public void Dispose() => _tool.Dispose();

    private void Documents(string rows) => _tool.Write("set/documents.csv", "id,kind,date\n" + rows);

    private void Lines(string rows) => _tool.Write("set/lines.csv", "document,account,amount\n" + rows);
}
