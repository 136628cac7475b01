using System.Collections.Concurrent;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// The rows of a long report, made on another thread, some of them ahead of whoever writes them. While they are gone through, nothing
/// else may be asked of the records; and a row is looked at before the next one is asked for: its cells are used again.
/// </summary>
internal static class RowsAhead
{
    private const int Least = 4096, AtOnce = 1024;

    /// <summary>The rows, in their order.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="from">The place of the first of them that is wanted.</param>
    public static IEnumerable<ReportRow> Of(IReadOnlyList<ReportRow> rows, int from = 0) =>
        from == 0 && rows.Count < Least ? rows : Made(rows, from);

    private static IEnumerable<ReportRow> Made(IReadOnlyList<ReportRow> rows, int from)
    {
        var looked = new ConcurrentQueue<Stretch>();
        foreach (var some in Ahead.Of(Some(rows, from, looked)))
        {
            for (var place = 0; place < some.Count; place++)
            {
                yield return some.Rows[place];
            }

            looked.Enqueue(some);
        }
    }

    private static IEnumerable<Stretch> Some(IReadOnlyList<ReportRow> rows, int from, ConcurrentQueue<Stretch> looked)
    {
        var inRoom = (rows as RowList)?.InRoom;
        for (var first = from; first < rows.Count; first += AtOnce)
        {
            var some = looked.TryDequeue(out var used) ? used : new Stretch();
            some.Count = Math.Min(AtOnce, rows.Count - first);
            for (var place = 0; place < some.Count; place++)
            {
                some.Rows[place] = inRoom is null ? rows[first + place] : inRoom(first + place, ref some.Room[place]);
            }

            yield return some;
        }
    }

    // Rows, and the room that their cells are in.
    private sealed class Stretch
    {
        public ReportRow[] Rows { get; } = new ReportRow[AtOnce];

        public Cell[]?[] Room { get; } = new Cell[AtOnce][];

        public int Count { get; set; }
    }
}
