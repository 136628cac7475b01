using System.Globalization;

namespace Corpus;

/// <summary>The books: the demo, five of its kind, and five of random documents of every shape.</summary>
internal static class Books
{
    private const int OfDemo = 5, OfShapes = 5;

    public static IReadOnlyList<string> Make(Runner runner)
    {
        runner.Output("demo");
        var books = new List<string> { "reedwater" };
        for (var seed = 1; seed <= OfDemo; seed++)
        {
            var set = $"set-{seed}";
            runner.Output("demo", set, "--record-set", "--documents", $"{seed * 60}", "--years", "2", "--seed", $"{seed * 17}");
            books.Add(Take(runner, $"like-{seed}", set, "3"));
        }

        for (var seed = 1; seed <= OfShapes; seed++)
        {
            var set = $"shapes-{seed}";
            new ShapeBook(seed).Write(Path.Combine(runner.Folder, set));
            books.Add(Take(runner, $"random-{seed}", set, seed % 2 == 0 ? "1" : "7"));
        }

        return books;
    }

    private static string Take(Runner runner, string book, string set, string month)
    {
        runner.Output("init", book, "--name", book, "--currency", "ZAR", "--fiscal-year-start", month);
        File.AppendAllText(Path.Combine(runner.Folder, book, "book.toml"), "clock = 2026-06-30\n");
        runner.Output("import", set, "--book", book);
        return book;
    }
}

/// <summary>A small record set with documents of every shape that the cash basis tells apart, and settlements that fit.</summary>
internal sealed class ShapeBook(int seed)
{
    private static readonly string[] Others = ["2200", "4000", "4010", "5000", "6000", "6010", "7000", "8000", "1500", "3000"];

    private readonly Random _random = new(seed * 7919);
    private readonly List<string> _documents = ["id,kind,date,due,number,contact,memo,tag.season"];
    private readonly List<string> _lines = ["document,account,amount,contact,item,quantity,tax_code,tax_part,project,department,memo"];
    private readonly List<string> _settlements = ["from,to,amount,date"];
    private readonly List<(string Id, string Contact, string Account, long Open, DateOnly Date)> _open = [];

    public void Write(string folder)
    {
        Directory.CreateDirectory(folder);
        for (var number = 1; number <= 40 + (seed * 12); number++)
        {
            AddDocument(number);
        }

        Settle();
        var texts = new Dictionary<string, IEnumerable<string>>
        {
            ["accounts"] =
            [
                "code,name,type,parent,active,cash_flow", "1000,Bank,bank,,,", "1010,Card,card,,,", "1100,Receivables,receivable,,,",
                "1500,Van,fixed-asset,,,",
                "2000,Payables,payable,,,", "2200,Tax,tax,,,", "3000,Capital,equity,,,", seed % 2 == 0
                    ? "3900,Retained,retained-earnings,,," : "3100,Drawings,equity,,,",
                "4000,Sales,income,,,", "4010,Sales of boats,income,4000,,", "5000,Materials,cost-of-sales,,,",
                "6000,Premises,expense,,,", "6010,Fuel,expense,6000,,",
                "7000,Interest,other-income,,,", "8000,Losses,other-expense,,,",
            ],
            ["contacts"] =
            [
                "id,name,kind,email,tag.region", "C1,Alma Acker,customer,a@example.com,north", "C2,\"Barrow, Bram\",customer,,",
                "C3,Alma Acker,customer,,south",
                "S1,Three Firs,supplier,,north", "S2,Öster Öl,supplier,,",
            ],
            ["items"] = ["id,name,kind,unit", "OAR,Oars,stock,pair", "PAINT,Paint,stock,l", "HOUR,Work,service,h"],
            ["projects"] = ["id,name,contact", "B1,Hull 1,C1", "B2,Hull 2,C2"],
            ["departments"] = ["id,name", "SHOP,Shop", "YARD,Yard"],
            ["tax_codes"] = ["code,name,rate,direction", "S15,Standard,15,sales", "P15,Standard in,15,purchases"],
            ["documents"] = _documents, ["lines"] = _lines, ["settlements"] = _settlements,
            ["budgets"] = ["account,month,amount", .. Enumerable.Range(1, 12)
                .SelectMany(month => new[] { $"4000,2026-{month:D2},{(month * 100) + seed}.01", $"6000,2026-{month:D2},40.00" })],
        };
        foreach (var (name, lines) in texts)
        {
            File.WriteAllLines(Path.Combine(folder, $"{name}.csv"), lines);
        }
    }

