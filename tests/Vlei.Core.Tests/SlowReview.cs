using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>What the review should find in a random book, straight from what its guide says, without any code of the core.</summary>
public static class SlowReview
{
    private static readonly int[] OfProfit =
        [RandomBook.Sales, RandomBook.Fees, RandomBook.Cost, RandomBook.Rent, RandomBook.Fuel, RandomBook.Interest, RandomBook.Loss];

    private static string IdOf(BookDocument document) => $"D{document.Key}";

    private static int ContactOf(BookDocument document) =>
        document.Lines.OrderBy(line => line.Number).Select(line => line.Contact).FirstOrDefault(contact => !contact.IsNone).Value;

    private static int KindOf(BookDocument document) => document.Lines[0].Kind;

    private static long TotalOf(BookDocument document) => document.Lines.Sum(line => Math.Max(0, line.Amount.MinorUnits));

    private static IEnumerable<BookDocument> InOrder(RandomBook book) =>
        book.Documents.OrderBy(document => document.Date).ThenBy(document => document.Key);

    /// <summary>The same contact, kind and amount within ten days, unless there were three more within the year before those.</summary>
    public static IEnumerable<string> Duplicates(RandomBook book, DateOnly from, DateOnly to)
    {
        var documents = InOrder(book).Where(document => document.Date <= to).ToList();
        for (var place = 0; place < documents.Count; place++)
        {
            var own = documents[place];
            var same = documents.Take(place)
                .Where(other => ContactOf(other) == ContactOf(own) && KindOf(other) == KindOf(own) && TotalOf(other) == TotalOf(own))
                .ToList();
            int Days(BookDocument other) => own.Date.DayNumber - other.Date.DayNumber;
            if (own.Date >= from && ContactOf(own) > 0 && TotalOf(own) != 0 && same.Exists(other => Days(other) <= 10)
                && same.Count(other => Days(other) > 10 && Days(other) < 365) < 3)
            {
                yield return $"duplicate/{IdOf(own)}";
            }
        }
    }

    /// <summary>Each stretch of days on which the bank is below zero that reaches into the period.</summary>
    public static IEnumerable<string> BelowZero(RandomBook book, DateOnly from, DateOnly to)
    {
        var since = default(DateOnly?);
        for (var day = new DateOnly(2024, 1, 1); day <= to; day = day.AddDays(1))
        {
            var balance = book.Balance(AccountingBasis.Accrual, day, account => account == RandomBook.Bank);
            if (balance < 0)
            {
                since ??= day;
            }
            else if (since is { } first)
            {
                if (day > from)
                {
                    yield return $"below-zero/1000/{first:yyyy-MM-dd}";
                }

                since = null;
            }
        }

        if (since is { } start)
        {
            yield return $"below-zero/1000/{start:yyyy-MM-dd}";
        }
    }

    /// <summary>More than three times the largest of at least five earlier documents of the kind with the contact.</summary>
    public static IEnumerable<string> LargeForContact(RandomBook book, DateOnly from, DateOnly to)
    {
        var documents = InOrder(book).Where(document => document.Date <= to && ContactOf(document) > 0).ToList();
        for (var place = 0; place < documents.Count; place++)
        {
            var own = documents[place];
            var earlier = documents.Take(place).Where(other => ContactOf(other) == ContactOf(own) && KindOf(other) == KindOf(own))
                .Select(TotalOf).ToList();
            if (own.Date >= from && earlier.Count >= 5 && earlier.Max() > 0 && TotalOf(own) / 3 > earlier.Max())
            {
                yield return $"unusual-amount/{IdOf(own)}";
            }
        }
    }

    /// <summary>More than twice the largest of at least twenty earlier documents on an account of profit and loss.</summary>
    public static IEnumerable<string> LargeForAccount(RandomBook book, DateOnly from, DateOnly to)
    {
        foreach (var account in OfProfit)
        {
            var sums = InOrder(book).Where(document => document.Date <= to && document.Lines.Any(line => line.Account.Value == account))
                .Select(
                    document =>
                        (Document: document, Sum: Math.Abs(
                            document.Lines.Where(line => line.Account.Value == account).Sum(line => line.Amount.MinorUnits)))).ToList();
            for (var place = 20; place < sums.Count; place++)
            {
                var largest = sums.Take(place).Max(other => other.Sum);
                if (sums[place].Document.Date >= from && largest > 0 && sums[place].Sum / 2 > largest)
                {
                    yield return $"unusual-amount/{IdOf(sums[place].Document)}/{RandomBook.CodeOf(account)}";
                }
            }
        }
    }

    /// <summary>An account that a contact never had, where so far it was on one to three, on one of them six times.</summary>
    public static IEnumerable<string> FirstUses(RandomBook book, DateOnly from, DateOnly to)
    {
        foreach (var contact in new[] { 1, 2, 3 })
        {
            var known = new List<int>();
            foreach (var document in InOrder(book).Where(document => document.Date <= to && ContactOf(document) == contact))
            {
                var own = document.Lines.Select(line => line.Account.Value).Where(OfProfit.Contains).Distinct().ToList();
                var before = known.Distinct().ToList();
                if (document.Date >= from && before.Count is >= 1 and <= 3
                    && before.Exists(account => known.Count(other => other == account) >= 6))
                {
                    foreach (var account in own.Where(account => !before.Contains(account)))
                    {
                        yield return $"new-account/{IdOf(document)}/{RandomBook.CodeOf(account)}";
                    }
                }

                known.AddRange(own);
            }
        }
    }

    /// <summary>What is on the other side of a control account and open for more than sixty days.</summary>
    public static IEnumerable<string> Unapplied(RandomBook book, DateOnly to) =>
        from document in book.Documents
        where document.Date <= to && to.DayNumber - document.Date.DayNumber > 60
        from account in RandomBook.ControlAccounts(document)
        let total = book.Control(document, account, to).Total * (account == RandomBook.Payable ? -1 : 1)
        where total < 0 && -total > book.Control(document, account, to).Settled
        select $"unapplied/{IdOf(document)}/{RandomBook.CodeOf(account)}";

    /// <summary>Contacts whose documents come to less than nothing as a customer, or as a supplier.</summary>
    public static IEnumerable<string> CreditBalances(RandomBook book, DateOnly to) =>
        from side in new[] { "customer", "supplier" }
        from contact in new[] { 1, 2, 3 }
        let sum = book.Documents.Where(document => document.Date <= to).SelectMany(document => document.Lines)
            .Where(
                line => line.Contact.Value == contact
                    && (side == "supplier" ? line.Account.Value == RandomBook.Payable
                        : line.Account.Value is RandomBook.Receivable or RandomBook.Loans))
            .Sum(line => line.Amount.MinorUnits) * (side == "supplier" ? -1 : 1)
        where sum < 0
        select $"credit-balance/{side}/{RandomBook.Named[contact - 1].Id}";
}
