using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.OpenItems;

/// <summary>Items that belong together, as those of a contact, and the groups within.</summary>
/// <param name="Own">The places of its items, in the order of the records, where it has no groups within.</param>
internal sealed record ItemGroup(ArraySegment<int> Own)
{
    // There may be tens of thousands of groups: what each is called is asked for where it is shown.
    private readonly GroupTree? _tree;
    private readonly int _group;
    private IReadOnlyList<string>? _path;
    private Caption? _name;

    /// <summary>Items that are not gathered by a value.</summary>
    public ItemGroup(IReadOnlyList<string> path, Caption name, ArraySegment<int> own)
        : this(own) => (_path, _name) = (path, name);

    private ItemGroup(GroupTree tree, int group, ArraySegment<int> own)
        : this(own) => (_tree, _group) = (tree, group);

    /// <summary>The keys of the values that they have in common, from the outermost; empty for all items.</summary>
    public IReadOnlyList<string> Path => _path ??= _tree!.PathOf(_group);

    /// <summary>What the innermost of those values is called.</summary>
    public Caption Name => _name ??= _group == 0 ? "" : _tree!.LabelOf(_group);

    /// <summary>The key of the row that all come to.</summary>
    public const string Total = "total";

    /// <summary>The key of its row.</summary>
    public string Key => string.Join('/', Path);

    /// <summary>The groups right in it, in their order.</summary>
    public IReadOnlyList<ItemGroup> Parts { get; private init; } = [];

    /// <summary>The places of its items: of groups within, one after the other.</summary>
    public ArraySegment<int> Items => Parts.Count == 0 ? Own : Joined([.. Parts.Select(part => part.Items)]);

    /// <summary>Stretches one after the other; as they are where they already lie so.</summary>
    public static ArraySegment<int> Joined(IReadOnlyList<ArraySegment<int>> stretches)
    {
        if (stretches.Count == 0)
        {
            return ArraySegment<int>.Empty;
        }

        var all = stretches[0];
        foreach (var next in stretches.Skip(1))
        {
            if (next.Array != all.Array || next.Offset != all.Offset + all.Count)
            {
                return stretches.SelectMany(stretch => stretch).ToArray();
            }

            all = new ArraySegment<int>(all.Array!, all.Offset, all.Count + next.Count);
        }

        return all;
    }

    /// <summary>The groups that no other lies in; itself where it has no parts.</summary>
    public IEnumerable<ItemGroup> Innermost => Parts.Count == 0 ? [this] : Parts.SelectMany(part => part.Innermost);

    /// <summary>All items, in groups by the values of fields.</summary>
    /// <param name="tree">The fields.</param>
    /// <param name="items">The items.</param>
    /// <param name="groups">The innermost group of each.</param>
    public static ItemGroup Of(GroupTree tree, int[] items, int[] groups)
    {
        var (children, counts, places) = (tree.InOrder(), new int[tree.Count], new int[tree.Count]);
        foreach (var group in groups)
        {
            counts[group]++;
        }

        // The items of all groups lie in one array, in the order of the groups.
        var (inOrder, placed) = (new int[items.Length], 0);
        var all = Made(0);
        for (var item = 0; item < groups.Length; item++)
        {
            inOrder[places[groups[item]]++] = items[item];
        }

        return all;

        ItemGroup Made(int group)
        {
            var own = new ArraySegment<int>(inOrder, placed, counts[group]);
            (places[group], placed) = (placed, placed + own.Count);
            var within = children.Of(group);
            return new ItemGroup(tree, group, own)
            {
                Parts = within.Count == 0 ? [] : Array.ConvertAll([.. within], Made),
            };
        }
    }

    /// <summary>It with some of its innermost groups alone; what has none of them is left out.</summary>
    public ItemGroup Only(IReadOnlySet<ItemGroup> kept) =>
        With([.. Parts.Where(part => part.Innermost.Any(kept.Contains)).Select(part => part.Parts.Count == 0 ? part : part.Only(kept))]);

    /// <summary>It with those parts.</summary>
    public ItemGroup With(IReadOnlyList<ItemGroup> parts) => this with { Parts = parts, Own = ArraySegment<int>.Empty };
}
