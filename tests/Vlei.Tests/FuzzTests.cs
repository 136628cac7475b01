using System.Text;

namespace Vlei.Tests;

/// <summary>
/// What people and files can do wrong by chance: whatever it is, it is answered, never a bug of the program, and the book
/// stays whole.
/// </summary>
public sealed class FuzzTests : IDisposable
{
    private const int Bug = 70;

    private static readonly string[] Periods =
    [
        "2026", "2026-Q1", "2026-03", "2026-W07", "2026-02-30", "fy2026-Q1", "all", "last-month", "week-to-date",
        "2026-01/P3M", "/2026-03", "2026-05/", "P2M/2026-03", "last-3-months", "9999", "", "2026-13", "x",
    ];

    private static readonly string[] Choices =
    [
        "account=4*", "account=1000,2000/3000,none", "contact.name=A/M", "project=none", "kind=invoice", "tag.season=high", "item=",
        "x=1",
        "account.type=income", "contact=\"a", "department=BUILD",
    ];

    private readonly Tool _tool = new();

    [Fact]
    public void No_mixture_of_options_of_lists_is_a_bug()
    {
        _tool.WithDemo();
        var random = new Random(20261124);
        var answered = new Dictionary<int, int>();
        string[] fields =
        [
            "contact", "contact.email", "month", "date.fiscal-year", "account.type", "item", "kind", "document", "document.due",
            "tag.season", "amount", "x", "", "contact,",
            "document.contact.name", "contact.contact", "memo", "account,month,kind", "due", "none",
        ];
        for (var round = 0; round < 250; round++)
        {
            var arguments = new List<string> { "show", One(
                random, "postings", "lines", "documents", "open-items", "settlements", "contacts", "accounts", "stock", "tax",
                "changes", "findings",
                "sales-by-item", "top-customers", "tax-by-code", "stock-changes", "purchase-returns", "recorded-activity",
                "project-profit", "customer-list", "review") };
            foreach (var (option, values) in new (string, string[])[]
            {
                ("--period", Periods), ("--as-of", Periods), ("--basis", ["cash", "accrual"]),
                ("--only", [.. Choices, "date=last-month", "amount=>=100", "due=none", "quantity=x"]),
                ("--except", Choices), ("--group-by", fields), ("--summary", []), ("--detail", []), ("--by", fields),
                ("--measure",
                    ["amount", "count", "quantity,natural", "running(amount)", "share(amount)", "kind", "amount / quantity", "open"]),
                ("--columns",
                    ["+amount", "-memo", "date,amount:A", "amount * 2:Twice,running(amount)", "average(amount)", "(",
                        "amount / quantity", "+contact.email", "kind:", ","]),
                ("--total", ["count", "average(amount),max(amount)", "median(amount)"]),
                ("--sort", ["-amount", "name", "contact,-date", "-natural", "x", "-"]),
                ("--compare", ["prior-year", "prior-period:2", "2024", "budget"]), ("--change", []),
                ("--share", ["row", "column,whole", "group", "income"]),
                ("--top", ["1", "3", "0", "x"]), ("--depth", ["0", "1", "5"]),
                ("--where",
                    ["amount > 0", "not amount < 100 or kind = 'invoice'", "date in 'last-month'", "contact like '%e%'", "amount >",
                        "((amount = 1))", "x = 1", "kind is null", "open > 0"]),
                ("--format", ["text", "csv", "json", "md"]), ("--title", ["T"]), ("--revision", ["0", "1"]),
            })
            {
                if (random.Next(9) == 0)
                {
                    arguments.AddRange(values.Length == 0 ? [option] : [option, One(random, values)]);
                }
            }

            var outcome = _tool.Run([("VLEI_BOOK", "reedwater"), ("COLUMNS", $"{random.Next(1, 200)}")], [.. arguments]);
            Assert.True(outcome.Status is 0 or 2 or 66, $"{string.Join(' ', arguments)}\n{outcome.Messages}");
            Assert.Equal(outcome.Status == 0, outcome.Messages.Length == 0);
            answered[outcome.Status] = answered.GetValueOrDefault(outcome.Status) + 1;
        }

        Assert.All(new[] { 0, 2 }, status => Assert.InRange(answered[status], 30, 220));
    }

