using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// What made a figure change: by what its records are about, the few values that explain most, and the rest, which together are the
/// change, in each way that it is looked at.
/// </summary>
public static class Explanation
{
    private const string RestKey = "(rest)";
    private const int CellCount = 7;
    private const string Total = "total";

    private sealed record Way(
        string Key, string Heading, Func<PostingEntry, long> Of, Func<ILedger, Func<long, (string Id, string Name)>> Named);

    private static readonly Way[] Ways =
    [
        new("account", "By account", entry => entry.Account.Value, ledger =>
        {
            var accounts = ledger.Accounts.ToDictionary(
                account => (long)account.Key.Value, account => (account.Code, $"{account.Code} {account.Name}"));
            return key => accounts.GetValueOrDefault(key, (FieldNames.None, "No account"));
        }),
        new("contact", "By contact", entry => entry.Contact.Value, ledger => NamesOf(ledger, RecordTables.Contacts, "No contact")),
        new("item", "By item", entry => entry.Item, ledger => NamesOf(ledger, RecordTables.Items, "No item")),
        new("project", "By project", entry => entry.Project, ledger => NamesOf(ledger, RecordTables.Projects, "No project")),
        new(
            "department", "By department", entry => entry.Department,
            ledger => NamesOf(ledger, RecordTables.Departments, "No department")),
        new("document", "By document", entry => entry.Place.Document.Value, ledger =>
        {
            var texts = new PostingTexts(ledger);
            return key => texts.IdOf((DocumentKey)key) is var id ? (id, id) : default;
        }),
    ];

    /// <summary>
    /// Explains the change of a figure. Throws a <see cref="ProblemException"/> where the report compares nothing, where it has no such
    /// row, or where no records add up to the figure.
    /// </summary>
    /// <param name="report">A report that is compared with something.</param>
    /// <param name="ledger">The records that it was made from.</param>
    /// <param name="row">The key or the label of the row.</param>
    /// <param name="column">The key or the heading of what it is compared with; nothing for the first.</param>
    /// <param name="most">How many values are named in each way.</param>
    public static Report Of(Report report, ILedger ledger, string row, string? column, int most)
    {
        var (now, before) = ColumnsOf(report, column);
        var place = Trace.RowOf(report, row);
        var (entries, earlier) = (EntriesOf(report, ledger, place, now), EntriesOf(report, ledger, place, before));
        var change = new Amount((report.Rows[place].Cells[now].Units ?? 0) - (report.Rows[place].Cells[before].Units ?? 0));
        var columns = new[] { report.Columns[now], report.Columns[before] };
        var rows = new List<ReportRow>();
        var checks = new List<ReportCheck>();
        foreach (var way in Ways)
        {
            var reasons = ReasonsOf(way, entries, earlier);

            // One value alone explains nothing, and neither does what none of the records has; the documents are told in any case.
            if (reasons.Count > 1 || (reasons.Count > 0 && way == Ways[^1]))
            {
                checks.Add(new ReportCheck(
                    "The reasons add up to the change", change, AddWay(rows, way, reasons, ledger, report, most), way.Heading));
            }
        }

        return report with
        {
            Key = "explanation",
            Title = $"{report.Title}: {report.Rows[place].Label}",
            Columns =
            [
                ReportColumn.Sum("now", columns[0].Heading),
                ReportColumn.Sum("before", columns[1].Heading) with { Tie = ColumnTie.Compared },
                ReportColumn.Sum("change", "Change") with { Tie = ColumnTie.About, IsChange = true },
                new ReportColumn("share", "Of change", ColumnKind.Percent) { Tie = ColumnTie.About },
                new ReportColumn("by-quantity", "By quantity", ColumnKind.Money) { Tie = ColumnTie.About, IsLeftOutWhenIdle = true },
                new ReportColumn("by-price", "By price", ColumnKind.Money) { Tie = ColumnTie.About, IsLeftOutWhenIdle = true },
                new ReportColumn("remark", "Remark", ColumnKind.Text),
            ],
            Rows = rows,
            Checks = checks,
            Notes = [.. report.Notes, .. rows.Count == 0 ? ["Nothing is behind the change."] : Array.Empty<string>()],
            AddressedTo = [],
            Letter = null,
            Explanation = null,
            Foot = [],
            OriginOf = (_, _) => null,
        };
    }

