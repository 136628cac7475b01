using System.Text;
using CsCheck;
using Vlei.Core.Ledger;

namespace Vlei.Core.Tests;

/// <summary>Ids keep their numbers, whatever is looked up between, and however long they are.</summary>
public sealed class RecordKeysTests
{
    private static readonly string[] Ids = ["A", "B", "AB", "Ä", "", new string('x', 127), new string('x', 128), new string('ö', 90)];

    [Fact]
    public void An_id_has_the_number_that_it_was_given_first() =>
        Gen.Select(Gen.Int[0, Ids.Length - 1], Gen.Bool).Array[0, 60].Sample(steps =>
    {
        var (keys, expected) = (new RecordKeys(), new Dictionary<string, int>());
        foreach (var (place, isAdded) in steps)
        {
            var id = Ids[place];
            if (isAdded)
            {
                _ = expected.TryAdd(id, expected.Count + 1);
                Assert.Equal(expected[id], keys.FindOrAdd(Encoding.UTF8.GetBytes(id)));
            }

            Assert.Equal(expected.GetValueOrDefault(id), keys.Find(Encoding.UTF8.GetBytes(id)));
        }

        Assert.Equal(expected.Count, keys.Last);
        Assert.Equal(expected.Keys, keys.Known);
    });
}
