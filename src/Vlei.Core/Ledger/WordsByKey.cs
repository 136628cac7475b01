using System.Collections;

namespace Vlei.Core.Ledger;

/// <summary>Words that are made when they are first asked for.</summary>
/// <param name="count">How many there are.</param>
/// <param name="make">Makes one.</param>
public sealed class WordsByKey(int count, Func<int, string> make) : IReadOnlyList<string>
{
    private readonly string?[] _made = new string?[count];

    /// <inheritdoc/>
    public int Count => _made.Length;

    /// <inheritdoc/>
    public string this[int key] => _made[key] ??= make(key);

    /// <inheritdoc/>
    public IEnumerator<string> GetEnumerator()
    {
        for (var key = 0; key < Count; key++)
        {
            yield return this[key];
        }
    }

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
