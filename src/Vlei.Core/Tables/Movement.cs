using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>How the figures of a report moved between two states of the records.</summary>
public static class Movement
{
    /// <summary>
    /// The rows of a report whose sums are not what they were: each sum before, after, and the change. A row that was not
    /// there before, or is there no longer, counts as zero; a result that was not shown counts as what its rows come to.
    /// </summary>
    /// <param name="before">The report on the records as they were.</param>
    /// <param name="after">The same report on the records as they are.</param>
    public static Report Between(Report before, Report after)
    {
        var columns = after.Columns.Where(column => column is { Kind: ColumnKind.Money, IsChange: false, IsNoted: false }
            && before.Columns.Any(other => other.Key == column.Key)).ToList();
        var rows = new List<ReportRow>();
        foreach (var (row, was, now) in Paired(before, after))
        {
            var cells = columns.SelectMany(column =>
            {
                var (old, current) = (SumIn(before, was, now, column), SumIn(after, now, was, column));
                return new[] { Cell.Of(old), Cell.Of(current), Cell.Of(current - old) };
            }).ToList();
            if (cells.Where((_, place) => place % 3 == 2).Any(change => change.Units != 0))
            {
                rows.Add(row with { Level = 0, Cells = [.. cells] });
            }
        }

        return after with
        {
            Title = $"{after.Title}: what moved since revision {before.Revision}",
            Columns = [.. columns.SelectMany(column => ColumnsOf(column, columns.Count == 1))],
            Rows = rows,
            Checks = [],
            Notes = rows.Count == 0 ? [.. after.Notes, "No figure has moved."] : after.Notes,
            OriginOf = (_, _) => null,
        };
    }

    private static IEnumerable<ReportColumn> ColumnsOf(ReportColumn column, bool isAlone)
    {
        var of = isAlone ? "" : $" {column.Heading}";
        yield return new ReportColumn($"before({column.Key})", $"Before{of}", ColumnKind.Money);
        yield return new ReportColumn($"after({column.Key})", $"After{of}", ColumnKind.Money) { Tie = ColumnTie.About };
        yield return new ReportColumn($"change({column.Key})", "Change", ColumnKind.Money) { Tie = ColumnTie.About, IsChange = true };
    }

    // Rows with sums, in the order of the later report; those that it lacks come where they stood, as near as that goes.
    private static IEnumerable<(ReportRow Row, ReportRow? Before, ReportRow? After)> Paired(Report before, Report after)
    {
        var old = before.Rows.Where(HasSums).ToDictionary(row => row.Key);
        var current = after.Rows.Where(HasSums).Select(row => row.Key).ToHashSet();
        var gone = before.Rows.Where(row => HasSums(row) && !current.Contains(row.Key)).ToList();
        foreach (var row in after.Rows.Where(HasSums))
        {
            yield return (row, old.GetValueOrDefault(row.Key), row);
        }

        foreach (var row in gone)
        {
            yield return (row, row, null);
        }
    }

    private static bool HasSums(ReportRow row) => row.Kind is not (RowKind.Heading or RowKind.Record) && row.InsteadOfMoney is null;

    private static Amount SumIn(Report report, ReportRow? row, ReportRow? other, ReportColumn column)
    {
        var place = report.Columns.Select(known => known.Key).ToList().IndexOf(column.Key);
        return row is not null ? new Amount(row.Cells[place].Units ?? 0)
            : (other?.MadeOf ?? []).Aggregate(Amount.Zero, (sum, part) => PartOf(report, part.Key) is { } made
                ? part.Sign < 0 ? sum - new Amount(made.Cells[place].Units ?? 0) : sum + new Amount(made.Cells[place].Units ?? 0) : sum);
    }

    // A result names rows by their keys, or by those of what they are the total of.
    private static ReportRow? PartOf(Report report, string key) =>
        report.Rows.FirstOrDefault(row => HasSums(row) && row.Key == $"total-{key}")
            ?? report.Rows.FirstOrDefault(row => HasSums(row) && row.Key == key);
}
