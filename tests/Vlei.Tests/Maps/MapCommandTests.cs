namespace Vlei.Tests.Maps;

/// <summary><c>vlei map</c> and <c>vlei import</c> as they are typed, on files of other programs.</summary>
public sealed class MapCommandTests : IDisposable
{
    private const string Journal = """
        Date,No,Account,Details,Debit,Credit
        2026-03-13,1,1000 Bank,Till,100.00,
        2026-03-13,1,4000 Sales,Till,,100.00
        2026-03-15,2,6000 Rent,March,50.00,
        2026-03-15,2,1000 Bank,March,,50.00

        """;

    private readonly Tool _tool = new();

    public MapCommandTests() => _tool.Run("init", "book", "--name", "Client", "--currency", "EUR", "--clock", "2026-06-30").Done();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void What_a_file_does_not_decide_is_refused_with_the_line_of_the_map_until_it_is_said()
    {
        _tool.Write(
            "list.csv",
            "Date,No,Account,Debit,Credit\n03/04/2026,1,Bank,5.00,\n03/04/2026,1,Sales,,5.00\n02/05/2026,2,Bank,6.00,\n02/05/2026,2,"
                + "Sales,,6.00\n01/06/2026,3,Bank,1.00,\n01/06/2026,3,Sales,,1.00\n");
        var outcome = Run("map", "list.csv");
        Assert.Equal(65, outcome.Status);
        var line = File.ReadAllLines(_tool.PathOf("book/maps/list.toml")).ToList()
            .FindIndex(line => line.StartsWith("# dates = ", StringComparison.Ordinal)) + 1;
        Assert.Contains($"maps/list.toml:{line}: \"03/04/2026\" and all others may be read in 2 ways", outcome.Messages);
        Assert.Contains(
            $"maps/list.toml:{line}: it is not decided which part of a date is the day.",
            Run("import", "list.csv", "--new", "take").Messages);
        Assert.Equal(73, Run("map", "list.csv", "--set", "dates=day-month-year").Status);
        Run("map", "list.csv", "--set", "dates=day-month-year", "--overwrite").Done();
        Run("import", "list.csv", "--new", "take").Done();
        Assert.Contains("2026-04-03", Run("show", "lines", "--period", "all", "--format", "csv").Output);
    }

    [Theory]
    [InlineData("decimal-mark", "decimal-marks", "there is no key decimal-marks.\n      Did you mean decimal-mark?")]
    [InlineData("account = ", "acount = ", "nothing is taken as acount.\n      Did you mean account or amount?")]
    [InlineData("\"journal\"", "\"jurnal\"", "shape is not \"jurnal\".\n      Did you mean journal?")]
    [InlineData("[columns]", "[column]", "there is no table column.\n      Did you mean columns?")]
    public void What_a_map_may_not_say_is_refused_with_its_place_and_the_nearest(string was, string becomes, string message)
    {
        _tool.Write("journal.csv", Journal);
        Run("map", "journal.csv").Done();
        var path = _tool.PathOf("book/maps/journal.toml");
        File.WriteAllText(path, File.ReadAllText(path).Replace(was, becomes, StringComparison.Ordinal));
        var outcome = Run("import", "journal.csv");
        Assert.Equal(65, outcome.Status);
        Assert.Contains(message, outcome.Messages);
        Assert.Contains("maps/journal.toml:", outcome.Messages);
    }

    [Fact]
    public void What_the_book_does_not_have_is_listed_and_refused_in_scripts_and_its_guessed_types_are_marked_until_a_map_says_them()
    {
        _tool.Write("journal.csv", Journal);
        Assert.Contains("vlei map", Run("import", "journal.csv").Messages);
        Run("map", "journal.csv").Done();
        var refused = Run("import", "journal.csv");
        Assert.Equal(65, refused.Status);
        Assert.Contains("6000  Rent, expense (its name has \"rent\")", refused.Output);
        Assert.Contains("nothing was imported", refused.Messages);
        Assert.Contains("Did you mean take?", Run("import", "journal.csv", "--new", "tke").Messages);
        Run("import", "journal.csv", "--new", "take").Done();
        Assert.Contains("6000 Rent: expense, as its name has \"rent\"", Run("check").Done().Output);
        File.AppendAllText(
            _tool.PathOf("book/maps/journal.toml"),
            "\n[types]\n\"6000\" = \"other-expense\"\n\"1000\" = \"bank\"\n\"4000\" = \"income\"\n");
        Assert.Contains("accounts             0         3", Run("import", "journal.csv").Done().Output);
        Assert.DoesNotContain("note", Run("check").Done().Output);
        Assert.Contains("other-expense", Run("show", "accounts", "--columns", "+type", "--format", "csv").Output);
    }

    [Fact]
    public void What_does_not_prove_is_named_and_what_is_taken_anyway_is_a_finding_until_it_proves()
    {
        const string Ledger =
            "Date,Details,Debit,Credit,Balance\n1000 Bank,,,,\n2026-03-01,Till,10.00,,10.00\n2026-03-09,Till,5.00,,15.00\n4000 Sales,,,"
                + ",\n2026-03-01,Till,,10.00,10.00\n2026-03-09,Till,,5.00,15.00\n";
        _tool.Write("general ledger.csv", Ledger);
        Run("map", "general ledger.csv", "--as", "gl").Done();
        _tool.Write("general ledger.csv", Ledger.Replace("5.00,,15.00", "5.00,,16.00", StringComparison.Ordinal));
        var refused = Run("import", "general ledger.csv", "--new", "take");
        Assert.Equal(65, refused.Status);
        Assert.Contains(
            "general ledger.csv:4:5: the balance of 1000 Bank is 16.00, but the rows come to 15.00: a difference of 1.00.",
            refused.Messages);
        Assert.Contains("nothing was imported", refused.Messages);
        Run("import", "general ledger.csv", "--new", "take", "--take-anyway").Done();
        var check = Run("check");
        Assert.Equal(1, check.Status);
        Assert.Contains(
            "FAILED  What imports took in is proved\n        revision 1: general ledger.csv:4:5: the balance of 1000 Bank is 16.00",
            check.Output);
        _tool.Write("general ledger.csv", Ledger);
        Run("import", "general ledger.csv").Done();
        Run("check").Done();
    }

