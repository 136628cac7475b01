using System.Text;

namespace Vlei.Tests;

/// <summary>Every way in which a record set can be broken, with the message that answers it; the book stays as it was.</summary>
public sealed class BrokenRecordsTests : IDisposable
{
    private static readonly (string What, string File, string From, string To)[] Cases =
    [
        ("a document that does not sum to zero", "lines.csv", "INV-1,4000,-100.00", "INV-1,4000,-99.99"),
        (
            "a document without lines", "documents.csv", "BILL-1,bill,2026-03-05,,S1,",
            "BILL-1,bill,2026-03-05,,S1,\nBILL-2,bill,2026-03-06,,S1,"),
        ("an unknown account", "lines.csv", "BILL-1,6000", "BILL-1,600"),
        ("an unknown contact", "documents.csv", "2026-03-05,,S1", "2026-03-05,,S2"),
        ("an unknown item", "lines.csv", ",OAR,", ",OARS,"),
        ("an unknown project", "lines.csv", ",B1,", ",B7,"),
        ("an unknown department", "lines.csv", ",SHOP", ",SHIP"),
        ("an unknown tax code", "lines.csv", ",S15,,,SHOP", ",S16,,,SHOP"),
        ("an unknown parent", "accounts.csv", "income,4000", "income,4001"),
        ("a line for no document", "lines.csv", "BILL-1,6000", "BILL-9,6000"),
        ("a repeated id", "contacts.csv", "S1,Three", "C2,Three"),
        ("a repeated document", "documents.csv", "REC-1,receipt", "INV-1,receipt"),
        ("an impossible date", "documents.csv", "2026-03-20", "2026-02-30"),
        ("a date out of reach", "documents.csv", "2026-03-20", "0226-03-20"),
        ("an amount with too many decimals", "lines.csv", "57.50,", "57.505,"),
        ("an amount with a comma", "lines.csv", "REC-1,1000,57.50", "REC-1,1000,\"57,50\""),
        ("an amount that is too large", "lines.csv", "REC-1,1000,57.50", "REC-1,1000,99999999999999999999"),
        ("an unknown kind", "documents.csv", "REC-1,receipt", "REC-1,reciept"),
        ("an unknown account type", "accounts.csv", "Bank,bank", "Bank,banc"),
        ("a missing value", "accounts.csv", "6000,Rent,", "6000,,"),
        ("a value that is neither true nor false", "accounts.csv", ",false,", ",no,"),
        ("a settlement that is too large", "settlements.csv", "57.50", "57.51"),
        (
            "two settlements that are too large together", "settlements.csv", "INV-1,REC-1,57.50,2026-04-10",
            "INV-1,REC-1,57.50,2026-04-10\nREC-1,INV-2,0.01,"),
        ("a settlement on one side", "settlements.csv", "INV-1,REC-1", "INV-1,INV-2"),
        ("a settlement without an account in common", "settlements.csv", "INV-1,REC-1", "BILL-1,REC-1"),
        ("a settlement of nothing", "settlements.csv", "57.50", "0"),
        ("a settlement of a document with itself", "settlements.csv", "INV-1,REC-1", "INV-1,INV-1"),
        ("a settlement of no document", "settlements.csv", "INV-1,REC-1", "INV-1,REC-7"),
        ("a parent of another type", "accounts.csv", "income,4000", "income,6000"),
        ("a circle of parents", "accounts.csv", "Sales,income,,", "Sales,income,4010,"),
        ("an account that is its own parent", "accounts.csv", "income,4000", "income,4010"),
        (
            "two retained earnings", "accounts.csv", "6000,Rent",
            "3900,Kept,retained-earnings,,,\n3901,Kept too,retained-earnings,,,\n6000,Rent"),
        ("an unknown column", "documents.csv", "memo", "mem"),
        ("a missing column", "accounts.csv", "code,name,type", "code,name,cash_flow2"),
        ("a column that is there twice", "documents.csv", "due,contact", "date,contact"),
        ("too few values", "documents.csv", "REC-1,receipt,2026-04-10,,C1,", "REC-1,receipt,2026-04-10"),
        ("a quote in the middle", "contacts.csv", "Three Firs", "Three \"Firs\""),
        ("a quote that is never closed", "contacts.csv", "S1,Three", "S1,\"Three"),
        ("both amount and debit", "lines.csv", "document,account,amount,item", "document,account,amount,debit"),
        (
            "a line that is there twice", "lines.csv",
            "document,account,amount,item,quantity,unit_price,tax_code,tax_part,project,department\nINV-1,1100,115.00,,,",
            "document,account,amount,item,quantity,line,tax_code,tax_part,project,department\nINV-1,1100,115.00,,,3"),
        ("a second budget for the same", "budgets.csv", "6000,2026-03", "4000,2026-03"),
        ("a month that is none", "budgets.csv", "6000,2026-03", "6000,2026-3"),
        ("an empty file", "items.csv", "id,name,kind,unit\nOAR,Oars,stock,pair\n", ""),
    ];

    private readonly Tool _tool = new();

