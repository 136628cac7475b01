using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>A single figure of a report, as people read it.</summary>
public static class ReportFigure
{
    /// <summary>
    /// The figure of a row and a column, each named by its key or by what it is called. Throws a <see cref="ProblemException"/> where
    /// there is no such.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="row">The row.</param>
    /// <param name="column">The column; nothing for the first that has figures.</param>
    public static string Of(Report report, string row, string? column)
    {
        var words = new ReportWords(report);
        var shown = report.Rows.FirstOrDefault(known => known.Key == row)
            ?? report.Rows.FirstOrDefault(known => known.Label.Equals(row, StringComparison.OrdinalIgnoreCase))
            ?? throw new ProblemException(
                ProblemKind.NotFound, $"{report.Title} has no row {row}.",
                Suggestion.DidYouMean(row, report.Rows.Select(known => known.Key))
                    ?? "vlei show with --format csv shows the keys of all rows.");
        return words.Readable(shown, ColumnOf(report, column));
    }

    private static int ColumnOf(Report report, string? column)
    {
        var columns = report.Columns.ToList();
        var place = column is null ? columns.FindIndex(known => known.Kind != ColumnKind.Text)
            : columns.FindIndex(known => known.Key == column) is >= 0 and var byKey ? byKey
            : columns.FindIndex(known => known.Heading.Equals(column, StringComparison.OrdinalIgnoreCase));
        return place >= 0 ? place : throw new ProblemException(
            ProblemKind.NotFound, $"{report.Title} has no column {column ?? "of figures"}.",
            $"It has {Suggestion.Listed([.. columns.Select(known => known.Key)], "and")}.");
    }
}
