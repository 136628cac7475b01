namespace Vlei.Tests;

/// <summary>
/// Whole books against the rules worked out anew from their CSV files, with decimals and no code of the program, and
/// books that grew by many imports against the same book made by one.
/// </summary>
public sealed class WholeBookTests : IDisposable
{
    private readonly Tool _tool = new();

    [Fact]
    public void Both_bases_of_the_demo_are_what_the_rules_give_from_its_files()
    {
        _tool.WithDemo();
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        foreach (var cash in new[] { false, true })
        {
            var csv = _tool.Run(
                "show", "profit-loss", "--book", "reedwater", "--period", "all", "--by", "month",
                "--basis", cash ? "cash" : "accrual", "--zeros", "--format", "csv").Done().Output.TrimEnd().Split('\n');
            var months = csv[0].Split(',')[4..^1];
            Assert.Equal(40, months.Length);
            var expected = records.ByAccountAndMonth(cash);
            foreach (var row in csv.Skip(1).Select(line => line.Split(',')).Where(row => row[2] == "account"))
            {
                var accounts = records.WithParts(row[0]);
                for (var month = 0; month < months.Length; month++)
                {
                    var sum = accounts.Sum(account => expected.GetValueOrDefault((account, months[month])));
                    Assert.Equal(
                        (row[0], months[month], records.Sign(row[0]) * sum),
                        (row[0], months[month], decimal.Parse(row[4 + month], CultureInfo.InvariantCulture)));
                }
            }
        }
    }

    [Theory]
    [InlineData("department=HIRE")]
    [InlineData("kind=invoice,credit-note")]
    [InlineData("tag.season=high")]
    [InlineData("item=LABOUR,STAGE")]
    [InlineData("contact=C0020/C0090")]
    [InlineData("project=none")]
    public void Narrowed_reports_of_the_demo_are_what_the_rules_give_from_its_files(string choice)
    {
        _tool.WithDemo();
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        bool IsMeant(NaiveRecords.Posting posting) => choice switch
        {
            "department=HIRE" => posting.Line["department"] == "HIRE",
            "kind=invoice,credit-note" => posting.Document["kind"] is "invoice" or "credit-note",
            "tag.season=high" => posting.Document["tag.season"] == "high",
            "item=LABOUR,STAGE" => posting.Line["item"] is "LABOUR" or "STAGE",
            "contact=C0020/C0090" => string.CompareOrdinal(posting.Contact, "C0020") >= 0
                && string.CompareOrdinal(posting.Contact, "C0090") <= 0,
            _ => posting.Line["project"].Length == 0,
        };
        foreach (var cash in new[] { false, true })
        {
            var csv = _tool.Run(
                "show", "trial-balance", "--book", "reedwater", "--period", "2025-03/2026-06", "--by", "month", "--only", choice,
                "--basis", cash ? "cash" : "accrual", "--format", "csv").Done().Output.TrimEnd().Split('\n')
                    .Select(line => line.Split(',')).ToList();
            var expected = records.ByAccountAndMonth(cash, IsMeant);
            var moved = new Dictionary<(string, string), decimal>();
            foreach (var row in csv.Skip(1).Where(row => row[2] == "account"))
            {
                for (var column = 0; column < csv[0].Length; column++)
                {
                    if (csv[0][column].StartsWith("debit(2", StringComparison.Ordinal))
                    {
                        decimal Cell(int place) => decimal.Parse(row[place], CultureInfo.InvariantCulture);
                        moved[(row[0], csv[0][column][6..^1])] = Cell(column) - Cell(column + 1);
                    }
                }
            }

            Assert.Contains(moved, cell => cell.Value != 0);
            Assert.Equal(
                expected.Where(sum => sum.Value != 0 && string.CompareOrdinal(sum.Key.Month, "2025-03") >= 0)
                    .ToDictionary(sum => sum.Key, sum => sum.Value).OrderBy(sum => sum.Key),
                moved.Where(sum => sum.Value != 0).OrderBy(sum => sum.Key));
        }
    }