    [Fact]
    public void Each_is_answered_with_its_place_and_what_was_expected()
    {
        var answers = new StringBuilder();
        foreach (var (what, file, from, to) in Cases)
        {
            var outcome = _tool.WithRecords((file, from, to)).Run("import", "set", "--book", "book");
            Assert.True(outcome.Status == 65, $"{what}: status {outcome.Status}\n{outcome.Messages}{outcome.Output}");
            Assert.Equal("", outcome.Output);
            answers.Append(CultureInfo.InvariantCulture, $"# {what}\n{outcome.Messages}\n");
        }

        Assert.Equal("0", _tool.Sql("book", "SELECT count(*) FROM imports"));
        Assert.Equal(
            "0",
            _tool.Sql("book", "SELECT (SELECT count(*) FROM accounts_keys) + (SELECT count(*) FROM derived_months)"));
        Snapshot.Matches("broken-records.txt", answers.ToString());
        _tool.WithRecords().Run("import", "set", "--book", "book").Done();
    }

    [Fact]
    public void A_file_that_is_not_utf8_is_answered_with_the_place_of_the_byte()
    {
        _tool.WithRecords();
        var bytes = Encoding.Latin1.GetBytes(RecordFiles.Sound["contacts.csv"].Replace("Alma", "Zoë"));
        File.WriteAllBytes(_tool.PathOf("set/contacts.csv"), bytes);
        var outcome = _tool.Run("import", "set", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.StartsWith("contacts.csv:2:6: byte 0xEB is not UTF-8", outcome.Messages);
    }

    [Fact]
    public void All_errors_are_gathered_twenty_shown_and_the_rest_written_on_request()
    {
        _tool.WithRecords();
        var lines = string.Concat(Enumerable.Range(1, 250).Select(n => $"INV-1,{9000 + n},x{n}\n"));
        _tool.Write("set/lines.csv", "document,account,amount\n" + lines);
        var outcome = _tool.Run("import", "set", "--book", "book", "--errors", "errors.txt");
        Assert.Equal(65, outcome.Status);
        Assert.Equal(22, outcome.Messages.TrimEnd().Split('\n').Length);
        Assert.Contains("vlei: 503 errors; nothing was imported, the book is as it was.", outcome.Messages);
        var all = File.ReadAllLines(_tool.PathOf("errors.txt"));
        Assert.Equal(503, all.Length);
        Assert.Equal(
            "lines.csv:251:3: amount \"x250\" is not a number; expected one as -1234.50, with a point and without thousands separators.",
            all[499]);
    }

    [Fact]
    public void What_is_wrong_with_a_long_file_is_told_in_its_order_whoever_finds_it()
    {
        // A day that is none is found by who reads ahead, an id that is there twice by who takes records in.
        _tool.WithRecords();
        var (documents, lines, expected) = (
            new StringBuilder("id,kind,date\n"), new StringBuilder("document,account,amount\n"), new List<string>());
        for (var number = 1; number <= 3_000; number++)
        {
            var (isBroken, isTwice) = (number % 7 == 0, number % 11 == 0);
            documents.Append($"J-{(isTwice ? number - 1 : number)},journal,{(isBroken ? "2026-02-30" : "2026-02-20")}\n");
            lines.Append($"J-{(isTwice ? number - 1 : number)},1000,0\n");
            expected.AddRange(isBroken ? [$"documents.csv:{number + 1}:3: date"] : []);
            expected.AddRange(isTwice ? [$"documents.csv:{number + 1}:1: id"] : []);
        }

        _tool.Write("set/documents.csv", documents.ToString());
        _tool.Write("set/lines.csv", lines.ToString());
        Assert.Equal(65, _tool.Run("import", "set", "--book", "book", "--errors", "errors.txt").Status);
        Assert.Equal(
            expected, File.ReadAllLines(_tool.PathOf("errors.txt")).Select(error => string.Join(' ', error.Split(' ').Take(2)))
                .Where(error => error.StartsWith("documents.csv", StringComparison.Ordinal)));
    }

    [Theory]
    [InlineData("nowhere", 66, "vlei: nowhere is not there.")]
    [InlineData("line.csv", 65, "Did you mean lines.csv?")]
    [InlineData("set/documents.csv", 65, "There is a documents.csv, but no lines.csv.")]
    [InlineData("empty", 66, "There are no records in empty.")]
    public void Wrong_paths_are_answered(string path, int status, string message)
    {
        _tool.WithRecords();
        _tool.Write("line.csv", "document,account,amount\n");
        Directory.CreateDirectory(_tool.PathOf("empty"));
        var outcome = _tool.Run("import", path, "--book", "book");
        Assert.Equal(status, outcome.Status);
        Assert.Contains(message, outcome.Messages);
    }

    [Theory]
    [InlineData("""{"resources": [{"path": "gone.csv"}]}""", "it lists gone.csv, which is not there")]
    [InlineData("""{"currency": "EUR", "resources": []}""", "the records are in EUR, the book is in ZAR")]
    [InlineData("{\n  \"resources\": [,]}", "datapackage.json:2:17: this is not JSON")]
    public void A_package_that_does_not_fit_is_answered(string package, string message)
    {
        _tool.WithRecords().Write("set/datapackage.json", package);
        var outcome = _tool.Run("import", "set", "--book", "book");
        Assert.Equal(65, outcome.Status);
        Assert.Contains(message, outcome.Messages);
    }

    public void Dispose() => _tool.Dispose();
}
