using Vlei.Tests.Documents;

namespace Vlei.Tests.Maps;

/// <summary>
/// Random books written out as other programs write theirs, in every shape and dialect, mapped without a hand and imported: every account
/// stands where it did. The same file again changes nothing, and neither does one that overlaps it.
/// </summary>
public class RoundTripTests
{
    private const int Rounds = 12;
    private const string Name = "file 2026-11-01.csv";

    [Theory]
    [InlineData("journal")]
    [InlineData("signed")]
    [InlineData("sides")]
    [InlineData("contra")]
    [InlineData("unnumbered")]
    [InlineData("ledger")]
    [InlineData("balances")]
    public void Every_account_of_a_book_stands_where_it_did(string shape)
    {
        for (var seed = 1; seed <= Rounds; seed++)
        {
            var random = new Random(seed);
            var (business, dialect) = (new MadeUpBusiness(random), new SourceDialect(random));
            using var trial = new MapTrial();
            try
            {
                Write(shape, business, dialect, trial.PathOf(Name));
                trial.Take(Name);
                AssertBalances(business.Balances(), trial.Balances());
                Assert.Null(trial.Take(Name).Revision);
            }
            catch (Exception failed)
            {
                throw new InvalidOperationException($"seed {seed}, {dialect}:\n{Head(trial.PathOf(Name))}\n{failed.Message}", failed);
            }
        }
    }

    [Theory]
    [InlineData("journal")]
    [InlineData("ledger")]
    [InlineData("balances")]
    public void Sheets_of_workbooks_give_what_their_texts_give(string shape)
    {
        for (var seed = 1; seed <= 3; seed++)
        {
            var random = new Random(seed);
            var (business, dialect) = (new MadeUpBusiness(random), new SourceDialect(random, ',', isUtf8: true));
            foreach (var ending in new[] { "xlsx", "ods" })
            {
                using var trial = new MapTrial();
                Write(shape, business, dialect, trial.PathOf(Name));
                Shell.Run(
                    Path.GetDirectoryName(trial.PathOf(Name))!, "soffice", "--headless", "--convert-to",
                    ending == "xlsx" ? "xlsx:Calc MS Excel 2007 XML" : ending, "--infilter=CSV:44,34,76,1,,0,false,true", Name);
                try
                {
                    trial.Take(Path.ChangeExtension(Name, ending));
                    AssertBalances(business.Balances(), trial.Balances());
                }
                catch (Exception failed)
                {
                    throw new InvalidOperationException(
                        $"{ending}, seed {seed}, {dialect}:\n{Head(trial.PathOf(Name))}\n{failed.Message}", failed);
                }
            }
        }
    }

    [Theory]
    [InlineData("invoices")]
    [InlineData("bills")]
    [InlineData("invoice-lines")]
    public void Invoices_and_what_pays_them_are_open_as_they_were(string shape)
    {
        for (var seed = 1; seed <= Rounds; seed++)
        {
            var random = new Random(seed);
            var (business, dialect) = (new MadeUpBusiness(random), new SourceDialect(random));
            using var trial = new MapTrial();
            var paid = business.Invoices.Where(_ => random.Next(3) > 0)
                .Select((invoice, number) => (invoice, number, amount: invoice.Net + invoice.Tax - (random.Next(3) == 0 ? 1 : 0))).ToList();
            try
            {
                WriteInvoices(shape, business, dialect, trial.PathOf("list.csv"));
                var isBills = shape == "bills";
                dialect.Write(
                    trial.PathOf("payments.csv"), isBills ? "Payments" : "Receipts",
                    [dialect.Word("date"), dialect.Word(isBills ? "supplier" : "customer"), dialect.Word("pays"), dialect.Word("amount")],
                    paid.Select(payment => new[]
                    {
                        dialect.Day(payment.invoice.Date.AddDays(9)), payment.invoice.Contact, payment.invoice.Number,
                        dialect.Amount(payment.amount),
                    }),
                    [dialect.Word("Total"), "", "", dialect.Amount(paid.Sum(payment => payment.amount))]);
                if (random.Next(2) == 0)
                {
                    trial.Take("payments.csv", "list.csv");
                }
                else
                {
                    trial.Take("list.csv");
                    trial.Take("payments.csv");
                }

                Assert.Null(trial.Take("list.csv", "payments.csv").Revision);
                var (total, tax, money) =
                    (business.Invoices.Sum(invoice => invoice.Net + invoice.Tax), business.Invoices.Sum(invoice => invoice.Tax),
                        paid.Sum(payment => payment.amount));
                var sign = isBills ? -1 : 1;
                AssertBalances(
                    new()
                    {
                        ["1000"] = sign * money, [isBills ? "2100" : "1100"] = sign * (total - money), ["2200"] = -sign * tax,
                        [isBills ? "5000" : "4000"] = -sign * (total - tax),
                    },
                    trial.Balances());
                using var ledger = trial.Open();
                Assert.Equal(
                    money, ledger.Applications(new DateOnly(2026, 12, 31)).SelectMany(part => part)
                        .DistinctBy(settled => settled.Settlement)
                        .Sum(settled => Math.Abs(settled.Amount.MinorUnits) / 100m));
            }
            catch (Exception failed)
            {
                throw new InvalidOperationException(
                    $"seed {seed}, {dialect}:\n{Head(trial.PathOf("list.csv"))}\n{Head(trial.PathOf("payments.csv"))}\n"
                        + failed.Message, failed);
            }
        }
    }

