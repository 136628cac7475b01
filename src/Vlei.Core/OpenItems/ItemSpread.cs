using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Columns of a report of items, and which of them says which rows are the largest.</summary>
/// <param name="All">The columns.</param>
/// <param name="Total">The place of that column.</param>
internal sealed record SpreadColumns(FigureColumns<OwnFigure<ItemRow>> All, int Total);

/// <summary>
/// Columns of a report of items over pieces of time, or over the values of a field: in each, what a measure comes to for those
/// items alone; and over all of them last.
/// </summary>
/// <param name="context">The book.</param>
/// <param name="request">What is asked.</param>
/// <param name="report">The report.</param>
/// <param name="items">The items that are taken.</param>
internal sealed class ItemSpread(ReportContext context, ReportRequest request, ItemReport report, int[] items)
{
    /// <summary>
    /// The columns that are asked for. Throws a <see cref="ProblemException"/> where there is no such measure or no such field.
    /// </summary>
    /// <param name="range">The days of the report.</param>
    /// <param name="main">The measure that is meant where none is named.</param>
    /// <param name="columnsOf">The columns of some days, where nothing is spread.</param>
    public SpreadColumns Over(DateRange range, string main, Func<DateRange, FigureColumns<OwnFigure<ItemRow>>> columnsOf)
    {
        var whole = columnsOf(range);
        if (request.By is null && request.List.Measures.Count == 0)
        {
            return new SpreadColumns(whole, whole.PlaceOf(main));
        }

        int[] measures = request.List.Measures.Count == 0 ? [whole.PlaceOf(main)]
            : [.. request.List.Measures.Select(measure => ColumnNames.Named(ReportOptions.Measure.Name, measure.Text, whole.Shown))];
        var (all, parts) = (new FigureColumns<OwnFigure<ItemRow>>(), new List<(int Measure, int Place)>());
        foreach (var (key, heading, columns) in Pieces(range, whole, columnsOf))
        {
            parts.AddRange(measures.Select(measure => (measure, Add(all, columns[measure], key, heading, measures.Length == 1))));
        }

        var largest = all.Count;
        foreach (var measure in measures)
        {
            var total = request.By is null ? AddAs(all, whole[measure], whole[measure].Shown)
                : Add(all, whole[measure], ItemGroup.Total, "Total", measures.Length == 1);
            if (request.By?.Field is not null && whole[measure].Shown.AddsUp)
            {
                all.AddUp(total, parts.Where(part => part.Measure == measure).Select(part => part.Place));
            }
        }

        return new SpreadColumns(all, largest);
    }

    private IEnumerable<(string Key, string Heading, FigureColumns<OwnFigure<ItemRow>> Columns)> Pieces(
        DateRange range, FigureColumns<OwnFigure<ItemRow>> whole, Func<DateRange, FigureColumns<OwnFigure<ItemRow>>> columnsOf) =>
        request.By switch
        {
            { Unit: { } unit } => context.Calendar.Split(range, unit).Select(piece => (
                PeriodText.Key(piece, context.Calendar), PeriodText.Heading(piece, context.Calendar), columnsOf(piece))),
            { Field: { } field } => report.SpreadOver(field, items).Select(value => (value.Key, value.Heading, Narrowed(whole, value.Has))),
            _ => [],
        };

    private static int Add(
        FigureColumns<OwnFigure<ItemRow>> all, FigureColumn<OwnFigure<ItemRow>> column, string key, string heading, bool isAlone) =>
        AddAs(all, column, isAlone ? column.Shown with { Key = key, Heading = heading } : column.Shown with
        {
            Key = $"{column.Shown.Key}({key})",
            Heading = $"{heading} {column.Shown.Heading.ToLowerInvariant()}",
        });

    private static int AddAs(FigureColumns<OwnFigure<ItemRow>> all, FigureColumn<OwnFigure<ItemRow>> column, ReportColumn shown)
    {
        if (column is FigureColumn<OwnFigure<ItemRow>>.Share share)
        {
            all.AddShare(shown, share.Part, share.Of, share.Total);
            return all.Count - 1;
        }

        return all.Add(shown, ((FigureColumn<OwnFigure<ItemRow>>.Base)column).Of);
    }

    private static FigureColumns<OwnFigure<ItemRow>> Narrowed(FigureColumns<OwnFigure<ItemRow>> columns, Func<int, bool> has)
    {
        var narrowed = new FigureColumns<OwnFigure<ItemRow>>();
        foreach (var column in columns.All)
        {
            _ = column is FigureColumn<OwnFigure<ItemRow>>.Share share
                ? AddAs(narrowed, share with { Part = Narrowed(share.Part, has), Total = Narrowed(share.Total, has) }, column.Shown)
                : AddAs(narrowed, new FigureColumn<OwnFigure<ItemRow>>.Base(
                    column.Shown, Narrowed(((FigureColumn<OwnFigure<ItemRow>>.Base)column).Of, has)), column.Shown);
        }

        return narrowed;
    }

    private static OwnFigure<ItemRow> Narrowed(OwnFigure<ItemRow> figure, Func<int, bool> has)
    {
        ItemRow Of(ItemRow row) => ItemRow.Of(row.Items.Where(has).ToArray());
        return OwnFigure<ItemRow>.Of(
            row => figure.At(Of(row)), (row, sign, records) => figure.AddBehind(Of(row), sign, records), row => figure.CellAt(Of(row)))
            .Called(figure.Heading);
    }
}
