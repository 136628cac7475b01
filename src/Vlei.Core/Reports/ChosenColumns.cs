namespace Vlei.Core.Reports;

/// <summary>A report with the columns that are asked for, in the order and with the headings that are asked for.</summary>
internal static class ChosenColumns
{
    /// <summary>
    /// The report with those columns; itself where none are asked for. Throws a <see cref="Problems.ProblemException"/> where
    /// there is no such column.
    /// </summary>
    public static Report Of(Report report, ReportRequest request)
    {
        if (request.Columns.Count == 0)
        {
            return report;
        }

        var (option, columns) = (ReportOptions.Columns.Name, report.Columns);
        ColumnText Keyed(ColumnText entry) => entry with { Text = columns[ColumnNames.Named(option, entry.Text, columns)].Key };
        var typed = request.TypedColumns.Select(name => ColumnNames.PlaceOf(name, columns)).ToHashSet();
        var chosen = ColumnLists.Applied(
            [.. columns.Select(column => new ColumnText(null, column.Key, null))],
            request.Columns.Select(list => (IReadOnlyList<ColumnText>)[.. list.Select(Keyed)]), []);
        int[] places = [.. chosen.Select(entry => ColumnNames.PlaceOf(entry.Text, columns))];
        var keys = places.Select(place => columns[place].Key).ToHashSet(StringComparer.Ordinal);
        return report with
        {
            Columns = [.. places.Zip(chosen, (place, entry) => Shown(columns[place], entry.Heading, keys, typed.Contains(place)))],
            Rows = new RowList(report.Rows.Count, row => report.Rows[row] is var made
                ? made with { Cells = made.Cells.Count == 0 ? [] : [.. places.Select(place => made.Cells[place])] } : made),
            OriginOf = (row, column) => report.OriginOf(row, places[column]),
        };
    }

    // How a figure follows from others is only said where those are there.
    private static ReportColumn Shown(ReportColumn column, string? heading, HashSet<string> keys, bool isTyped) => column with
    {
        Heading = heading ?? column.Heading,
        IsAskedFor = isTyped,
        Working = column.Working is { } working && keys.Contains(working.Of) && (working.Earlier is null || keys.Contains(working.Earlier))
            ? working : null,
        SumOf = column.SumOf?.All(keys.Contains) == true ? column.SumOf : null,
    };
}