    [Theory]
    [InlineData("4010", "2026-05", "cash")]
    [InlineData("6300", "2026-04", "accrual")]
    [InlineData("2200", "2026-03", "cash")]
    [InlineData("1000", "2025-12", "accrual")]
    public void A_trace_lists_the_very_postings_that_the_rules_give_from_the_files(string account, string month, string basis)
    {
        _tool.WithDemo();
        var expected = NaiveRecords.Read(_tool.PathOf("reedwater/records")).Postings(basis == "cash")
            .Where(posting => posting.Account == account && posting.Day[..7] == month)
            .Select(posting => (posting.Day, Id: posting.Document["id"], Kind: posting.Document["kind"], posting.Amount)).Order().ToList();
        var listed = _tool.Run(
            "trace", "trial-balance", "--book", "reedwater", "--period", month, "--basis", basis, "--row", account, "--column", "closing",
            "--format", "csv").Done().Output.TrimEnd().Split('\n').Skip(1).Select(line => line.Split(','))
            .Where(row => row[2] == "record" && row[4].StartsWith(month, StringComparison.Ordinal))
            .Select(row => (Day: row[4], Id: row[1], Kind: row[5], Amount: decimal.Parse(row[^2], CultureInfo.InvariantCulture)))
            .Order().ToList();
        Assert.NotEmpty(expected);
        Assert.Equal(expected, listed);
    }

    [Theory]
    [InlineData("receivable", "2026-05-31")]
    [InlineData("payable", "2026-05-31")]
    [InlineData("receivable", "2024-11-17")]
    [InlineData("payable", "2025-02-03")]
    public void Agings_of_the_demo_are_what_the_rules_give_from_its_files(string type, string day)
    {
        _tool.WithDemo();
        var date = DateOnly.Parse(day, CultureInfo.InvariantCulture);
        string BucketOf(NaiveRecords.OpenItem item) => (date.DayNumber - DateOnly.Parse(
            item.Total < 0 ? item.Date : item.Due, CultureInfo.InvariantCulture).DayNumber) switch
        {
            <= 0 => "current",
            <= 30 => "1-30",
            <= 60 => "31-60",
            <= 90 => "61-90",
            _ => "over-90",
        };
        var expected = NaiveRecords.Read(_tool.PathOf("reedwater/records")).Open(type, day).Where(item => item.Open != 0)
            .GroupBy(item => (item.Contact, BucketOf(item))).ToDictionary(group => group.Key, group => group.Sum(item => item.Open));
        var shown = Cells(_tool.Run(
            "show", $"{type}s-aging", "--book", "reedwater", "--as-of", day, "--format", "csv").Done().Output)
            .Where(cell => cell.Key.Row != "total" && cell.Key.Column is not ("total" or "promised" or "disputed") && cell.Value != 0)
            .ToDictionary(cell => cell.Key, cell => cell.Value);
        Assert.NotEmpty(expected);
        Assert.Equal(
            expected.Where(sum => sum.Value != 0).OrderBy(sum => sum.Key),
            shown.ToDictionary(c => (c.Key.Row, c.Key.Column), c => c.Value).OrderBy(sum => sum.Key));
    }

