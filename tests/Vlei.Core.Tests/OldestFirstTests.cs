using CsCheck;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;

namespace Vlei.Core.Tests;

/// <summary>What settling oldest first must come to, whatever the documents are.</summary>
public class OldestFirstTests
{
    private const int Receivable = 1;
    private const int Payable = 2;

    private static readonly Gen<ControlItem[]> GenItems =
        Gen.Select(Gen.Int[1, 2], Gen.Int[0, 2], Gen.Long[-500, 500], Gen.Int[0, 90], Gen.Int[0, 30]).Array[0, 30].Select(drawn => drawn
            .Select((item, place) => new ControlItem(
                new(place + 1), new(item.Item1), new(item.Item2), new Amount(item.Item3), Day(item.Item4),
                Day(item.Item4 + item.Item5))).ToArray());

    [Fact]
    public void The_oldest_is_settled_first_until_one_side_is_used_up() => GenItems.Sample(items =>
    {
        var settlements = OldestFirst.Settle(items, account => account.Value == Payable);
        Assert.Equal(Enumerable.Range(1, settlements.Count), settlements.Select(settlement => settlement.Key.Value));
        foreach (var group in items.GroupBy(item => (item.Account, item.Contact)))
        {
            var own = group.ToDictionary(item => item.Document);
            var within = settlements.Where(settlement => own.ContainsKey(settlement.From)).ToList();
            var open = group.ToDictionary(item => item.Document, item => Math.Abs(item.Total.MinorUnits) - within
                .Where(s => s.From == item.Document || s.To == item.Document).Sum(s => s.Amount.MinorUnits));
            Assert.All(open.Values, left => Assert.True(left >= 0));
            Assert.All(within, settlement =>
            {
                Assert.Equal(-own[settlement.From].Total.Sign, own[settlement.To].Total.Sign);
                Assert.Equal(new[] { own[settlement.From].Date, own[settlement.To].Date }.Max(), settlement.Effective);
            });

            // One side is used up, and on either side nothing is touched while something before it is open.
            var sides = group.Where(item => !item.Total.IsZero)
                .GroupBy(item => item.Total.Sign == (group.Key.Account.Value == Payable ? -1 : 1)).ToList();
            Assert.True(sides.Count < 2 || sides.Any(side => side.All(item => open[item.Document] == 0)));
            foreach (var side in sides)
            {
                var ordered = side.OrderBy(item => side.Key ? item.Due : item.Date).ThenBy(item => item.Date)
                    .ThenBy(item => item.Document).ToList();
                Assert.True(ordered.SkipWhile(item => open[item.Document] == 0).Skip(1)
                    .All(item => open[item.Document] == Math.Abs(item.Total.MinorUnits)));
            }
        }

        Assert.All(settlements, settlement => Assert.Equal(
            (Account: ItemOf(items, settlement.From.Value).Account, ItemOf(items, settlement.From.Value).Contact),
            (ItemOf(items, settlement.To.Value).Account, ItemOf(items, settlement.To.Value).Contact)));
    });

    [Fact]
    public void A_receipt_goes_to_what_is_due_first_not_to_what_came_first()
    {
        var settlements = OldestFirst.Settle(
        [
            new ControlItem(new(1), new(Receivable), new(5), new Amount(100), Day(0), Day(60)),
            new ControlItem(new(2), new(Receivable), new(5), new Amount(40), Day(10), Day(20)),
            new ControlItem(new(3), new(Receivable), new(5), new Amount(-70), Day(30), Day(30)),
        ],
        _ => false);
        Assert.Equal([(2, 3, 40L), (1, 3, 30L)], settlements.Select(s => (s.From.Value, s.To.Value, s.Amount.MinorUnits)));
    }

    private static ControlItem ItemOf(ControlItem[] items, int document) => items.Single(item => item.Document.Value == document);

    private static DateOnly Day(int day) => new DateOnly(2026, 1, 1).AddDays(day);
}