    /// <summary>
    /// The report with what made its last total change. Throws a <see cref="ProblemException"/> where it compares nothing, or where no
    /// records add up to a total.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="ledger">The records that it was made from.</param>
    public static Report AddTo(Report report, ILedger ledger)
    {
        const int Most = 3;
        var (now, before) = Compared(report);
        var place = report.Rows.ToList().FindLastIndex(row => row.Kind is RowKind.Total or RowKind.Result or RowKind.GrandTotal
            && row.InsteadOfMoney is null && row.Cells[now].Units is not null);
        if (place < 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{report.Title} has no total whose change could be explained.", "Leave --explain out.");
        }

        if (report.OriginOf(place, now)?.Refusal is { } refusal)
        {
            throw new ProblemException(ProblemKind.Usage, refusal.Message, $"Leave --explain out. {refusal.Advice}");
        }

        var (entries, earlier) = (EntriesOf(report, ledger, place, now), EntriesOf(report, ledger, place, before));
        var known = Ways.Select(way => (Way: way, Reasons: ReasonsOf(way, entries, earlier))).ToList();
        var (way, reasons) = known.FirstOrDefault(one => one.Reasons.Count > 1, known[^1]);
        var named = way.Named(ledger);
        return report with
        {
            Explanation = new ReportExplanation(
                report.Rows[place].Caption ?? Caption.Ours(report.Rows[place].Label), report.Columns[before].Heading,
                new Amount((report.Rows[place].Cells[now].Units ?? 0) - (report.Rows[place].Cells[before].Units ?? 0)),
                [
                    .. reasons.Take(Most).Select(reason => (named(reason.Key) is var (id, name) ? NameOf(id, name) : "", reason.Change,
                        reason.Remark)),
                ],
                reasons.Count <= Most ? null : (RowOrder.RestLabel(reasons.Count - Most), reasons.Skip(Most)
                    .Aggregate(Amount.Zero, (sum, reason) => sum + reason.Change))),
        };
    }

    private static (int Now, int Before) Compared(Report report)
    {
        var columns = report.Columns.ToList();
        var pairs = columns.Index().Where(column => column.Item is { Tie: ColumnTie.Compared, Kind: ColumnKind.Money })
            .Select(column => (Now: columns.FindLastIndex(column.Index, own => own is { Tie: ColumnTie.None, Kind: ColumnKind.Money }),
                Before: column.Index)).Where(pair => pair.Now >= 0).ToList();

        // What the others come to says more than the first of them.
        return pairs.Find(pair => columns[pair.Now].Key == Total) is { Before: > 0 } whole ? whole : pairs.Count > 0 ? pairs[0]
            : throw new ProblemException(
                ProblemKind.Usage, "--explain needs money that is compared with something.",
                "Add --compare prior-period or --compare prior-year, or leave it out.");
    }

    // A change says itself what it is of, and against what.
    private static (int Now, int Before) ColumnsOf(Report report, string? column)
    {
        var columns = report.Columns.ToList();
        var changes = columns.Where(known => known is { IsChange: true, Kind: ColumnKind.Money, Working.Earlier: not null })
            .Select(known => (Now: columns.FindIndex(other => other.Key == known.Working!.Of),
                Before: columns.FindIndex(other => other.Key == known.Working!.Earlier))).ToList();
        var found = changes.FindIndex(change => column is null || columns[change.Before].Key == column
            || columns[change.Before].Heading.Equals(column, StringComparison.OrdinalIgnoreCase));
        return found >= 0 ? changes[found] : throw new ProblemException(
            ProblemKind.Usage, changes.Count == 0 ? $"{report.Title} has no money that is compared."
                : $"It is not compared with {column}.",
            changes.Count == 0 ? "Take a report of money, with --compare prior-year or another period."
                : $"It is compared with {Suggestion.Listed([.. changes.Select(change => columns[change.Before].Key)], "and")}.");
    }

