using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The records behind one figure of a report, adding up to it.</summary>
public static class Trace
{
    /// <summary>
    /// Lists them. Throws a <see cref="ProblemException"/> where the report has no such row or column, or no figure there.
    /// </summary>
    /// <param name="report">The report.</param>
    /// <param name="ledger">The records that it was made from.</param>
    /// <param name="row">The key or the label of the row.</param>
    /// <param name="column">The key or the heading of the column; nothing where there is only one.</param>
    /// <param name="all">Whether balances start from the first record, rather than from the fiscal year.</param>
    public static Report Of(Report report, ILedger ledger, string row, string? column, bool all)
    {
        var rowPlace = PlaceOf(
            "row", row, [.. report.Rows.Select(known => (known.Key, known.Label, known.Kind != RowKind.Heading))]);
        var columnPlace = ColumnOf(report, column);
        var origin = report.OriginOf(rowPlace, columnPlace) ?? throw new ProblemException(
            ProblemKind.NotFound,
            $"There is no figure in row {report.Rows[rowPlace].Key}, column {report.Columns[columnPlace].Key}.",
            "Name another row or column; vlei show with --format csv shows their keys.");
        return Listed(report, ledger, new CellPlace(rowPlace, columnPlace), origin, all);
    }

    private static int ColumnOf(Report report, string? column)
    {
        var figures = report.Columns.Select((known, place) => (known, place))
            .Where(known => known.known.Kind is not (ColumnKind.Text or ColumnKind.Date)).ToList();
        return column is not null
            ? PlaceOf("column", column, [.. report.Columns.Select(known => (known.Key, known.Heading, true))])
            : figures.Count == 1 ? figures[0].place
            : throw new ProblemException(
                ProblemKind.Usage, "The report has several columns.",
                $"Add --column {Suggestion.Listed([.. figures.Take(6).Select(known => known.known.Key)], "or")}{(figures.Count > 6 ? " …" : "")}.");
    }

