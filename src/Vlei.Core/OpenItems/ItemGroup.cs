using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.OpenItems;

/// <summary>Items that belong together, as those of a contact, and the groups within.</summary>
/// <param name="Path">The keys of the values that they have in common, from the outermost; empty for all items.</param>
/// <param name="Name">What the innermost of those values is called.</param>
/// <param name="Items">Their places, in the order of the records.</param>
internal sealed record ItemGroup(IReadOnlyList<string> Path, Caption Name, IReadOnlyList<int> Items)
{
    /// <summary>The key of the row that all come to.</summary>
    public const string Total = "total";

    /// <summary>The key of its row.</summary>
    public string Key => string.Join('/', Path);

    /// <summary>The groups right in it, in their order.</summary>
    public IReadOnlyList<ItemGroup> Parts { get; private init; } = [];

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
            var parts = children[group].Select(Made).ToList();
            return new ItemGroup(
                tree.PathOf(group), group == 0 ? "" : tree.LabelOf(group),
                parts.Count == 0 ? own[group] ?? [] : [.. parts.SelectMany(part => part.Items)])
            { Parts = parts };
        }
    }

    /// <summary>It with some of its innermost groups alone; what has none of them is left out.</summary>
    public ItemGroup Only(IReadOnlySet<ItemGroup> kept) =>
        With([.. Parts.Where(part => part.Innermost.Any(kept.Contains)).Select(part => part.Parts.Count == 0 ? part : part.Only(kept))]);

    /// <summary>It with those parts.</summary>
    public ItemGroup With(IReadOnlyList<ItemGroup> parts) => this with { Parts = parts, Items = [.. parts.SelectMany(part => part.Items)] };
}