    [Fact]
    public void What_is_open_and_a_trial_balance_come_to_the_trial_balance()
    {
        for (var seed = 1; seed <= Rounds; seed++)
        {
            var random = new Random(seed);
            var (business, dialect) = (new MadeUpBusiness(random), new SourceDialect(random));
            using var trial = new MapTrial();
            string W(string key) => dialect.Word(key);
            var owed = business.Invoices.Sum(invoice => invoice.Net);
            var balances = new Dictionary<string, decimal> { ["1000"] = 500, ["1100"] = owed, ["3900"] = -500 - owed };
            try
            {
                dialect.Write(
                    trial.PathOf("open invoices.csv"), "Open items", [W("date"), W("number"), W("customer"), W("due"), W("open")],
                    business.Invoices.Select(invoice => new[]
                    {
                        dialect.Day(invoice.Date), invoice.Number, invoice.Contact, dialect.Day(invoice.Date.AddDays(30)),
                        dialect.Amount(invoice.Net),
                    }));
                dialect.Write(
                    trial.PathOf("saldi 2026-06-30.csv"), "Trial balance", [W("account"), W("balance")],
                    balances.Select(
                        account =>
                            new[] { $"{account.Key} {MadeUpBusiness.Chart.First(known => known.Code == account.Key).Name}",
                                dialect.Amount(account.Value) }));
                var files = new[] { "open invoices.csv", "saldi 2026-06-30.csv" };
                trial.Take(random.Next(2) == 0 ? files : [.. files.Reverse()]);
                AssertBalances(balances, trial.Balances());
                Assert.Null(trial.Take(files).Revision);
                using var ledger = trial.Open();
                Assert.Equal(
                    business.Invoices.OrderBy(invoice => invoice.Date).Select(invoice => (invoice.Date, invoice.Net)).ToHashSet(),
                    ledger.ControlItems(new DateOnly(2026, 12, 31)).Select(item => (item.Date, item.Total.MinorUnits / 100m)).ToHashSet());
            }
            catch (Exception failed)
            {
                throw new InvalidOperationException(
                    $"seed {seed}, {dialect}:\n{Head(trial.PathOf("open invoices.csv"))}\n"
                        + $"{Head(trial.PathOf("saldi 2026-06-30.csv"))}\n{failed.Message}", failed);
            }
        }
    }

