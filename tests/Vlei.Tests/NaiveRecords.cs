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

    private NaiveRecords(string folder, bool settlesOldestFirst)
    {
        _accounts = Table(folder, "accounts");
        _documents = Table(folder, "documents");
        _lines = Table(folder, "lines").ToLookup(line => line["document"]);
        var dates = _documents.ToDictionary(document => document["id"], document => document["date"]);
        _settled = (settlesOldestFirst ? OldestFirst() : Table(folder, "settlements")).SelectMany((settlement, order) =>
        {
            var (from, to) = (settlement["from"], settlement["to"]);
            var day = new[] { settlement["date"], dates[from], dates[to] }.Max(StringComparer.Ordinal)!;
            var amount = Number(settlement["amount"]);
            return new[] { (Document: from, Settled: (day, order, amount)), (Document: to, Settled: (day, order, amount)) };
        }).ToLookup(pair => pair.Document, pair => pair.Settled);
    }

    public static NaiveRecords Read(string folder, bool settlesOldestFirst = false) => new(folder, settlesOldestFirst);

    /// <summary>A posting: its day, the line and the document behind it, and what is posted; debit positive.</summary>
    public sealed record Posting(
        string Day, Dictionary<string, string> Line, Dictionary<string, string> Document, decimal Amount)
    {
        public string Account => Line["account"];

        /// <summary>The line's contact; the document's where it has none.</summary>
        public string Contact => Line["contact"].Length > 0 ? Line["contact"] : Document["contact"];
    }

    /// <summary>What is open of a document on a control account: by contact, with the day that it is due.</summary>
    public sealed record OpenItem(string Document, string Contact, string Date, string Due, decimal Total, decimal Open);

    /// <summary>All postings of a basis that are not zero.</summary>
    public IEnumerable<Posting> Postings(bool cash) => _documents
        .SelectMany(document => cash ? CashPostings(document) : AccrualPostings(document)).Where(posting => posting.Amount != 0);

    /// <summary>What is posted to each account in each month; debit positive.</summary>
    public Dictionary<(string Account, string Month), decimal> ByAccountAndMonth(bool cash, Func<Posting, bool>? isMeant = null) =>
        Postings(cash).Where(isMeant ?? (_ => true)).GroupBy(posting => (posting.Account, posting.Day[..7]))
            .ToDictionary(group => group.Key, group => group.Sum(posting => posting.Amount));

    /// <summary>What is open on the control accounts of a type on a day; what is owed to us, or what we owe, is positive.</summary>
    public IEnumerable<OpenItem> Open(string type, string day)
    {
        foreach (var document in _documents.Where(document => string.CompareOrdinal(document["date"], day) <= 0))
        {
            foreach (var item in AccrualPostings(document).Where(posting => TypeOf(posting.Account) == type)
                .GroupBy(posting => posting.Contact))
            {
                var total = item.Sum(posting => posting.Amount) * (type == "payable" ? -1 : 1);
                var settled = _settled[document["id"]].Where(s => string.CompareOrdinal(s.Day, day) <= 0).Sum(s => s.Amount);
                yield return new OpenItem(
                    document["id"], item.Key, document["date"], DueOf(document), total,
                    total - (Math.Sign(total) * settled));
            }
        }
    }

    // Cent by cent would be the same: whoever pays first pays what is due first.
    private List<Dictionary<string, string>> OldestFirst()
    {
        var settlements = new List<Dictionary<string, string>>();
        var items = _documents.SelectMany((document, order) => AccrualPostings(document)
            .Where(posting => TypeOf(posting.Account) is "receivable" or "payable").GroupBy(posting => (posting.Account, posting.Contact))
            .Select(
                item =>
                    (item.Key, Document: document, Order: order,
                        Total: item.Sum(posting => posting.Amount) * (TypeOf(item.Key.Account) == "payable" ? -1 : 1)))).ToList();
        foreach (var group in items.GroupBy(item => item.Key))
        {
            var open = group.ToDictionary(item => item.Document["id"], item => Math.Abs(item.Total));
            foreach (var paying in group.Where(item => item.Total < 0).OrderBy(item => item.Document["date"], StringComparer.Ordinal)
                .ThenBy(item => item.Order))
            {
                foreach (var owed in group.Where(item => item.Total > 0).OrderBy(item => DueOf(item.Document), StringComparer.Ordinal)
                    .ThenBy(item => item.Document["date"], StringComparer.Ordinal).ThenBy(item => item.Order))
                {
                    var amount = Math.Min(open[paying.Document["id"]], open[owed.Document["id"]]);
                    open[paying.Document["id"]] -= amount;
                    open[owed.Document["id"]] -= amount;
                    if (amount > 0)
                    {
                        settlements.Add(new Dictionary<string, string>
                        {
                            ["from"] = owed.Document["id"], ["to"] = paying.Document["id"], ["date"] = "",
                            ["amount"] = amount.ToString(CultureInfo.InvariantCulture),
                        });
                    }
                }
            }
        }

        return settlements;
    }

    private static string DueOf(Dictionary<string, string> document) => document["due"].Length > 0 ? document["due"] : document["date"];

    /// <summary>What was set against a document, and when it took effect.</summary>
    public IEnumerable<(string Day, decimal Amount)> SettledOf(string document) => _settled[document].Select(s => (s.Day, s.Amount));

    /// <summary>An account and those that are part of it, at any depth.</summary>
    public List<string> WithParts(string code) =>
        [code, .. _accounts.Where(account => account["parent"] == code).SelectMany(part => WithParts(part["code"]))];

    /// <summary>Whether the account's statement shows credits as positive: -1, or 1.</summary>
    public int Sign(string code) => TypeOf(code) is "income" or "other-income" ? -1 : 1;

    private IEnumerable<Posting> AccrualPostings(Dictionary<string, string> document) =>
        _lines[document["id"]].Select(line => new Posting(document["date"], line, document, Number(line["amount"])));

    private List<Posting> CashPostings(Dictionary<string, string> document)
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

        var postings = money.Select(line => new Posting(document["date"], line, document, Amount(line))).ToList();
        postings.AddRange(
            steps.Skip(1).Select((step, place) => new Posting(step.Day, control[0], document, step.Reached - steps[place].Reached)));
        var prefix = 0m;
        foreach (var line in other)
        {
            var (before, given) = (prefix, 0m);
            prefix += Amount(line);
            foreach (var (day, reached) in steps)
            {
                var now = Math.Round(prefix * reached / (m + c), 2, MidpointRounding.ToEven)
                    - Math.Round(before * reached / (m + c), 2, MidpointRounding.ToEven);
                postings.Add(new Posting(day, line, document, now - given));
                given = now;
            }
        }

        return postings;
    }

    private string TypeOf(string code) => _accounts.First(account => account["code"] == code)["type"];

    private static decimal Amount(Dictionary<string, string> line) => Number(line["amount"]);

    private static decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);

    /// <summary>The rows of a file by column. What is quoted has no line breaks in it.</summary>
    public static List<Dictionary<string, string>> Table(string folder, string name)
    {
        var rows = File.ReadLines(Path.Combine(folder, $"{name}.csv")).Select(Values).ToList();
        return [.. rows.Skip(1).Select(row => rows[0].Zip(row).ToDictionary(pair => pair.First, pair => pair.Second))];
    }

    /// <summary>The values of a line, in quotes or not.</summary>
    public static List<string> Values(string line)
    {
        var values = new List<string> { "" };
        var quoted = false;
        for (var place = 0; place < line.Length; place++)
        {
            var character = line[place];
            if (character == '"')
            {
                // A quote that is doubled stands for itself.
                values[^1] += !quoted && place > 0 && line[place - 1] == '"' ? "\"" : "";
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
