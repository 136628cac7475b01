using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>How long contacts took over what has been settled, weighed by the amounts.</summary>
/// <param name="history">The items.</param>
/// <param name="from">The first day of settlements that count.</param>
/// <param name="to">The last one.</param>
internal sealed class PayingHabits(ControlHistory history, DateOnly from, DateOnly to)
{
    private readonly Lazy<ILookup<ContactKey, int>> _byContact = new(() => Enumerable.Range(0, history.Count)
        .Where(item => history[item].Total.Sign > 0).ToLookup(item => history[item].Contact));

    /// <summary>The items of a contact that are owed, settled or not.</summary>
    public IEnumerable<int> ItemsOf(ContactKey contact) => _byContact.Value[contact];

    /// <summary>What was settled of an item within the days.</summary>
    public Amount Settled(int item)
    {
        var sum = Amount.Zero;
        foreach (var applied in history.AppliedTo(item))
        {
            sum += applied.Day >= from && applied.Day <= to ? applied.Amount : Amount.Zero;
        }

        return sum;
    }

    /// <summary>Days from the document to its settlement, in ten-thousandths; nothing where nothing was settled.</summary>
    public long? DaysToPay(IEnumerable<int> items) => Average(items, (item, day) => day.DayNumber - history[item].Date.DayNumber);

    /// <summary>Days from when it was due, in ten-thousandths, less than 0 for early; nothing where nothing was settled.</summary>
    public long? DaysLate(IEnumerable<int> items) => Average(items, (item, day) => day.DayNumber - history[item].Due.DayNumber);

    /// <summary>The whole days by which a contact is usually late; 0 where it is not, or where nothing is known of it.</summary>
    public int UsuallyLate(ContactKey contact)
    {
        const int TenThousandths = 10_000;
        return DaysLate(ItemsOf(contact)) is { } late and > 0 ? (int)Rounding.Divide(late, TenThousandths) : 0;
    }

    private long? Average(IEnumerable<int> items, Func<int, DateOnly, int> daysOf)
    {
        const int TenThousandths = 10_000;
        var (weighed, whole) = ((Int128)0, (Int128)0);
        foreach (var item in items)
        {
            foreach (var applied in history.AppliedTo(item))
            {
                if (applied.Day >= from && applied.Day <= to)
                {
                    weighed += (Int128)applied.Amount.MinorUnits * daysOf(item, applied.Day);
                    whole += applied.Amount.MinorUnits;
                }
            }
        }

        return whole == 0 ? null : Rounding.Divide(weighed * TenThousandths, whole);
    }
}
