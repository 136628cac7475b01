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

    /// <summary>What was settled of items within the days, and how long that took.</summary>
    public PaidTime Of(IEnumerable<int> items)
    {
        var paid = default(PaidTime);
        foreach (var item in items)
        {
            AddTo(ref paid, item);
        }

        return paid;
    }

    /// <summary>Adds what was settled of an item within the days.</summary>
    public void AddTo(ref PaidTime paid, int item)
    {
        foreach (var applied in history.AppliedTo(item).AsSpan())
        {
            if (applied.Day >= from && applied.Day <= to)
            {
                paid.Add(history[item], applied);
            }
        }
    }

    /// <summary>The whole days by which a contact is usually late; 0 where it is not, or where nothing is known of it.</summary>
    public int UsuallyLate(ContactKey contact)
    {
        const int TenThousandths = 10_000;
        return Of(ItemsOf(contact)).DaysLate is { } late and > 0 ? (int)Rounding.Divide(late, TenThousandths) : 0;
    }
}