    // Keys first: a label may say the same of a heading and a row, a key never does.
    private static int PlaceOf(string what, string wanted, List<(string Key, string Label, bool HasFigures)> known)
    {
        var byKey = known.FindIndex(one => one.Key == wanted && one.HasFigures);
        if (byKey >= 0)
        {
            return byKey;
        }

        var byLabel = Enumerable.Range(0, known.Count).Where(place => known[place].HasFigures
            && (known[place].Label.Equals(wanted, StringComparison.OrdinalIgnoreCase)
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

    /// <summary>The same of a figure whose origin is known.</summary>
    internal static Report Listed(Report report, ILedger ledger, CellPlace figure, CellOrigin origin, bool all = false, PostingTexts? known = null)
    {
        var (row, column) = (report.Rows[figure.Row], report.Columns[figure.Column]);
        var texts = known ?? new PostingTexts(ledger);
        var withRelease = origin.Parts.Any(part => part.Source == PostingSource.Cash) || origin.Postings.Any(posting => posting.Source == PostingSource.Cash);
        var withAccount = origin.Parts.SelectMany(part => part.Terms).Select(term => term.Account)
            .Concat(origin.Postings.Select(posting => posting.Account)).Distinct().Count() > 1;
        var columns = PostingTexts.Columns(withAccount, withRelease);
        var rows = new List<ReportRow>();
        var running = Amount.Zero;
        foreach (var item in origin.Items)
        {
            AddItem(item);
        }

        foreach (var entry in origin.Postings)
        {
            AddEntry(entry, 0);
        }

        var groups = origin.Parts.GroupBy(part => part.Heading).ToList();
        foreach (var group in groups)
        {
            var level = groups.Count > 1 ? 1 : 0;
            var start = running;
            if (groups.Count > 1)
            {
                rows.Add(new ReportRow(
                    $"part-{rows.Count + 1}", group.Key, RowKind.Heading, 0, [.. columns.Select(_ => Cell.Empty), Cell.Empty, Cell.Empty]));
            }

            foreach (var part in group)
            {
                AddPart(part, level);
            }

            if (groups.Count > 1)
            {
                rows.Add(new ReportRow(
                    $"total-{rows.Count + 1}", $"Total {group.Key}", RowKind.Total, 0,
                    [.. columns.Select(_ => Cell.Empty), Cell.Of(running - start), Cell.Of(running)]));
            }
        }

        rows.Add(new ReportRow(
            "total", "Total", RowKind.GrandTotal, 0, [.. columns.Select(_ => Cell.Empty), Cell.Of(running), Cell.Of(running)]));
        return report with
        {
            Key = "trace",
            Title = $"{report.Title}: {row.Label}, {column.Heading}",
            Columns = [.. columns, new ReportColumn("amount", "Amount", ColumnKind.Money), new ReportColumn("running", "Running total", ColumnKind.Money)],
            Rows = rows,
            InWhat = null,
            AddressedTo = [],
            Foot = [],
            Notes = [.. report.Notes, .. origin.Note is { } note ? new[] { note } : []],
            Checks = [new ReportCheck("The records add up to the figure", origin.Figure, running, "")],
            OriginOf = (_, _) => null,
        };

        void AddItem(OriginItem item)
        {
            var id = texts.IdOf(item.Document);
            Add(id, id, 0, item.Document, item.Date, item.Total);
            foreach (var settlement in item.Settlements)
            {
                Add($"{id}@{rows.Count}", $"less {texts.IdOf(settlement.With)}{(ledger.HasComputedSettlements ? " (computed)" : "")}", 1, settlement.With, settlement.Day, settlement.Amount);
            }

            void Add(string key, string label, int level, int document, DateOnly day, Amount amount)
            {
                running += amount;
                rows.Add(new ReportRow(
                    key, label, RowKind.Record, level,
                    [.. texts.CellsOf(document, item.Contact, day, withAccount, withRelease), Cell.Of(amount), Cell.Of(running)])
                {
                    Document = texts.IdOf(document),
                });
            }
        }

        void AddPart(OriginPart part, int level)
        {
            if (part.IsBroughtForward && !all)
            {
                var sum = SumOf(ledger, part);
                running += sum;
                if (!sum.IsZero)
                {
                    rows.Add(new ReportRow(
                        $"brought-forward-{rows.Count + 1}", "Brought forward", RowKind.Record, level,
                        [Cell.Of(part.Range.To), .. columns.Skip(1).Select(_ => Cell.Empty), Cell.Of(sum), Cell.Of(running)]));
                }

                return;
            }

            foreach (var entry in Together(PostingEntries.Of(ledger, part)))
            {
                AddEntry(entry, level);
            }
        }

        void AddEntry(PostingEntry entry, int level)
        {
            running += entry.Amount;
            rows.Add(new ReportRow(
                texts.KeyOf(entry), texts.IdOf(entry), RowKind.Record, level,
                [.. texts.CellsOf(entry, withAccount, withRelease), Cell.Of(entry.Amount), Cell.Of(running)])
            {
                Document = entry.Source == PostingSource.Budget ? null : texts.IdOf(entry),
            });
        }
    }

    private static Amount SumOf(ILedger ledger, OriginPart part)
    {
        var figure = new Figure(part.Source, part.Range);
        var sums = FigureSums.Of(ledger, [figure], part.Filter, null);
        return part.Terms.Aggregate(Amount.Zero, (sum, term) => sum + new Amount(checked(term.Sign * (term.Side switch
        {
            PostingSide.Debit => sums.Debit(figure, term.Account),
            PostingSide.Credit => sums.Credit(figure, term.Account),
            _ => sums.Net(figure, term.Account),
        }).MinorUnits)));
    }

    // A budget is of a month; that its days each have a share is how any days of it are added up.
    private static IEnumerable<PostingEntry> Together(IEnumerable<PostingEntry> entries)
    {
        var budgets = new Dictionary<int, PostingEntry>();
        foreach (var entry in entries)
        {
            if (entry.Source != PostingSource.Budget)
            {
                yield return entry;
            }
            else
            {
                budgets[entry.Place.Document] = budgets.TryGetValue(entry.Place.Document, out var before)
                    ? before with { Amount = before.Amount + entry.Amount }
                    : entry;
            }
        }

        foreach (var budget in budgets.Values)
        {
            yield return budget;
        }
    }
}
