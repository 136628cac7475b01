using System.Runtime.InteropServices;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Columns;

/// <summary>What documents put on control accounts in some months, read as columns rather than as rows.</summary>
/// <param name="derived">Where the months are.</param>
/// <param name="months">Which of them, oldest first.</param>
/// <param name="accounts">Which accounts are wanted, by their keys; nothing for all of them.</param>
internal sealed class ItemMonths(DerivedMonths derived, IReadOnlyList<YearMonth> months, bool[]? accounts)
{
    private const DerivedKind Kind = DerivedKind.Items;

    /// <summary>The items up to a day; the last of the months may go beyond it.</summary>
    public ItemColumns Until(DateOnly day)
    {
        var items = new ItemColumns(
            months.Sum(month => derived.Count(Kind, month)), contacts => Fill("contact", contacts), kinds => Fill("kind", kinds));
        var (first, room) = (0, Array.Empty<int>());
        foreach (var month in months)
        {
            var places = Places(month, ref room, out var here);
            derived.Column(Kind, month, "document", places, items.Documents.Slice(first, here));
            derived.Column(Kind, month, "account", places, items.Accounts.Slice(first, here));
            derived.Column(Kind, month, "amount", places, MemoryMarshal.Cast<Amount, long>(items.Totals.Slice(first, here)));
            var dates = items.Dates.Slice(first, here);
            var dues = items.Dues.Slice(first, here);
            derived.Column(Kind, month, "day", places, dates);
            derived.Column(Kind, month, "days", places, dues);
            for (var item = 0; item < here; item++)
            {
                dates[item] += month.First.DayNumber - 1;
                dues[item] += dates[item];
            }

            first += here;
        }

        items.Keep(first);
        items.Keep(items.CountUntil(day));
        return items;
    }

    private void Fill(string name, Span<int> numbers)
    {
        var (first, room) = (0, Array.Empty<int>());
        foreach (var month in months)
        {
            var places = Places(month, ref room, out var here);
            derived.Column(Kind, month, name, places, numbers.Slice(first, here));
            first += here;
        }
    }

    // Which items of a month are wanted, by their places, nothing where all are; and how many.
    private ReadOnlySpan<int> Places(YearMonth month, ref int[] room, out int count)
    {
        count = derived.Count(Kind, month);
        if (accounts is null)
        {
            return [];
        }

        var all = count;
        room = room.Length < all ? new int[all] : room;
        count = derived.Wanted(Kind, month, accounts, room);
        return count < all ? room.AsSpan(0, count) : [];
    }
}
