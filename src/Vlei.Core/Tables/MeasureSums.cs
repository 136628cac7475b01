using Vlei.Core.Fields;

namespace Vlei.Core.Tables;

/// <summary>What the rows of each group come to in one measure.</summary>
internal sealed class MeasureSums
{
    private long[] _sums = [];
    private int[] _counts = [];
    private long[] _least = [];
    private long[] _most = [];

    /// <summary>Adds one row. Throws <see cref="OverflowException"/> where the sum does not fit.</summary>
    public void Add(int group, long number)
    {
        if (number == FieldCells.Nothing)
        {
            return;
        }

        Reach(group);
        (_least[group], _most[group]) = _counts[group] == 0 ? (number, number)
            : (Math.Min(_least[group], number), Math.Max(_most[group], number));
        _sums[group] = checked(_sums[group] + number);
        _counts[group]++;
    }

    /// <summary>Adds all that a group has to another.</summary>
    public void AddTo(int group, int other)
    {
        if (CountOf(group) == 0)
        {
            return;
        }

        Reach(other);
        (_least[other], _most[other]) = _counts[other] == 0 ? (_least[group], _most[group])
            : (Math.Min(_least[other], _least[group]), Math.Max(_most[other], _most[group]));
        _sums[other] = checked(_sums[other] + _sums[group]);
        _counts[other] += _counts[group];
    }

    /// <summary>Forgets all that a group has.</summary>
    public void Clear(int group)
    {
        if (group < _counts.Length)
        {
            (_sums[group], _counts[group], _least[group], _most[group]) = (0, 0, 0, 0);
        }
    }

    /// <summary>How many rows have a number.</summary>
    public int CountOf(int group) => group < _counts.Length ? _counts[group] : 0;

    /// <summary>The sum; nothing where no row has a number.</summary>
    public long? SumOf(int group) => CountOf(group) == 0 ? null : _sums[group];

    /// <summary>The smallest number; nothing where there is none.</summary>
    public long? LeastOf(int group) => CountOf(group) == 0 ? null : _least[group];

    /// <summary>The largest number; nothing where there is none.</summary>
    public long? MostOf(int group) => CountOf(group) == 0 ? null : _most[group];

    /// <summary>
    /// The average, half to even, in units of which there are so many to one of the numbers; nothing where there is none.
    /// </summary>
    public long? AverageOf(int group, long scale) => CountOf(group) == 0 ? null
        : Money.Rounding.Divide((Int128)_sums[group] * scale, _counts[group]);

    private void Reach(int group)
    {
        if (group < _counts.Length)
        {
            return;
        }

        const int Least = 16;
        var length = Math.Max(Least, Math.Max(group + 1, _counts.Length * 2));
        Array.Resize(ref _sums, length);
        Array.Resize(ref _counts, length);
        Array.Resize(ref _least, length);
        Array.Resize(ref _most, length);
    }
}
