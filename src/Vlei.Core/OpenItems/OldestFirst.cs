using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>
/// Settlements for records that have none: per contact and control account, receipts and credits are set against the
/// oldest open documents by due date, then date, then the order of the records, on the later of the two dates.
/// </summary>
public static class OldestFirst
{
    /// <summary>The settlements, with keys in the order in which they were found.</summary>
    /// <param name="items">All items, debit positive.</param>
    /// <param name="isPayable">Whether an account is a payable one, by its key: there credits are what is owed.</param>
    public static IReadOnlyList<Settlement> Settle(IEnumerable<ControlItem> items, Func<AccountKey, bool> isPayable)
    {
        var settlements = new List<Settlement>();
        foreach (var group in items.Where(item => !item.Total.IsZero).GroupBy(item => (item.Account, item.Contact))
            .OrderBy(group => group.Key))
        {
            var owing = isPayable(group.Key.Account) ? -1 : 1;
            var owed = InOrder(group.Where(item => item.Total.Sign == owing), item => item.Due);
            Pair(InOrder(group.Where(item => item.Total.Sign != owing), item => item.Date), owed, settlements);
        }

        return settlements;
    }

    private static List<ControlItem> InOrder(IEnumerable<ControlItem> items, Func<ControlItem, DateOnly> first) =>
        [.. items.OrderBy(first).ThenBy(item => item.Date).ThenBy(item => item.Document)];

    // Both are used up in their order, so what comes first on one side meets what comes first on the other.
    private static void Pair(List<ControlItem> paying, List<ControlItem> owed, List<Settlement> settlements)
    {
        var (payer, payee) = (0, 0);
        var (left, open) = (Amount.Zero, Amount.Zero);
        while (true)
        {
            if (left.IsZero && payer < paying.Count)
            {
                left = paying[payer++].Total.Magnitude;
            }

            if (open.IsZero && payee < owed.Count)
            {
                open = owed[payee++].Total.Magnitude;
            }

            if (left.IsZero || open.IsZero)
            {
                return;
            }

            var (from, to) = (owed[payee - 1], paying[payer - 1]);
            var amount = left < open ? left : open;
            settlements.Add(new Settlement(
                new SettlementKey(settlements.Count + 1), from.Document, to.Document, amount, from.Date > to.Date ? from.Date : to.Date));
            (left, open) = (left - amount, open - amount);
        }
    }
}
