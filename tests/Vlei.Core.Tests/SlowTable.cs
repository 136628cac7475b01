using System.Globalization;
using CsCheck;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>A word of a record: its id, and what it is called.</summary>
public sealed record Word(string Id, string Name);

/// <summary>A predicate as it is typed, and what it means of a row: true, false, or nothing where it cannot be said.</summary>
public sealed record SlowPredicate(string Text, Func<IReadOnlyDictionary<string, object?>, bool?> Holds);

/// <summary>Postings as plain rows of values by field, and predicates over them, straight from what they mean.</summary>
public static class SlowTable
{
    private static readonly string[] Words =
        ["account", "account.name", "account.type", "contact", "contact.email", "item", "kind", "document", "document.number",
            "document.contact", "memo", "tag.season"];

    private static readonly string[] Numbers = ["amount", "debit", "credit", "natural"];

    private static readonly (string Text, DateOnly From, DateOnly To)[] Periods =
    [
        ("2024", new(2024, 1, 1), new(2024, 12, 31)), ("2025-Q1", new(2025, 1, 1), new(2025, 3, 31)),
        ("2025-06-15", new(2025, 6, 15), new(2025, 6, 15)),
        ("last-month", new(2026, 5, 1), new(2026, 5, 31)), ("fy2025", new(2024, 3, 1), new(2025, 2, 28)),
    ];

    /// <summary>What all rows of a field can be grouped by: its key.</summary>
    public static string KeyOf(object? value) => value switch
    {
        null => "none",
        Word word => word.Id,
        DateOnly day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        _ => throw new InvalidOperationException($"{value} is no key."),
    };

    /// <summary>The postings of some days, oldest first.</summary>
    public static List<IReadOnlyDictionary<string, object?>> Rows(RandomBook book, bool cash, DateOnly first, DateOnly last) =>
    [
        .. from e in SlowModel.Events(book, cash)
           where e.Day >= first && e.Day <= last && e.Amount != 0
           select Row(book, e),
    ];

    private static Dictionary<string, object?> Row(RandomBook book, SlowModel.Movement e)
    {
        var account = ((ILedger)book).Accounts.Single(a => a.Key.Value == e.Account);
        var amount = e.Amount / 100m;
        var text = book.Document(new(e.Document.Key));
        var type = AccountTypes.NameOf(account.Type);
        var isCredit = type is "payable" or "tax" or "current-liability" or "non-current-liability" or "equity" or "retained-earnings"
            or "income" or "other-income";
        var contact = e.Document.Lines.Select(line => line.Contact).FirstOrDefault(key => !key.IsNone);
        Word Plain(string word) => new(word, word);
        Word? Named(int key) => key == 0 ? null : new Word(RandomBook.Named[key - 1].Id, RandomBook.Named[key - 1].Name);
        return new Dictionary<string, object?>
        {
            ["date"] = e.Day,
            ["month"] = Plain(e.Day.ToString("yyyy-MM", CultureInfo.InvariantCulture)),
            ["account"] = new Word(account.Code, account.Name),
            ["account.name"] = Plain(account.Name),
            ["account.type"] = Plain(type),
            ["contact"] = Named(e.Line.Contact.Value),
            ["contact.email"] = e.Line.Contact.Value is 0 or 2 ? null : Plain($"{Named(e.Line.Contact.Value)!.Id}@example.com"),
            ["item"] = Named(e.Line.Item),
            ["kind"] = Plain(text.Kind),
            ["document"] = Plain(text.Id),
            ["document.number"] = Plain(text.Number),
            ["document.due"] = book.DueDays.TryGetValue(e.Document.Key, out var due) ? due : null,
            ["document.contact"] = Named(contact.Value),
            ["memo"] = e.Line.Number == 1 ? Plain("first") : null,
            ["tag.season"] = RandomBook.Tagged[e.Line.Tags].TryGetValue("season", out var season) ? Plain(season) : null,
            ["amount"] = amount,
            ["debit"] = amount > 0 ? amount : null,
            ["credit"] = amount < 0 ? -amount : null,
            ["natural"] = isCredit ? -amount : amount,
        };
    }

    /// <summary>Random predicates.</summary>
    public static Gen<SlowPredicate> Predicate(int depth) => depth == 0
        ? Gen.OneOf(OfNumbers(), OfWords(), OfLists(), OfPatterns(), OfDays(), OfNothing())
        : Gen.Frequency(
            (2, Predicate(0)),
            (2, Gen.Select(Predicate(depth - 1), Predicate(depth - 1), Gen.Bool, (one, other, isAnd) => new SlowPredicate(
                $"({one.Text}) {(isAnd ? "and" : "OR")} ({other.Text})",
                row => isAnd ? one.Holds(row) & other.Holds(row) : one.Holds(row) | other.Holds(row)))),
            (1, Predicate(depth - 1).Select(one => new SlowPredicate($"not ({one.Text})", row => !one.Holds(row)))));