    [Fact]
    public void No_mixture_of_options_is_a_bug()
    {
        _tool.WithDemo();
        var random = new Random(20261123);
        var answered = new Dictionary<int, int>();
        for (var round = 0; round < 150; round++)
        {
            var arguments = new List<string> { "show", One(
                random, "profit-loss", "balance-sheet", "cash-flow", "equity-movements", "working-capital", "trial-balance",
                "general-ledger") };
            foreach (var (option, values) in new (string, string[])[]
            {
                ("--period", Periods), ("--as-of", Periods), ("--basis", ["accrual", "cash", "money"]),
                ("--by", ["week", "month", "quarter", "year", "fiscal-quarter", "fiscal-year", "day", "project", "tag.season", "item"]),
                ("--compare", ["prior-period", "prior-year:2", "2024:3", "prior-year:0", "all", ":", "budget"]), ("--change", []),
                ("--share", ["income", "assets", "row", "income,row", "column", "group"]), ("--zeros", []),
                ("--depth", ["0", "1", "9", "-1"]),
                ("--title", ["T", "", "\u0007"]), ("--only", Choices), ("--except", Choices), ("--method", ["direct", "indirect"]),
                ("--revision", ["0", "1", "2026-01-01", "x"]),
                ("--layout", ["profit-loss", "cash-flow", "none"]), ("--format", ["text", "csv", "json", "md", "xml"]),
                ("--clock", ["2026-06-30", "2026-6-30"]),
            })
            {
                if (random.Next(5) == 0)
                {
                    arguments.AddRange(values.Length == 0 ? [option] : [option, One(random, values)]);
                }
            }

            var outcome = _tool.Run([("VLEI_BOOK", "reedwater"), ("COLUMNS", $"{random.Next(1, 200)}")], [.. arguments]);
            Assert.True(outcome.Status is 0 or 2 or 66, $"{string.Join(' ', arguments)}\n{outcome.Messages}");
            Assert.Equal(outcome.Status == 0, outcome.Messages.Length == 0);
            answered[outcome.Status] = answered.GetValueOrDefault(outcome.Status) + 1;
        }

        Assert.All(new[] { 0, 2 }, status => Assert.InRange(answered[status], 10, 140));
    }

    [Fact]
    public void No_mixture_of_options_of_what_is_open_is_a_bug()
    {
        _tool.WithDemo();
        var random = new Random(20261124);
        var answered = new Dictionary<int, int>();
        string[] figures =
            ["days-late=30/", "total=/0", "open=>x", "total=1,000", "days-late=1.5", "contact=none", "contact.name=A/M",
                "kind=receipt", "item=OAR*", "tag.season=high"];
        for (var round = 0; round < 220; round++)
        {
            var arguments = new List<string> { "show", One(
                random, "receivables-aging", "payables-aging", "open-receivables", "open-payables", "customer-balances",
                "supplier-balances",
                "customer-ledger", "supplier-ledger", "statement-of-account", "promises", "money-to-come", "bills-to-pay", "collection",
                "days-to-pay") };
            foreach (var (option, values) in new (string, string[])[]
            {
                ("--period", Periods), ("--as-of", Periods), ("--by", ["week", "month", "project", "day"]),
                ("--sort", ["total", "-open,name", "x", "", "-", "due", "oldest"]),
                ("--compare", ["prior-period", "prior-year:2", "budget", "2025-12-31"]), ("--change", []),
                ("--share", ["row", "column", "income"]),
                ("--only", figures), ("--except", figures), ("--top", ["0", "1", "3", "999999999999"]),
                ("--limits", ["30", "30,15", "x", "1,2,3,4,5,6"]),
                ("--age-by", ["document", "due", "x"]), ("--unapplied", []), ("--summary", []), ("--detail", []),
                ("--money", ["0", "-5.25", "1e3", "99999999999999999999"]),
                ("--as-usual", []), ("--format", ["text", "csv", "json", "md"]), ("--revision", ["0", "1"]), ("--to", ["all/", "one.csv"]),
            })
            {
                if (random.Next(7) == 0)
                {
                    arguments.AddRange(values.Length == 0 ? [option] : [option, One(random, values)]);
                }
            }

            var outcome = _tool.Run([("VLEI_BOOK", "reedwater"), ("COLUMNS", $"{random.Next(1, 200)}")], [.. arguments]);
            Assert.True(outcome.Status is 0 or 2 or 66, $"{string.Join(' ', arguments)}\n{outcome.Messages}");
            Assert.True(
                outcome.Status == 0 || (outcome.Output.Length == 0 && outcome.Messages.StartsWith("vlei: ", StringComparison.Ordinal)),
                outcome.Messages);
            answered[outcome.Status] = answered.GetValueOrDefault(outcome.Status) + 1;
        }

        Assert.All(new[] { 0, 2 }, status => Assert.InRange(answered[status], 20, 200));
    }

