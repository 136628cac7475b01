namespace Vlei.Core.Tables;

/// <summary>What all rows of each group have, as long as it is the same.</summary>
internal sealed class SameValues
{
    // Of each group: nothing yet, one value, or several.
    private long[] _values = [];
    private Said[] _said = [];

    private enum Said : byte
    {
        Nothing,
        One,
        Several,
    }

    /// <summary>Adds rows, each with its group and what it has.</summary>
    public void Add(int[] groups, long[] values)
    {
        for (var row = 0; row < groups.Length; row++)
        {
            Add(groups[row], values[row]);
        }
    }

    /// <summary>Whether a group has rows, and all have the same; groups of their own have rows of any.</summary>
    public bool IsOne(int group) => group < _said.Length && _said[group] == Said.One;

    /// <summary>Adds a row of a group.</summary>
    public void Add(int group, long value)
    {
        Reach(group);
        (_values[group], _said[group]) = _said[group] switch
        {
            Said.Nothing => (value, Said.One),
            var known => (_values[group], _values[group] == value ? known : Said.Several),
        };
    }

    /// <summary>Adds all that a group has to another.</summary>
    public void AddTo(int group, int parent)
    {
        if (IsOne(group))
        {
            Add(parent, _values[group]);
        }
        else if (group < _said.Length && _said[group] == Said.Several)
        {
            Reach(parent);
            _said[parent] = Said.Several;
        }
    }

    /// <summary>What all rows of a group have; nothing where they differ, or there are none.</summary>
    public long? Of(int group) => IsOne(group) ? _values[group] : null;

    private void Reach(int group)
    {
        if (group >= _said.Length)
        {
            var length = Math.Max(group + 1, _said.Length * 2);
            Array.Resize(ref _values, length);
            Array.Resize(ref _said, length);
        }
    }
}
