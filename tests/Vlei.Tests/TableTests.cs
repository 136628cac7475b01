using System.Collections.Concurrent;

namespace Vlei.Tests;

/// <summary>Every table and every field of it on the demo: against its CSV files, and against one another.</summary>
public sealed class TableTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    private List<string[]> Csv(params string[] arguments) =>
        [.. _tool.Run([.. arguments, "--book", "reedwater", "--format", "csv"]).Done().Output
        .TrimEnd().Split('\n').Skip(1).Select(line => NaiveRecords.Values(line).ToArray())];

    private static decimal Number(string text) => text.Length == 0 ? 0 : decimal.Parse(text, CultureInfo.InvariantCulture);

    private List<Dictionary<string, string>> Records(string name) => NaiveRecords.Table(_tool.PathOf("reedwater/records"), name);

    // Grouped by any field, each record is counted once; and it either has nothing in the field or something.
    [Fact]
    public void Every_field_of_every_table_can_be_shown_grouped_and_asked()
    {
        var tables = Csv("fields").Select(row => row[0]).ToList();
        Assert.InRange(tables.Count, 13, 30);
        var (wrong, desk) = (new ConcurrentBag<string>(), new InProcess(_tool.PathOf("reedwater")));
        foreach (var table in tables.Where(table => table is not "lines"))
        {
            string[] period = table is "changes" or "open-items" or "commitments" or "stock" or "contacts" or "accounts" or "items"
                or "projects"
                or "departments" or "tax-codes"
                ? [] : ["--period", "2026-05"];
            var fields = Csv("fields", table).Select(row => (Name: row[0], Type: row[4])).ToList();
            var all = Count("--columns", "count");
            Assert.True(all > 0, table);
            Parallel.ForEach(fields, new ParallelOptions { MaxDegreeOfParallelism = 4 }, field =>
            {
                var counted = desk.Lines(table, [.. period, "--group-by", field.Name, "--summary", "--columns", "count"]);
                var (without, with) =
                    (Count("--where", $"\"{field.Name}\" is null", "--columns", "count"),
                        Count("--where", $"\"{field.Name}\" is not null", "--columns", "count"));
                var shown = desk.Lines(table, [.. period, "--columns", $"count,\"{field.Name}\""]);
                if (counted.SkipLast(1).Sum(row => Number(row[^1])) != all || without + with != all || shown.Count != all + 1
                    || counted.Where(row => row[0] == "none").Sum(row => Number(row[^1])) != without)
                {
                    wrong.Add($"{table}.{field.Name}: {all} {without} {with} {shown.Count}");
                }
            });

            decimal Count(params string[] more) => desk.Lines(table, [.. period, .. more]) is [.., var last] && last[0] == "total"
                ? Number(last[4]) : 0;
        }

        Assert.Empty(wrong);
    }

    [Fact]
    public void Documents_and_what_is_settled_of_them_are_as_the_files_say()
    {
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        var (documents, lines) = (Records("documents"), Records("lines").ToLookup(line => line["document"]));
        var types = Records("accounts").ToDictionary(account => account["code"], account => account["type"]);
        var owed = records.Open("receivable", "2026-05-31").Concat(records.Open("payable", "2026-05-31"))
            .GroupBy(item => item.Document)
            .ToDictionary(items => items.Key, items => (Total: items.Sum(item => item.Total), Open: items.Sum(item => item.Open)));
        var rows = Csv(
            "show", "documents", "--period", "2026-01/2026-05", "--columns",
            "date,kind,number,reference,contact.id,lines,total,owed,settled,open,status,created-by,due").SkipLast(1)
                .ToDictionary(row => row[0]);
        var expected = documents.Where(
            document => string.CompareOrdinal(document["date"], "2026-01-01") >= 0
                && string.CompareOrdinal(document["date"], "2026-05-31") <= 0).ToList();
        Assert.Equal(expected.Select(document => document["id"]).Order(StringComparer.Ordinal), rows.Keys.Order(StringComparer.Ordinal));
        foreach (var document in expected)
        {
            var row = rows[document["id"]][4..];
            var own = lines[document["id"]].ToList();
            decimal On(params string[] kinds) =>
                own.Where(line => kinds.Contains(types[line["account"]])).Sum(line => Number(line["amount"]));
            var isOwed = own.Any(line => types[line["account"]] is "receivable" or "payable");
            var made = isOwed ? On("receivable") - On("payable") : On("bank", "cash", "card");
            Assert.Equal(
                (document["date"], document["kind"], document["number"], document["reference"], document["contact"], own.Count, made,
                    document["created_by"], document["due"]),
                (row[0], row[1], row[2], row[3], row[4], int.Parse(row[5], CultureInfo.InvariantCulture), Number(row[6]), row[11],
                    row[12]));
            var (total, open) = owed.GetValueOrDefault(document["id"]);
            Assert.Equal((total, total - open, open), (Number(row[7]), Number(row[8]), Number(row[9])));
            Assert.Equal(!owed.ContainsKey(document["id"]) ? "" : open == 0 ? "settled" : open == total ? "open" : "part-settled", row[10]);
        }
    }

    [Theory]
    [InlineData("2026-06-30")]
    [InlineData("2025-02-28")]
    public void Open_items_and_balances_are_as_the_files_say(string day)
    {
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        var expected = new[] { "receivable", "payable" }.SelectMany(
            side => records.Open(side, day).Where(item => item.Open != 0).Select(item =>
        {
            var due = item.Total < 0 ? item.Date : item.Due;
            var late = Math.Max(
                0, DateOnly.Parse(day, CultureInfo.InvariantCulture).DayNumber - DateOnly.Parse(
                    due, CultureInfo.InvariantCulture).DayNumber);
            return (item.Document, side, item.Contact, item.Date, item.Due, item.Total, item.Open, (decimal)late);
        })).ToList();
        Assert.Equal(
            expected.Order(),
            Csv("show", "open-items", "--as-of", day, "--columns", "side,contact.id,date,due,total,open,days-late").SkipLast(1)
                .Select(row => (row[0], row[4], row[5], row[6], row[7], Number(row[8]), Number(row[9]), Number(row[10]))).Order());
        var contacts = Csv("show", "contacts", "--as-of", day, "--columns", "receivable,payable").SkipLast(1)
            .ToDictionary(row => row[0], row => (Number(row[4]), Number(row[5])));
        var owed = new[] { "receivable", "payable" }.ToDictionary(
            side => side, side => records.Open(side, day).ToLookup(item => item.Contact));
        foreach (var contact in Records("contacts"))
        {
            decimal Of(string side) => owed[side][contact["id"]].Sum(item => item.Total);
            Assert.Equal((Of("receivable"), Of("payable")), contacts[contact["id"]]);
        }
    }

    [Fact]
    public void Stock_and_tax_are_as_the_files_say()
    {
        var records = NaiveRecords.Read(_tool.PathOf("reedwater/records"));
        foreach (var day in new[] { "2026-06-30", "2024-10-17" })
        {
            var expected = records.Postings(cash: false).Where(
                posting => posting.Account == "1200" && string.CompareOrdinal(posting.Day, day) <= 0)
                .GroupBy(posting => posting.Line["item"].Length == 0 ? "none" : posting.Line["item"])
                .Select(item => (item.Key, item.Sum(posting => Number(posting.Line["quantity"])), item.Sum(posting => posting.Amount)));
            Assert.Equal(
                expected.Order(),
                Csv("show", "stock", "--as-of", day, "--group-by", "item", "--summary", "--columns", "quantity,amount").SkipLast(1)
                    .Select(row => (row[0], Number(row[4]), Number(row[5]))).Order());
        }

        var years = _tool.Run(
            "show", "stock", "--group-by", "item", "--by", "year", "--measure", "amount", "--book", "reedwater", "--format", "csv")
                .Done().Output.Split('\n');
        Assert.Equal("row,label,kind,level,2023,2024,2025,2026,total", years[0]);
        Assert.Equal(NaiveRecords.Values(years[^2])[4..^1].Sum(Number), Number(NaiveRecords.Values(years[^2])[^1]));
        var directions = Records("tax_codes").ToDictionary(code => code["code"], code => code["direction"]);
        foreach (var cash in new[] { false, true })
        {
            var expected = records.Postings(cash)
                .Where(posting => posting.Line["tax_code"].Length > 0 && posting.Day.StartsWith("2026-05", StringComparison.Ordinal))
                .GroupBy(posting => posting.Line["tax_code"]).Select(code =>
                {
                    var sign = directions[code.Key] == "sales" ? -1 : 1;
                    decimal Of(string part) => sign * code.Where(posting => (posting.Line["tax_part"] == "tax") == (part == "tax"))
                        .Sum(posting => posting.Amount);
                    return (directions[code.Key], code.Key, Of("base"), Of("tax"));
                });
            Assert.Equal(
                expected.Order(),
                Csv(
                    "show", "tax", "--period", "2026-05", "--basis", cash ? "cash" : "accrual", "--group-by", "side,tax-code", "--measure",
                    "base,tax").Where(row => row[2] == "group")
                    .Select(row => (row[0].Split('/')[0], row[0].Split('/')[1], Number(row[4]), Number(row[5]))).Order());
        }
    }

    // The standard lists that rest on what accounts are, worked out from the files.
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Standard_lists_are_as_the_files_say(bool cash)
    {
        var types = Records("accounts").ToDictionary(account => account["code"], account => account["type"]);
        var kinds = Records("contacts").ToDictionary(contact => contact["id"], contact => contact["kind"]);
        var postings = NaiveRecords.Read(_tool.PathOf("reedwater/records")).Postings(cash)
            .Where(
                posting => string.CompareOrdinal(posting.Day, "2026-03-01") >= 0
                    && string.CompareOrdinal(posting.Day, "2026-06-30") <= 0).ToList();
        string[] asked = ["--basis", cash ? "cash" : "accrual"];
        static string Key(string id) => id.Length == 0 ? "none" : id;
        bool IsCost(NaiveRecords.Posting posting) => types[posting.Account] is "cost-of-sales" or "expense" or "other-expense"
            && posting.Line["project"].Length > 0;
        bool IsBought(NaiveRecords.Posting posting) =>
            posting.Document["kind"] is "bill" or "supplier-credit" or "purchase-return" or "expense"
            && types[posting.Account] is not ("bank" or "cash" or "card" or "payable" or "receivable" or "tax");
        void Same(string report, Func<NaiveRecords.Posting, bool> isMeant, Func<NaiveRecords.Posting, string> of, int sign, string column)
        {
            var expected = postings.Where(isMeant).GroupBy(of)
                .ToDictionary(group => group.Key, group => sign * group.Sum(posting => posting.Amount));
            var header = _tool.Run(["show", report, .. asked, "--book", "reedwater", "--format", "csv"]).Done().Output.Split('\n')[0]
                .Split(',').ToList();
            var shown = Csv(["show", report, .. asked]).Where(row => row[2] == "group")
                .ToDictionary(row => row[0], row => Number(row[header.IndexOf(column)]));
            Assert.Equal(expected.OrderBy(pair => pair.Key), shown.OrderBy(pair => pair.Key));
        }

        bool IsSold(NaiveRecords.Posting posting) => types[posting.Account] == "income";
        Same("sales-by-customer", IsSold, posting => Key(posting.Contact), -1, "natural");
        Same("sales-by-item", IsSold, posting => Key(posting.Line["item"]), -1, "natural");
        Same("sales-by-account", IsSold, posting => posting.Account, -1, "natural");
        Same("sales-by-month", IsSold, posting => posting.Day[..7], -1, "natural");
        Same("sales-by-project", IsSold, posting => Key(posting.Line["project"]), -1, "natural");
        Same("sales-by-department", IsSold, posting => Key(posting.Line["department"]), -1, "natural");
        Same("purchases-by-supplier", IsBought, posting => Key(posting.Contact), 1, "amount");
        Same("purchases-by-item", IsBought, posting => Key(posting.Line["item"]), 1, "amount");
        Same("purchases-by-month", IsBought, posting => posting.Day[..7], 1, "amount");
        Same("purchases-by-project", IsBought, posting => Key(posting.Line["project"]), 1, "amount");
        Same("purchases-by-department", IsBought, posting => Key(posting.Line["department"]), 1, "amount");
        Same("purchases-by-account", IsBought, posting => posting.Account, 1, "amount");
        Same("project-costs-by-item", IsCost, posting => $"{posting.Line["project"]}/{Key(posting.Line["item"])}", 1, "amount");
        Same("project-costs-by-contact", IsCost, posting => $"{posting.Line["project"]}/{Key(posting.Contact)}", 1, "amount");
        Same("project-costs-by-account", IsCost, posting => $"{posting.Line["project"]}/{posting.Account}", 1, "amount");
        Same(
            "project-costs-by-worker", posting => IsCost(posting) && posting.Contact.Length > 0 && kinds[posting.Contact] == "employee",
            posting => $"{posting.Line["project"]}/{posting.Contact}", 1, "amount");
    }

    // Texts, quantities and tax codes of then, not of now; and nothing of a document that came later.
    [Fact]
    public void Lists_of_an_earlier_import_say_what_they_said_then()
    {
        string[][] lists =
        [
            ["lines", "--period", "2026-05", "--columns",
                "date,document.memo,contact.name,account.name,item,quantity,unit-price,memo,amount"],
            ["documents", "--period", "all", "--columns", "number,memo,reference,contact.email,total,open,status"],
            ["contacts", "--columns", "name,email,receivable"],
            ["stock", "--group-by", "item", "--summary", "--columns", "item.unit,quantity,amount"],
            ["tax-by-code", "--period", "2026-05", "--basis", "cash"],
            ["postings", "--period", "all", "--group-by", "contact.kind,kind", "--by", "fiscal-year", "--measure", "debit,count"],
            ["findings", "--period", "2026"],
            ["open-items", "--group-by", "contact", "--sort", "-open"],
        ];
        List<string> Said(params string[] more) => [.. lists.Select(list =>
            _tool.Run(["show", .. list, "--book", "reedwater", "--format", "csv", .. more]).Done().Output)];
        var then = Said();
        foreach (var (file, was, now) in new[]
        {
            ("lines", "BILL-00585,6300,8102.00", "BILL-00585,6300,8420.00"),
            ("lines", "BILL-00585,2000,-8102.00", "BILL-00585,2000,-8420.00"),
            ("lines", "Insurance premium", "Premium"), ("documents", "Rigging check", "Rigging"),
            ("contacts", "Wessel Fynn,customer", "Wessel Finn,other"),
            ("items", "sheet", "board"), ("documents", "alma", "alma b"),
        })
        {
            var path = _tool.PathOf($"reedwater/records/{file}.csv");
            var text = File.ReadAllText(path);
            Assert.Contains(was, text);
            File.WriteAllText(path, text.Replace(was, now, StringComparison.Ordinal));
        }

        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
        foreach (var (before, again, now, list) in then.Zip(Said("--revision", "1"), Said())
            .Zip(lists, (said, list) => (said.First, said.Second, said.Third, list)))
        {
            Assert.Equal(before, again);
            Assert.True(list[0] is "open-items" or "findings" or "tax-by-code" || before != now, list[0]);
        }
    }

    [Fact]
    public void Settlements_are_as_the_files_say()
    {
        var dates = Records("documents").ToDictionary(document => document["id"], document => document["date"]);
        var expected = Records("settlements").Select(settlement => (
            new[] { settlement["date"], dates[settlement["from"]], dates[settlement["to"]] }.Max(StringComparer.Ordinal)!,
            Pair(settlement["from"], settlement["to"]), Number(settlement["amount"])));
        Assert.Equal(
            expected.Order(),
            Csv("show", "settlements", "--period", "all", "--columns", "date,document,with,amount").SkipLast(1)
                .Select(row => (row[4], Pair(row[5], row[6]), Number(row[7]))).Order());

        // Which of the two is named first means nothing.
        static string Pair(string one, string other) => string.CompareOrdinal(one, other) < 0 ? $"{one} {other}" : $"{other} {one}";
    }

    public void Dispose() => _tool.Dispose();
}
