using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>Reads the accounts.</summary>
internal static class AccountRows
{
    /// <summary>All accounts that stand, in the order of their keys.</summary>
    public static List<Account> Read(Database database, Standing standing = default)
    {
        var accounts = new List<Account>();
        using var statement = database.Prepare(
            "SELECT a.key, k.id, a.name, a.type, a.parent, a.active, a.cash_flow, a.tags FROM accounts a "
            + $"JOIN accounts_keys k ON k.key = a.key WHERE {standing.Of("a")} ORDER BY a.key");
        while (statement.Step())
        {
            accounts.Add(new Account(
                new AccountKey(statement.Int(0)), statement.Text(1), statement.Text(2), TypeOf(statement.Text(3)),
                statement.IsNull(4) ? null : new AccountKey(statement.Int(4)), statement.Number(5) != 0,
                statement.IsNull(6) ? null : ActivityOf(statement.Text(6)))
            {
                Tags = TagRows.Parse(statement.Text(7)),
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
