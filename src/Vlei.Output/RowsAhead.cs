using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// The rows of a long report, made on another thread, some of them ahead of whoever writes them. While they are gone through, nothing
/// else may be asked of the records.
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
        foreach (var some in Ahead.Of(Some(rows, from)))
        {
            foreach (var row in some)
            {
                yield return row;
            }
        }
    }

    private static IEnumerable<ReportRow[]> Some(IReadOnlyList<ReportRow> rows, int from)
    {
        for (var first = from; first < rows.Count; first += AtOnce)
        {
            var some = new ReportRow[Math.Min(AtOnce, rows.Count - first)];
            for (var place = 0; place < some.Length; place++)
            {
                some[place] = rows[first + place];
            }

            yield return some;
        }
    }
}