    [Fact]
    public void Balances_and_habits_of_the_demo_are_what_the_rules_give_from_its_files()
    {
        _tool.WithDemo();
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        var (before, after) = (records.Open("receivable", "2025-02-28").ToList(), records.Open("receivable", "2026-02-28").ToList());
        var balances = Cells(
            _tool.Run("show", "customer-balances", "--book", "reedwater", "--period", "fy2026", "--format", "csv").Done().Output);
        var habits = Cells(_tool.Run("show", "days-to-pay", "--book", "reedwater", "--period", "fy2026", "--format", "csv").Done().Output);
        Assert.NotEmpty(balances);
        foreach (var contact in balances.Keys.Select(key => key.Row).Distinct())
        {
            bool IsMeant(NaiveRecords.OpenItem item) => contact == "total" || item.Contact == contact;
            var (old, own) = (before.Where(IsMeant).ToList(), after.Where(IsMeant).ToList());
            var during = own.Where(item => string.CompareOrdinal(item.Date, "2025-02-28") > 0).ToList();
            Assert.Equal(
                (old.Sum(item => item.Total), during.Sum(item => Math.Max(0, item.Total)), -during.Sum(item => Math.Min(0, item.Total)),
                    own.Sum(item => item.Total)),
                (balances[(contact, "opening")], balances[(contact, "debit")], balances[(contact, "credit")],
                    balances[(contact, "closing")]));
            if (!habits.ContainsKey((contact, "open")))
            {
                continue;
            }

            // What was settled in the year: what is open at its start and what came, less what is open at its end; weighed by days.
            var owed = own.Where(item => item.Total > 0).ToList();
            var settled = owed.SelectMany(
                item => records.SettledOf(item.Document).Where(s => string.CompareOrdinal(s.Day, "2025-03-01") >= 0
                && string.CompareOrdinal(s.Day, "2026-02-28") <= 0)
                    .Select(s => (item, Days: DaysBetween(item.Date, s.Day), Late: DaysBetween(item.Due, s.Day), s.Amount))).ToList();
            Assert.Equal(
                (own.Sum(item => item.Open), settled.Sum(s => s.Amount),
                    owed.Where(item => string.CompareOrdinal(item.Due, "2026-02-28") < 0).Sum(item => item.Open)),
                (habits[(contact, "open")], habits[(contact, "settled")], habits[(contact, "overdue")]));
            if (settled.Count > 0)
            {
                var whole = settled.Sum(s => s.Amount);
                Assert.Equal(Math.Round(settled.Sum(s => s.Amount * s.Days) / whole, 4), habits[(contact, "days-to-pay")]);
                Assert.Equal(Math.Round(settled.Sum(s => s.Amount * s.Late) / whole, 4), habits[(contact, "days-late")]);
            }
        }

        static int DaysBetween(string from, string to) =>
            DateOnly.Parse(to, CultureInfo.InvariantCulture).DayNumber - DateOnly.Parse(from, CultureInfo.InvariantCulture).DayNumber;
    }

    [Fact]
    public void A_list_of_many_documents_needs_no_more_memory_in_any_format()
    {
        const int Many = 60_000;
        _tool.Write("set/accounts.csv", "code,name,type\n1100,Receivables,receivable\n4000,Sales,income\n");
        _tool.Write(
            "set/contacts.csv", "id,name,kind\n" + string.Concat(
                Enumerable.Range(0, 500).Select(contact => $"C{contact},Contact {contact},customer\n")));
        _tool.Write("set/documents.csv", "id,kind,date,contact\n" + string.Concat(Enumerable.Range(0, Many)
            .Select(number => $"I{number},invoice,2026-0{1 + (number % 6)}-{1 + (number % 28):D2},C{number % 500}\n")));
        _tool.Write(
            "set/lines.csv", "document,account,amount\n" + string.Concat(
                Enumerable.Range(0, Many).Select(number => $"I{number},1100,{number}.25\nI{number},4000,-{number}.25\n")));
        _tool.Run("init", "book", "--name", "B", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "book").Done();
        foreach (var format in new[] { "csv", "json", "text" })
        {
            // In hexadecimal: 24 MiB. The rows of all documents at once would be more.
            var outcome = _tool.Run(
                [("DOTNET_GCHeapHardLimit", "1800000")], "show", "receivables-aging", "--book", "book", "--as-of", "2026-07-31",
                "--detail", "--format", format).Done();
            Assert.InRange(outcome.Output.Split('\n').Length, Many + 1000, Many + 3000);
            Assert.Contains(format == "text" ? "1,799,985,000.00" : "1799985000.00", outcome.Output);
        }
    }

