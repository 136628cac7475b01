using CsCheck;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>What is made ahead on another thread is what would have been made here, whoever stops first.</summary>
public sealed class AheadTests
{
    [Fact]
    public void It_comes_in_order_and_ends_where_making_it_fails() => Gen.Select(Gen.Int[0, 40], Gen.Int[0, 60]).Sample((count, fails) =>
    {
        var found = new List<string>();
        var failure = Record.Exception(() =>
        {
            foreach (var one in Ahead.Of(Made(count, fails, () => { })))
            {
                found.Add(one);
            }
        });
        Assert.Equal(Enumerable.Range(0, Math.Min(count, fails)).Select(place => $"{place}"), found);
        Assert.Equal(fails < count ? "no more" : null, failure?.Message);
    }, iter: 200);

    [Fact]
    public void Whoever_stops_early_ends_the_making_too() => Gen.Int[1, 30].Sample(wanted =>
    {
        // What it is made from is let go of before the one who stopped goes on.
        var isLetGo = false;
        Assert.Equal(wanted, Ahead.Of(Made(int.MaxValue, int.MaxValue, () => isLetGo = true)).Take(wanted).Count());
        Assert.True(isLetGo);
    }, iter: 100);

    private static IEnumerable<string> Made(int count, int fails, Action letGo)
    {
        try
        {
            for (var place = 0; place < count; place++)
            {
                yield return place < fails ? $"{place}" : throw new InvalidOperationException("no more");
            }
        }
        finally
        {
            letGo();
        }
    }
}
