using System.Text.Json;
using Vlei.Desk;

namespace Vlei.Tests;

/// <summary>Tables, fields and the lists that are made of them, through the program, on the demo.</summary>
public sealed class ListTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    private static readonly string[] Cross = ["--group-by", "account.type", "--by", "month", "--measure", "natural"];

    private Outcome Show(params string[] arguments) => _tool.Run(["show", .. arguments, "--book", "reedwater"]);

    private List<string[]> Csv(params string[] arguments) =>
        [.. Show([.. arguments, "--format", "csv"]).Done().Output.TrimEnd().Split('\n').Select(line => line.Split(','))];

    [Fact]
    public void Every_report_of_the_catalogue_is_the_same_in_every_format()
    {
        var reports = ReportCatalogue.Standard.Where(report => report.Asks is null).Select(report => report.Key).ToList();
        Assert.InRange(reports.Count, 60, 100);
        Parallel.ForEach(
            reports.Where(report => report is not ("postings" or "lines")),
            new ParallelOptions { MaxDegreeOfParallelism = 4 }, report =>
        {
            var (text, csv) = (Show(report).Done().Output, Csv(report));
            var json = JsonDocument.Parse(Show(report, "--format", "json").Done().Output).RootElement;
            Assert.Equal(report, json.GetProperty("report").GetString());
            Assert.All(
                json.GetProperty("rows").EnumerateArray(),
                row => Assert.Equal(json.GetProperty("columns").GetArrayLength(), row.GetProperty("cells").GetArrayLength()));
            Assert.True(json.GetProperty("rows").GetArrayLength() > 0 || text.Contains("Nothing", StringComparison.Ordinal), report);
            Assert.Equal(json.GetProperty("rows").GetArrayLength(), csv.Count - 1);
            Assert.Contains(json.GetProperty("title").GetString()!, text);
        });
    }

    // The same counts and sums, from the files of the records.
    [Fact]
    public void Fields_of_related_records_group_as_the_files_say()
    {
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        var contacts = File.ReadAllLines(_tool.PathOf("reedwater/records/contacts.csv")).Skip(1).Select(line => line.Split(','))
            .ToDictionary(cells => cells[0], cells => cells[2]);
        foreach (var cash in new[] { false, true })
        {
            string[] asked =
                ["postings", "--period", "all", "--basis", cash ? "cash" : "accrual", "--where", "amount <> 0", "--summary",
                    "--columns", "amount,count"];
            foreach (var (field, of) in new (string, Func<NaiveRecords.Posting, string>)[]
            {
                ("contact.kind", posting => posting.Contact.Length == 0 ? "none" : contacts[posting.Contact]),
                ("document.created-by", posting => posting.Document["created_by"]),
                ("tag.season", posting => posting.Document["tag.season"] is { Length: > 0 } season ? season : "none"),
                ("date.quarter", posting => $"{posting.Day[..4]}-Q{(int.Parse(posting.Day[5..7], CultureInfo.InvariantCulture) + 2) / 3}"),
                ("tax-code", posting => posting.Line["tax_code"] is { Length: > 0 } code ? code : "none"),
            })
            {
                var expected = records.Postings(cash).GroupBy(of).ToDictionary(
                    group => group.Key, group => (group.Sum(posting => posting.Amount), group.Count()));
                var rows = Csv([.. asked, "--group-by", field]).Skip(1).SkipLast(1).ToDictionary(
                    row => row[0],
                    row => (decimal.Parse(row[^2], CultureInfo.InvariantCulture), int.Parse(row[^1], CultureInfo.InvariantCulture)));
                Assert.Equal(expected.OrderBy(pair => pair.Key), rows.OrderBy(pair => pair.Key));
            }
        }
    }

    [Fact]
    public void What_is_typed_wins_over_what_a_definition_says_and_adds_to_its_choices()
    {
        var usual = Show("sales-by-customer").Done().Output;
        Assert.Contains("Only account.type income", usual);
        Assert.DoesNotContain("INV-", usual);
        var detail = Show("sales-by-customer", "--detail", "--only", "contact=C0012", "--where", "natural > 0", "--period", "all")
            .Done().Output;
        Assert.Contains("Only account.type income", detail);
        Assert.Contains("Only contact C0012", detail);
        Assert.Contains("Where natural > 0", detail);
        Assert.Contains("INV-", detail);
        Assert.Contains("Only account.type expense", Show("sales-by-customer", "--only", "account.type=expense").Done().Output);
        Assert.DoesNotContain("account.type income", Show("sales-by-customer", "--only", "account.type=expense").Done().Output);
        Assert.Contains("Email", Show("sales-by-customer", "--columns", "+contact.email,-share(natural)").Done().Output);
        Assert.Contains("Jun 2026", Show(["sales-by-customer", .. Cross]).Done().Output);
        Assert.Equal(
            "STAGE",
            Csv("sales-by-item", "--group-by", "item", "--by", "month", "--measure", "natural", "--top", "1", "--period", "fy2026")[1][0]);
        Assert.Equal(["row", "label", "kind", "level", "count"], Csv("sales-by-customer", "--columns", "count")[0]);
    }

    [Theory]
    [InlineData("postings.item", "Oar*", "OARS21")]
    [InlineData("documents.kind", "invoice", "invoice")]
    [InlineData("contacts.kind", null, "customer")]
    public void Values_of_a_field_are_counted(string field, string? list, string value)
    {
        var rows = _tool.Run(
            [.. new[] { "fields", field, "--book", "reedwater", "--format", "csv", "--values" }, .. list is null ? Array.Empty<string>()
                : [list]]).Done()
            .Output.TrimEnd().Split('\n').Select(line => line.Split(',')).ToList();
        var counts = rows.Skip(1).SkipLast(1).Select(row => int.Parse(row[^1], CultureInfo.InvariantCulture)).ToList();
        Assert.Contains(rows, row => row[0] == value || row[0].StartsWith("OAR", StringComparison.Ordinal));
        Assert.Equal(counts.OrderDescending(), counts);
        Assert.Equal(counts.Sum(), int.Parse(rows[^1][^1], CultureInfo.InvariantCulture));
    }

    [Fact]
    public void How_long_a_document_is_open_is_counted_up_to_the_day_that_it_is_seen_on()
    {
        var rows = Csv("documents", "--period", "2026-01/2026-05", "--columns", "date,open,document.days-open").Skip(1)
            .Where(row => row[2] == "record").ToList();
        Assert.Contains(rows, row => row[^1].Length > 0);
        Assert.All(rows, row => Assert.Equal(
            row[^2] is "" or "0.00" ? ""
                : $"{new DateOnly(2026, 5, 31).DayNumber - DateOnly.Parse(row[^3], CultureInfo.InvariantCulture).DayNumber}", row[^1]));
    }

    [Fact]
    public void Averages_and_running_sums_are_of_their_own_columns()
    {
        var rows = Csv(
            "open-items", "--only", "side=receivable", "--group-by", "kind", "--summary", "--columns",
            "average(days-late),max(days-late),running(open),running(total),open,total").Skip(1).ToList();
        var days = Csv("open-items", "--only", "side=receivable", "--columns", "days-late,kind").Skip(1)
            .Where(row => row[2] == "record").ToList();
        decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);
        var (open, total) = (0m, 0m);
        foreach (var row in rows.SkipLast(1))
        {
            var own = days.Where(known => known[^1] == row[0]).Select(known => Number(known[^2])).ToList();
            Assert.Equal((Math.Round(own.Average(), 4, MidpointRounding.ToEven), own.Max()), (Number(row[4]), Number(row[5])));
            Assert.Equal((open += Number(row[8]), total += Number(row[9])), (Number(row[6]), Number(row[7])));
        }

        var cross = Csv(
            "postings", "--only", "account.type=income", "--period", "fy2026", "--group-by", "month", "--by", "department", "--measure",
            "running(natural)");
        Assert.Equal(
            Csv("sales-by-department", "--period", "fy2026", "--sort", "department").Skip(1).SkipLast(1).Select(row => row[4]),
            cross[^2][4..^1]);
    }

    [Fact]
    public void A_list_that_is_folded_moves_group_by_group()
    {
        var path = _tool.PathOf("reedwater/records/lines.csv");
        var lines = File.ReadAllText(path);
        File.WriteAllText(path, lines.Replace("BILL-00585,6300,8102.00", "BILL-00585,6300,8420.00", StringComparison.Ordinal)
            .Replace("BILL-00585,2000,-8102.00", "BILL-00585,2000,-8420.00", StringComparison.Ordinal));
        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
        var moved = _tool.Run("changes", "--since", "1", "purchases-by-account", "--period", "2026-05", "--book", "reedwater")
            .Done().Output;
        Assert.Matches(@"6300 Insurance +8,102\.00 +8,420\.00 +318\.00", moved);
        Assert.DoesNotContain("6110", moved);
    }

    [Fact]
    public void What_imports_did_to_documents_is_a_table_too()
    {
        void Import(string documents, string lines, params string[] more)
        {
            _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n4000,Sales,income\n");
            _tool.Write("set/documents.csv", "id,kind,date,created_by\n" + documents);
            _tool.Write("set/lines.csv", "document,account,amount\n" + lines);
            _tool.Run(["import", "set", "--book", "book", .. more]).Done();
        }

        _tool.Run("init", "book", "--name", "B", "--currency", "ZAR").Done();
        Import("D1,cash-sale,2026-01-01,ann\nD2,cash-sale,2026-01-02,bob\n", "D1,1000,5\nD1,4000,-5\nD2,1000,6\nD2,4000,-6\n");
        Import("D1,cash-sale,2026-01-01,ann\nD3,expense,2026-01-03,bob\n", "D1,1000,7\nD1,4000,-7\nD3,1000,-1\nD3,4000,1\n", "--complete");
        Import("D1,cash-sale,2026-01-01,ann\nD2,cash-sale,2026-01-02,bob\n", "D1,1000,7\nD1,4000,-7\nD2,1000,6\nD2,4000,-6\n");
        var rows = _tool.Run(
            "show", "changes", "--book", "book", "--format", "csv", "--columns", "revision,action,kind,total,document.created-by")
                .Done().Output.TrimEnd().Split('\n')[1..^1]
            .Select(line => string.Join(' ', line.Split(',')[4..]));
        Assert.Equal(
            [
                "1 added cash-sale 5.00 ann", "1 added cash-sale 6.00 bob", "2 changed cash-sale 7.00 ann",
                "2 removed cash-sale 6.00 bob", "2 added expense 1.00 bob",
                "3 added cash-sale 6.00 bob",
            ],
            rows);
        Assert.Equal(
            3, _tool.Run("show", "changes", "--book", "book", "--revision", "1", "--format", "csv").Done().Output.TrimEnd()
                .Split('\n').Length - 1);
    }

    [Fact]
    public void Statements_take_the_words_of_related_records_as_lists_do()
    {
        foreach (var choice
            in new[] { "contact.kind=supplier", "item.unit=hour,day", "account.cash-flow=investing", "project.contact=C0023",
                "contact.active=none" })
        {
            string[] asked = ["--book", "reedwater", "--period", "fy2026", "--only", choice, "--format", "json"];
            decimal Debits(string report, int column) =>
                JsonDocument.Parse(_tool.Run(["show", report, .. asked]).Done().Output).RootElement.GetProperty("rows").EnumerateArray()
                .Single(row => row.GetProperty("key").GetString() == "total")
                .GetProperty("cells")[column] is { ValueKind: JsonValueKind.Number } cell ? cell.GetDecimal() : 0;
            Assert.Equal(Debits("postings", 6), Debits("trial-balance", 1));
        }
    }

    [Theory]
    [InlineData(66, "There is no table postngs.", "fields", "postngs")]
    [InlineData(66, "postings have no field \"contact.emial\".", "fields", "postings.contact.emial")]
    [InlineData(2, "postings have no field \"contct\".", "show", "postings", "--group-by", "contct")]
    [InlineData(2, "There is no function averge.", "show", "postings", "--total", "averge(amount)")]
    [InlineData(2, "\"amount *\" is neither a field nor a formula.", "show", "postings", "--columns", "amount *")]
    [InlineData(2, "kind is a word; only numbers can be reckoned with.", "show", "postings", "--columns", "kind * 2")]
    [InlineData(2, "average is of numbers, and kind is a word.", "show", "postings", "--columns", "average(kind)")]
    [InlineData(2, "--columns: due is not among the columns", "show", "postings", "--columns", "-due")]
    [InlineData(2, "\"date,,kind\" has an empty place.", "show", "postings", "--columns", "date,,kind")]
    [InlineData(2, "which has no --columns.", "show", "postings", "--by", "month", "--columns", "kind")]
    [InlineData(2, "which has no --detail.", "show", "sales-by-month", "--by", "contact", "--detail")]
    [InlineData(2, "--summary shows groups alone, and there are none.", "show", "postings", "--summary")]
    [InlineData(2, "Single records are not compared", "show", "postings", "--compare", "prior-year")]
    [InlineData(66, "--sort: the report has no column amonut.", "show", "postings", "--sort", "amonut")]
    [InlineData(66, "--sort: the report has no column memo.", "show", "postings", "--group-by", "kind", "--summary", "--sort", "memo")]
    [InlineData(2, "--share income is for statements.", "show", "postings", "--share", "income")]
    [InlineData(2, "--top takes the largest records of a list", "show", "postings", "--group-by", "kind", "--top", "3")]
    [InlineData(2, "would make more than 400 columns.", "show", "postings", "--period", "all", "--group-by", "kind", "--by", "document")]
    [InlineData(2, "postings have no budget.", "show", "postings", "--group-by", "kind", "--summary", "--compare", "budget")]
    [InlineData(66, "There is no contact \"C9999\".", "show", "postings", "--only", "contact=C9999")]
    [InlineData(2, "--basis does not apply to documents.", "show", "documents", "--basis", "cash")]
    [InlineData(2, "Figures of contacts lead to no postings of their own.", "trace", "contacts", "--row", "total", "--column",
        "receivable")]
    public void What_makes_no_sense_is_told(int status, string message, params string[] arguments)
    {
        var outcome = _tool.Run([.. arguments, "--book", "reedwater"]);
        Assert.Equal((status, ""), (outcome.Status, outcome.Output));
        Assert.Contains(message, outcome.Messages, StringComparison.OrdinalIgnoreCase);
    }

    [Theory]
    [InlineData("sales-by-customer", "C0012", "natural")]
    [InlineData("purchase-returns", "total", "Returned")]
    [InlineData("tax-by-code", "sales/S15", "tax")]
    [InlineData("open-invoices", "total", "open")]
    [InlineData("stock-changes", "OARS21", "change(amount,amount(2025-06-30))")]
    [InlineData("sales-by-month", "total", "natural")]
    public void Figures_of_lists_are_traced(string report, string row, string column)
    {
        string[] asked = report is "purchase-returns" or "sales-by-customer" ? ["--period", "all"] : [];
        var rows = Csv([report, .. asked]);
        var key = rows.Exists(cells => cells[0] == row) ? row : rows.First(cells => cells[2] is "record" or "group")[0];
        var outcome = _tool.Run(["trace", report, "--row", key, "--column", column, "--book", "reedwater", .. asked]).Done();
        Assert.Contains("Checked: The records add up to the figure.", outcome.Output);
    }

    [Fact]
    public void A_list_of_any_length_passes_through_a_small_heap()
    {
        const int Many = 150_000;
        _tool.Write("set/accounts.csv", "code,name,type\n1000,Bank,bank\n4000,Sales,income\n");
        _tool.Write("set/documents.csv", "id,kind,date,memo\n" + string.Concat(Enumerable.Range(0, Many)
            .Select(number => $"I{number},cash-sale,2026-0{1 + (number % 6)}-{1 + (number % 28):D2},Sold over the counter {number}\n")));
        _tool.Write(
            "set/lines.csv", "document,account,amount,memo\n" + string.Concat(
                Enumerable.Range(0, Many).Select(
                    number => $"I{number},1000,{number}.25,Paid {number}\nI{number},4000,-{number}.25,Sold {number}\n")));
        _tool.Run("init", "book", "--name", "B", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "book").Done();
        foreach (var format in new[] { "csv", "json", "text" })
        {
            // In hexadecimal: 64 MiB. The texts of all lines at once would be more. Much less is no measure: at the edge of what it
            // may take the collector itself falls.
            var outcome = _tool.Run(
                [("DOTNET_GCHeapHardLimit", "4000000")], "show", "postings", "--book", "book", "--period", "2026", "--columns",
                "+document.memo", "--format", format).Done();
            Assert.InRange(outcome.Output.Split('\n').Length, 2 * Many, (2 * Many) + 50);
            Assert.Contains(format == "text" ? "11,249,962,500.00" : "11249962500.00", outcome.Output);
        }
    }

    public void Dispose() => _tool.Dispose();
}
