using System.Reflection;
using CsCheck;
using Vlei.Core.Ledger;
using Vlei.Core.OpenItems;

namespace Vlei.Core.Tests;

/// <summary>
/// What is open, and what was set against what, of documents that stand on several control accounts with several contacts each: as a
/// plain sum over the settlements has it, on every day.
/// </summary>
public sealed class ControlHistoryTests
{
    private static readonly DateOnly Start = new(2026, 1, 1);

    private static readonly Account[] Chart =
    [
        new(new(1), "1100", "Receivables", AccountType.Receivable, null, true),
        new(new(2), "1150", "Staff loans", AccountType.Receivable, null, true),
        new(new(3), "2000", "Payables", AccountType.Payable, null, true),
    ];

    private static readonly Gen<ControlItem[]> GenItems = Gen.Select(
        Gen.Int[1, 9], Gen.Int[1, 3], Gen.Int[0, 3], Gen.Long[-500, 500]).Array[1, 40].Select(drawn => drawn
            .Where(item => item.Item4 != 0).DistinctBy(item => (item.Item1, item.Item2, item.Item3))
            .Select(item => new ControlItem(
                new(item.Item1), new(item.Item2), new(item.Item3), new(item.Item4), DateOf(item.Item1), DateOf(item.Item1).AddDays(30)))
            .OrderBy(item => item.Date).ThenBy(item => item.Document).ThenBy(item => item.Account).ThenBy(item => item.Contact)
            .ToArray());

    [Fact]
    public void Every_day_has_open_what_settlements_left_of_each_item() => Gen.Select(
        GenItems, Gen.Select(Gen.Int[0, 39], Gen.Int[0, 39], Gen.Int[1, 100], Gen.Int[0, 20]).Array[0, 30], Gen.Int[0, 60]).Sample(
        (items, pairs, last) =>
    {
        var ledger = LedgerOfItems.Of(items, Settled(items, pairs));
        foreach (var type in new[] { AccountType.Receivable, AccountType.Payable })
        {
            var (until, sign) = (Start.AddDays(last), type == AccountType.Payable ? -1 : 1);
            bool IsOfType(AccountKey account) => Chart[account.Value - 1].Type == type;
            var history = ControlHistory.Of(ledger, type, until);
            var own = items.Where(item => item.Date <= until && IsOfType(item.Account)).ToList();
            var settled = ledger.Applications(until).SelectMany(part => part).Where(applied => IsOfType(applied.Account)).ToList();
            Assert.Equal(
                own.Select(item => (item.Document, item.Account, item.Contact, item.Date, item.Due, sign * item.Total.MinorUnits)),
                history.Items.Select(
                    item => (item.Document, item.Account, item.Contact, item.Date, item.Due, item.Total.MinorUnits)));
            for (var place = 0; place < own.Count; place++)
            {
                var applied = settled.Where(one => Touches(one, own[place])).ToList();
                Assert.Equal(
                    applied.Select(one => (one.Day, one.Amount, Touches(one, own[place], isFrom: true) ? one.To : one.From)),
                    history.AppliedTo(place).Select(one => (one.Day, one.Amount, history[one.With].Document)));
                for (var day = Start.AddDays(-1); day <= until; day = day.AddDays(3))
                {
                    var left = Math.Abs(own[place].Total.MinorUnits)
                        - applied.Where(one => one.Day <= day).Sum(one => one.Amount.MinorUnits);
                    Assert.Equal(
                        own[place].Date <= day ? sign * Math.Sign(own[place].Total.MinorUnits) * left : 0,
                        history.OpenAt(day)[place].MinorUnits);
                }
            }
        }
    });

    // Some items are set against others of the other side of their account, no more than there is of both.
    private static Application[] Settled(ControlItem[] items, (int One, int Other, int Percent, int Days)[] pairs)
    {
        var (left, settled) = (items.Select(item => Math.Abs(item.Total.MinorUnits)).ToArray(), new List<Application>());
        foreach (var (one, other, percent, days) in pairs.Where(pair => pair.One < items.Length && pair.Other < items.Length))
        {
            var (from, to) = (items[one], items[other]);
            var amount = Math.Min(left[one], left[other]) * percent / 100;
            if (from.Document != to.Document && from.Account == to.Account && from.Total.Sign != to.Total.Sign && amount > 0)
            {
                (left[one], left[other]) = (left[one] - amount, left[other] - amount);
                settled.Add(new Application(
                    new(settled.Count + 1), (from.Date > to.Date ? from.Date : to.Date).AddDays(days), new(amount), from.Account,
                    from.Document, from.Contact, to.Document, to.Contact));
            }
        }

        return [.. settled.OrderBy(applied => applied.Day).ThenBy(applied => applied.Settlement)];
    }

    private static bool Touches(Application applied, ControlItem item) =>
        Touches(applied, item, isFrom: true) || Touches(applied, item, isFrom: false);

    private static bool Touches(Application applied, ControlItem item, bool isFrom) => applied.Account == item.Account
        && (isFrom ? (applied.From, applied.FromContact) : (applied.To, applied.ToContact)) == (item.Document, item.Contact);

    private static DateOnly DateOf(int document) => Start.AddDays(document * 17 % 41);

    /// <summary>Records of which nothing is known but accounts, items and settlements.</summary>
    public class LedgerOfItems : DispatchProxy
    {
        private ControlItem[] _items = [];
        private Application[] _applications = [];

        /// <summary>Such records.</summary>
        public static ILedger Of(ControlItem[] items, Application[] applications)
        {
            var ledger = Create<ILedger, LedgerOfItems>();
            ((LedgerOfItems)ledger)._items = items;
            ((LedgerOfItems)ledger)._applications = applications;
            return ledger;
        }

        /// <inheritdoc/>
        protected override object? Invoke(MethodInfo? targetMethod, object?[]? args)
        {
            bool IsWanted(AccountKey account) => args![1] is not IReadOnlySet<AccountKey> wanted || wanted.Contains(account);
            return targetMethod!.Name switch
            {
                "get_" + nameof(ILedger.Accounts) => Chart,
                nameof(ILedger.ControlItems) =>
                    RandomBook.ColumnsOf([.. _items.Where(item => item.Date <= (DateOnly)args![0]! && IsWanted(item.Account))]),
                nameof(ILedger.Applications) =>
                    _applications.Where(applied => applied.Day <= (DateOnly)args![0]! && IsWanted(applied.Account))
                        .Chunk(2).Select(part => part.ToList()),
                var other => throw new InvalidOperationException($"{other} is not asked for."),
            };
        }
    }
}
