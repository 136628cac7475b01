using System.Numerics;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>
/// Profit and loss straight from the rules, without a thought for speed, and without any code of the core: fractions are
/// kept as fractions until the one place where the rules round.
/// </summary>
public static class SlowModel
{
    /// <summary>What an account comes to from one day to another, debit positive.</summary>
    public static long Sum(RandomBook book, bool cash, int account, DateOnly from, DateOnly to) =>
        Events(book, cash).Where(e => e.Account == account && e.Day >= from && e.Day <= to).Sum(e => e.Amount);

    /// <summary>The debits of an account from one day to another, and its credits; both positive.</summary>
    public static (long Debit, long Credit) Turnover(
        RandomBook book, bool cash, int account, DateOnly from, DateOnly to)
    {
        var within = Events(book, cash).Where(e => e.Account == account && e.Day >= from && e.Day <= to).ToList();
        return (within.Sum(e => Math.Max(0, e.Amount)), -within.Sum(e => Math.Min(0, e.Amount)));
    }

    /// <summary>A percentage to four decimals, half to even; nothing for a zero whole.</summary>
    public static decimal? Percent(long part, long whole) =>
        whole == 0 ? null : Math.Round(100m * part / whole, 4, MidpointRounding.ToEven);

    private static IEnumerable<(DateOnly Day, int Account, long Amount)> Events(RandomBook book, bool cash)
    {
        foreach (var document in book.Documents)
        {
            var own = document.Lines.Select(l => (document.Date, l.Account, l.Amount.MinorUnits));
            foreach (var e in cash ? CashEvents(book, document) ?? own : own)
            {
                yield return e;
            }
        }
    }

    // Nothing where the document is immediate.
    private static List<(DateOnly, int, long)>? CashEvents(RandomBook book, BookDocument document)
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

        var events = byKind["money"].Select(l => (document.Date, l.Account, l.Amount.MinorUnits)).ToList();
        var steps = new List<(DateOnly Day, BigInteger Reached)> { (document.Date, m) };
        var reached = m;
        foreach (var s in book.Settlements.Where(s => s.From == document.Key || s.To == document.Key).OrderBy(book.Effective).ThenBy(s => s.Key))
        {
            reached += c.Sign * s.Amount;
            steps.Add((book.Effective(s), reached));
            events.Add((book.Effective(s), byKind["control"].First().Account, c.Sign * s.Amount));
        }

        BigInteger prefix = 0;
        foreach (var line in byKind["other"])
        {
            var (before, through) = (prefix, prefix + line.Amount.MinorUnits);
            BigInteger given = 0;
            foreach (var (day, s) in steps)
            {
                var now = Round(through * s, m + c) - Round(before * s, m + c);
                events.Add((day, line.Account, (long)(now - given)));
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
