using CsCheck;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>A list in pieces is a list, however many values there are, and while it grows.</summary>
public sealed class ManyValuesTests
{
    [Fact]
    public void It_has_what_was_added_at_every_place() => Gen.Long.Array[0, 2000].Sample(values =>
    {
        var many = new ManyValues<(long Value, int Place)>();
        for (var place = 0; place < values.Length; place++)
        {
            Assert.Equal(place, many.Count);
            many.Add((values[place], place));
            Assert.Equal((values[place / 2], place / 2), many[place / 2]);
        }

        Assert.Equal(values.Select((value, place) => (value, place)), Enumerable.Range(0, many.Count).Select(place => many[place]));
    });
}
