using System.Runtime.InteropServices;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Basis;

/// <summary>
/// What moved money, and on which accounts the other side of it stands: the money lines of each document as they are,
/// and what they come to given to the lines on their other side, in proportion where there are several. Documents
/// without money are left out; those that are left each sum to zero again.
/// </summary>
public static class MoneyMovements
{
    private static readonly PostingField[] Needed =
        [PostingField.Day, PostingField.Account, PostingField.Amount, PostingField.Document];

    /// <summary>The movements of a month, from the accrual postings, with the columns that are asked for.</summary>
    public static PostingMonth Read(ILedger ledger, Calendar.YearMonth month, IReadOnlyCollection<PostingField> fields)
    {
        var isMoney = MoneyAccounts(ledger);
        var postings = ledger.ReadMonth(AccountingBasis.Accrual, month, [.. Needed.Union(fields)]);
        var (taken, amounts) = (new List<int>(), new List<long>());
        var documents = postings[PostingField.Document];
        for (var start = 0; start < postings.Count;)
        {
            var end = start + 1;
            while (end < postings.Count && documents[end] == documents[start])
            {
                end++;
            }

            Take(postings, start, end, isMoney, taken, amounts);
            start = end;
        }

        return new PostingMonth(taken.Count, fields.Select(field => (field, field == PostingField.Amount
            ? [.. amounts]
            : taken.Select(posting => postings[field][posting]).ToArray())));
    }

    private static bool[] MoneyAccounts(ILedger ledger)
    {
        var isMoney = new bool[ledger.Accounts.Select(account => account.Key.Value).DefaultIfEmpty(0).Max() + 1];
        foreach (var account in ledger.Accounts)
        {
            isMoney[account.Key.Value] = AccountTypes.ClassOf(account.Type) == AccountClass.Money;
        }

        return isMoney;
    }

    private static void Take(
        PostingMonth postings, int start, int end, bool[] isMoney, List<int> taken, List<long> amounts)
    {
        var (accounts, units) = (postings[PostingField.Account], postings[PostingField.Amount]);
        var (money, hasMoney) = (Amount.Zero, false);
        for (var posting = start; posting < end; posting++)
        {
            if (isMoney[accounts[posting]])
            {
                money += new Amount(units[posting]);
                hasMoney = true;
            }
        }

        if (!hasMoney)
        {
            return;
        }

        // What came in stands against credits, what went out against debits; lines on the same side as the money (a
        // discount on a receipt) only make its other side larger.
        var (parts, places) = (new List<Amount>(), new List<int>());
        for (var posting = start; posting < end; posting++)
        {
            if (isMoney[accounts[posting]])
            {
                taken.Add(posting);
                amounts.Add(units[posting]);
            }
            else if (Math.Sign(units[posting]) == -money.Sign && !money.IsZero)
            {
                places.Add(taken.Count);
                parts.Add(new Amount(units[posting]));
                taken.Add(posting);
                amounts.Add(0);
            }
        }

        if (parts.Count > 0)
        {
            var cut = new Amount[parts.Count];
            Cutting.Cut(
                CollectionsMarshal.AsSpan(parts), -money, parts.Aggregate(Amount.Zero, (sum, part) => sum + part), cut);
            for (var part = 0; part < cut.Length; part++)
            {
                amounts[places[part]] = cut[part].MinorUnits;
            }
        }
    }
}
