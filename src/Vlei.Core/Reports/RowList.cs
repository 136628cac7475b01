using System.Collections;

namespace Vlei.Core.Reports;

/// <summary>Rows that are made when they are looked at, so that a list of any length needs no memory for its cells.</summary>
/// <param name="count">How many there are.</param>
/// <param name="rowOf">The row at a place.</param>
public sealed class RowList(int count, Func<int, ReportRow> rowOf) : IReadOnlyList<ReportRow>
{
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
