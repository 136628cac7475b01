using System.Text;

namespace Vlei.Tests.Maps;

/// <summary>Files as they come: what can be told is told apart, what cannot be is refused with its place, and nothing is doubled.</summary>
public sealed class RaggedTests : IDisposable
{
    private const string Sound = """
        Date,No,Account,Text,Debit,Credit
        2026-03-13,1,1000 Bank,Till,"1,150.00",
        2026-03-13,1,4000 Sales,Till,,"1,150.00"
        2026-03-15,2,6000 Rent,March,500.00,
        2026-03-15,2,1000  Bank,March,,500.00

        """;

    private readonly MapTrial _trial = new();

    /// <inheritdoc/>
    public void Dispose() => _trial.Dispose();

    [Theory]
    [InlineData("500.00,\n2026", "n/a,\n2026", "journal.csv:4:5: Debit: \"n/a\" is no number; ")]
    [InlineData("2026-03-15,2,6000", "2026-02-30,2,6000", "journal.csv:4:1: Date: \"2026-02-30\" is no day; ")]
    [InlineData("2026-03-15,2,6000", ",2,6000", "journal.csv:4:1: Date: is empty, but the row has an amount; expected a day.")]
    [InlineData("6000 Rent", "", "journal.csv:4:3: Account: is empty; expected an account.")]
    [InlineData("500.00,\n2026", "501.00,\n2026",
        "journal.csv:4:1: the lines of document 2 sum to 1.00; expected 0, debits and credits alike.")]
    [InlineData("500.00,\n2026", "USD 500.00,\n2026",
        "journal.csv:4:5: Debit: the amount is in USD; the book is in EUR, and takes in no other currency.")]
    [InlineData("500.00,\n2026", ",\n2026", "journal.csv:4:5: Debit: there is no amount in this row; expected one.")]
    [InlineData("Bank,March,,500.00", "Bank,March,,500.00\nTotal,,,,\"1,650.00\",\"1,651.00\"",
        "journal.csv:6:6: the total of Credit is 1,651.00, but the rows come to 1,650.00: a difference of 1.00.")]
    public void What_is_wrong_in_a_row_is_told_with_its_place_and_nothing_is_taken_in(string was, string becomes, string message)
    {
        Write("journal.csv", Sound);
        _trial.Take("journal.csv");
        var before = _trial.Balances();
        Write("journal.csv", Sound.Replace(was, becomes, StringComparison.Ordinal));
        _ = _trial.Import("journal.csv");
        Assert.Contains(_trial.Errors.First, error => error.ToString().StartsWith(message, StringComparison.Ordinal));
        Assert.Equal(before, _trial.Balances());
    }

    [Fact]
    public void Other_letters_the_same_export_again_an_overlapping_one_and_a_corrected_one_are_what_they_are()
    {
        Write("journal.csv", Sound);
        Assert.Equal(2, Added(_trial.Take("journal.csv")));
        Write("journal-utf16.csv", Sound, Encoding.Unicode);
        Assert.Null(_trial.Take("journal-utf16.csv").Revision);
        var later = "2026-03-20,3,6000 Rent,Shed,80.00,\n2026-03-20,3,1000 Bank,Shed,,80.00\n";
        Write("april.csv", Sound.Split('\n')[0] + "\n" + string.Join('\n', Sound.Split('\n').Skip(3)) + later);
        Assert.Equal(1, Added(_trial.Take("april.csv")));
        Write("april.csv", Sound.Replace("500.00", "510.00", StringComparison.Ordinal) + later);
        var corrected = _trial.Take("april.csv").Counts.First(count => count.Table.Name == "documents").Counts;
        Assert.Equal((0, 1, 2), (corrected.Added, corrected.Changed, corrected.Unchanged));
        Assert.Equal(560 + 30, _trial.Balances()["6000"]);
    }

    [Fact]
    public void Rows_without_numbers_have_ids_of_their_content_so_that_two_exports_in_any_order_do_not_double()
    {
        string[] blocks =
            ["2026-03-02,4000 Sales,-5.00\n2026-03-02,1000 Bank,5.00\n", "2026-03-02,6000 Rent,7.00\n2026-03-02,1000 Bank,-7.00\n"];
        const string Head = "Date,Account,Amount\n";
        Write("a.csv", Head + blocks[0] + blocks[0] + blocks[1]);
        Assert.Equal(3, Added(_trial.Take("a.csv")));
        Write("b.csv", Head + blocks[1] + blocks[0] + blocks[0] + "2026-03-09,6000 Rent,1.00\n2026-03-09,1000 Bank,-1.00\n");
        Assert.Equal(1, Added(_trial.Take("b.csv")));
        Assert.Equal(-10, _trial.Balances()["4000"]);
    }

    [Fact]
    public void Days_as_numbers_accounts_as_paths_and_footers_are_taken_for_what_they_are()
    {
        Write("journal.csv", """
            Some Business Ltd,,,,
            ,,,,
            Date,Account,Text,Debit,Credit
            46097,Bank : Current,Till,100.00,
            46097,Trade  Sales,Till,,100.00
            Printed 1 April 2026 by A. Acker,,,,
            ,,,,
            Date,Account,Text,Debit,Credit
            46098,Overheads : Rent,March,60.00,
            46098,Bank: Current,March,,60.00
            ,,,160.00,160.00
            All amounts in euros,,,,
            """);
        _trial.Take("journal.csv");
        Assert.Equal(
            [("Bank : Current", 40m), ("Overheads : Rent", 60m), ("Trade  Sales", -100m)],
            _trial.Balances(byName: true).Select(account => (account.Key, account.Value))
                .OrderBy(account => account.Key, StringComparer.Ordinal));
        Assert.Equal(
            ["bank", "income", "expense"], _trial.Types().OrderBy(type => type.Key, StringComparer.Ordinal).Select(type => type.Value));
    }

    private static long Added(Books.Import.ImportOutcome outcome) =>
        outcome.Counts.First(count => count.Table.Name == "documents").Counts.Added;

    private void Write(string name, string text, Encoding? encoding = null) =>
        File.WriteAllText(_trial.PathOf(name), text, encoding ?? new UTF8Encoding(false));
}
