using CsCheck;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;

namespace Vlei.Core.Tests;

/// <summary>Which items a settlement joins, and that no more is ever settled than is open.</summary>
public class SettlementBookTests
{
    private const int Receivable = 1;
    private const int Payable = 2;

    [Fact]
    public void No_more_is_settled_than_is_open_on_either_side_in_any_order() =>
        Gen.Select(
            Gen.Long[1, 500].Array[2, 6],
            Gen.Long[1, 500].Array[2, 6],
            Gen.Select(Gen.Int[0, 5], Gen.Int[0, 5], Gen.Long[1, 400]).Array[1, 40])
        .Sample((owed, paid, attempts) =>
        {
            var book = new SettlementBook();
            var (left, right) = ((long[])owed.Clone(), (long[])paid.Clone());
            foreach (var (one, other, amount) in attempts.Where(a => a.Item1 < owed.Length && a.Item2 < paid.Length))
            {
                var fault = book.Settle(
                    [new ControlItem(new(one), new(Receivable), new(7), new Amount(owed[one]))],
                    [new ControlItem(new(100 + other), new(Receivable), new(7), new Amount(-paid[other]))],
                    new Amount(amount), out var open);
                var fits = amount <= left[one] && amount <= right[other];
                Assert.Equal(fits ? SettlementFault.None : SettlementFault.TooLarge, fault);
                Assert.Equal(Math.Min(left[one], right[other]), open.MinorUnits);
                left[one] -= fits ? amount : 0;
                right[other] -= fits ? amount : 0;
            }
        });

    [Fact]
    public void A_contra_is_set_against_each_side_on_its_own_account()
    {
        var book = new SettlementBook();
        ControlItem[] contra = [Item(1, Payable, 5, 80), Item(1, Receivable, 5, -80)];
        Assert.Equal(SettlementFault.None, book.Settle(contra, [Item(2, Receivable, 5, 100)], new Amount(80), out _));
        Assert.Equal(SettlementFault.None, book.Settle([Item(3, Payable, 5, -80)], contra, new Amount(80), out _));
        Assert.Equal(
            SettlementFault.TooLarge, book.Settle(contra, [Item(2, Receivable, 5, 100)], new Amount(1), out _));
    }

    [Fact]
    public void Where_a_document_has_several_contacts_the_one_of_the_other_document_is_meant()
    {
        var book = new SettlementBook();
        ControlItem[] receipt = [Item(1, Receivable, 5, -30), Item(1, Receivable, 6, -70)];
        Assert.Equal(SettlementFault.None, book.Settle(receipt, [Item(2, Receivable, 6, 100)], new Amount(70), out _));
        Assert.Equal(
            SettlementFault.TooLarge,
            book.Settle(receipt, [Item(3, Receivable, 5, 100)], new Amount(31), out var open));
        Assert.Equal(30, open.MinorUnits);
        Assert.Equal(
            SettlementFault.NoCommonContact,
            book.Settle(receipt, [Item(4, Receivable, 9, 100)], new Amount(1), out _));
    }

    [Fact]
    public void Two_documents_with_one_contact_each_may_have_different_ones()
    {
        // A parent company pays for its branch: both have one contact there, so there is no doubt what is meant.
        Assert.Equal(SettlementFault.None, new SettlementBook().Settle(
            [Item(1, Receivable, 5, 100)], [Item(2, Receivable, 6, -100)], new Amount(100), out _));
    }

    [Fact]
    public void What_cannot_be_set_against_each_other_is_told_apart()
    {
        var book = new SettlementBook();
        Assert.Equal(SettlementFault.NoCommonAccount, book.Settle(
            [Item(1, Receivable, 5, 100)], [Item(2, Payable, 5, -100)], new Amount(1), out _));
        Assert.Equal(
            SettlementFault.NoCommonAccount, book.Settle([], [Item(2, Payable, 5, -100)], new Amount(1), out _));
        Assert.Equal(SettlementFault.SameSide, book.Settle(
            [Item(1, Receivable, 5, 100)], [Item(2, Receivable, 5, 100)], new Amount(1), out _));
        Assert.Equal(SettlementFault.SameSide, book.Settle(
            [Item(1, Receivable, 5, 100)], [Item(2, Receivable, 5, 0)], new Amount(1), out _));
    }

    private static ControlItem Item(int document, int account, int contact, long total) =>
        new(new(document), new(account), new(contact), new Amount(total));
}
