using System.Collections.Concurrent;

namespace Vlei.Core.Ledger;

/// <summary>What is made on another thread, some of it ahead of whoever goes through it.</summary>
public static class Ahead
{
    private const int Most = 3;

    /// <summary>
    /// The same things in the same order; what making them throws is thrown here. While they are gone through, nothing else may be asked
    /// of what they are made from.
    /// </summary>
    /// <param name="made">Makes them. The first two are made when they are asked for, so that little needs no thread.</param>
    public static IEnumerable<T> Of<T>(IEnumerable<T> made)
        where T : class
    {
        using var making = made.GetEnumerator();
        for (var first = 0; first < 2; first++)
        {
            if (!making.MoveNext())
            {
                yield break;
            }

            yield return making.Current;
        }

        using var ready = new BlockingCollection<T>(Most);
        using var stop = new CancellationTokenSource();

        // A thread of its own: those that many books are gone through with may all be waiting for one like this.
        var maker = Task.Factory.StartNew(
            () => Make(making, ready, stop.Token), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default);
        try
        {
            foreach (var one in ready.GetConsumingEnumerable())
            {
                yield return one;
            }

            maker.GetAwaiter().GetResult();
        }
        finally
        {
            // Whoever stops early closes what it is made from next, which may be in use until the maker has stopped too.
            stop.Cancel();
            ((IAsyncResult)maker).AsyncWaitHandle.WaitOne();
        }
    }

    private static void Make<T>(IEnumerator<T> making, BlockingCollection<T> ready, CancellationToken stop)
    {
        try
        {
            while (making.MoveNext())
            {
                ready.Add(making.Current, stop);
            }
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            // Nobody wants the rest.
        }
        finally
        {
            ready.CompleteAdding();
        }
    }
}
