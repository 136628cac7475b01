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
    public static IEnumerable<ReportRow> Of(IReadOnlyList<ReportRow> rows, int from = 0)
    {
        if (from == 0 && rows.Count < Least)
        {
            return rows;
        }

        var (next, inRoom) = (from, (rows as RowList)?.InRoom);
        return RowsInRoom.Of(AtOnce, (ref ReportRow row, ref Cell[]? room) =>
        {
            if (next == rows.Count)
            {
                return false;
            }

            row = inRoom is null ? rows[next] : inRoom(next, ref room);
            next++;
            return true;
        });
    }
}
