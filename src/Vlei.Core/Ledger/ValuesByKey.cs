namespace Vlei.Core.Ledger;

/// <summary>Values by whole-number keys, all together in one array: keys are many, and most have few values or none.</summary>
public sealed class ValuesByKey<T>
{
    private readonly int[] _starts;
    private readonly T[] _values;

    /// <summary>Takes them; what belongs to a key out of reach is left out.</summary>
    /// <param name="keys">One more than the highest key.</param>
    /// <param name="all">The values with their keys; they are gone through twice.</param>
    public ValuesByKey(int keys, IEnumerable<(int Key, T Value)> all)
    {
        _starts = new int[keys + 1];
        foreach (var (key, _) in all)
        {
            if (key < keys)
            {
                _starts[key + 1]++;
            }
        }

        for (var key = 0; key < keys; key++)
        {
            _starts[key + 1] += _starts[key];
        }

        _values = new T[_starts[keys]];
        var next = _starts.AsSpan(0, keys).ToArray();
        foreach (var (key, value) in all)
        {
            if (key < keys)
            {
                _values[next[key]++] = value;
            }
        }
    }

    /// <summary>The values of a key, in the order in which they came.</summary>
    public ArraySegment<T> Of(int key) => new(_values, _starts[key], _starts[key + 1] - _starts[key]);
}