    [Fact]
    public void No_damage_to_a_layout_is_a_bug()
    {
        _tool.WithDemo();
        var random = new Random(99);
        var answered = new Dictionary<int, int>();
        foreach (var (layout, report) in new[] { ("profit-loss", "profit-loss"), ("balance-sheet", "balance-sheet"),
            ("cash-flow", "cash-flow") })
        {
            var sound = Encoding.UTF8.GetBytes(_tool.Run("layout", layout).Done().Output);
            for (var round = 0; round < 60; round++)
            {
                File.WriteAllBytes(_tool.PathOf("own.toml"), Damaged(sound, random));
                var outcome = _tool.Run("show", report, "--book", "reedwater", "--layout", "own.toml");
                Assert.True(outcome.Status is 0 or 1 or 2 or 65, $"{layout}, round {round}: {outcome.Status}\n{outcome.Messages}");
                answered[outcome.Status] = answered.GetValueOrDefault(outcome.Status) + 1;
            }
        }

        Assert.InRange(answered[65], 60, 180);
    }

    [Fact]
    public void No_mixture_of_options_of_what_is_kept_is_a_bug_and_what_is_kept_can_be_read()
    {
        _tool.WithDemo();
        var random = new Random(20261125);
        var answered = new Dictionary<int, int>();
        string[] names = ["rebate", "a", "a", "c", "d", "B", "b", "profit-loss", "../x", "", "month-end", "own report", "ü1"];
        for (var round = 0; round < 250; round++)
        {
            var command = One(random, "save", "save", "group", "run");
            var arguments = new List<string> { command };
            if (random.Next(8) > 0)
            {
                arguments.Add(command == "run" ? One(random, "month-end", "q", "") : One(random, names));
            }

            foreach (var (option, values) in new (string, string[])[]
            {
                ("--period", Periods), ("--basis", ["cash", "money"]), ("--by", ["month", "item", "x"]), ("--only", Choices),
                ("--select", ["hire", "shop-goods,hire", "none", "x"]),
                ("--top", ["3", "x"]), ("--title", ["T \"x\"\n", ""]), ("--where", ["amount > 0", "amount >"]), ("--change", []),
                ("--compare", ["prior-year", "budget"]),
            }.Where(_ => command != "run" && random.Next(14) == 0).Concat(command switch
            {
                "save" => new (string, string[])[]
                {
                    ("--from", ["sales-by-item", "rebate", "lines", "a", "nothing"]), ("--from", ["profit-loss"]), ("--favourite", []),
                    ("--question", ["Which?", "\\\"'\u0001"]), ("--words", ["one", "two"]),
                    ("--unset", ["top", "period,basis", "x", ""]), ("--rename", names), ("--remove", []), ("--selection", []),
                    ("--default", ["profit-loss", "lines", "x"]), ("--in", ["book", "user", "library"]),
                }.Where((_, place) => random.Next(place == 0 ? 2 : 14) == 0),
                "group" => new (string, string[])[]
                {
                    ("--add", ["profit-loss", "rebate", "lines", "x"]), ("--as", names), ("--note", ["Look\nhere"]),
                    ("--drop", ["cash-flow", "x"]), ("--remove", []),
                }.Where((_, place) => random.Next(place == 0 ? 2 : 5) == 0),
                _ => new (string, string[])[]
                {
                    ("--period", Periods), ("--format", ["csv", "json,md", "x", ""]), ("--summary", ["s.md", "s", "no/where.csv"]),
                    ("--books", ["reedwater", "*", "x*"]), ("--jobs", ["1", "-1", "x"]),
                }.Where(_ => random.Next(3) == 0),
            }))
            {
                arguments.AddRange(values.Length == 0 ? [option] : [option, One(random, values)]);
            }

            var outcome = _tool.Run([("VLEI_BOOK", "reedwater")], [.. arguments]);
            Assert.True(
                outcome.Status is 0 or 1 or 2 or 65 or 66 or 73, $"{string.Join(' ', arguments)}: {outcome.Status}\n{outcome.Messages}");
            answered[outcome.Status] = answered.GetValueOrDefault(outcome.Status) + 1;
            var listed = _tool.Run("reports", "--book", "reedwater");
            Assert.True(
                listed.Status == 0 || listed.Messages.Contains("there is no table and no report", StringComparison.Ordinal),
                $"{string.Join(' ', arguments)}\n{listed.Messages}");
        }

        Assert.All(new[] { 0, 2 }, status => Assert.InRange(answered[status], 20, 220));
        Assert.Empty(Directory.EnumerateFileSystemEntries(_tool.PathOf("reedwater"), "*.tmp", SearchOption.AllDirectories));
    }

