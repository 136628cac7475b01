using System.Globalization;
using Vlei.Books;
using Vlei.Core.Reports;

namespace Vlei.Desk;

/// <summary>The imports of a book as a report like any other: when each was made, by whom, and how many documents it touched.</summary>
public static class ImportList
{
    /// <summary>The list.</summary>
    public static Report Of(ReportDesk desk)
    {
        var all = Revisions.All(desk.Book).ToList();
        return new Report
        {
            Key = "imports",
            Title = "Imports",
            Book = desk.Settings.Name,
            Currency = desk.Settings.Currency,
            Basis = desk.Settings.Basis,
            InWhat = "What each added, changed and removed",
            Period = null,
            AsOf = null,
            PeriodInWords = all.Count == 0 ? "There are none yet" : $"{all.Count} so far",
            Columns =
            [
                new("at", "At", ColumnKind.Text), new("by", "By", ColumnKind.Text), new("added", "Added", ColumnKind.Count),
                new("changed", "Changed", ColumnKind.Count), new("removed", "Removed", ColumnKind.Count),
            ],
            Rows =
            [
                .. all.Select(revision => new ReportRow(
                    $"{revision.Number}", $"{revision.Number}", RowKind.Record, 0,
                    [
                        Cell.Of(revision.At.LocalDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)), Cell.Of(revision.By),
                        new Cell(revision.Added), new Cell(revision.Changed), new Cell(revision.Removed),
                    ])),
            ],
            Checks = [],
            OriginOf = (_, _) => null,
            Revision = all.Count == 0 ? 0 : all[^1].Number,
        };
    }
}
