namespace Vlei.Tests;

/// <summary>
/// The rules of both bases, worked out from the CSV files of a record set by somebody who has only read them: one
/// decimal after the other, no speed, no code of the program.
/// </summary>
public sealed class NaiveRecords
{
    private readonly List<Dictionary<string, string>> _accounts;
    private readonly List<Dictionary<string, string>> _documents;
    private readonly ILookup<string, Dictionary<string, string>> _lines;
    private readonly ILookup<string, (string Day, int Order, decimal Amount)> _settled;

    private NaiveRecords(string folder)
    {
        _accounts = Table(folder, "accounts");
        _documents = Table(folder, "documents");
        _lines = Table(folder, "lines").ToLookup(line => line["document"]);
        var dates = _documents.ToDictionary(document => document["id"], document => document["date"]);
        _settled = Table(folder, "settlements").SelectMany((settlement, order) =>
        {
            var (from, to) = (settlement["from"], settlement["to"]);
            var day = new[] { settlement["date"], dates[from], dates[to] }.Max(StringComparer.Ordinal)!;
            var amount = Number(settlement["amount"]);
            return new[] { (Document: from, Settled: (day, order, amount)), (Document: to, Settled: (day, order, amount)) };
        }).ToLookup(pair => pair.Document, pair => pair.Settled);
    }

    public static NaiveRecords Read(string folder) => new(folder);

    /// <summary>What is posted to each account in each month; debit positive.</summary>
    public Dictionary<(string Account, string Month), decimal> ByAccountAndMonth(bool cash)
    {
        var sums = new Dictionary<(string, string), decimal>();
        foreach (var document in _documents)
        {
            foreach (var (day, account, amount) in cash ? CashPostings(document) : AccrualPostings(document))
            {
                sums[(account, day[..7])] = sums.GetValueOrDefault((account, day[..7])) + amount;
            }
        }

        return sums;
    }

    /// <summary>An account and those that are part of it, at any depth.</summary>
    public List<string> WithParts(string code) =>
        [code, .. _accounts.Where(account => account["parent"] == code).SelectMany(part => WithParts(part["code"]))];

    /// <summary>Whether the account's statement shows credits as positive: -1, or 1.</summary>
    public int Sign(string code) => TypeOf(code) is "income" or "other-income" ? -1 : 1;

    private IEnumerable<(string Day, string Account, decimal Amount)> AccrualPostings(Dictionary<string, string> document) =>
        _lines[document["id"]].Select(line => (document["date"], line["account"], Number(line["amount"])));

    private List<(string Day, string Account, decimal Amount)> CashPostings(Dictionary<string, string> document)
    {
        var lines = _lines[document["id"]].OrderBy(line => int.Parse(line["line"], CultureInfo.InvariantCulture)).ToList();
        var money = lines.Where(line => TypeOf(line["account"]) is "bank" or "cash" or "card").ToList();
        var control = lines.Where(line => TypeOf(line["account"]) is "receivable" or "payable").ToList();
        var other = lines.Except(money).Except(control).ToList();
        var (m, c) = (money.Sum(Amount), control.Sum(Amount));
        var deferred = control.Count > 0 && control.Select(line => (line["account"], line["contact"])).Distinct().Count() == 1
            && c != 0 && other.Count > 0 && (money.Count == 0 || Math.Sign(m) == Math.Sign(c));
        if (!deferred)
        {
            return [.. AccrualPostings(document)];
        }

        var steps = new List<(string Day, decimal Reached)> { (document["date"], m) };
        foreach (var (day, _, amount) in _settled[document["id"]].OrderBy(s => s.Day, StringComparer.Ordinal).ThenBy(s => s.Order))
        {
            steps.Add((day, steps[^1].Reached + (Math.Sign(c) * amount)));
        }

        var postings = new List<(string, string, decimal)>();
        var prefix = 0m;
        foreach (var line in other)
        {
            var (before, given) = (prefix, 0m);
            prefix += Amount(line);
            foreach (var (day, reached) in steps)
            {
                var now = Math.Round(prefix * reached / (m + c), 2, MidpointRounding.ToEven)
                    - Math.Round(before * reached / (m + c), 2, MidpointRounding.ToEven);
                postings.Add((day, line["account"], now - given));
                given = now;
            }
        }

        return postings;
    }

    private string TypeOf(string code) => _accounts.First(account => account["code"] == code)["type"];

    private static decimal Amount(Dictionary<string, string> line) => Number(line["amount"]);

    private static decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);

    // The demo quotes few values; what it quotes has no line breaks in it.
    private static List<Dictionary<string, string>> Table(string folder, string name)
    {
        var rows = File.ReadLines(Path.Combine(folder, $"{name}.csv")).Select(Values).ToList();
        return [.. rows.Skip(1).Select(row => rows[0].Zip(row).ToDictionary(pair => pair.First, pair => pair.Second))];
    }

    private static List<string> Values(string line)
    {
        var values = new List<string> { "" };
        var quoted = false;
        foreach (var character in line)
        {
            if (character == '"')
            {
                quoted = !quoted;
            }
            else if (character == ',' && !quoted)
            {
                values.Add("");
            }
            else
            {
                values[^1] += character;
            }
        }

        return values;
    }
}
