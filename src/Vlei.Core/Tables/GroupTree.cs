using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// Groups within groups: all rows are the root, the rows of one value of the first field are a group in it, and so on. A
/// group is known by its number; a group's number is larger than that of the group that it is in.
/// </summary>
/// <param name="levels">The fields, from the outermost.</param>
internal sealed class GroupTree(IReadOnlyList<FieldIndex> levels)
{
    private readonly List<(int Parent, int Level, long Value)> _groups = [(-1, 0, 0)];
    private readonly Dictionary<(int Parent, long Value), int> _known = [];

    // Of the outermost field, whose values are mostly numbers of words, and change from row to row: groups by value, 0 for none yet.
    private int[] _outermost = [];

    /// <summary>The fields.</summary>
    public IReadOnlyList<FieldIndex> Levels => levels;

    /// <summary>How many groups there are, the root included.</summary>
    public int Count => _groups.Count;

    /// <summary>The innermost group of each row.</summary>
    public int[] Of(RowSet rows)
    {
        var groups = new int[rows.Count];
        foreach (var level in levels)
        {
            var values = level.NumbersOf(rows);
            var (lastParent, lastValue, last) = (-1, 0L, 0);
            for (var row = 0; row < groups.Length; row++)
            {
                if (groups[row] != lastParent || values[row] != lastValue)
                {
                    (lastParent, lastValue) = (groups[row], values[row]);
                    last = Group(lastParent, lastValue);
                }

                groups[row] = last;
            }
        }

        return groups;
    }

    /// <summary>How deep a group lies; 0 for the root.</summary>
    public int LevelOf(int group) => _groups[group].Level;

    /// <summary>The group that it is in; less than 0 for the root.</summary>
    public int ParentOf(int group) => _groups[group].Parent;

    /// <summary>Whether a group is another one, or lies in it.</summary>
    public bool IsWithin(int group, int other)
    {
        while (group > other)
        {
            group = ParentOf(group);
        }

        return group == other;
    }

    /// <summary>The group that it lies in, of that level; itself where it is of that level or further out.</summary>
    public int At(int group, int level)
    {
        while (LevelOf(group) > level)
        {
            group = ParentOf(group);
        }

        return group;
    }

    /// <summary>The groups right in each group, in the order of their values.</summary>
    public ValuesByKey<int> InOrder()
    {
        // What comes before by its value, and among equal ones by its number, is less.
        var order = new long[Count - 1];
        for (var level = 1; level <= levels.Count; level++)
        {
            int[] groups = [.. Enumerable.Range(1, Count - 1).Where(group => LevelOf(group) == level)];
            var ranks = levels[level - 1].RanksOf([.. groups.Select(group => _groups[group].Value)]);
            for (var place = 0; place < groups.Length; place++)
            {
                order[groups[place] - 1] = ((long)ranks[place] << 32) + groups[place];
            }
        }

        Array.Sort(order);
        return new ValuesByKey<int>(Count, order.Select(own => (ParentOf((int)own), (int)own)));
    }

    /// <summary>What a group is called.</summary>
    public Caption LabelOf(int group) => levels[LevelOf(group) - 1].CaptionOf(_groups[group].Value);

    /// <summary>The keys of its values, from the outermost.</summary>
    public IReadOnlyList<string> PathOf(int group)
    {
        var path = new string[LevelOf(group)];
        for (; group > 0; group = ParentOf(group))
        {
            path[LevelOf(group) - 1] = levels[LevelOf(group) - 1].KeyOf(_groups[group].Value);
        }

        return path;
    }

    private int Group(int parent, long value)
    {
        const int MostWords = 1 << 18;
        if (parent == 0 && value is >= 0 and < MostWords)
        {
            if (value >= _outermost.Length)
            {
                Array.Resize(ref _outermost, Math.Max((int)value + 1, 2 * _outermost.Length));
            }

            ref var known = ref _outermost[value];
            return known > 0 ? known : known = NewGroup(parent, value);
        }

        if (!_known.TryGetValue((parent, value), out var group))
        {
            _known[(parent, value)] = group = NewGroup(parent, value);
        }

        return group;
    }

    private int NewGroup(int parent, long value)
    {
        _groups.Add((parent, _groups[parent].Level + 1, value));
        return _groups.Count - 1;
    }
}
