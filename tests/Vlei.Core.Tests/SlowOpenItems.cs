namespace Vlei.Core.Tests;

/// <summary>What is open of each document straight from the rules, without any code of the core.</summary>
public static class SlowOpenItems
{
    /// <summary>A document on a control account; what is owed, to us or by us, is positive.</summary>
    public sealed record Item(BookDocument Document, int Account, int Contact, long Total, long Open, DateOnly AgedFrom)
    {
        /// <summary>The id of the contact.</summary>
        public string ContactId => IdOf(Contact);

        /// <summary>How late it is, in days; less than 1 for not late.</summary>
        public int DaysLate(DateOnly day) => day.DayNumber - AgedFrom.DayNumber;
    }

    /// <summary>The id that a contact has as a row.</summary>
    public static string IdOf(int contact) => contact == 0 ? "none" : RandomBook.Named[contact - 1].Id;

    /// <summary>The control accounts of one side.</summary>
    public static int[] Accounts(bool payable) => payable ? [RandomBook.Payable] : [RandomBook.Receivable, RandomBook.Loans];

    /// <summary>Every document dated up to a day, open or not. What is on the other side is aged by its own date.</summary>
    public static List<Item> At(RandomBook book, bool payable, DateOnly day, bool byDocument = false)
    {
        var items = new List<Item>();
        foreach (var document in book.Documents.Where(d => d.Date <= day))
        {
            foreach (var account in RandomBook.ControlAccounts(document).Intersect(Accounts(payable)))
            {
                var (debit, settled) = book.Control(document, account, day);
                var total = payable ? -debit : debit;
                var aged = total < 0 || byDocument || !book.DueDays.TryGetValue(document.Key, out var due) ? document.Date : due;
                items.Add(new Item(document, account, book.ContactOf(document.Key), total, total - (Math.Sign(total) * settled), aged));
            }
        }

        return items;
    }

    /// <summary>The key of the class that so many days fall in.</summary>
    public static string BucketOf(int late, IReadOnlyList<int> limits)
    {
        if (late <= 0)
        {
            return "current";
        }

        var first = 1;
        foreach (var limit in limits)
        {
            if (late <= limit)
            {
                return $"{first}-{limit}";
            }

            first = limit + 1;
        }

        return $"over-{limits[^1]}";
    }
}
