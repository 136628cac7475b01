using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>
/// The trial balance: per account the balance at the start, debits, credits and the balance at the end. Accounts of
/// profit and loss start from zero with the fiscal year that the period begins in; what they came to before stands with
/// retained earnings.
/// </summary>
public static class TrialBalanceReport
{
    private const string RetainedKey = "retained-earnings";

    private static readonly StatementMeasure[] Measures =
    [
        new("opening", "Opening", false, 1), new("debit", "Debit", true, 1), new("credit", "Credit", true, -1),
        new("closing", "Closing", false, 0),
    ];

    /// <summary>The days that its rows rest on.</summary>
    internal static readonly Span[] Spans = [Span.Days, Span.Before, Span.EarlierYears, Span.Carried];

    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "trial-balance",
        Title = "Trial balance",
        Subject = "Statements",
        Question = "What did each account start with, move, end with?",
        Words = ["accounts", "debits", "credits", "opening", "closing", "balances", "movements", "tb"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Basis, ReportOptions.By, ReportOptions.Compare, ReportOptions.Change, ReportOptions.Explain,
            ReportOptions.Only, ReportOptions.Except, ReportOptions.Where, ReportOptions.Select, ReportOptions.Having,
            ReportOptions.Columns, ReportOptions.GroupBy, ReportOptions.Summary, ReportOptions.Sort, ReportOptions.Top,
            ReportOptions.Zeros, ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month", "last month"),
            ("--period fy2026 --basis cash", "a fiscal year, on the cash basis"),
            ("--period fy2026 --compare prior-year --change", "a fiscal year beside the one before"),
            ("--period last-month --group-by account.type --sort -debit", "by type, the most moved first"),
        ],
        Build = Build,
    };

    /// <summary>The columns of a period.</summary>
    internal static StatementShape Shape(ReportContext context, ReportRequest request) =>
        new(IsOfMoment: false, Postings.Of(request.Basis ?? context.Basis), Measures);

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var shape = Shape(context, request);
        return Statement.SumsThatFit(Definition, context, request, shape, () =>
        {
            var figures = StatementFigures.Of(context, request, shape, _ => true, Spans);
            var rows = Rows(context.Ledger.Accounts, figures, request.Statement.Zeros);
            var shown = new AccountGroups(context, request).Of(rows);
            var report = Statement.Table(Definition, context, request, figures, shown)
                .In(Statement.Frame(Definition, context, request, isOfMoment: false, figures));
            return Statement.MarkedInPart(report with { Checks = [.. Checks(figures, rows[^1].Of)] }, figures);
        });
    }

    /// <summary>Its rows: the accounts that have anything, and the total.</summary>
    internal static List<FigureRow<TermSums>> Rows(IReadOnlyList<Account> accounts, StatementFigures figures, bool zeros)
    {
        var earlierProfit = accounts.Where(account => AccountTypes.IsProfitAndLoss(account.Type))
            .Select(account => new Term(account.Key, Span.Carried, 1)).ToArray();
        var retained = accounts.FirstOrDefault(account => account.Type == AccountType.RetainedEarnings);
        var rows = new List<FigureRow<TermSums>>();
        foreach (var account in accounts.OrderBy(account => account.Code, CodeOrder.Instance))
        {
            var sum = SumOf(account, account == retained && figures.Filter.TakesAccount(account) ? earlierProfit : []);
            if (figures.Has(sum) || (zeros && account.Active))
            {
                rows.Add(
                    new FigureRow<TermSums>(
                        account.Code, $"{account.Code} {account.Name}", RowKind.Account, 0, sum)
                    { CountsIn = "total" });
            }
        }

        var unclosed = WithClosing(earlierProfit, [], []);
        if (retained is null && figures.Has(unclosed) && !figures.Filter.ChoosesAccounts)
        {
            rows.Add(
                new FigureRow<TermSums>(
                    RetainedKey, Caption.Ours("Retained earnings"), RowKind.Account, 0, unclosed)
                { CountsIn = "total" });
        }

        rows.Add(new FigureRow<TermSums>("total", Caption.Ours("Total"), RowKind.GrandTotal, 0, new TermSums(
            [.. Enumerable.Range(0, Measures.Length).Select(measure => rows.SelectMany(row => row.Of.ByMeasure[measure]).ToArray())])));
        return rows;
    }

    private static TermSums SumOf(Account account, Term[] carried)
    {
        List<Term> opening = [new Term(account.Key, Span.Before, 1), .. carried];
        if (AccountTypes.IsProfitAndLoss(account.Type))
        {
            opening.Add(new Term(account.Key, Span.EarlierYears, -1));
        }

        return WithClosing(
            [.. opening], [new Term(account.Key, Span.Days, 1, PostingSide.Debit)],
            [new Term(account.Key, Span.Days, 1, PostingSide.Credit)]);
    }

    // Opening and closing are debit positive; debit and credit both positive.
    private static TermSums WithClosing(Term[] opening, Term[] debit, Term[] credit) => new(
    [
        opening, debit, credit,
        [.. opening, .. debit.Select(term => term with { Side = PostingSide.Both })],
    ]);

    private static IEnumerable<ReportCheck> Checks(StatementFigures figures, TermSums total)
    {
        foreach (var column in figures.Filter.IsEverything ? figures.WholeColumns : [])
        {
            var heading = figures.Columns.Columns[column].Shown.Heading;
            var measure = figures.Columns.Columns.FigureAt(column).Measure;
            if (measure == 1)
            {
                yield return new ReportCheck(
                    "Debits = credits", figures.Of(total, column), figures.Of(total, column + 1), heading);
            }
            else if (measure != 2)
            {
                yield return new ReportCheck(
                    measure == 0 ? "Opening balances add up to zero" : "Closing balances add up to zero", Amount.Zero,
                    figures.Of(total, column), heading);
            }
        }
    }
}
