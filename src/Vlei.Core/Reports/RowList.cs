using System.Collections;

namespace Vlei.Core.Reports;

/// <summary>Makes the row at a place.</summary>
/// <param name="place">The place.</param>
/// <param name="room">
/// The cells of a row that nobody looks at any more, which become those of this one; nothing, where there are none yet, or this one is
/// kept.
/// </param>
public delegate ReportRow RowMaking(int place, ref Cell[]? room);

/// <summary>Rows that are made when they are looked at, so that a list of any length needs no memory for its cells.</summary>
/// <param name="count">How many there are.</param>
/// <param name="rowOf">The row at a place.</param>
public sealed class RowList(int count, Func<int, ReportRow> rowOf) : IReadOnlyList<ReportRow>
{
    /// <summary>Makes rows in the room of others; nothing where they cannot be made so.</summary>
    public RowMaking? InRoom { get; init; }

    /// <inheritdoc/>
    public int Count => count;

    /// <inheritdoc/>
    public ReportRow this[int index] => rowOf(index);

    /// <inheritdoc/>
    public IEnumerator<ReportRow> GetEnumerator()
    {
        for (var place = 0; place < count; place++)
        {
            yield return rowOf(place);
        }
    }

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
