using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Who owes us, or whom we owe, and for how long: per contact, or per open document.</summary>
public static class AgingReport
{
    private static readonly IReadOnlyList<ReportOption> Options =
    [
        ReportOptions.AsOf, ReportOptions.Compare, ReportOptions.Change, ReportOptions.Share, ReportOptions.Limits,
        ReportOptions.AgeBy, ReportOptions.Unapplied, ReportOptions.Summary, ReportOptions.Detail, ReportOptions.Only,
        ReportOptions.Except, ReportOptions.Where, ReportOptions.Select, ReportOptions.Having, ReportOptions.Columns,
        ReportOptions.Sort, ReportOptions.Top, ReportOptions.Title,
    ];

    /// <summary>What customers owe.</summary>
    public static ReportDefinition Receivables { get; } = new()
    {
        Key = "receivables-aging",
        Title = "Receivables aging",
        Subject = "Receivables and payables",
        Question = "Who owes us money, how much, and for how long?",
        Words = ["customers", "debtors", "overdue", "late", "unpaid", "invoices", "collect", "outstanding", "aged", "ar"],
        Options = Options,
        Examples =
        [
            ("--as-of last-month", "at the end of last month"),
            ("--as-of 2026-05-31 --detail --only contact.name=A/M", "per open document, some customers"),
            ("--limits 15,30,45 --age-by document --unapplied", "with limits of one's own, and unapplied money apart"),
            ("--where \"days-late > 60\" --having \"total >= 5000\" --sort -total",
                "what is very late, where it is much, the largest first"),
            ("--as-of last-month --compare prior-period --change", "how each contact and class moved since"),
        ],
        Build = (context, request) => Build(Receivables!, AccountType.Receivable, context, request),
    };

    /// <summary>What we owe suppliers.</summary>
    public static ReportDefinition Payables { get; } = Receivables with
    {
        Key = "payables-aging",
        Title = "Payables aging",
        Question = "Whom do we owe money, how much, and for how long?",
        Words = ["suppliers", "creditors", "overdue", "late", "unpaid", "bills", "pay", "outstanding", "aged", "ap"],
        Examples = [("--as-of last-month --detail", "per open bill, at the end of last month")],
        Build = (context, request) => Build(Payables!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var (days, notes) = ItemReport.Days(context, request);
        var report = new ItemReport(definition, context, request, type, days.Max());
        var agings = days.Select(day => new Aging(report.History, day, request)).ToList();
        var taken = report.Taken(agings);
        var columns = Columns(report.History, request, agings);
        new PromisedItems(context.Ledger, report.History, days[0], context.Known).AddColumns(columns);
        var documents = new DocumentRows(context.Ledger);
        var table = new ItemTable(definition.Title, columns, item => documents.Named(report.History[item]));
        var groups = request.Summary ? ItemGroup.ByAccount(report.History, taken)
            : ItemGroup.ByContact(context.Ledger, report.History, taken);
        foreach (var group in report.Ordered(groups, table, columns.PlaceOf(ItemGroup.Total), agings[0]))
        {
            if (request.Detail && group.Id != RowOrder.Rest)
            {
                table.AddDetail(group.Id, group.Name, report.Within([.. group.Items
                    .OrderBy(item => report.History[item].Due).ThenBy(item => report.History[item].Date).ThenBy(item => item)], table));
            }
            else
            {
                table.AddGroup(group.Id, group.Name, group.Items);
            }
        }

        table.AddTotal();
        var frame = report.Frame($"As of {PeriodText.Words(days[0])}, by {(request.Items.AgesByDocument ? "document" : "due")} date");
        return table.Table.In(frame) with
        {
            Notes = [.. frame.Notes, .. notes],
            Checks = report.TiesToControl(
                agings.Select((aging, place) => (aging.Day, table.SumOf(taken, TotalOf(columns, aging.Day, place))))),
        };
    }

    private static int TotalOf(FigureColumns<OwnFigure<ItemRow>> columns, DateOnly day, int place) =>
        columns.PlaceOf(place == 0 ? ItemGroup.Total : KeyOf(ItemGroup.Total, day));

    private static string KeyOf(string key, DateOnly earlier) => $"{key}({PeriodText.Iso(earlier)})";

    private static FigureColumns<OwnFigure<ItemRow>> Columns(ControlHistory history, ReportRequest request, List<Aging> agings)
    {
        RefusePercentages(request);
        var columns = new FigureColumns<OwnFigure<ItemRow>>();
        if (request.Detail)
        {
            columns.AddDocument(history, agings[0]);
        }

        var total = Figure("Total", agings[0], (aging, item) => aging.Open(item));
        var classes = new List<int>();
        foreach (var (key, heading, place) in Aging.Classes(request).Select((known, place) => (known.Key, known.Heading, place)))
        {
            classes.Add(AddCompared(key, heading, (aging, item) => aging.OpenIn(item, place)));
        }

        columns.AddUp(AddCompared(ItemGroup.Total, "Total", (aging, item) => aging.Open(item)), classes);
        return columns;

        // A class today, then on each earlier day with the change, then its share.
        int AddCompared(string key, string heading, Func<Aging, int, Amount> of)
        {
            var dated = agings.Count > 1 ? $"{heading} {PeriodText.Heading(agings[0].Day)}" : heading;
            var current = columns.Add(ReportColumn.Sum(key, dated), Figure(dated, agings[0], of));
            foreach (var aging in agings.Skip(1))
            {
                var shown = ReportColumn.Sum(KeyOf(key, aging.Day), $"{heading} {PeriodText.Heading(aging.Day)}");
                var earlier = columns.Add(shown with { Tie = ColumnTie.Compared }, Figure(shown.Heading, aging, of));
                if (request.Change)
                {
                    columns.AddChange(current, earlier);
                }
            }

            columns.AddShares(current, request.Shares, total);
            return current;
        }

        OwnFigure<ItemRow> Figure(string heading, Aging aging, Func<Aging, int, Amount> of) =>
            ItemFigure.Sum(heading, item => of(aging, item), (item, sign) => history.OriginOf(item, aging.Day, sign));
    }

    private static void RefusePercentages(ReportRequest request)
    {
        foreach (var percent in request.Shares.Where(percent => percent is not (ShareOf.Row or ShareOf.Column)))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--share {ReportOptions.NameOf(percent)} does not apply to what is open.",
                "Take --share row, the share of the row's total, or --share column, the share of the column's.");
        }
    }
}
