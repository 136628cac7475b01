namespace Vlei.Tests;

/// <summary>What an import does to a book: history, idempotence, and all or nothing.</summary>
public sealed class ImportTests : IDisposable
{
    private readonly Tool _tool = new();

    [Fact]
    public void The_same_files_again_change_nothing()
    {
        Import();
        var before = Files();

        // Whether all records are looked at again, since the book may say something else of itself now, or their files alone.
        WriteSettingsAt(DateTime.UtcNow.AddDays(1));
        var looked = Import();
        WriteSettingsAt(DateTime.UnixEpoch);
        var again = Import();
        Assert.Equal(looked.Output, again.Output);
        Assert.Contains("Nothing has changed; no new revision.", again.Output);
        Assert.Equal("documents            0         0         4         0", Row(again, "documents"));
        Assert.Equal("settlements          0         0         1         0", Row(again, "settlements"));
        Assert.Equal(before, Files());
        _tool.WithRecords(("contacts.csv", "Three Firs", "Three Oaks"));
        Assert.Equal("contacts             0         1         2         0", Row(Import(), "contacts"));

        void WriteSettingsAt(DateTime moment) => File.SetLastWriteTimeUtc(_tool.PathOf("book/book.toml"), moment);
    }

    [Fact]
    public void A_corrected_export_replaces_just_what_differs_and_the_earlier_version_stays_readable()
    {
        Import();
        _tool.WithRecords(("lines.csv", "230.00", "240.00"), ("contacts.csv", "Three Firs Timber", "Three Firs"));
        var outcome = Import();
        Assert.Equal("documents            0         1         3         0", Row(outcome, "documents"));
        Assert.Equal("contacts             0         1         2         0", Row(outcome, "contacts"));
        Assert.EndsWith("Imported as revision 2.\n", outcome.Output);
        Assert.Equal(
            "1|2|23000\n2||24000",
            _tool.Sql(
                "book",
                "SELECT d.added, d.replaced, max(l.amount) FROM documents d JOIN lines l ON l.document = d.key AND l.added = d.added "
                    + "JOIN documents_keys k ON k.key = d.key WHERE k.id = 'INV-2' GROUP BY d.added"));
        Assert.Equal(
            "Three Firs Timber\nThree Firs",
            _tool.Sql("book", "SELECT name FROM contacts WHERE name LIKE 'Three%' ORDER BY added"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void What_a_set_does_not_have_stays_unless_it_is_complete()
    {
        Import();
        _tool.WithRecords(
            (
                "documents.csv", "BILL-1,bill,2026-03-05,,S1,\n", ""), ("lines.csv",
                "BILL-1,2000,-40.00,,,,,,,\nBILL-1,6000,40.00,,,,,,,\n", ""),
            ("budgets.csv", "6000,2026-03,40.00\n", ""), ("contacts.csv", "S1,Three Firs Timber,supplier,,\n", ""));
        Assert.Contains("Nothing has changed", Import().Output);
        var trial = Import("--complete", "--dry-run");
        Assert.Contains("A trial: nothing was kept.", trial.Output);
        var outcome = Import("--complete");
        Assert.Equal(trial.Output.Split('\n')[..^2], outcome.Output.Split('\n')[..^2]);
        Assert.Equal("documents            0         0         3         1", Row(outcome, "documents"));
        Assert.Equal("contacts             0         0         2         1", Row(outcome, "contacts"));
        Assert.Equal("budgets              0         0         1         1", Row(outcome, "budgets"));
        _tool.Run("check", "--book", "book").Done();
        _tool.WithRecords();
        Assert.Equal("documents            1         0         3         0", Row(Import(), "documents"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void Settlements_follow_their_documents()
    {
        Import();
        Assert.Equal("50.00", Cash("2026-04"));
        _tool.WithRecords(("settlements.csv", "57.50,2026-04-10", "30.00,2026-05-10"));
        Assert.Equal("settlements          0         1         0         0", Row(Import(), "settlements"));
        Assert.Equal(("0.00", "26.09"), (Cash("2026-04"), Cash("2026-05")));
        _tool.WithRecords(("settlements.csv", "INV-1,REC-1,57.50,2026-04-10\n", ""));
        Assert.Equal("settlements          0         0         0         1", Row(Import(), "settlements"));
        Assert.Equal("0.00", Cash("2026-04/2026-05"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void A_settlement_with_a_document_that_the_set_does_not_have_stays()
    {
        Import();
        var before = Cash("2026-04");
        File.Delete(_tool.PathOf("set/settlements.csv"));
        _tool.Write("set/documents.csv", "id,kind,date,contact,memo\nINV-1,invoice,2026-03-02,C1,Oars and rowlocks\n");
        _tool.Write("set/lines.csv", """
            document,account,amount,contact
            INV-1,1100,115.00,
            INV-1,4000,-100.00,
            INV-1,2200,-15.00,

            """);
        _tool.Write("set/settlements.csv", "from,to,amount\n");
        var outcome = Import();
        Assert.Equal("documents            0         1         0         0", Row(outcome, "documents"));
        Assert.DoesNotContain("settlements", outcome.Output);
        Assert.Equal(before, Cash("2026-04"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void A_change_that_an_earlier_settlement_no_longer_fits_is_refused()
    {
        Import();
        File.Delete(_tool.PathOf("set/settlements.csv"));
        _tool.Write("set/documents.csv", "id,kind,date,contact\nREC-1,receipt,2026-04-10,C1\n");
        _tool.Write("set/lines.csv", "document,account,amount\nREC-1,1000,20\nREC-1,1100,-20\n");
        var outcome = _tool.Run("import", "set", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.StartsWith(
            "documents.csv:2:1: an earlier settlement no longer fits: \"INV-1\" and \"REC-1\" are settled by 57.50, but only 20.00 is "
                + "open.",
            outcome.Messages);
    }

    [Fact]
    public void Columns_and_lines_may_stand_in_any_order_and_amounts_as_debit_and_credit()
    {
        Import();
        var report = Csv("book");
        _tool.Run("init", "other", "--name", "Test", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        _tool.Write("shuffled/accounts.csv", RecordFiles.Sound["accounts.csv"]);
        _tool.Write("shuffled/contacts.csv", RecordFiles.Sound["contacts.csv"]);
        _tool.Write(
            "shuffled/documents.csv",
            "contact,date,kind,id\nS1,2026-03-05,bill,BILL-1\nC1,2026-03-02,invoice,INV-1\nC2,2026-03-20,invoice,INV-2\nC1,2026-04-10,"
                + "receipt,REC-1\n");
        _tool.Write("shuffled/lines.csv", """
            credit,debit,account,document,line
            ,115,1100,INV-1,1
            40,,2000,BILL-1,1
            15,,2200,INV-1,3
            57.5,,1100,REC-1,2
            ,230,1100,INV-2,1
            100,,4000,INV-1,2
            ,57.50,1000,REC-1,1
            230,0,4010,INV-2,2
            ,40,6000,BILL-1,2

            """);
        _tool.Write("shuffled/settlements.csv", "to,from,amount\nINV-1,REC-1,57.5\n");
        _tool.Run("import", "shuffled", "--book", "other").Done();
        Assert.Equal(report, Csv("other"));
    }

    [Fact]
    public void Tags_texts_and_hashes_are_kept()
    {
        Import();
        Assert.Equal("""{"region":"north"}""", _tool.Sql("book", "SELECT tags FROM contacts WHERE name = 'Alma Acker'"));
        Assert.Equal(
            "Two boats,\none old",
            _tool.Sql("book", "SELECT memo FROM documents JOIN documents_keys k USING (key) WHERE k.id = 'INV-2'"));
        Assert.Equal("base", _tool.Sql("book", "SELECT tax_part FROM lines WHERE quantity = 2000000"));
        Assert.Equal(
            "1|1|10",
            _tool.Sql("book", "SELECT revision, max(revision), count(*) FROM import_files WHERE length(sha256) = 64"));
    }

    [Fact]
    public void An_account_that_turns_into_money_moves_the_cash_basis()
    {
        Import();
        Assert.Equal("0.00", Cash("2026-03"));
        _tool.WithRecords(
            ("accounts.csv", "1100,Receivables,receivable", "1100,Receivables,bank"),
            ("settlements.csv", "INV-1,REC-1,57.50,2026-04-10\n", ""));
        Import();
        Assert.Equal("330.00", Cash("2026-03"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void A_kill_at_any_moment_leaves_the_book_as_it_was_or_as_it_should_be()
    {
        _tool.Run("init", "book", "--name", "B", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        _tool.Run("demo", "first", "--record-set", "--documents", "2500", "--years", "1").Done();
        _tool.Run("demo", "second", "--record-set", "--documents", "6000", "--years", "1", "--seed", "9").Done();
        _tool.Run("import", "first", "--book", "book").Done();
        var before = Csv("book");
        var random = new Random(20261123);
        var (killed, finished) = (0, 0);
        for (var round = 0; round < 12 && finished == 0; round++)
        {
            using var import = _tool.Start([], "import", "second", "--complete", "--book", "book");
            if (!import.WaitForExit(random.Next(5, 60 + (40 * round))))
            {
                import.Kill();
                import.WaitForExit();
                killed++;
            }

            var now = Csv("book");
            finished += now == before ? 0 : 1;
            Assert.Equal(now == before ? "1" : "2", _tool.Sql("book", "SELECT max(revision) FROM imports"));
        }

        Assert.NotEqual(0, killed);
        _tool.Run("check", "--book", "book").Done();
        _tool.Run("import", "second", "--complete", "--book", "book").Done();
        _tool.Run("init", "fresh", "--name", "B", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        _tool.Run("import", "second", "--book", "fresh").Done();
        Assert.Equal(Csv("fresh"), Csv("book"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void A_report_while_an_import_runs_sees_the_book_before_or_after()
    {
        Import();
        var before = Csv("book");
        _tool.Run("demo", "large", "--record-set", "--documents", "20000", "--years", "1").Done();
        using var import = _tool.Start([], "import", "large", "--complete", "--book", "book");
        var seen = new List<string>();
        while (!import.WaitForExit(5))
        {
            seen.Add(Csv("book"));
        }

        Assert.Equal(0, import.ExitCode);
        Assert.NotEmpty(seen);
        var after = Csv("book");
        Assert.All(seen, report => Assert.True(report == before || report == after));
    }

    [Fact]
    public void On_a_terminal_a_long_import_tells_how_far_it_is_and_nowhere_else()
    {
        Import();
        _tool.Run("demo", "large", "--record-set", "--documents", "60000", "--years", "1").Done();
        using var terminal = System.Diagnostics.Process.Start(new System.Diagnostics.ProcessStartInfo(
            "script", ["-qec", $"{Tool.Binary} import large --complete --book book > counts.txt", "/dev/null"])
        {
            WorkingDirectory = _tool.Folder, RedirectStandardOutput = true,
        })!;
        var shown = terminal.StandardOutput.ReadToEnd();
        terminal.WaitForExit();
        Assert.Equal(0, terminal.ExitCode);
        Assert.Matches(@"(reading lines\.csv|deriving postings): [\d,]+", shown);
        Assert.StartsWith("                 added", File.ReadAllText(_tool.PathOf("counts.txt")));
        Assert.Equal("", _tool.Run("import", "large", "--complete", "--book", "book").Done().Messages);
    }

    [Fact]
    public void A_second_import_at_the_same_time_is_told_to_try_again()
    {
        Import();
        using var holder = System.Diagnostics.Process.Start(new System.Diagnostics.ProcessStartInfo(
            "sqlite3", [_tool.PathOf("book/records.db")])
        {
            RedirectStandardInput = true, RedirectStandardOutput = true,
        })!;
        holder.StandardInput.WriteLine("BEGIN IMMEDIATE; SELECT 'held';");
        Assert.Equal("held", holder.StandardOutput.ReadLine());
        var outcome = _tool.Run("import", "set", "--book", "book");
        Assert.Equal(
            (75, "vlei: Another import is writing to this book.\n      Try again when it is done.\n"),
            (outcome.Status, outcome.Messages));
        holder.StandardInput.Close();
        holder.WaitForExit();
    }

    public void Dispose() => _tool.Dispose();

    private static string Row(Outcome outcome, string table) =>
        outcome.Output.Split('\n').Single(line => line.StartsWith(table, StringComparison.Ordinal));

    private Outcome Import(params string[] options)
    {
        if (!Directory.Exists(_tool.PathOf("set")))
        {
            _tool.WithRecords();
        }

        return _tool.Run(["import", "set", "--book", "book", .. options]).Done();
    }

    private string Csv(string book) => _tool.Run(
        "show", "profit-loss", "--book", book, "--period", "2020/2030", "--by", "month", "--basis", "cash", "--format", "csv")
            .Done().Output;

    private string Cash(string period)
    {
        var report = _tool.Run("show", "profit-loss", "--book", "book", "--period", period, "--basis", "cash", "--format", "csv")
            .Done().Output;
        return report.TrimEnd().Split('\n')[^1].Split(',')[^1];
    }

    private string Files() => _tool.Sql(
        "book", "SELECT (SELECT count(*) FROM imports) || (SELECT group_concat(checksum) FROM derived_columns)");
}
