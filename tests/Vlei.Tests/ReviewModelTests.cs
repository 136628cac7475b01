using System.Text;

namespace Vlei.Tests;

/// <summary>
/// What the review finds in a random book is what its rules say of it, each written here as plainly as can be: every document is held
/// against all that came before it.
/// </summary>
public sealed class ReviewModelTests : IDisposable
{
    private static readonly DateOnly Start = new(2025, 1, 1);
    private static readonly string[] Income = ["4000", "4010"];
    private static readonly string[] Costs = ["5000", "6000", "6010", "6020", "6030"];

    // Rules that rest on settlements and taxes have tests of their own.
    private static readonly string[] Kinds =
        ["below-zero", "duplicate", "late-entry", "missing-number", "new-account", "repeated-number", "round-journal", "unusual-amount",
            "weekend-journal"];

    private readonly Tool _tool = new();

    public void Dispose() => _tool.Dispose();

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    public void It_finds_what_its_rules_say(int seed)
    {
        var documents = Documents(new Random(seed));
        Import(documents);
        foreach (var (from, to) in new[] { (150, 180), (0, 420), (300, 330), (330, 331), (390, 420) })
        {
            var (first, last) = (Start.AddDays(from), Start.AddDays(to));
            var expected = Expected([.. documents.Where(document => document.Date <= last)], first, last).Distinct().Order().ToList();
            var found = _tool.Run(
                "show", "findings", "--book", "book", "--period", $"{first:yyyy-MM-dd}/{last:yyyy-MM-dd}", "--format", "csv",
                "--csv-style", "plain,headings", "--columns", "finding,kind").Done().Output
                .Split('\n', StringSplitOptions.RemoveEmptyEntries).Skip(1)
                .Select(line => line.Split(',')).Where(cells => Kinds.Contains(cells[^1])).Select(cells => cells[^2]).Order();
            Assert.Equal(expected, found);
        }
    }

    private static IEnumerable<string> Expected(List<Document> all, DateOnly from, DateOnly to)
    {
        var within = all.Where(document => document.Date >= from).ToList();
        return within.SelectMany(document => OfOne(document, all[..all.IndexOf(document)]))
            .Concat(Repeated(all, from)).Concat(Missing(all, from)).Concat(BelowZero(all, from, to));
    }

    private static IEnumerable<string> OfOne(Document document, List<Document> before)
    {
        var alike = before.Where(other => other.Contact == document.Contact && other.Kind == document.Kind).ToList();
        if (document.Contact.Length > 0)
        {
            var same = alike.Where(other => other.Total == document.Total && document.Total != 0)
                .Select(other => document.Date.DayNumber - other.Date.DayNumber).ToList();
            var isNear = same.Exists(days => days <= 10) && same.Count(days => days is > 10 and < 365) < 3;
            var isTwin = !document.IsOwn && document.Reference.Length > 0
                && alike.Exists(other => other.Reference == document.Reference);
            if (isNear || isTwin)
            {
                yield return $"duplicate/{document.Id}";
            }

            if (alike.Count >= 5 && alike.Max(other => other.Total) is > 0 and var most && document.Total / 3 > most)
            {
                yield return $"unusual-amount/{document.Id}";
            }

            var uses = before.Where(other => other.Contact == document.Contact).SelectMany(other => other.Profit.Keys)
                .CountBy(account => account).ToDictionary();
            foreach (var account in document.Profit.Keys.Where(account => !uses.ContainsKey(account)
                && uses.Count is > 0 and <= 3 && uses.Values.Max() >= 6))
            {
                yield return $"new-account/{document.Id}/{account}";
            }
        }

        foreach (var (account, amount) in document.Profit)
        {
            var earlier = before.Where(other => other.Profit.ContainsKey(account))
                .Select(other => Math.Abs(other.Profit[account])).ToList();
            if (earlier.Count >= 20 && earlier.Max() is > 0 and var largest && Math.Abs(amount) / 2 > largest)
            {
                yield return $"unusual-amount/{document.Id}/{account}";
            }
        }

        if (document.Entered.DayNumber - document.Date.DayNumber > 21)
        {
            yield return $"late-entry/{document.Id}";
        }

        if (document.Kind == "journal" && (document.Date.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday)
            && document.Date.AddDays(1).Day != 1)
        {
            yield return $"weekend-journal/{document.Id}";
        }

        if (document.Kind == "journal" && document.Total != 0 && document.Total % 100_000 == 0)
        {
            yield return $"round-journal/{document.Id}";
        }
    }

    private static IEnumerable<string> Repeated(List<Document> all, DateOnly first) => all
        .Where(document => document.Number.Length > 0)
        .GroupBy(document => (document.Kind, document.Number, document.IsOwn ? "" : document.Contact))
        .Where(same => same.Count() > 1 && same.Last().Date >= first).Select(same => $"repeated-number/{same.Last().Id}");

