using System.Text.Json;

namespace Vlei.Tests;

/// <summary>Many books at once: each as if it were alone, none in the way of another, and all of them together.</summary>
public sealed class ManyBooksTests : IDisposable
{
    private static readonly string[] Clients = ["larkfield", "quillside", "ternbank"];

    private readonly Tool _tool = new Tool().WithDemo(withClients: true);

    [Fact]
    public void Every_book_is_produced_as_if_it_were_alone_and_the_summary_has_its_figures()
    {
        // With one that has no records, one that is damaged, and a folder that is no book.
        Directory.CreateDirectory(_tool.PathOf("reedwater/clients/notes"));
        _tool.Run("init", "reedwater/clients/empty", "--name", "Empty", "--currency", "ZAR").Done();
        File.AppendAllText(_tool.PathOf("reedwater/clients/empty/book.toml"), "library = \"../..\"\nclock = 2026-06-30\n");
        Tool.Copy(_tool.PathOf("reedwater/clients/ternbank"), _tool.PathOf("reedwater/clients/zbroken"));
        File.WriteAllText(_tool.PathOf("reedwater/clients/zbroken/records.db"), "no records");
        var all = Run("run", "month-end", "--books", "reedwater/clients/*", "--format", "csv", "--summary", "sum.json");
        Assert.Equal(65, all.Status);
        Assert.Contains("reedwater/clients/notes is no book, and is passed over.\n", all.Messages);
        Assert.All(Clients, client => Assert.Contains($"/5  reedwater/clients/{client}: 10 files\n", all.Messages));
        Assert.Matches("Ternbank Canoe Hire( +0){0} +FAILED: ", all.Output);
        var summary = Json(File.ReadAllText(_tool.PathOf("sum.json")));
        var sums = new decimal[3];
        foreach (var client in Clients)
        {
            var book = $"reedwater/clients/{client}";
            Assert.Equal(
                Run("show", "sales-by-customer", "--period", "2026-05", "--top", "20", "--format", "csv", "--book", book).Done().Output,
                File.ReadAllText(_tool.PathOf($"{book}/out/month-end/2026-05/sales-by-customer.csv")));
            var cells = Cells(summary, book);
            var aging = Cells(
                Json(
                    Run("show", "receivables-aging", "--as-of", "2026-05-31", "--unapplied", "--format", "json", "--book", book)
                        .Done().Output), "total");
            decimal[] figures =
            [
                Cells(
                    Json(Run("show", "profit-loss", "--period", "2026-05", "--format", "json", "--book", book).Done().Output),
                    "net-profit")[0],
                Cells(
                    Json(Run("show", "cash-flow", "--period", "2026-05", "--format", "json", "--book", book).Done().Output),
                    "closing-money")[0], aging[1..5].Sum(),
            ];
            Assert.Equal(figures, cells[..3]);
            sums = [.. sums.Zip(figures, (sum, figure) => sum + figure)];
        }

        Assert.Equal(sums, Cells(summary, "total")[..3]);

        // A group that none of them has leaves a line for each, and the exit status of what went wrong.
        var none = Run("run", "nothing", "--books", "reedwater/clients/*");
        Assert.Equal(
            (66, 5),
            (none.Status, none.Output.Split("FAILED: There is no group nothing.").Length - 1 + none.Output.Split(
                "FAILED: reedwater/clients/zbroken").Length - 1));

        // One after the other is the same as all at once.
        string Made() => string.Concat(
            Clients.Select(client => File.ReadAllText(_tool.PathOf($"reedwater/clients/{client}/out/month-end/2026-05/month-end.csv"))));
        var made = Made();
        Run("run", "month-end", "--books", "reedwater/clients/*", "--format", "csv", "--jobs", "1");
        Assert.Equal(made, Made());
    }

    [Fact]
    public void Statements_of_books_stand_side_by_side_and_add_up()
    {
        // One has an account of its own, and another name for one that all have.
        var accounts = _tool.PathOf("reedwater/clients/larkfield/records/accounts.csv");
        File.WriteAllText(
            accounts, File.ReadAllText(accounts).Replace("Shop sales", "Sales in the shop", StringComparison.Ordinal)
                .Replace("\n4020,", "\n4015,Moorings,income,,,\n4020,", StringComparison.Ordinal));
        Append("larkfield", "documents", "M-1,journal,2026-05-04");
        Append("larkfield", "lines", "M-1,4015,-100.00", "M-1,1000,100.00");
        Run("import", "reedwater/clients/larkfield/records", "--book", "reedwater/clients/larkfield").Done();
        foreach (var (report, options) in new[]
        {
            ("profit-loss", "--period 2026-05"), ("profit-loss", "--period fy2026 --basis cash --depth 1"),
            ("balance-sheet", "--as-of 2026-05-31"), ("cash-flow", "--period 2026-05"),
            ("cash-flow", "--period 2026-05 --method direct --zeros"),
        })
        {
            string[] show = ["show", report, "--format", "json", .. options.Split(' ')];
            var whole = Json(Run([.. show, "--books", "reedwater/clients/*", "--by", "book"]).Done().Output);
            var rows = Rows(whole);
            Assert.Equal(
                [.. Clients.Select(client => $"reedwater/clients/{client}"), "total"],
                whole.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("key").GetString()!));
            Assert.All(rows.Values.Where(cells => cells.Length > 0), cells => Assert.Equal(cells[..3].Sum(), cells[3]));
            for (var place = 0; place < Clients.Length; place++)
            {
                var own = Rows(Json(Run([.. show, "--book", $"reedwater/clients/{Clients[place]}"]).Done().Output));
                Assert.All(own.Where(row => row.Value.Length > 0), row => Assert.Equal(row.Value[0], rows[row.Key][place]));
                Assert.All(rows.Where(row => row.Value.Length > 0 && !own.ContainsKey(row.Key)), row => Assert.Equal(0, row.Value[place]));
                Assert.Equal(own.Keys, rows.Keys.Where(own.ContainsKey));
            }

            Assert.Equal(
                3, whole.GetProperty("checks").EnumerateArray().Select(check => check.GetProperty("name").GetString())
                    .Count(name => name!.Contains("Larkfield", StringComparison.Ordinal)
                || name.Contains("Quillside", StringComparison.Ordinal) || name.Contains("Ternbank", StringComparison.Ordinal)));
        }