    [Fact]
    public void A_book_that_grew_by_many_imports_is_the_one_that_a_single_import_makes()
    {
        _tool.Run("demo", "set", "--record-set", "--documents", "700", "--years", "1", "--seed", "3").Done();
        var random = new Random(4711);
        var sound = new RecordTexts(_tool.PathOf("set"));
        _tool.Run("init", "grown", "--name", "B", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        var then = new List<(string Accrual, string Cash, string Balances, string Open)>();
        for (var round = 0; round < 8; round++)
        {
            sound.Changed(random).Write(_tool.PathOf("changed"));
            _tool.Run("import", "changed", "--complete", "--book", "grown").Done();
            _tool.Run("init", $"fresh{round}", "--name", "B", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
            _tool.Run("import", "changed", "--book", $"fresh{round}").Done();
            foreach (var basis in new[] { "accrual", "cash" })
            {
                Assert.Equal(Report($"fresh{round}", basis), Report("grown", basis));
            }

            Assert.Equal(Open($"fresh{round}").Order(), Open("grown").Order());

            then.Add((Report("grown", "accrual"), Report("grown", "cash"), Balances("grown"), string.Concat(Open("grown"))));
        }

        _tool.Run("check", "--book", "grown").Done();
        for (var round = 0; round < then.Count; round++)
        {
            string[] revision = ["--revision", $"{round + 1}"];
            Assert.Equal(
                then[round],
                (Report("grown", "accrual", revision), Report("grown", "cash", revision), Balances("grown", revision),
                    string.Concat(Open("grown", revision))));
            MovesAsReportsDiffer(then[round].Cash, then[^1].Cash, round + 1);
        }
    }

    [Fact]
    public void Imports_by_year_come_to_the_same_as_all_at_once()
    {
        _tool.Run("demo", "set", "--record-set", "--documents", "900", "--years", "2", "--seed", "11").Done();
        var all = new RecordTexts(_tool.PathOf("set"));
        foreach (var book in new[] { "once", "forwards", "backwards" })
        {
            _tool.Run("init", book, "--name", "B", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        }

        _tool.Run("import", "set", "--book", "once").Done();
        var years = new[] { "2024", "2025", "2026" };
        foreach (var (book, order) in new[] { ("forwards", years), ("backwards", [.. years.Reverse()]) })
        {
            foreach (var year in order)
            {
                all.OfYear(year).Write(_tool.PathOf(year));
                _tool.Run("import", year, "--book", book).Done();
            }

            // What settles documents of different years comes when both are there.
            _tool.Run("import", "set/settlements.csv", "--book", book).Done();
            _tool.Run("check", "--book", book).Done();
            Assert.Equal(Report("once", "cash"), Report(book, "cash"));
            Assert.Equal(Report("once", "accrual"), Report(book, "accrual"));
        }
    }

    [Theory]
    [InlineData("JPY", "1150", "1,150", "\"cells\":[1150]")]
    [InlineData("KWD", "1150.125", "1,150.125", "\"cells\":[1150.125]")]
    public void A_currency_has_its_own_decimals_everywhere(string currency, string amount, string shown, string json)
    {
        _tool.Run("init", "book", "--name", "B", "--currency", currency).Done();
        _tool.Write("set/accounts.csv", "code,name,type\n1,Bank,bank\n4,Sales,income\n");
        _tool.Write("set/documents.csv", "id,kind,date\nA,cash-sale,2026-01-05\n");
        _tool.Write("set/lines.csv", $"document,account,amount\nA,1,{amount}\nA,4,-{amount}\n");
        _tool.Run("import", "set", "--book", "book").Done();
        string[] show = ["show", "profit-loss", "--period", "2026", "--book", "book"];
        Assert.Contains($"Total income  {shown}\n", _tool.Run(show).Done().Output);
        Assert.Contains(json, _tool.Run([.. show, "--format", "json"]).Done().Output);
    }

    [Fact]
    public void A_record_set_describes_itself_as_the_standard_has_it()
    {
        _tool.Run("demo", "set", "--record-set", "--documents", "50", "--years", "0").Done();
        var package = System.Text.Json.JsonDocument.Parse(File.ReadAllText(_tool.PathOf("set/datapackage.json"))).RootElement;
        var resources = package.GetProperty("resources").EnumerateArray().ToList();
        Assert.Equal(10, resources.Count);
        foreach (var resource in resources)
        {
            var header = File.ReadLines(_tool.PathOf($"set/{resource.GetProperty("path").GetString()}")).First().Split(
                ',');
            var schema = resource.GetProperty("schema");
            Assert.Equal(
                header,
                schema.GetProperty("fields").EnumerateArray().Select(f => f.GetProperty("name").GetString()!));
            foreach (var key in schema.GetProperty("foreignKeys").EnumerateArray())
            {
                var target = key.GetProperty("reference").GetProperty("resource").GetString();
                Assert.True(target == "" || resources.Any(r => r.GetProperty("name").GetString() == target));
                Assert.Contains(key.GetProperty("fields").GetString()!, header);
            }
        }
    }

    public void Dispose() => _tool.Dispose();

    private string Report(string book, string basis, params string[] more) => _tool.Run(
        ["show", "profit-loss", "--book", book, "--period", "2020/2030", "--by", "month", "--basis", basis, "--format", "csv", .. more])
        .Done().Output;

    private string Balances(string book, params string[] more) => _tool.Run(
        ["show", "trial-balance", "--book", book, "--period", "2025", "--basis", "cash", "--format", "csv", "--only",
            "kind=invoice,receipt", .. more])
        .Done().Output;

    // Every document, with what was set against it; documents of one day may stand in any order.
    private string[] Open(string book, params string[] more) =>
    [
        .. new[] { "receivables-aging", "supplier-ledger" }.SelectMany(report => _tool.Run(
            ["show", report, "--book", book, "--format", "csv", .. report.EndsWith("aging", StringComparison.Ordinal)
                ? new[] { "--as-of", "2026-02-10", "--detail" } : ["--period", "2025-11/2026-04"], .. more]).Done().Output.Split('\n')
            .Where(line => report.EndsWith("aging", StringComparison.Ordinal) || !line.Contains(",record,", StringComparison.Ordinal))),
    ];

    // What vlei changes says of a report is what a reader finds who lays the two reports side by side.
    private void MovesAsReportsDiffer(string before, string after, int revision)
    {
        var moved = Cells(_tool.Run(
            "changes", "--since", $"{revision}", "profit-loss", "--book", "grown", "--period", "2020/2030", "--by", "month",
            "--basis", "cash", "--format", "csv").Done().Output);
        var (old, current) = (Cells(before), Cells(after));
        var expected = old.Keys.Union(current.Keys).ToDictionary(
            key => key, key => current.GetValueOrDefault(key) - old.GetValueOrDefault(key));
        Assert.All(expected, pair => Assert.Equal(
            pair.Value, moved.GetValueOrDefault((pair.Key.Row, $"change({pair.Key.Column})"))));
    }

    private static Dictionary<(string Row, string Column), decimal> Cells(string csv)
    {
        var lines = csv.TrimEnd().Split('\n').Select(line => line.Split(',')).ToList();
        return lines.Skip(1).Where(line => line[2] != "heading").SelectMany(line => line.Skip(4).Select((cell, place) =>
                (Key: (line[0], lines[0][4 + place]), Value: cell.Length == 0 ? 0 : decimal.Parse(cell, CultureInfo.InvariantCulture))))
            .ToDictionary(cell => cell.Key, cell => cell.Value);
    }
}
