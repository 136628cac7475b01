using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Review;

/// <summary>What looks off about balances: money below zero, money that was never applied, customers in credit.</summary>
internal static class BalanceFindings
{
    private const int OldDays = 60;

    /// <summary>Bank and cash accounts that were below zero, from which day on, and how far.</summary>
    public static IEnumerable<Finding> MoneyBelowZero(ReviewRecords records)
    {
        var moved = MoneyMoved(records);
        foreach (var account in moved.Keys.Select(key => records.Accounts[key]).OrderBy(account => account.Code, CodeOrder.Instance))
        {
            var (balance, since, lowest) = (Amount.Zero, default(DateOnly?), Amount.Zero);
            foreach (var (date, amount) in moved[account.Key])
            {
                balance += amount;
                if (balance.Sign >= 0 && since is { } from)
                {
                    if (date > records.Range.From)
                    {
                        yield return Below(records, account, from, date.AddDays(-1), lowest);
                    }

                    (since, lowest) = (null, Amount.Zero);
                }
                else if (balance.Sign < 0)
                {
                    since ??= date;
                    lowest = balance < lowest ? balance : lowest;
                }
            }

            if (since is { } start)
            {
                yield return Below(records, account, start, records.Range.To, lowest);
            }
        }
    }

    /// <summary>Receipts, payments and credits that were never set against anything, long after their date.</summary>
    public static IEnumerable<Finding> OldUnapplied(ReviewRecords records)
    {
        foreach (var type in new[] { AccountType.Receivable, AccountType.Payable })
        {
            var history = records.HistoryOf(type);
            var open = history.OpenAt(records.Range.To);
            for (var item = 0; item < open.Length; item++)
            {
                var age = records.Range.To.DayNumber - history[item].Date.DayNumber;
                if (open[item].Sign >= 0 || age <= OldDays)
                {
                    continue;
                }

                var id = records.Context.Ledger.Document(history[item].Document).Id;
                yield return new Finding(
                    "unapplied", $"unapplied/{id}/{records.Accounts[history[item].Account].Code}", history[item].Date,
                    $"{records.Text(open[item].Magnitude)} of {records.Text(history[item].Total.Magnitude)} is not applied "
                        + $"after {age} days",
                    new FindingRecords("open-items", "as-of", PeriodText.Iso(records.Range.To), $"document={id}"),
                    Finding.FingerprintOf(
                        [history[item].Document.Value, history[item].Account.Value, history[item].Contact.Value, open[item].MinorUnits]))
                {
                    Document = history[item].Document,
                    Contact = history[item].Contact,
                    Account = history[item].Account,
                    Amount = open[item].Magnitude,
                };
            }
        }
    }

    /// <summary>Customers whom we owe, and suppliers who owe us.</summary>
    public static IEnumerable<Finding> CreditBalances(ReviewRecords records)
    {
        var day = PeriodText.Iso(records.Range.To);
        var ids = records.Context.Ledger.Names(RecordTables.Contacts).Ids;
        foreach (var type in new[] { AccountType.Receivable, AccountType.Payable })
        {
            var history = records.HistoryOf(type);
            var balances = Enumerable.Range(0, history.Count).GroupBy(item => history[item].Contact)
                .Select(items => (Contact: items.Key, Balance: items.Aggregate(Amount.Zero, (sum, item) => sum + history[item].Total)));
            foreach (var (contact, balance) in balances.Where(known => !known.Contact.IsNone && known.Balance.Sign < 0))
            {
                var (side, ledger) = type == AccountType.Receivable ? ("customer", "customer-ledger") : ("supplier", "supplier-ledger");
                yield return new Finding(
                    "credit-balance", $"credit-balance/{side}/{ids[contact.Value]}", records.Range.To,
                    $"{records.NameOf(contact)} is in credit as a {side}: {records.Text(balance.Magnitude)}",
                    new FindingRecords(ledger, "period", $"/{day}", $"contact={ids[contact.Value]}"),
                    Finding.FingerprintOf([contact.Value, balance.MinorUnits]))
                {
                    Contact = contact,
                    Amount = balance.Magnitude,
                };
            }
        }
    }

    // What came in and went out of each bank and cash account on each day, from the first day on.
    private static Dictionary<AccountKey, List<(DateOnly Date, Amount Amount)>> MoneyMoved(ReviewRecords records)
    {
        var moved = records.Accounts.Values.Where(account => account.Type is AccountType.Bank or AccountType.Cash)
            .ToDictionary(account => account.Key, _ => new List<(DateOnly Date, Amount Amount)>());
        foreach (var document in records.Documents)
        {
            foreach (var line in document.Lines)
            {
                if (!moved.TryGetValue(line.Account, out var days))
                {
                    continue;
                }

                if (days.Count > 0 && days[^1].Date == document.Date)
                {
                    days[^1] = (document.Date, days[^1].Amount + line.Amount);
                }
                else
                {
                    days.Add((document.Date, line.Amount));
                }
            }
        }

        return moved;
    }

    private static Finding Below(ReviewRecords records, Account account, DateOnly from, DateOnly to, Amount lowest) => new(
        "below-zero", $"below-zero/{account.Code}/{PeriodText.Iso(from)}", from,
        $"{records.AccountInWords(account.Key)} was below zero "
            + $"from {PeriodText.Iso(from)} to {PeriodText.Iso(to)}, at the lowest {records.Text(lowest)}",
        new FindingRecords("general-ledger", "period", $"{PeriodText.Iso(from)}/{PeriodText.Iso(to)}", $"account={account.Code}"),
        Finding.FingerprintOf([account.Key.Value, from.DayNumber, lowest.MinorUnits]))
    {
        Account = account.Key,
        Amount = lowest,
    };
}
