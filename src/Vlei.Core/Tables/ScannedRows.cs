using System.Collections;
using Vlei.Core.Fields;

namespace Vlei.Core.Tables;

/// <summary>Where a row stands: its block, its place there, and the innermost group that it is in.</summary>
internal readonly record struct ScannedRow(int Block, int Place, int Group);

/// <summary>
/// The rows that were taken, in the order of the table. Of a block that is taken whole and not grouped nothing is kept but
/// how many rows it has.
/// </summary>
internal sealed class ScannedRows : IReadOnlyList<ScannedRow>
{
    private readonly List<(int First, RowBlock Block, int[]? Places, int[]? Groups)> _parts = [];

    /// <inheritdoc/>
    public int Count { get; private set; }

    /// <inheritdoc/>
    public ScannedRow this[int index]
    {
        get
        {
            var (low, high) = (0, _parts.Count - 1);
            while (low < high)
            {
                var middle = (low + high + 1) / 2;
                (low, high) = _parts[middle].First <= index ? (middle, high) : (low, middle - 1);
            }

            var (first, _, places, groups) = _parts[low];
            return new ScannedRow(low, places?[index - first] ?? index - first, groups?[index - first] ?? 0);
        }
    }

    /// <summary>Adds rows of a block, with the group of each where there are groups.</summary>
    public void Add(RowSet rows, int[]? groups)
    {
        _parts.Add((Count, rows.Block, rows.Places, groups));
        Count += rows.Count;
    }

    /// <summary>The block of that number.</summary>
    public RowBlock BlockAt(int block) => _parts[block].Block;

    /// <inheritdoc/>
    public IEnumerator<ScannedRow> GetEnumerator() => Enumerable.Range(0, Count).Select(index => this[index]).GetEnumerator();

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