    [Theory]
    [InlineData("single-entry")]
    [InlineData("two columns")]
    [InlineData("months")]
    public void Movements_of_money_and_grids_of_months_come_to_their_sums(string shape)
    {
        for (var seed = 1; seed <= Rounds; seed++)
        {
            var random = new Random(seed);
            var (business, dialect) = (new MadeUpBusiness(random), new SourceDialect(random));
            using var trial = new MapTrial();
            string W(string key) => dialect.Word(key);
            var expected = new Dictionary<string, decimal>();
            var rows = new List<string[]>();
            var balance = 0m;
            foreach (var document in business.Documents.Where(document => document.Lines[0].Code != "1000"))
            {
                var (name, amount) =
                    (MadeUpBusiness.Chart.First(known => known.Code == document.Lines[0].Code).Name,
                        -document.Lines[0].Amount * (random.Next(2) == 0 ? 1 : -1));
                balance += amount;
                expected[name] = expected.GetValueOrDefault(name) - amount;
                expected["Bank"] = expected.GetValueOrDefault("Bank") + amount;
                rows.Add(shape == "single-entry"
                    ? [dialect.Day(document.Date), "Drift Marina", name, dialect.Amount(amount), dialect.Amount(balance)]
                    : [dialect.Day(document.Date), "Drift Marina", name, amount > 0 ? dialect.Amount(amount) : "", amount < 0
                        ? dialect.Amount(-amount) : ""]);
            }

            if (shape.StartsWith("month", StringComparison.Ordinal))
            {
                (rows, expected) = Grid(random, dialect);
            }

            try
            {
                dialect.Write(trial.PathOf("file.csv"), shape == "months" ? "Movements 2026" : "Bank", shape switch
                {
                    "single-entry" => [W("date"), W("payee"), W("category"), W("amount"), W("balance")],
                    "two columns" => [W("date"), W("payee"), W("category"), W("in"), W("out")],
                    _ => [W("account"), "2026-01", "Feb 2026", "03/2026"],
                }, rows);
                trial.Take("file.csv");
                AssertBalances(expected, trial.Balances(byName: true));
                Assert.Null(trial.Take("file.csv").Revision);
            }
            catch (Exception failed)
            {
                throw new InvalidOperationException($"seed {seed}, {dialect}:\n{Head(trial.PathOf("file.csv"))}\n{failed.Message}", failed);
            }
        }
    }

    private static (List<string[]> Rows, Dictionary<string, decimal> Expected) Grid(Random random, SourceDialect dialect)
    {
        var (rows, expected, rest) = (new List<string[]>(), new Dictionary<string, decimal>(), new decimal[3]);
        foreach (var (code, name, _) in MadeUpBusiness.Chart)
        {
            var figures = Enumerable.Range(0, 3).Select(month => code == "6100" ? -rest[month] : random.Next(-90_000, 90_000) / 100m)
                .ToArray();
            rest = [.. rest.Zip(figures, (sum, figure) => sum + figure)];
            rows.Add([$"{code} {name}", .. figures.Select(dialect.Amount)]);
            expected[name] = figures.Sum();
        }

        return (rows, expected);
    }

    private static void WriteInvoices(string shape, MadeUpBusiness business, SourceDialect dialect, string path)
    {
        string W(string key) => dialect.Word(key);
        var party = W(shape == "bills" ? "supplier" : "customer");
        if (shape == "invoice-lines")
        {
            dialect.Write(
                path, "Sales", [W("number"), W("date"), party, W("item"), W("quantity"), W("net"), W("tax")],
                business.Invoices.SelectMany(invoice => new[] { 1, 2 }.Select(part => new[]
                {
                    invoice.Number, dialect.Day(invoice.Date), invoice.Contact, part == 1 ? "OAR-1" : "Hull", $"{part}",
                    dialect.Amount(part == 1 ? 0.10m : invoice.Net - 0.10m), dialect.Amount(part == 1 ? 0.01m : invoice.Tax - 0.01m),
                })));
            return;
        }

        dialect.Write(
            path, shape, [W("date"), W("number"), party, W("due"), W("net"), W("tax"), W("total")],
            business.Invoices.Select(invoice => new[]
            {
                dialect.Day(invoice.Date), invoice.Number, invoice.Contact, dialect.Day(invoice.Date.AddDays(30)),
                dialect.Amount(invoice.Net),
                dialect.Amount(invoice.Tax), dialect.Amount(invoice.Net + invoice.Tax),
            }),
            [W("Total"), "", "", "", dialect.Amount(business.Invoices.Sum(invoice => invoice.Net)),
                dialect.Amount(business.Invoices.Sum(invoice => invoice.Tax)), ""]);
    }

    private static void AssertBalances(Dictionary<string, decimal> expected, Dictionary<string, decimal> actual) => Assert.Equal(
        expected.Where(account => account.Value != 0).OrderBy(account => account.Key, StringComparer.Ordinal),
        actual.Where(account => account.Value != 0).OrderBy(account => account.Key, StringComparer.Ordinal));

    private static string Head(string path) => string.Join('\n', File.ReadLines(path).Take(12));