    private static IEnumerable<string> Missing(List<Document> all, DateOnly from)
    {
        foreach (var series in all.Where(document => document.IsOwn && document.Number.Contains('-'))
            .GroupBy(document => (document.Kind, Prefix: document.Number[..(document.Number.IndexOf('-') + 1)], document.Number.Length)))
        {
            var numbers = series.Select(document => (
                Number: int.Parse(document.Number[series.Key.Prefix.Length..], CultureInfo.InvariantCulture), document.Date)).ToList();
            var digits = series.Key.Length - series.Key.Prefix.Length;
            if (numbers.Count(known => known.Date >= from) < 5)
            {
                continue;
            }

            // What is there twice counts when it came first.
            foreach (var number in numbers.GroupBy(known => known.Number).Where(same => same.First().Date >= from).Select(same => same.Key))
            {
                var before = numbers.Where(other => other.Number < number).Select(other => other.Number).DefaultIfEmpty(int.MinValue).Max();
                if (before > int.MinValue && number - before - 1 is > 0 and <= 20)
                {
                    yield return $"missing-number/{series.Key.Prefix}"
                        + (before + 1).ToString(CultureInfo.InvariantCulture).PadLeft(digits, '0');
                }
            }
        }
    }

    private static IEnumerable<string> BelowZero(List<Document> all, DateOnly from, DateOnly to)
    {
        long BalanceAt(DateOnly day) => all.Where(document => document.Date <= day).Sum(document => document.Lines
            .Where(line => line.Account == "1000").Sum(line => line.Amount));
        for (var day = Start; day <= to; day = day.AddDays(1))
        {
            // A time below zero counts where it does not end before the days that are looked at.
            if (BalanceAt(day) < 0 && BalanceAt(day.AddDays(-1)) >= 0)
            {
                var end = day;
                while (end <= to && BalanceAt(end) < 0)
                {
                    end = end.AddDays(1);
                }

                if (end > from)
                {
                    yield return $"below-zero/1000/{day:yyyy-MM-dd}";
                }
            }
        }
    }

    private static List<Document> Documents(Random random)
    {
        var documents = new List<Document>();
        var (invoices, journals) = (100, 1);
        for (var place = 0; place < 320; place++)
        {
            var date = Start.AddDays(random.Next(421));
            var (kind, contact) = random.Next(10) switch
            {
                < 5 => ("invoice", $"C{random.Next(4)}"),
                < 9 => ("bill", $"S{random.Next(4)}"),
                _ => ("journal", ""),
            };
            var amount = random.Next(40) switch { 0 => 900_000L * random.Next(1, 9), < 12 => 100_000, _ => random.Next(1, 60) * 2_500L };
            var account = kind == "invoice" ? Income[contact == "C1" ? 0 : random.Next(2)]
                : Costs[contact is "S1" or "S2" && random.Next(12) > 0 ? 0 : random.Next(Costs.Length)];
            var other = random.Next(3) == 0 ? "1000" : kind == "invoice" ? "1100" : kind == "bill" ? "2000" : "3000";
            var sign = kind == "invoice" ? -1 : 1;
            var number = kind switch
            {
                "invoice" => $"INV-{(invoices += random.Next(12) switch { 0 => 0, 1 => 3, 2 => 30, _ => 1 }):00000}",
                "journal" => $"J-{journals++:000}",
                _ => random.Next(4) == 0 ? "" : $"{random.Next(40)}",
            };
            documents.Add(new Document(
                $"D{place}", kind, date, number, contact, kind == "bill" && random.Next(3) == 0 ? $"R{random.Next(25)}" : "",
                date.AddDays(random.Next(15) == 0 ? 30 : 3), [(account, sign * amount), (other, -sign * amount)]));
        }

        // The numbers of documents that come in are of the order in which they come; the review goes by days.
        return [.. documents.OrderBy(document => document.Date)];
    }

    private void Import(List<Document> documents)
    {
        _tool.Write("set/contacts.csv", string.Concat(Enumerable.Range(0, 4).SelectMany(number => new[] { "C", "S" }.Select(
            kind => $"{kind}{number},{kind} {number},{(kind == "C" ? "customer" : "supplier")}\n")).Prepend("id,name,kind\n")));
        _tool.Write(
            "set/accounts.csv", "code,name,type\n1000,Bank,bank\n1100,Receivables,receivable\n2000,Payables,payable\n3000,Capital,equity\n"
                + string.Concat(Income.Select(code => $"{code},Income {code},income\n"))
                + string.Concat(Costs.Select(code => $"{code},Cost {code},expense\n")));
        var (heads, lines) = (
            new StringBuilder("id,kind,date,number,contact,reference,created_at\n"), new StringBuilder("document,account,amount\n"));
        foreach (var document in documents)
        {
            heads.Append(CultureInfo.InvariantCulture, $"{document.Id},{document.Kind},{document.Date:yyyy-MM-dd},{document.Number},")
                .Append(CultureInfo.InvariantCulture, $"{document.Contact},{document.Reference},{document.Entered:yyyy-MM-dd}T09:00:00\n");
            foreach (var (account, amount) in document.Lines)
            {
                lines.Append(CultureInfo.InvariantCulture, $"{document.Id},{account},{amount / 100m:F2}\n");
            }
        }

        _tool.Write("set/documents.csv", heads.ToString());
        _tool.Write("set/lines.csv", lines.ToString());
        _tool.Run("init", "book", "--name", "Book", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        _tool.Run("import", "set", "--book", "book").Done();
    }

    private sealed record Document(
        string Id, string Kind, DateOnly Date, string Number, string Contact, string Reference, DateOnly Entered,
        (string Account, long Amount)[] Lines)
    {
        public bool IsOwn => Kind != "bill";

        public long Total => Lines.Sum(line => Math.Max(0, line.Amount));

        public Dictionary<string, long> Profit => Lines.Where(line => line.Account[0] >= '4').GroupBy(line => line.Account)
            .ToDictionary(lines => lines.Key, lines => lines.Sum(line => line.Amount));
    }
}
