using System.Collections.Concurrent;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// The rows of a long report, made on another thread, some of them ahead of whoever writes them. While they are gone through, nothing
/// else may be asked of the records.
/// </summary>
internal static class RowsAhead
{
    private const int Least = 4096, AtOnce = 1024, MostAhead = 3;

    /// <summary>The rows, in their order.</summary>
    public static IEnumerable<ReportRow> Of(IReadOnlyList<ReportRow> rows) =>
        rows.Count < Least || Environment.ProcessorCount < 2 ? rows : Made(rows);

    private static IEnumerable<ReportRow> Made(IReadOnlyList<ReportRow> rows)
    {
        using var made = new BlockingCollection<ReportRow[]>(MostAhead);
        using var stop = new CancellationTokenSource();

        // A thread of its own: those that many books are gone through with may all be waiting for one like this.
        var maker = Task.Factory.StartNew(
            () => Make(rows, made, stop.Token), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default);
        try
        {
            foreach (var some in made.GetConsumingEnumerable())
            {
                foreach (var row in some)
                {
                    yield return row;
                }
            }

            maker.GetAwaiter().GetResult();
        }
        finally
        {
            // Whoever stops early has the records closed next, and they may be in use until the maker has stopped too.
            stop.Cancel();
            ((IAsyncResult)maker).AsyncWaitHandle.WaitOne();
        }
    }

    private static void Make(IReadOnlyList<ReportRow> rows, BlockingCollection<ReportRow[]> made, CancellationToken stop)
    {
        try
        {
            for (var first = 0; first < rows.Count; first += AtOnce)
            {
                var some = new ReportRow[Math.Min(AtOnce, rows.Count - first)];
                for (var place = 0; place < some.Length; place++)
                {
                    some[place] = rows[first + place];
                }

                made.Add(some, stop);
            }
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            // Nobody wants the rest.
        }
        finally
        {
            made.CompleteAdding();
        }
    }
}