    private static void Write(string shape, MadeUpBusiness business, SourceDialect dialect, string path)
    {
        var lines = business.Documents.SelectMany(document => document.Lines.Select(line => (document, line))).ToList();
        string Named(string code) => $"{code} {MadeUpBusiness.Chart.First(account => account.Code == code).Name}";
        string Debit(decimal amount) => amount > 0 ? dialect.Amount(amount) : "";
        string Credit(decimal amount) => amount < 0 ? dialect.Amount(-amount) : "";
        string W(string key) => dialect.Word(key);
        switch (shape)
        {
            case "journal":
                dialect.Write(
                    path, "Journal", [W("date"), W("number"), W("account"), W("memo"), W("debit"), W("credit")], lines.Select(row => new[]
                    {
                        dialect.Day(row.document.Date), $"{row.document.Number}", Named(row.line.Code), row.document.Memo,
                        Debit(row.line.Amount),
                        Credit(row.line.Amount),
                    }),
                    [W("Total"), "", "", "", dialect.Amount(lines.Sum(row => Math.Max(0, row.line.Amount))),
                        dialect.Amount(lines.Sum(row => Math.Max(0, -row.line.Amount)))]);
                break;
            case "signed":
                dialect.Write(path, "Journal", [W("number"), W("date"), W("account"), W("amount"), W("memo")], lines.Select(row => new[]
                {
                    $"{row.document.Number}", dialect.Day(row.document.Date), Named(row.line.Code), dialect.Amount(row.line.Amount),
                    row.document.Memo,
                }));
                break;
            case "sides":
                dialect.Write(path, "Journal", [W("date"), W("number"), W("account"), W("amount"), W("side")], lines.Select(row => new[]
                {
                    dialect.Day(row.document.Date), $"{row.document.Number}", Named(row.line.Code),
                    dialect.Amount(Math.Abs(row.line.Amount)),
                    dialect.Side(row.line.Amount > 0),
                }));
                break;
            case "contra":
                dialect.Write(
                    path, "Journal", [W("date"), W("memo"), W("account"), W("contra"), W("amount")],
                    business.Documents.SelectMany(document => document.Lines.Skip(1).Select(line => new[]
                    {
                        dialect.Day(document.Date), document.Memo, Named(document.Lines[0].Code), Named(line.Code),
                        dialect.Amount(-line.Amount),
                    })));
                break;
            case "unnumbered":
                dialect.Write(path, "Journal", [W("date"), W("account"), W("memo"), W("debit"), W("credit")], lines.Select(row => new[]
                {
                    dialect.Day(row.document.Date), Named(row.line.Code), row.document.Memo, Debit(row.line.Amount),
                    Credit(row.line.Amount),
                }));
                break;
            case "ledger":
                dialect.Write(
                    path, "Ledger", [W("date"), W("number"), W("memo"), W("debit"), W("credit"), W("balance")],
                    business.Balances().Keys.Order(StringComparer.Ordinal).SelectMany(code => Block(code)));
                break;
            default:
                dialect.Write(
                    path, "Trial balance", [W("account"), W("name"), W("debit"), W("credit")],
                    business.Balances().OrderBy(account => account.Key, StringComparer.Ordinal).Select(account => new[]
                    {
                        account.Key, MadeUpBusiness.Chart.First(known => known.Code == account.Key).Name, Debit(account.Value),
                        account.Value == 0 ? dialect.Amount(0) : Credit(account.Value),
                    }));
                break;
        }

        IEnumerable<string[]> Block(string code)
        {
            var (balance, own) = (0m, lines.Where(row => row.line.Code == code).ToList());
            yield return [Named(code)];
            yield return ["", "", W("Opening"), "", "", dialect.Amount(0)];
            foreach (var (document, line) in own)
            {
                balance += line.Amount;
                yield return
                [
                    dialect.Day(document.Date), $"{document.Number}", document.Memo, Debit(line.Amount), Credit(line.Amount),
                    dialect.Amount(code[0] is '2' or '3' or '4' ? -balance : balance),
                ];
            }

            yield return
            [
                "", "", $"{W("Total")} {Named(code)}", dialect.Amount(own.Sum(row => Math.Max(0, row.line.Amount))),
                dialect.Amount(own.Sum(row => Math.Max(0, -row.line.Amount))), "",
            ];
        }
    }
}
