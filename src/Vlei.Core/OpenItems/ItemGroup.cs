using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Items that belong together: those of a contact, or of a control account.</summary>
/// <param name="Id">The id of what they have in common.</param>
/// <param name="Name">Its name.</param>
/// <param name="Items">Their places.</param>
internal sealed record ItemGroup(string Id, Caption Name, IReadOnlyList<int> Items)
{
    /// <summary>The id of what has no contact.</summary>
    public const string NoContact = "no-contact";

    /// <summary>The key of the row that all come to.</summary>
    public const string Total = "total";

    /// <summary>By contact, in the order of names; what has none is last.</summary>
    public static List<ItemGroup> ByContact(ILedger ledger, ControlHistory history, IEnumerable<int> items)
    {
        var contacts = ledger.Records(PostingField.Contact).ToDictionary(contact => contact.Key);

        // Two of the same name are told apart by their ids.
        var names = new HashSet<string>();
        var shared = contacts.Values.Where(contact => !names.Add(contact.Name)).Select(contact => contact.Name).ToHashSet();
        return
        [
            .. Gathered(items, item => history[item].Contact.Value)
                .Select(group => (group.Key, Group: contacts.TryGetValue(group.Key, out var contact)
                    ? new ItemGroup(
                        contact.Id, shared.Contains(contact.Name) ? $"{contact.Name} ({contact.Id})" : contact.Name, group.Items)
                    : new ItemGroup(NoContact, Caption.Ours("No contact"), group.Items)))
                .OrderBy(group => group.Key == 0 ? 1 : 0)
                .ThenBy(group => group.Group.Name.English, StringComparer.OrdinalIgnoreCase)
                .ThenBy(group => group.Key)
                .Select(group => group.Group),
        ];
    }

    /// <summary>By control account, in the order of codes.</summary>
    public static List<ItemGroup> ByAccount(ControlHistory history, IEnumerable<int> items)
    {
        var accounts = history.Accounts.ToDictionary(account => account.Key.Value);
        return
        [
            .. Gathered(items, item => history[item].Account.Value)
                .Select(
                    group => new ItemGroup(accounts[group.Key].Code, $"{accounts[group.Key].Code} {accounts[group.Key].Name}", group.Items))
                .OrderBy(group => group.Id, CodeOrder.Instance),
        ];
    }

    // Keys are small numbers: a list for each is found faster by its place than by a hash.
    private static IEnumerable<(int Key, List<int> Items)> Gathered(IEnumerable<int> items, Func<int, int> keyOf)
    {
        var groups = new List<List<int>?>();
        foreach (var item in items)
        {
            var key = keyOf(item);
            while (groups.Count <= key)
            {
                groups.Add(null);
            }

            (groups[key] ??= []).Add(item);
        }

        return Enumerable.Range(0, groups.Count).Where(key => groups[key] is not null).Select(key => (key, groups[key]!));
    }
}
