using Vlei.Books.Store.Sqlite;

namespace Vlei.Books.Tests;

/// <summary>What is written behind whoever makes it is written once, in order, by one thread at a time; and a failure is told.</summary>
public sealed class WritesBehindTests
{
    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    public void Whoever_settles_finds_all_of_it_written(int beingRead)
    {
        using var behind = new WritesBehind { BeingRead = beingRead };
        var written = new List<int>();
        for (var place = 0; place < 2_000; place++)
        {
            var own = place;
            behind.Write(
                () =>
                {
                    // Who writes may wait for what is written: for nothing, then.
                    behind.Settle();
                    written.Add(own);
                },
                bytes: place % 7 << 16);
            if (place % 97 == 0)
            {
                behind.Settle();
                Assert.Equal(place + 1, written.Count);
            }
        }

        behind.Settle();
        Assert.Equal(Enumerable.Range(0, 2_000), written);
    }

    [Fact]
    public void What_comes_behind_a_failure_is_given_up_and_each_later_call_tells_of_it()
    {
        var behind = new WritesBehind();
        var written = new List<int>();
        for (var place = 0; place < 3; place++)
        {
            var own = place;
            void Write()
            {
                Thread.Sleep(20);
                written.Add(own == 1 ? throw new InvalidOperationException("the disk is full") : own);
            }

            try
            {
                behind.Write(Write, bytes: 1);
            }
            catch (InvalidOperationException)
            {
                Assert.True(place > 1);
            }
        }

        Assert.Equal("the disk is full", Assert.Throws<InvalidOperationException>(behind.Settle).Message);
        Assert.Equal("the disk is full", Assert.Throws<InvalidOperationException>(() => behind.Write(() => written.Add(9), 1)).Message);

        // Whoever gives up what was begun goes on without it.
        behind.Wait();
        behind.Dispose();
        Assert.Equal([0], written);
    }
}
