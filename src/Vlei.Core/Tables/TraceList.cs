using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The records behind one figure as a report of their own, each with what it counts and what all so far come to.</summary>
internal sealed class TraceList
{
    private const string TotalKey = "total";

    private readonly ILedger _ledger;
    private readonly PostingTexts _texts;
    private readonly bool _all;
    private readonly IReadOnlyList<PostingTextColumn> _columns;
    private readonly List<ReportRow> _rows = [];
    private Amount _running = Amount.Zero;

    private TraceList(ILedger ledger, CellOrigin origin, bool all, PostingTexts texts)
    {
        (_ledger, _texts, _all) = (ledger, texts, all);
        var accounts = origin.Parts.SelectMany(part => part.Terms).Select(term => term.Account)
            .Concat(origin.Postings.Select(posting => posting.Account));
        var sources = origin.Parts.Select(part => part.Source).Concat(origin.Postings.Select(posting => posting.Source));
        _columns = texts.Columns(withAccount: accounts.Distinct().Count() > 1, withRelease: sources.Contains(PostingSource.Cash));
    }

    /// <summary>Lists them.</summary>
    /// <param name="report">The report.</param>
    /// <param name="ledger">The records that it was made from.</param>
    /// <param name="figure">Where the figure stands.</param>
    /// <param name="origin">What is behind it.</param>
    /// <param name="all">Whether balances start from the first record, rather than from the fiscal year.</param>
    /// <param name="known">Texts that are known from other figures.</param>
    public static Report Of(
        Report report, ILedger ledger, CellPlace figure, CellOrigin origin, bool all = false, PostingTexts? known = null)
    {
        var list = new TraceList(ledger, origin, all, known ?? new PostingTexts(ledger));
        list.AddAll(origin);
        return report with
        {
            Key = "trace",
            Title = $"{report.Title}: {report.Rows[figure.Row].Label}, {report.Columns[figure.Column].Heading}",
            Columns =
            [
                .. list._columns.Select(column => column.Shown),
                ReportColumn.Sum("amount", origin.Kind == ColumnKind.Money ? "Amount" : report.Columns[figure.Column].Heading, origin.Kind),
                new ReportColumn("running", "Running total", origin.Kind),
            ],
            Rows = list._rows,
            InWhat = null,
            AddressedTo = [],
            Letter = null,
            Explanation = null,
            Foot = [],
            Notes = [.. report.Notes, .. origin.Note is { } note ? new[] { note } : []],
            Checks = [new ReportCheck("The records add up to the figure", origin.Figure, list._running, "")],
            OriginOf = (_, _) => null,
        };
    }

    private void AddAll(CellOrigin origin)
    {
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
            if (groups.Count > 1)
            {
                AddGroup(group.Key, group);
            }
            else
            {
                AddParts(group, 0);
            }
        }

        Add(TotalKey, Caption.Ours("Total"), RowKind.GrandTotal, 0, _ => Cell.Empty, _running, null);
    }

    // Several parts of a figure, as those of a change, have a heading and a total each.
    private void AddGroup(string heading, IEnumerable<OriginPart> parts)
    {
        var (start, first) = (_running, _rows.Count + 1);
        _rows.Add(
            new ReportRow($"part-{first}", heading, RowKind.Heading, 0, [.. _columns.Select(_ => Cell.Empty), Cell.Empty, Cell.Empty]));
        AddParts(parts, 1);
        var key = $"total-{_rows.Count + 1}";
        for (var place = first; place < _rows.Count; place++)
        {
            _rows[place] = _rows[place] with { CountsIn = key };
        }

        Add(key, Caption.Ours($"Total {heading}"), RowKind.Total, 0, _ => Cell.Empty, _running - start);
    }

    private void AddItem(OriginItem item)
    {
        var id = _texts.IdOf(item.Document);
        Add(id, Caption.Name(id), 0, item);
        foreach (var settlement in item.Settlements)
        {
            Add(
                $"{id}@{_rows.Count}",
                Caption.Ours(_ledger.HasComputedSettlements ? "less {0} (computed)" : "less {0}", _texts.IdOf(settlement.With)), 1,
                item with { Document = settlement.With, Date = settlement.Day, Total = settlement.Amount });
        }

        void Add(string key, Caption label, int level, OriginItem said)
        {
            _running += said.Total;
            this.Add(
                key, label, RowKind.Record, level, column => column.OfDocument(said), said.Total, TotalKey, _texts.IdOf(said.Document));
        }
    }

    private void AddParts(IEnumerable<OriginPart> parts, int level)
    {
        foreach (var part in parts)
        {
            if (part.IsBroughtForward && !_all)
            {
                AddBroughtForward(part, level);
                continue;
            }

            foreach (var entry in Together(PostingEntries.Of(_ledger, part)))
            {
                AddEntry(entry, level);
            }
        }
    }

    private void AddBroughtForward(OriginPart part, int level)
    {
        var sum = SumOf(_ledger, part);
        _running += sum;
        if (!sum.IsZero)
        {
            Add(
                $"brought-forward-{_rows.Count + 1}", Caption.Ours("Brought forward"), RowKind.Record, level,
                column => column.Shown.Kind == ColumnKind.Date ? Cell.Of(part.Range.To) : Cell.Empty, sum);
        }
    }

    private void AddEntry(PostingEntry entry, int level)
    {
        _running += entry.Amount;
        Add(
            _texts.KeyOf(entry), Caption.Name(_texts.IdOf(entry)), RowKind.Record, level, column => column.OfPosting(entry), entry.Amount,
            TotalKey,
            entry.Source == PostingSource.Budget ? null : _texts.IdOf(entry));
    }

    private void Add(
        string key, Caption label, RowKind kind, int level, Func<PostingTextColumn, Cell> text, Amount amount, string? total = TotalKey,
        string? document = null) =>
        _rows.Add(
            new ReportRow(
                key, label.English, kind, level, [.. _columns.Select(text), Cell.Of(amount), Cell.Of(_running)])
            {
                Caption = label,
                CountsIn = total,
                Document = document,
            });

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
        var budgets = new Dictionary<DocumentKey, PostingEntry>();
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