        var text = Run("show", "profit-loss", "--period", "2026-05", "--books", "reedwater/clients/*", "--by", "book").Done().Output;
        Assert.Matches(@"(?s)Boats built to order.*\n  Moorings +100\.00 +0\.00 +0\.00 +100\.00\n  Repairs", text);
        Assert.Contains("Called otherwise in some of the books: 4040.", text);

        // In two currencies there is no total, and each has its own decimals.
        _tool.Run("init", "tokyo", "--name", "Tokyo", "--currency", "JPY").Done();
        _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n4000,Sales,income\n");
        _tool.Write("set/documents.csv", "id,kind,date\nS,cash-sale,2026-05-05\n");
        _tool.Write("set/lines.csv", "document,account,amount\nS,1000,500\nS,4000,-500\n");
        Run("import", "set", "--book", "tokyo").Done();
        var both = Run(
            "show", "profit-loss", "--period", "2026-05", "--books", "reedwater/clients/t*", "--books", "tokyo", "--by", "book")
                .Done().Output;
        Assert.Matches(@"Accrual basis, each book in its own currency\n", both);
        Assert.Contains("(ZAR)", both);
        Assert.Contains("Tokyo (JPY)", both);
        Assert.Matches(@"Sales +[\d,.]+ +500\.00\n", both);
    }

    [Theory]
    [InlineData(66, "No book fits reedwater/client/*. Name folders of books", "run", "month-end", "--books", "reedwater/client/*")]
    [InlineData(66, "reedwater/groups is no book: it has no book.toml.", "run", "month-end", "--books", "reedwater/groups")]
    [InlineData(2, "--book and --books both say which.", "run", "month-end", "--books", "reedwater/clients/*", "--book", "reedwater")]
    [InlineData(2, "--jobs is for many books, and there is one.", "run", "month-end", "--book", "reedwater", "--jobs", "2")]
    [InlineData(2, "--jobs does not take 0.", "run", "month-end", "--books", "reedwater/clients/*", "--jobs", "0")]
    [InlineData(2, "--books is for a statement with a column per book. Add --by book", "show", "profit-loss", "--books",
        "reedwater/clients/*")]
    [InlineData(2, "--revision is of one book, and every book has its own.", "show", "profit-loss", "--books", "reedwater/clients/*",
        "--by", "book", "--revision", "1")]
    [InlineData(2, "--compare does not go with --by book", "show", "profit-loss", "--books", "reedwater/clients/*", "--by", "book",
        "--compare", "prior-year")]
    [InlineData(2, "trial-balance has 4 columns, so books have no column each.", "show", "trial-balance", "--books",
        "reedwater/clients/*", "--by", "book")]
    [InlineData(66, "reedwater/clients/larkfield: There is no account \"9999\".", "show", "profit-loss", "--books",
        "reedwater/clients/*", "--by", "book", "--only", "account=9999")]
    [InlineData(2, "No report is named.", "show", "--books", "reedwater/clients/*", "--by", "book")]
    [InlineData(66, "There is no group month-ned. Did you mean month-end?", "run", "month-ned", "--book", "reedwater")]
    [InlineData(2, "--format does not take \"pages\".", "run", "month-end", "--book", "reedwater", "--format", "text,pages")]
    [InlineData(2, "The ending of sum.pages says no format.", "run", "month-end", "--book", "reedwater", "--summary", "sum.pages")]
    public void What_makes_no_sense_is_refused(int status, string message, params string[] arguments)
    {
        var outcome = _tool.Run(arguments);
        Assert.StartsWith($"vlei: {message}", outcome.Messages.Replace("\n      ", " ", StringComparison.Ordinal));
        Assert.Equal((status, ""), (outcome.Status, outcome.Output));
        Assert.False(Directory.Exists(_tool.PathOf("reedwater/out")));
    }

    public void Dispose() => _tool.Dispose();

    private Outcome Run(params string[] arguments) => _tool.Run([("VLEI_CLOCK", "2026-06-30")], arguments);

    // Rows of a record set, filled up with nothing behind their first fields; amounts are the third field of lines.
    private void Append(string client, string table, params string[] rows)
    {
        var path = _tool.PathOf($"reedwater/clients/{client}/records/{table}.csv");
        var columns = File.ReadLines(path).First().Count(letter => letter == ',');
        File.AppendAllText(
            path, string.Concat(rows.Select(row => $"{row}{new string(',', columns - row.Count(letter => letter == ','))}\n")));
    }

    private static JsonElement Json(string text) => JsonDocument.Parse(text).RootElement;

    private static Dictionary<string, decimal[]> Rows(JsonElement report) => report.GetProperty("rows").EnumerateArray().ToDictionary(
        row => row.GetProperty("key").GetString()!,
        row => row.GetProperty("cells").EnumerateArray().Where(cell => cell.ValueKind == JsonValueKind.Number)
            .Select(cell => cell.GetDecimal()).ToArray());

    private static decimal[] Cells(JsonElement report, string row) => Rows(report)[row];
}