    private static List<PostingEntry> EntriesOf(Report report, ILedger ledger, int row, int column)
    {
        if (report.OriginOf(row, column) is not { } origin)
        {
            return [];
        }

        if (origin.Refusal is { } refusal)
        {
            throw new ProblemException(ProblemKind.Usage, refusal.Message, refusal.Advice);
        }

        return
        [
            .. origin.Parts.SelectMany(part => PostingEntries.Of(ledger, part, withMore: true)), .. origin.Postings,
            .. origin.Items.SelectMany(item => item.Settlements.Select(settled => settled.Amount).Prepend(item.Total)
                .Select(amount => new PostingEntry(
                    PostingSource.Accrual, new PostingPlace(item.Date, item.Document, default, 0), default, item.Contact, amount))),
        ];
    }

    private static List<ChangeReason> ReasonsOf(Way way, List<PostingEntry> now, List<PostingEntry> before)
    {
        var reasons = new Dictionary<long, ChangeReason>();
        foreach (var (entries, isNow) in new[] { (now, true), (before, false) })
        {
            foreach (var entry in entries)
            {
                var key = way.Of(entry);
                if (!reasons.TryGetValue(key, out var reason))
                {
                    reasons.Add(key, reason = new ChangeReason(key));
                }

                reason.Add(entry, isNow);
            }
        }

        return [.. reasons.Values.OrderByDescending(reason => reason.Change.Magnitude.MinorUnits).ThenBy(reason => reason.Key)];
    }

    private static Amount AddWay(
        List<ReportRow> rows, Way way, List<ChangeReason> reasons, ILedger ledger, Report report, int most)
    {
        var named = way.Named(ledger);
        var total = new ChangeReason(0);
        reasons.ForEach(total.Add);
        var (shown, rest) = (reasons.Take(most).ToList(), new ChangeReason(0));
        reasons.Skip(most).ToList().ForEach(rest.Add);
        var totalKey = $"total-{way.Key}";
        rows.Add(new ReportRow(way.Key, way.Heading, RowKind.Heading, 0, [.. Enumerable.Repeat(Cell.Empty, CellCount)]));
        foreach (var reason in shown)
        {
            var (id, name) = named(reason.Key);
            Add($"{way.Key}/{id}", NameOf(id, name), RowKind.Record, reason);
        }

        if (reasons.Count > most)
        {
            Add($"{way.Key}/{RestKey}", RowOrder.RestLabel(reasons.Count - most), RowKind.Group, rest);
        }

        Add(totalKey, Caption.Ours("Total"), RowKind.Total, total);
        return total.Change;

        void Add(string key, Caption label, RowKind kind, ChangeReason reason) => rows.Add(new ReportRow(
            key, label.English, kind, kind == RowKind.Total ? 0 : 1,
            [
                Cell.Of(reason.Now), Cell.Of(reason.Before), Cell.Of(reason.Change),
                Cell.Of(Percentage.Of(reason.Change, total.Change)),
                .. PriceAndQuantity(kind == RowKind.Record && way.Key == "item" ? reason : null),
                Cell.Of(kind == RowKind.Record ? reason.Remark : ""),
            ])
        {
            Caption = label, CountsIn = kind == RowKind.Total ? null : totalKey,
        });
    }

    // What has no value is called so by us.
    private static Caption NameOf(string id, string name) => id == FieldNames.None ? Caption.Ours(name) : Caption.Name(name);

    private static Cell[] PriceAndQuantity(ChangeReason? item) => item?.ByQuantity is { } quantity && item.Key != 0
        ? [Cell.Of(quantity), Cell.Of(item.Change - quantity)] : [Cell.Empty, Cell.Empty];

    private static Func<long, (string Id, string Name)> NamesOf(ILedger ledger, RecordTable table, string none)
    {
        var names = ledger.Names(table);
        return key => names.IdOf((int)key) is { Length: > 0 } id ? (id, names.NameOf((int)key)) : (FieldNames.None, none);
    }
}
