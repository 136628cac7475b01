using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Who owes us, or whom we owe, and for how long: per contact, or per open document.</summary>
public static class AgingReport
{
    private static readonly IReadOnlyList<ReportOption> Options =
    [
        ReportOptions.AsOf, ReportOptions.By, ReportOptions.Compare, ReportOptions.Change, ReportOptions.Explain,
        ReportOptions.Share, ReportOptions.Limits,
        ReportOptions.AgeBy, ReportOptions.Unapplied, ReportOptions.GroupBy, ReportOptions.Summary, ReportOptions.Detail,
        ReportOptions.Only,
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
            ("--period last-6-months --group-by contact.terms-days,contact --by month", "how much at the end of each month, by terms"),
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
        RefuseClassesBesideColumns(request);
        var (days, notes) = Days(context, request);
        var report = new ItemReport(definition, context, request, type, days.Max());
        var agings = days.Select(day => new Aging(report.History, day, request)).ToList();
        var taken = report.Taken(agings);
        var columns = new AgingColumns(report, request, agings, taken);
        new PromisedItems(context.Ledger, report.History, days[0], context.Known).AddColumns(columns.All);
        var documents = new DocumentRows(context.Ledger);
        var table = new ItemTable(definition.Title, columns.All, item => documents.Named(report.History[item]));
        if (request.List.IsUngrouped && !request.Summary)
        {
            report.AddDocuments(taken, table, "due");
        }
        else
        {
            AddGroups(report, request, table, report.Grouped(taken, table, columns.Total, agings[0]));
        }

        table.AddTotal();
        var frame = report.Frame($"As of {PeriodText.Words(days[0])}, by {(request.Items.AgesByDocument ? "document" : "due")} date");
        return table.Table.In(frame) with
        {
            // Most classes of most contacts have nothing.
            Look = frame.Look with { Nil = NilStyle.Dash },
            Notes = [.. frame.Notes, .. notes],
            Checks = report.TiesToControl(agings.Select((aging, place) => (aging.Day, table.SumOf(taken, columns.TotalAt(place))))),
        };
    }

    private static void AddGroups(ItemReport report, ReportRequest request, ItemTable table, ItemGroup groups) =>
        ItemReport.AddRows(groups, table, (innermost, level) =>
        {
            if (!request.Detail)
            {
                table.AddGroups(innermost, level);
                return;
            }

            foreach (var group in innermost)
            {
                if (group.Key == RowOrder.Rest)
                {
                    table.AddGroups([group], level);
                    continue;
                }

                table.AddAround(group, level, () => table.AddEach(
                    report.Within([.. group.Items.OrderBy(item => report.History[item].Due).ThenBy(item => report.History[item].Date)
                        .ThenBy(item => item)], table), level + 1, ItemTable.TotalOf(group.Path)));
            }
        });

    // The day that is asked for, then the others; of columns of time, the ends of the earlier ones.
    private static (IReadOnlyList<DateOnly> Days, IReadOnlyList<string> Notes) Days(ReportContext context, ReportRequest request)
    {
        if (request.By?.Unit is not { } unit)
        {
            return ItemReport.Days(context, request);
        }

        if (request.Compare.Count > 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--by {request.By.Name} has a column for each end already, and so has --compare.",
                "Give one of them, or spread the columns over a field: --by kind.");
        }

        var pieces = context.Calendar.Split(ItemReport.DayOf(context, request).Range, unit).Select(piece => piece.To).ToList();
        return ([pieces[^1], .. pieces.SkipLast(1)], []);
    }

    private static void RefuseClassesBesideColumns(ReportRequest request)
    {
        if (request.By is not null && (request.Items.Limits is not null || request.Items.KeepsUnappliedApart))
        {
            var other = request.Items.Limits is null ? ReportOptions.Unapplied : ReportOptions.Limits;
            throw new ProblemException(
                ProblemKind.Usage, $"--by has its columns in the place of the classes of age that --{other.Name} is about.",
                "Give one of them.");
        }
    }
}
