using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The records behind one figure of a report, adding up to it.</summary>
public static class Trace
{
    private const int MostNamed = 6;

    /// <summary>
    /// Lists them. Throws a <see cref="ProblemException"/> where the report has no such row or column, or no figure there.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="ledger">The records that it was made from.</param>
    /// <param name="row">The key or the label of the row.</param>
    /// <param name="column">The key or the heading of the column; nothing where there is only one.</param>
    /// <param name="all">Whether balances start from the first record, rather than from the fiscal year.</param>
    public static Report Of(Report report, ILedger ledger, string row, string? column, bool all) =>
        At(report, ledger, new CellPlace(RowOf(report, row), ColumnOf(report, column)), all);

    /// <summary>
    /// Lists the records behind the figure at a place. Throws a <see cref="ProblemException"/> where there is no figure, or no records
    /// add up to it.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="ledger">The records that it was made from.</param>
    /// <param name="place">Where the figure stands.</param>
    /// <param name="all">Whether balances start from the first record, rather than from the fiscal year.</param>
    public static Report At(Report report, ILedger ledger, CellPlace place, bool all)
    {
        var origin = report.OriginOf(place.Row, place.Column) ?? throw new ProblemException(
            ProblemKind.NotFound,
            $"There is no figure in row {report.Rows[place.Row].Key}, column {report.Columns[place.Column].Key}.",
            "Name another row or column; vlei show with --format csv shows their keys.");
        if (origin.Refusal is { } refusal)
        {
            throw new ProblemException(ProblemKind.Usage, refusal.Message, refusal.Advice);
        }

        return TraceList.Of(report, report.MadeFrom ?? ledger, place, origin, all);
    }

    /// <summary>The place of a row. Throws a <see cref="ProblemException"/> where there is none, or several.</summary>
    internal static int RowOf(Report report, string row) => PlaceOf(
        "row", row, [.. report.Rows.Zip(RowPaths.Of(report.Rows), (known, path) =>
            (known.Key, known.Label, path, known.Kind != RowKind.Heading))]);

    private static int ColumnOf(Report report, string? column)
    {
        var figures = report.Columns.Select((known, place) => (known, place))
            .Where(known => known.known.Kind is not (ColumnKind.Text or ColumnKind.Date)).ToList();
        return column is not null
            ? ColumnNames.PlaceOf(column, report.Columns) is >= 0 and var named && !IsSharedHeading(report, column) ? named
                : PlaceOf("column", column, [.. report.Columns.Select(known => (known.Key, known.Heading, known.Heading, true))])
            : figures.Count == 1 ? figures[0].place
            : throw new ProblemException(
                ProblemKind.Usage, "The report has several columns.",
                $"Add --column {Suggestion.Listed([.. figures.Take(MostNamed).Select(known => known.known.Key)], "or")}"
                + $"{(figures.Count > MostNamed ? " …" : "")}.");
    }

    private static bool IsSharedHeading(Report report, string name) => !report.Columns.Any(column =>
        column.Key.Equals(name, StringComparison.OrdinalIgnoreCase))
        && report.Columns.Count(column => column.Heading.Equals(name, StringComparison.OrdinalIgnoreCase)) > 1;

    // Keys first: a label may say the same of a heading and a row, a key never does.
    private static int PlaceOf(string what, string wanted, List<(string Key, string Label, string Path, bool HasFigures)> known)
    {
        var byKey = known.FindIndex(one => one.Key == wanted && one.HasFigures);
        if (byKey >= 0)
        {
            return byKey;
        }

        var byLabel = Enumerable.Range(0, known.Count).Where(place => known[place].HasFigures
            && (known[place].Label.Equals(wanted, StringComparison.OrdinalIgnoreCase)
                || known[place].Path.Equals(wanted, StringComparison.OrdinalIgnoreCase)
                || known[place].Key.Equals(wanted, StringComparison.OrdinalIgnoreCase))).ToList();
        return byLabel.Count switch
        {
            1 => byLabel[0],
            > 1 => throw new ProblemException(
                ProblemKind.Usage, $"Several {what}s are called {wanted}.",
                $"Name one by its key: {Suggestion.Listed([.. byLabel.Take(8).Select(place => known[place].Key)], "or")}."),
            _ => throw new ProblemException(
                ProblemKind.NotFound,
                known.Any(one => one.Key == wanted || one.Label.Equals(wanted, StringComparison.OrdinalIgnoreCase))
                    ? $"{wanted} is a heading, without figures." : $"The report has no {what} {wanted}.",
                Suggestion.DidYouMean(wanted, known.Where(one => one.HasFigures).SelectMany(one => new[] { one.Key, one.Label }).Distinct())
                ?? $"vlei show with --format csv shows the keys of all {what}s."),
        };
    }
}