    private static Gen<SlowPredicate> OfNumbers() => Gen.Select(
        Choose.One(Numbers), Choose.One("=", "<>", "<", "<=", ">", ">="), Gen.Int[-2000, 2000], Gen.Bool,
        (field, sign, hundredths, isReckoned) =>
        {
            var value = hundredths / 8m;
            var text = value.ToString(CultureInfo.InvariantCulture);
            return isReckoned
                ? new SlowPredicate(
                    $"{field} * 2 {sign} amount + {text}", row => row[field] is decimal own
                        ? Compared(sign, (own * 2).CompareTo((decimal)row["amount"]! + value)) : null)
                : new SlowPredicate(
                    $"{field} {sign} {text}", row => row[field] is decimal own ? Compared(sign, own.CompareTo(value)) : null);
        });

    private static readonly string[] Spoken =
    [
        "4000", "Sales", "PREMISES", "income", "A-1", "birch and co", "B-3@example.com", "D3", "d1", "N2", "first", "high", "invoice",
        "receipt", "1100", "low", "Cedar",
    ];

    private static Gen<SlowPredicate> OfWords() => Gen.Select(
        Choose.One(Words), Choose.One(Spoken), Gen.Bool, Gen.Int[500, 9000], (field, word, isEqual, code) => field == "account" && isEqual
            ? new SlowPredicate($"account >= '{code}'", row => int.Parse(((Word)row["account"]!).Id, CultureInfo.InvariantCulture) >= code)
            : new SlowPredicate(
                $"{field} {(isEqual ? "=" : "<>")} '{word}'", row => row[field] is Word own ? Is(own, word) == isEqual : null));

    private static Gen<SlowPredicate> OfLists() => Gen.Select(
        Choose.One(Words), Choose.One(Spoken).Array[1, 5], Gen.Bool, (field, words, isNot) => new SlowPredicate(
            $"{field} {(isNot ? "not in" : "in")} ({string.Join(", ", words.Select(word => $"'{word}'"))})",
            row => row[field] is Word own ? words.Any(word => Is(own, word)) != isNot : null));

    private static Gen<SlowPredicate> OfPatterns() => Gen.Select(
        Choose.One(Words), Choose.One("a%", "%e%", "%S", "_-%", "%", "B%c%", "N_"), (field, pattern) => new SlowPredicate(
            $"{field} LIKE '{pattern}'",
            row => row[field] is Word own ? new[] { own.Id, own.Name }.Any(text => System.Text.RegularExpressions.Regex.IsMatch(
                text, $"^{pattern.Replace("%", ".*", StringComparison.Ordinal).Replace('_', '.')}$",
                System.Text.RegularExpressions.RegexOptions.IgnoreCase)) : null));

    private static Gen<SlowPredicate> OfDays() => Gen.Select(
        Choose.One("date", "document.due"), Choose.One(Periods), Choose.One("in", "=", "<>", "<", "<=", ">", ">=", "between"),
        (field, period, sign) => new SlowPredicate(
            sign == "between" ? $"{field} between '{period.Text}' and '2025-11-30'" : $"{field} {sign} '{period.Text}'",
            row => row[field] is DateOnly day ? sign switch
            {
                "in" or "=" => day >= period.From && day <= period.To,
                "<>" => day < period.From || day > period.To,
                "<" => day < period.From,
                "<=" => day <= period.To,
                ">" => day > period.To,
                "between" => day >= period.From && day <= new DateOnly(2025, 11, 30),
                _ => day >= period.From,
            } : null));

    private static Gen<SlowPredicate> OfNothing() => Gen.Select(
        Choose.One([.. Words, .. Numbers, "document.due"]), Gen.Bool,
        (field, isNot) => new SlowPredicate($"{field} is {(isNot ? "not " : "")}null", row => row[field] is null != isNot));

    private static bool Is(Word own, string word) =>
        own.Id.Equals(word, StringComparison.OrdinalIgnoreCase) || own.Name.Equals(word, StringComparison.OrdinalIgnoreCase);

    private static bool Compared(string sign, int order) => sign switch
    {
        "=" => order == 0,
        "<>" => order != 0,
        "<" => order < 0,
        "<=" => order <= 0,
        ">" => order > 0,
        _ => order >= 0,
    };
}
