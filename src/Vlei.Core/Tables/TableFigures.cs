using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>What the rows of a list or a cross-table come to: the sums of a scan, and its records.</summary>
/// <param name="table">The table.</param>
/// <param name="periods">The periods that it is read for.</param>
/// <param name="plan">What is asked.</param>
/// <param name="scan">The sums; the group behind the last is the rest, which no longer has records of its own.</param>
/// <param name="records">The records in their order.</param>
internal sealed class TableFigures(
    TableDefinition table, IReadOnlyList<TableSpan> periods, TablePlan plan, TableScan scan, RecordWindow records)
        : IFigures<TableRow, TableFigure>
{
    private readonly Dictionary<(TableFigure Column, int Group), long> _running = [];
    private readonly int _rest = scan.Groups.Count;

    /// <summary>Notes what a column has come to with a group, in the order of the rows.</summary>
    public void NoteRunning(TableFigure column, int group, long sum) => _running[(column, group)] = sum;

    /// <inheritdoc/>
    public long? At(in TableRow row, TableFigure figure)
    {
        if (figure.IsFact)
        {
            return null;
        }

        return row.Record >= 0 ? records.NumberOf(row.Record, figure) : ValueOf(figure, row.Group);
    }

    /// <inheritdoc/>
    public Cell CellAt(in TableRow row, TableFigure figure)
    {
        if (!figure.IsFact)
        {
            return new Cell(At(row, figure));
        }

        return row.Record >= 0 ? records.FactOf(row.Record, figure.Planned)
            : row.Group < _rest && row.Group > 0 && !plan.HasRecords && IsSaidOf(row.Group, figure.Planned)
                && scan.SameOf(figure.Planned, row.Group) is { } same
                ? plan.Columns[figure.Planned].Fact!.CellOf(same) : Cell.Empty;
    }

    /// <inheritdoc/>
    public TableRow? WholeOf(ShareOf whole) => whole is ShareOf.Column or ShareOf.Whole ? TableRow.OfGroup(0) : null;

    /// <inheritdoc/>
    public string InWords(FigureColumn<TableFigure>.Share share) => $"{share.Part.Heading}'s {ReportOptions.NameOf(share.Of)}";

    /// <summary>The sum of a column's measure for a group; for a quotient, that of the sums.</summary>
    public long? SumOf(TableFigure value, int group)
    {
        var measure = plan.Measures[value.Measure];
        return measure.Quotient is null ? scan.SumsOf(value.Measure, value.Period, value.Across).SumOf(group)
            : plan.QuotientOf(measure, place => scan.SumsOf(place, value.Period, value.Across).SumOf(group));
    }

    /// <inheritdoc/>
    public void AddBehind(TableRow row, TableFigure figure, int sign, OriginRecords records)
    {
        if (figure.IsFact)
        {
            records.IsNone = true;
            return;
        }

        var measure = plan.Measures[figure.Measure];
        if (Refusal(row, figure, measure) is var (message, advice))
        {
            records.Refuse(message, advice);
            return;
        }

        records.Kind = measure.Kind;
        foreach (var (rows, taken) in RowsBehind(row, figure))
        {
            var numbers = measure.Read(rows);
            for (var place = 0; place < numbers.Length; place++)
            {
                if (taken(place) && numbers[place] is not (FieldCells.Nothing or 0))
                {
                    Add(rows, place, periods[figure.Period].Context.Basis, new Amount(checked(sign * numbers[place])), records);
                }
            }
        }
    }

    private (string Message, string Advice)? Refusal(TableRow row, TableFigure figure, Measure measure) =>
        !figure.IsSum && figure.Function != Function.Own
            ? ($"{figure.Heading} is worked out from several records.", "Trace a column that adds money up.")
        : measure.Quotient is not null
            ? ($"{measure.Heading} is a quotient, so no postings add up to it.", "Trace what it is worked out from.")
        : !table.IsOfLines && !table.IsOfDocuments
            ? ($"Figures of {table.Name} lead to no postings of their own.",
                "Trace balances in trial-balance, customer-balances or supplier-balances; a finding names the command that shows its "
                    + "records.")
        : null;

    private void Add(RowSet rows, int place, AccountingBasis basis, Amount amount, OriginRecords records)
    {
        long Of(string name) => rows.Block[name][rows.PlaceOf(place)];
        if (table.IsOfLines)
        {
            records.Postings.Add(new PostingEntry(
                basis == AccountingBasis.Cash ? PostingSource.Cash : PostingSource.Accrual,
                new PostingPlace(
                    DateOnly.FromDayNumber((int)Of("date")), (DocumentKey)Of("document"), (SettlementKey)Of("settlement"), (int)Of("line")),
                (AccountKey)Of("account"), (ContactKey)Of("contact"), amount));
        }
        else
        {
            records.Items.Add(
                new OriginItem(
                    (DocumentKey)Of("document"), (ContactKey)Of("contact"), DateOnly.FromDayNumber((int)Of("date")), amount, []));
        }
    }

    private IEnumerable<(RowSet Rows, Func<int, bool> Taken)> RowsBehind(TableRow row, TableFigure figure)
    {
        if (row.Record >= 0)
        {
            return [(records.SetOf(row.Record), _ => true)];
        }

        if (row.Group == _rest && plan.HasRecords)
        {
            return Each(records.Count, records.All - records.Count);
        }

        if (row.Group == 0 && records.IsChosen)
        {
            return Each(0, records.All);
        }

        return scan.RowsAgain(figure.Period).Select(found => (found.Rows, new Func<int, bool>(place =>
            scan.CountsIn(found.Groups[place], row.Group) && (figure.Across is null || found.Across![place] == figure.Across))));

        IEnumerable<(RowSet, Func<int, bool>)> Each(int first, int count) => Enumerable.Range(first, count)
            .Select(record => (records.SetOf(record), new Func<int, bool>(_ => true)));
    }

    // What is said of a record that rows are grouped by says nothing of the groups that it lies in.
    private bool IsSaidOf(int group, int planned)
    {
        var name = plan.Columns[planned].Fact!.Bound.Field.Name;
        var level = plan.Groups.ToList().FindIndex(known =>
            name.StartsWith($"{known.Bound.Field.Name}.", StringComparison.OrdinalIgnoreCase));
        return level < scan.Groups.LevelOf(group);
    }

    private long? ValueOf(TableFigure value, int group)
    {
        if (!scan.AddsUp(value.Measure, group))
        {
            return null;
        }

        var sums = scan.SumsOf(value.Measure, value.Period, value.Across);
        return value.Function switch
        {
            Function.Own => null,
            Function.Average => sums.AverageOf(group, TableColumns.ScaleOfAverage(plan.Measures[value.Measure])),
            Function.Count => sums.CountOf(group),
            Function.Min => sums.LeastOf(group),
            Function.Max => sums.MostOf(group),
            Function.Running => _running.TryGetValue((value, group), out var running) ? running : null,
            _ => SumOf(value, group),
        };
    }
}
