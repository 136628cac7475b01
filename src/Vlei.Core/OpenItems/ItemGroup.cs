using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.OpenItems;

/// <summary>Items that belong together, as those of a contact, and the groups within.</summary>
/// <param name="Path">The keys of the values that they have in common, from the outermost; empty for all items.</param>
/// <param name="Name">What the innermost of those values is called.</param>
/// <param name="Own">The places of its items, in the order of the records, where it has no groups within.</param>
internal sealed record ItemGroup(IReadOnlyList<string> Path, Caption Name, IReadOnlyList<int> Own)
{
    /// <summary>The key of the row that all come to.</summary>
    public const string Total = "total";

    /// <summary>The key of its row.</summary>
    public string Key => string.Join('/', Path);

    /// <summary>The groups right in it, in their order.</summary>
    public IReadOnlyList<ItemGroup> Parts { get; private init; } = [];

    /// <summary>The places of its items: of groups within, one after the other.</summary>
    public IReadOnlyList<int> Items => Parts.Count == 0 ? Own : Flat(Parts.Select(part => part.Items).ToList());

    /// <summary>Lists one after the other; a single one as it is.</summary>
    public static IReadOnlyList<int> Flat(IReadOnlyList<IReadOnlyList<int>> lists)
    {
        if (lists.Count == 1)
        {
            return lists[0];
        }

        var all = new List<int>(lists.Sum(list => list.Count));
        foreach (var list in lists)
        {
            all.AddRange(list);
        }

        return all;
    }

    /// <summary>The groups that no other lies in; itself where it has no parts.</summary>
    public IEnumerable<ItemGroup> Innermost => Parts.Count == 0 ? [this] : Parts.SelectMany(part => part.Innermost);

    /// <summary>All items, in groups by the values of fields.</summary>
    /// <param name="tree">The fields.</param>
    /// <param name="items">The items.</param>
    /// <param name="groups">The innermost group of each.</param>
    public static ItemGroup Of(GroupTree tree, IReadOnlyList<int> items, int[] groups)
    {
        var (children, own) = (tree.InOrder(), new List<int>?[tree.Count]);
        for (var place = 0; place < groups.Length; place++)
        {
            (own[groups[place]] ??= []).Add(items[place]);
        }

        return Made(0);

        ItemGroup Made(int group)
        {
            var parts = children.Of(group).Select(Made).ToList();
            return new ItemGroup(
                tree.PathOf(group), group == 0 ? "" : tree.LabelOf(group), own[group] ?? [])
            { Parts = parts };
        }
    }

    /// <summary>It with some of its innermost groups alone; what has none of them is left out.</summary>
    public ItemGroup Only(IReadOnlySet<ItemGroup> kept) =>
        With([.. Parts.Where(part => part.Innermost.Any(kept.Contains)).Select(part => part.Parts.Count == 0 ? part : part.Only(kept))]);

    /// <summary>It with those parts.</summary>
    public ItemGroup With(IReadOnlyList<ItemGroup> parts) => this with { Parts = parts, Own = [] };
}
