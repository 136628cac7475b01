using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>
/// The columns of an aging: its classes, or the values of a field in their place, each as of every day that is asked for, and the
/// total last; or the total at the end of each unit of time.
/// </summary>
internal sealed class AgingColumns
{
    private readonly ControlHistory _history;
    private readonly ReportRequest _request;
    private readonly List<Aging> _agings;
    private readonly OwnFigure<ItemRow> _total;

    /// <summary>Lays them out. Throws a <see cref="ProblemException"/> where options contradict each other.</summary>
    /// <param name="report">The report.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="agings">What is open on the day that is asked for, then on the others.</param>
    /// <param name="taken">The items that are taken.</param>
    public AgingColumns(ItemReport report, ReportRequest request, List<Aging> agings, int[] taken)
    {
        (_history, _request, _agings) = (report.History, request, agings);
        RefusePercentages();
        _total = Figure("Total", agings[0], (aging, item) => aging.Open(item));
        if (request.Detail || (request.List.IsUngrouped && !request.Summary))
        {
            All.AddDocument(_history, agings[0]);
        }

        if (request.By?.Unit is not null)
        {
            AddEnds();
            return;
        }

        List<int> places = request.By is { Field: { } field }
            ? [.. report.SpreadOver(field, taken).Select(value => AddCompared(
                value.Key, value.Heading, (aging, item) => value.Has(item) ? aging.Open(item) : Amount.Zero))]
            : [.. Aging.Classes(request).Select((known, place) => AddCompared(
                known.Key, known.Heading, (aging, item) => aging.OpenIn(item, place), (aging, items) => aging.SumIn(items, place)))];
        All.AddUp(
            AddCompared(
                ItemGroup.Total, "Total", (aging, item) => aging.Open(item), (aging, items) => aging.SumIn(items, aging.ClassCount)),
            places);
    }

    /// <summary>The columns.</summary>
    public FigureColumns<OwnFigure<ItemRow>> All { get; } = new();

    /// <summary>The place of the column that says which rows are the largest.</summary>
    public int Total => TotalAt(0);

    /// <summary>The place of the column of all that is open on a day, by the place of the day.</summary>
    public int TotalAt(int place) => All.PlaceOf(
        _request.By?.Unit is not null ? PeriodText.Iso(_agings[place].Day)
        : place == 0 ? ItemGroup.Total : KeyOf(ItemGroup.Total, _agings[place].Day));

    private static string KeyOf(string key, DateOnly earlier) => $"{key}({PeriodText.Iso(earlier)})";

    // What is open at the end of each unit; ends do not add up.
    private void AddEnds()
    {
        foreach (var aging in _agings.Skip(1).Append(_agings[0]))
        {
            var heading = PeriodText.Heading(aging.Day);
            var place = All.Add(
                ReportColumn.Sum(PeriodText.Iso(aging.Day), heading, range: new DateRange(aging.Day, aging.Day)),
                Figure(heading, aging, (own, item) => own.Open(item)));
            All.AddShares(place, _request.Shares, All.FigureAt(place));
        }
    }

    // A class on the day that is asked for, then on each other day with the change, then its share.
    private int AddCompared(
        string key, string heading, Func<Aging, int, Amount> of, Func<Aging, ArraySegment<int>, long>? together = null)
    {
        var dated = _agings.Count > 1 ? $"{heading} {PeriodText.Heading(_agings[0].Day)}" : heading;
        var current = All.Add(ReportColumn.Sum(key, dated), Figure(dated, _agings[0], of, together));
        foreach (var aging in _agings.Skip(1))
        {
            var shown = ReportColumn.Sum(KeyOf(key, aging.Day), $"{heading} {PeriodText.Heading(aging.Day)}");
            var earlier = All.Add(shown with { Tie = ColumnTie.Compared }, Figure(shown.Heading, aging, of, together));
            if (_request.Change)
            {
                All.AddChange(current, earlier);
            }
        }

        All.AddShares(current, _request.Shares, _total);
        return current;
    }

    private OwnFigure<ItemRow> Figure(
        string heading, Aging aging, Func<Aging, int, Amount> of, Func<Aging, ArraySegment<int>, long>? together = null) =>
        ItemFigure.Sum(
            heading, item => of(aging, item), (item, sign) => _history.OriginOf(item, aging.Day, sign),
            together is null ? null : items => together(aging, items));

    private void RefusePercentages()
    {
        foreach (var percent in _request.Shares.Where(percent => percent is not (ShareOf.Row or ShareOf.Column)))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--share {ReportOptions.NameOf(percent)} does not apply to what is open.",
                "Take --share row, the share of the row's total, or --share column, the share of the column's.");
        }

        if (_request.By?.Unit is not null && _request.Shares.Contains(ShareOf.Row))
        {
            throw new ProblemException(
                ProblemKind.Usage, "--share row is a share of the row's total across columns, and what is open on different days does not "
                    + "add up.", "Take --share column, or spread the columns over a field: --by kind.");
        }
    }
}
