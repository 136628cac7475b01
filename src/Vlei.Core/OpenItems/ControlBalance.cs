using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>What the control accounts come to, which open items must add up to.</summary>
internal static class ControlBalance
{
    /// <summary>What a check of it is called.</summary>
    public const string TieName = "Open items = balance of the control accounts";

    /// <summary>What the accounts of a type come to at the end of a day; what is owed, to us or by us, is positive.</summary>
    public static Amount Of(ILedger ledger, AccountType type, DateOnly day)
    {
        var first = ledger.Extent?.From is { } known && known < day ? known : day;
        var figure = new Figure(PostingSource.Accrual, new DateRange(first, day));
        var sums = FigureSums.Of(ledger, [figure], Selection.Everything, null);
        var net = ledger.Accounts.Where(account => account.Type == type)
            .Aggregate(Amount.Zero, (sum, account) => sum + sums.Net(figure, account.Key));
        return type == AccountType.Payable ? -net : net;
    }
}
