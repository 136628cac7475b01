using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>What is wrong with a settlement.</summary>
public enum SettlementFault
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>The two documents have no control account in common.</summary>
    NoCommonAccount,

    /// <summary>They have one in common, but both stand on the same side of it.</summary>
    SameSide,

    /// <summary>One of them has several contacts there, and none is the other's.</summary>
    NoCommonContact,

    /// <summary>It is larger than what is open on either side.</summary>
    TooLarge,
}

/// <summary>
/// Sets documents against each other, settlement by settlement, and keeps what is left open of each control item.
/// </summary>
public sealed class SettlementBook
{
    private readonly Dictionary<(DocumentKey Document, AccountKey Account, ContactKey Contact), Amount> _settled = [];

    /// <summary>
    /// Takes one settlement in, unless there is something wrong with it.
    /// </summary>
    /// <param name="from">The control items of one document.</param>
    /// <param name="to">The control items of the other.</param>
    /// <param name="amount">How much; positive.</param>
    /// <param name="open">Where it is too large, what is open on the side that has less; otherwise nothing.</param>
    public SettlementFault Settle(
        IReadOnlyList<ControlItem> from, IReadOnlyList<ControlItem> to, Amount amount, out Amount open)
    {
        open = Amount.Zero;
        var fault = Match(from, to, out var left, out var right);
        if (fault != SettlementFault.None)
        {
            return fault;
        }

        var (leftOpen, rightOpen) = (Open(left), Open(right));
        open = leftOpen < rightOpen ? leftOpen : rightOpen;
        if (amount > open)
        {
            return SettlementFault.TooLarge;
        }

        Add(left, amount);
        Add(right, amount);
        return SettlementFault.None;
    }

    /// <summary>
    /// Finds which items of two documents a settlement joins: on the same control account, on opposite sides of it, with
    /// the same contact; or the only one that a document has there.
    /// </summary>
    public static SettlementFault Match(
        IReadOnlyList<ControlItem> from, IReadOnlyList<ControlItem> to, out ControlItem left, out ControlItem right)
    {
        if (from is [var one] && to is [var other])
        {
            // Nearly all documents have one.
            var fault = one.Account != other.Account ? SettlementFault.NoCommonAccount
                : one.Total.Sign * other.Total.Sign >= 0 ? SettlementFault.SameSide : SettlementFault.None;
            (left, right) = fault == SettlementFault.None ? (one, other) : default;
            return fault;
        }

        var common = from.SelectMany(_ => to, (f, t) => (From: f, To: t)).Where(pair => pair.From.Account == pair.To.Account).ToList();
        var opposite = common.Where(pair => pair.From.Total.Sign * pair.To.Total.Sign < 0).ToList();
        var sameContact = opposite.Where(pair => pair.From.Contact == pair.To.Contact).ToList();
        var chosen = sameContact.Count > 0 ? sameContact : opposite.Where(pair =>
            from.Count(item => item.Account == pair.From.Account) == 1
            && to.Count(item => item.Account == pair.To.Account) == 1).ToList();
        (left, right) = chosen.FirstOrDefault();
        return common.Count == 0 ? SettlementFault.NoCommonAccount
            : opposite.Count == 0 ? SettlementFault.SameSide
            : chosen.Count == 0 ? SettlementFault.NoCommonContact
            : SettlementFault.None;
    }

    private Amount Open(ControlItem item) =>
        item.Total.Magnitude - _settled.GetValueOrDefault((item.Document, item.Account, item.Contact));

    private void Add(ControlItem item, Amount amount)
    {
        var key = (item.Document, item.Account, item.Contact);
        _settled[key] = _settled.GetValueOrDefault(key) + amount;
    }
}
