namespace Vlei.Core.Reports;

/// <summary>Rows by where they stand: <c>Boat building/Una Lovell</c> is the row Una Lovell under the heading Boat building.</summary>
public static class RowPaths
{
    /// <summary>The path of each row: the labels of the headings that it stands under, and its own.</summary>
    public static IEnumerable<string> Of(IEnumerable<ReportRow> rows)
    {
        var headings = new List<(int Level, string Label)>();
        foreach (var row in rows)
        {
            headings.RemoveAll(heading => heading.Level >= row.Level);
            yield return string.Join('/', [.. headings.Select(heading => heading.Label), row.Label]);
            if (row.Kind == RowKind.Heading)
            {
                headings.Add((row.Level, row.Label));
            }
        }
    }
}
