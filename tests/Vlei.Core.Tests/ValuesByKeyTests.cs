using CsCheck;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>Values are found again under their keys, in their order; what has a key out of reach is under none.</summary>
public sealed class ValuesByKeyTests
{
    [Fact]
    public void Values_come_back_as_a_lookup_has_them() => Gen.Select(
        Gen.Int[0, 9], Gen.Select(Gen.Int[0, 12], Gen.Int).Array[0, 40]).Sample((keys, all) =>
    {
        var values = new ValuesByKey<int>(keys, all);
        var expected = all.ToLookup(pair => pair.Item1, pair => pair.Item2);
        Assert.All(Enumerable.Range(0, keys), key => Assert.Equal(expected[key], values.Of(key)));
    });

    [Fact]
    public void Values_in_pieces_are_as_in_one_list() => Gen.Long.Array[0, 2000].Sample(all =>
    {
        var values = new ManyValues<long>();
        Array.ForEach(all, value => values.Add(value));
        Assert.Equal(all, Enumerable.Range(0, values.Count).Select(place => values[place]));
    }, iter: 30);
}
