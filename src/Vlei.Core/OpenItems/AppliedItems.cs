using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>What was set against each item, all together in one array: items are many, and most have little or nothing.</summary>
internal sealed class AppliedItems
{
    private readonly int[] _starts;
    private readonly AppliedItem[] _applied;

    /// <summary>Takes it.</summary>
    /// <param name="count">How many items there are.</param>
    /// <param name="all">What was set against what, by the places of both items, in the order in which it took effect.</param>
    public AppliedItems(int count, IReadOnlyList<(int From, int To, DateOnly Day, Amount Amount)> all)
    {
        (_starts, _applied) = (new int[count + 1], new AppliedItem[2 * all.Count]);
        foreach (var (from, to, _, _) in all)
        {
            _starts[from + 1]++;
            _starts[to + 1]++;
        }

        for (var item = 0; item < count; item++)
        {
            _starts[item + 1] += _starts[item];
        }

        var next = _starts.AsSpan(0, count).ToArray();
        foreach (var (from, to, day, amount) in all)
        {
            _applied[next[from]++] = new AppliedItem(to, day, amount);
            _applied[next[to]++] = new AppliedItem(from, day, amount);
        }
    }

    /// <summary>What was set against an item, in the order in which it took effect.</summary>
    public ArraySegment<AppliedItem> Of(int item) => new(_applied, _starts[item], _starts[item + 1] - _starts[item]);
}
