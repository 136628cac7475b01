using System.Collections.Concurrent;
using Vlei.Core.Ledger;

namespace Vlei.Output;

/// <summary>Makes the next row; false behind the last.</summary>
/// <param name="row">The row.</param>
/// <param name="room">
/// What a row that nobody looks at any more had its cells in, for those of this one; nothing where there is none yet.
/// </param>
internal delegate bool RowInRoom<TRow, TRoom>(ref TRow row, ref TRoom? room)
    where TRoom : class;

/// <summary>
/// Rows that are made on another thread, some of them ahead of whoever goes through them, in the room of those that were gone through
/// before: a row is looked at before the next one is asked for.
/// </summary>
internal static class RowsInRoom
{
    /// <summary>The rows.</summary>
    /// <param name="atOnce">How many are made and handed over together.</param>
    /// <param name="next">Makes them, one after the other.</param>
    public static IEnumerable<TRow> Of<TRow, TRoom>(int atOnce, RowInRoom<TRow, TRoom> next)
        where TRoom : class
    {
        var looked = new ConcurrentQueue<Stretch<TRow, TRoom>>();
        foreach (var some in Ahead.Of(Made(atOnce, next, looked)))
        {
            for (var place = 0; place < some.Count; place++)
            {
                yield return some.Rows[place];
            }

            looked.Enqueue(some);
        }
    }

    private static IEnumerable<Stretch<TRow, TRoom>> Made<TRow, TRoom>(
        int atOnce, RowInRoom<TRow, TRoom> next, ConcurrentQueue<Stretch<TRow, TRoom>> looked)
        where TRoom : class
    {
        for (var isMore = true; isMore;)
        {
            var some = looked.TryDequeue(out var used) ? used : new Stretch<TRow, TRoom>(atOnce);
            some.Count = 0;
            while (some.Count < atOnce && (isMore = next(ref some.Rows[some.Count], ref some.Room[some.Count])))
            {
                some.Count++;
            }

            if (some.Count > 0)
            {
                yield return some;
            }
        }
    }

    private sealed class Stretch<TRow, TRoom>(int atOnce)
    {
        public TRow[] Rows { get; } = new TRow[atOnce];

        public TRoom?[] Room { get; } = new TRoom?[atOnce];

        public int Count { get; set; }
    }
}