    [Fact]
    public void No_damage_to_what_is_kept_is_a_bug()
    {
        _tool.WithDemo();
        var random = new Random(7);
        var answered = new Dictionary<int, int>();
        foreach (var (file, command) in new[]
        {
            ("reports/rebate.toml", "show rebate"), ("selections/shop-goods.toml", "show rebate"),
            ("groups/month-end.toml", "run month-end"), ("groups/month-end.toml", "reports"),
            ("reports/rebate.toml", "save rebate --top 3"), ("out/month-end/2026-05/.run/run.json", "run month-end"),
            ("out/month-end/2026-05/.run/cash-flow.json", "run month-end"),
        })
        {
            _tool.Run("run", "month-end", "--book", "reedwater").Done();
            var path = _tool.PathOf($"reedwater/{file}");
            var sound = File.ReadAllBytes(path);
            for (var round = 0; round < 40; round++)
            {
                File.WriteAllBytes(path, Damaged(sound, random));
                var outcome = _tool.Run([.. command.Split(' '), "--book", "reedwater"]);
                Assert.True(outcome.Status is 0 or 2 or 65 or 66, $"{command}, round {round}: {outcome.Status}\n{outcome.Messages}");
                answered[outcome.Status] = answered.GetValueOrDefault(outcome.Status) + 1;
            }

            File.WriteAllBytes(path, sound);
        }

        Assert.InRange(answered[65], 40, 250);
    }

    [Fact]
    public void No_damage_to_a_record_set_is_a_bug_and_the_book_stays_whole()
    {
        _tool.WithRecords().Run("import", "set", "--book", "book").Done();
        var random = new Random(4242);
        var refused = 0;
        for (var round = 0; round < 120; round++)
        {
            _tool.WithRecords();
            var name = One(random, [.. RecordFiles.Sound.Keys]);
            var path = _tool.PathOf($"set/{name}");
            File.WriteAllBytes(path, Damaged(File.ReadAllBytes(path), random));
            var outcome = _tool.Run("import", "set", "--dry-run", "--book", "book");
            Assert.True(outcome.Status is 0 or 65, $"round {round}, {name}: {outcome.Status}\n{outcome.Messages}");
            refused += outcome.Status == 65 ? 1 : 0;
        }

        Assert.InRange(refused, 40, 120);
        Assert.Equal("1", _tool.Sql("book", "SELECT count(*) FROM imports"));
        _tool.Run("check", "--book", "book").Done();
    }

    [Fact]
    public void No_damage_to_the_book_itself_is_a_bug()
    {
        _tool.WithRecords().Run("import", "set", "--book", "book").Done();
        var sound = File.ReadAllBytes(_tool.PathOf("book/records.db"));
        var random = new Random(99);
        for (var round = 0; round < 60; round++)
        {
            var damaged = (byte[])sound.Clone();
            for (var bytes = random.Next(1, 400); bytes > 0; bytes--)
            {
                damaged[random.Next(damaged.Length)] = (byte)random.Next(256);
            }

            File.WriteAllBytes(_tool.PathOf("book/records.db"), damaged);
            foreach (var command in new[] { "show profit-loss --period 2026 --by week", "check" })
            {
                var outcome = _tool.Run([.. command.Split(' '), "--book", "book"]);
                Assert.True(outcome.Status != Bug, $"round {round}, {command}\n{outcome.Messages}");
            }

            File.Delete(_tool.PathOf("book/records.db-wal"));
            File.Delete(_tool.PathOf("book/records.db-shm"));
        }
    }

    public void Dispose() => _tool.Dispose();

    private static string One(Random random, params string[] choices) => choices[random.Next(choices.Length)];

    // A few bytes changed, cut out, doubled or put in: commas, quotes, line ends, digits, whatever.
    private static byte[] Damaged(byte[] bytes, Random random)
    {
        var damaged = bytes.ToList();
        for (var times = random.Next(1, 6); times > 0; times--)
        {
            var place = random.Next(damaged.Count);
            var length = Math.Min(random.Next(1, 12), damaged.Count - place);
            switch (random.Next(4))
            {
                case 0:
                    damaged[place] = (byte)random.Next(256);
                    break;
                case 1:
                    damaged.RemoveRange(place, Math.Min(length, damaged.Count - 1));
                    break;
                case 2:
                    damaged.InsertRange(place, damaged.GetRange(place, length));
                    break;
                default:
                    damaged.InsertRange(place, Encoding.UTF8.GetBytes(One(random, ",", "\"", "\n", "\r", "-", "0", "é", "\0")));
                    break;
            }
        }

        return [.. damaged];
    }
}