    private void AddDocument(int number)
    {
        var (shape, date) = (_random.Next(9), new DateOnly(2024, 11, 1).AddDays(_random.Next(600)));
        var isSale = _random.Next(2) == 0;
        var (control, sign) = isSale ? ("1100", 1) : ("2000", -1);
        var contact = isSale ? $"C{_random.Next(1, 4)}" : $"S{_random.Next(1, 3)}";
        var whole = (long)_random.Next(100, _random.Next(2) == 0 ? 900 : 2_000_000) * sign;
        string[] kinds = isSale ? ["invoice", "receipt", "credit-note", "cash-sale", "journal"]
            : ["bill", "payment", "supplier-credit", "expense", "journal"];
        var (kind, lines) = shape switch
        {
            0 or 1 or 2 => (kinds[0], (List<(string, long)>)[(control, whole), .. Cut(-whole)]),
            3 => (kinds[1], [("1000", whole), (control, -whole)]),
            4 => (kinds[1], [("1000", whole - (whole / 20)), ("6000", whole / 20), (control, -whole)]),
            5 => (kinds[2], [(control, -(whole / 3)), .. Cut(whole / 3)]),
            6 => (kinds[3], [(_random.Next(3) == 0 ? "1010" : "1000", whole), .. Cut(-whole)]),
            7 => (kinds[0], [(control, whole - (whole / 4)), ("1000", whole / 4), .. Cut(-whole)]),
            _ => ("journal", [("1000", whole / 2), ("1010", -(whole / 2)), .. Cut(whole), .. Cut(-whole)]),
        };
        var id = $"D{number}";
        var due = shape is 0 or 5 or 7 ? date.AddDays(_random.Next(60)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) : "";
        _documents.Add(
            $"{id},{kind},{date:yyyy-MM-dd},{due},N{number},{(shape == 8 ? "" : contact)},memo {number},"
            + $"{(_random.Next(4) == 0 ? "high" : "")}");
        foreach (var (account, amount) in lines)
        {
            var isOther = account is not ("1000" or "1010" or "1100" or "2000" or "2200");
            var item = isOther && _random.Next(3) == 0 ? new[] { "OAR", "PAINT", "HOUR" }[_random.Next(3)] : "";
            var tax = account == "2200" ? $"{(isSale ? "S15" : "P15")},tax" : isOther && _random.Next(3) == 0
                ? $"{(isSale ? "S15" : "P15")},base" : ",";
            _lines.Add(string.Create(CultureInfo.InvariantCulture,
                $"{id},{account},{amount / 100m:0.00},{(isOther && _random.Next(5) == 0 ? "C2" : "")},{item},"
                + $"{(item.Length > 0 ? _random.Next(1, 9) : "")},{tax},{(isOther && _random.Next(3) == 0 ? "B1" : "")},"
                + $"{(isOther && _random.Next(2) == 0 ? "SHOP" : "")},"));
        }

        if (lines.Where(line => line.Item1 == control).Sum(line => line.Item2) is not 0 and var open)
        {
            _open.Add((id, contact, control, open, date));
        }
    }

    private List<(string, long)> Cut(long sum)
    {
        var lines = new List<(string, long)>();
        for (var parts = _random.Next(4); parts > 0; parts--)
        {
            var part = sum / _random.Next(2, 6);
            lines.Add((Others[_random.Next(Others.Length)], part));
            sum -= part;
        }

        lines.Add((Others[_random.Next(Others.Length)], sum));
        return lines;
    }

    private void Settle()
    {
        for (var tries = 0; tries < 400; tries++)
        {
            var (one, other) = (_random.Next(_open.Count), _random.Next(_open.Count));
            var (left, right) = (_open[one], _open[other]);
            if (left.Account != right.Account || left.Contact != right.Contact || left.Open * right.Open >= 0)
            {
                continue;
            }

            var most = Math.Min(Math.Abs(left.Open), Math.Abs(right.Open));
            var amount = _random.Next(3) == 0 && most > 3 ? most / 3 : most;
            var date = _random.Next(3) == 0 ? "" : left.Date.AddDays(_random.Next(40)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
            _settlements.Add(string.Create(CultureInfo.InvariantCulture, $"{left.Id},{right.Id},{amount / 100m:0.00},{date}"));
            _open[one] = left with { Open = left.Open - (Math.Sign(left.Open) * amount) };
            _open[other] = right with { Open = right.Open - (Math.Sign(right.Open) * amount) };
        }
    }
}