    [Fact]
    public void A_file_that_is_all_there_is_of_a_period_removes_what_it_no_longer_has()
    {
        _tool.Write("journal.csv", Journal + "2026-04-01,3,1000 Bank,Till,7.00,\n2026-04-01,3,4000 Sales,Till,,7.00\n");
        Run("map", "journal.csv").Done();
        Run("import", "journal.csv", "--new", "take").Done();
        _tool.Write("journal.csv", string.Join('\n', Journal.Split('\n').Take(3)) + "\n");
        Assert.Contains("Nothing has changed", Run("import", "journal.csv").Done().Output);
        Assert.Contains(
            "documents            0         0         1         1",
            Run("import", "journal.csv", "--complete-for", "2026-03").Done().Output);
        Assert.Contains("7.00", Run("show", "lines", "--period", "2026-04").Output);
        Assert.Contains("50.00", Run("show", "lines", "--period", "2026-03", "--revision", "1").Output);
        Assert.Equal(2, Run("import", "journal.csv", "--complete-for", "2026-03", "--complete").Status);
    }

    [Fact]
    public void One_file_adds_a_language_and_a_second_map_of_the_same_headings_is_asked_for_by_name()
    {
        _tool.Write(
            "dagboek.csv",
            "Boekdag;Bonnummer;Grootboekrekening;Omschrijving;Debet;Kredit\n15-03-2026;1;1000 Bank;Kas;5,00;\n15-03-2026;1;4000 Omzet;"
                + "Kas;;5,00\n");
        Assert.Equal(65, Run("map", "dagboek.csv").Status);
        _tool.Write(
            "book/words/nl.toml",
            "[columns]\ndate = [\"boekdag\"]\ndocument = [\"bonnummer\"]\naccount = [\"grootboekrekening\"]\nmemo = "
                + "[\"omschrijving\"]\ndebit = [\"debet\"]\ncredit = [\"kredit\"]\n\n[types]\nincome = [\"omzet\"]\n");
        Assert.Contains("4000  Omzet, income", Run("map", "dagboek.csv").Done().Output);
        Run("map", "dagboek.csv", "--as", "other").Done();
        File.Move(_tool.PathOf("dagboek.csv"), _tool.PathOf("boek.csv"));
        Assert.Contains("has the headings of dagboek and other", Run("import", "boek.csv").Messages);
        File.Move(_tool.PathOf("boek.csv"), _tool.PathOf("dagboek.csv"));
        Run("import", "dagboek.csv", "--map", "other", "--new", "take").Done();
        _tool.Write("book/words/nl.toml", "[colums]\n");
        Assert.Contains(
            "words/nl.toml:1:1: there is no table colums.\n      Did you mean columns?",
            Run("map", "dagboek.csv", "--as", "third").Messages);
    }

    [Fact]
    public void Two_programs_that_number_alike_do_not_mix_and_a_file_may_be_called_as_those_of_a_record_set()
    {
        _tool.Write("sales.csv", Journal);
        _tool.Write(
            "wages.csv", Journal.Replace("Till", "Wages", StringComparison.Ordinal).Replace("Details", "Note", StringComparison.Ordinal));
        Run("map", "sales.csv").Done();
        Assert.Contains("journal- is that of sales", Run("map", "wages.csv").Done().Output);
        Run("import", "sales.csv", "--new", "take").Done();
        Assert.Contains("documents            2         0         0         0", Run("import", "wages.csv").Done().Output);
        _tool.Write("accounts.csv", "Account no;Account name;Account type\n7000;Cleaning;Expense\n");
        Assert.Equal(65, Run("import", "accounts.csv").Status);
        Run("map", "accounts.csv").Done();
        Assert.Contains("accounts             1", Run("import", "accounts.csv", "--new", "take").Done().Output);
        _tool.Write("set/accounts.csv", "code,name,type\n7100,Coffee,expense\n");
        Assert.Equal(2, Run("import", "set", "--new", "take").Status);
        Run("import", "set").Done();
    }

    [Fact]
    public void Several_sheets_of_a_workbook_are_mapped_and_come_in_together()
    {
        _tool.Write("x/accounts.csv", "Account no,Account name,Account type\n1000,Bank,Bank\n4000,Sales,Revenue\n6000,Rent,Expense\n");
        _tool.Write("x/journal.csv", Journal);
        Documents.RecordWorkbook.Write(_tool.PathOf("x"), _tool.PathOf("year end.xlsx"));
        Run("map", "year end.xlsx").Done();
        Assert.True(
            File.Exists(_tool.PathOf("book/maps/year-end-accounts.toml")) && File.Exists(_tool.PathOf("book/maps/year-end-journal.toml")));
        Assert.Contains(
            "documents            2         0         0         0", Run("import", "year end.xlsx", "--new", "take").Done().Output);
        Assert.DoesNotContain("note", Run("check").Done().Output);
    }

    private Outcome Run(params string[] arguments) => _tool.Run([], [.. arguments, "--book", "book"]);
}
