using System.Numerics;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>
/// Both bases straight from the rules, without a thought for speed, and without any code of the core: fractions are
/// kept as fractions until the one place where the rules round.
/// </summary>
public static class SlowModel
{
    /// <summary>What happens on an account on a day, and the line behind it.</summary>
    public sealed record Movement(DateOnly Day, int Account, long Amount, BookDocument Document, Line Line);

    /// <summary>What an account comes to from one day to another, debit positive.</summary>
    public static long Sum(RandomBook book, bool cash, int account, DateOnly from, DateOnly to) =>
        Sum(Events(book, cash), account, from, to);

    /// <summary>The same of some events.</summary>
    public static long Sum(IEnumerable<Movement> events, int account, DateOnly from, DateOnly to) =>
        events.Where(e => e.Account == account && e.Day >= from && e.Day <= to).Sum(e => e.Amount);

    /// <summary>The debits of an account from one day to another, and its credits; both positive.</summary>
    public static (long Debit, long Credit) Turnover(IEnumerable<Movement> events, int account, DateOnly from, DateOnly to)
    {
        var within = events.Where(e => e.Account == account && e.Day >= from && e.Day <= to).ToList();
        return (within.Sum(e => Math.Max(0, e.Amount)), -within.Sum(e => Math.Min(0, e.Amount)));
    }

    /// <summary>Money as it moves, with what stands on its other side, in proportion where there are several.</summary>
    public static IEnumerable<Movement> MoneyEvents(RandomBook book)
    {
        foreach (var document in book.Documents)
        {
            var money = document.Lines.Where(l => l.Account.Value == RandomBook.Bank).ToList();
            BigInteger m = money.Sum(l => l.Amount.MinorUnits);
            var other = document.Lines.Except(money).Where(l => l.Amount.Sign == -m.Sign && m != 0).ToList();
            BigInteger c = other.Sum(l => l.Amount.MinorUnits), prefix = 0;
            foreach (var line in money)
            {
                yield return new Movement(document.Date, line.Account.Value, line.Amount.MinorUnits, document, line);
            }

            foreach (var line in other)
            {
                var (before, through) = (prefix, prefix += line.Amount.MinorUnits);
                yield return new Movement(
                    document.Date, line.Account.Value, (long)(Round(through * -m, c) - Round(before * -m, c)), document, line);
            }
        }
    }

    /// <summary>The share of a month's budget that some days have; nothing of it is lost between them.</summary>
    public static long Share(long budget, int firstDay, int lastDay, int daysInMonth) => (long)(
        Round(new BigInteger(budget) * lastDay, daysInMonth) - Round(new BigInteger(budget) * (firstDay - 1), daysInMonth));

    /// <summary>A percentage to four decimals, half to even; nothing for a zero whole.</summary>
    public static decimal? Percent(long part, long whole) =>
        whole == 0 ? null : Math.Round(100m * part / whole, 4, MidpointRounding.ToEven);

    /// <summary>What happens on either basis.</summary>
    public static IEnumerable<Movement> Events(RandomBook book, bool cash)
    {
        foreach (var document in book.Documents)
        {
            var own = document.Lines.Select(l => new Movement(document.Date, l.Account.Value, l.Amount.MinorUnits, document, l));
            foreach (var e in cash ? CashEvents(book, document) ?? own : own)
            {
                yield return e;
            }
        }
    }

    // Nothing where the document is immediate.
    private static List<Movement>? CashEvents(RandomBook book, BookDocument document)
    {
        string Kind(Line line) => book.Accounts.Single(a => a.Key == line.Account).Type switch
        {
            AccountType.Bank or AccountType.Cash or AccountType.Card => "money",
            AccountType.Receivable or AccountType.Payable => "control",
            _ => "other",
        };
        var byKind = document.Lines.ToLookup(Kind);
        BigInteger m = byKind["money"].Sum(l => l.Amount.MinorUnits), c = byKind["control"].Sum(
            l => l.Amount.MinorUnits);
        var deferred = byKind["control"].Any() && byKind["control"].Select(l => (l.Account, l.Contact)).Distinct().Count() == 1
            && c != 0 && byKind["other"].Any() && (!byKind["money"].Any() || m.Sign == c.Sign);
        if (!deferred)
        {
            return null;
        }

        var events = byKind["money"].Select(l => new Movement(document.Date, l.Account.Value, l.Amount.MinorUnits, document, l)).ToList();
        var steps = new List<(DateOnly Day, BigInteger Reached)> { (document.Date, m) };
        var reached = m;
        foreach (var s in book.Settlements.Where(s => s.From == document.Key || s.To == document.Key).OrderBy(book.Effective)
            .ThenBy(s => s.Key))
        {
            reached += c.Sign * s.Amount;
            steps.Add((book.Effective(s), reached));
            var control = byKind["control"].First();
            events.Add(new Movement(book.Effective(s), control.Account.Value, c.Sign * s.Amount, document, control));
        }

        BigInteger prefix = 0;
        foreach (var line in byKind["other"])
        {
            var (before, through) = (prefix, prefix + line.Amount.MinorUnits);
            BigInteger given = 0;
            foreach (var (day, s) in steps)
            {
                var now = Round(through * s, m + c) - Round(before * s, m + c);
                events.Add(new Movement(day, line.Account.Value, (long)(now - given), document, line));
                given = now;
            }

            prefix = through;
        }

        return events;
    }

    private static BigInteger Round(BigInteger numerator, BigInteger denominator)
    {
        if (denominator < 0)
        {
            (numerator, denominator) = (-numerator, -denominator);
        }

        var floor = BigInteger.DivRem(numerator, denominator, out var rest);
        if (rest < 0)
        {
            floor--;
            rest += denominator;
        }

        var twice = rest * 2;
        return twice > denominator || (twice == denominator && !floor.IsEven) ? floor + 1 : floor;
    }
}
