using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>Reads the accounts.</summary>
internal static class AccountRows
{
    /// <summary>All accounts that stand, in the order of their keys.</summary>
    public static List<Account> Read(IStoreReading store, Standing standing = default)
    {
        var accounts = new List<Account>();
        using var rows = store.Rows(new RecordQuery(
            RecordTables.Accounts, RecordQuery.Key, "code", "name", "type", "parent", "active", "cash_flow", RecordQuery.Tags)
        {
            Standing = standing,
        });
        while (rows.Next())
        {
            accounts.Add(new Account(
                new AccountKey(rows.Int(0)), rows.Text(1), rows.Text(2), TypeOf(rows.Text(3)),
                rows.IsNull(4) ? null : new AccountKey(rows.Int(4)), rows.Number(5) != 0,
                rows.IsNull(6) ? null : ActivityOf(rows.Text(6)))
            {
                Tags = TagSets.Parse(rows.Text(7)),
            });
        }

        return accounts;
    }

    /// <summary>
    /// Whether an account does something else to the cash basis than it did, which concerns every document on it.
    /// </summary>
    public static bool ClassesDiffer(IEnumerable<Account> before, IEnumerable<Account> after)
    {
        var classes = before.ToDictionary(account => account.Key, account => AccountTypes.ClassOf(account.Type));
        return after.Any(account =>
            classes.TryGetValue(account.Key, out var was) && was != AccountTypes.ClassOf(account.Type));
    }

    private static AccountType TypeOf(string name) => AccountTypes.Names.Contains(name)
        ? AccountTypes.FromName(name)
        : throw StoreProblem.Damaged($"there is no account type {name}");

    private static CashFlowActivity ActivityOf(string name) =>
        Enum.TryParse<CashFlowActivity>(name, ignoreCase: true, out var activity)
            ? activity
            : throw StoreProblem.Damaged($"there is no activity {name}");
}
