using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>What must hold among accounts, whichever import brought them: parents and retained earnings.</summary>
internal static class AccountRules
{
    private const int MostLevels = 32;

    /// <summary>Tells the errors; they are told at the account's line where the set has it.</summary>
    public static void Check(
        IReadOnlyList<Account> accounts, IReadOnlyDictionary<int, RecordPlace> places, RecordErrors errors)
    {
        var byKey = accounts.ToDictionary(account => account.Key);
        foreach (var account in accounts)
        {
            if (account.ParentKey is not { } parentKey)
            {
                continue;
            }

            if (!byKey.TryGetValue(parentKey, out var parent))
            {
                Complain(account, "parent", "the parent is no account of this book any more.");
            }
            else if (parent.Type != account.Type)
            {
                Complain(account, "parent",
                    $"parent \"{parent.Code}\" is of type {AccountTypes.NameOf(parent.Type)}, the account of type "
                    + $"{AccountTypes.NameOf(account.Type)}; they must be the same.");
            }
            else if (LevelsAbove(account, byKey) is var levels && levels is null or > MostLevels)
            {
                Complain(account, "parent", levels is null
                    ? $"parent \"{parent.Code}\" is part of the account itself: a circle."
                    : $"parent \"{parent.Code}\" lies more than {MostLevels} levels deep; expected no deeper.");
            }
        }

        var retained = accounts.Where(account => account.Type == AccountType.RetainedEarnings).ToList();
        foreach (var account in retained.Skip(1))
        {
            Complain(account, "type",
                $"type \"retained-earnings\" is taken by account \"{retained[0].Code}\"; a book has one such account.");
        }

        void Complain(Account account, string field, string message)
        {
            var (file, line) = places.GetValueOrDefault(account.Key.Value, new RecordPlace(RecordTables.Accounts.FileName, 1));
            errors.Add(file, line, RecordTables.Accounts.IndexOf(field) + 1, $"code \"{account.Code}\": {message}");
        }
    }

    // How many accounts an account is part of, as far as that may be; nothing where it is part of itself.
    private static int? LevelsAbove(Account account, Dictionary<AccountKey, Account> byKey)
    {
        var (above, levels) = (account, 0);
        while (levels <= MostLevels && above.ParentKey is { } parent && byKey.TryGetValue(parent, out above!))
        {
            if (above.Key == account.Key)
            {
                return null;
            }

            levels++;
        }

        return levels;
    }
}
