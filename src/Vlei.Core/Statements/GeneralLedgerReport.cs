using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>
/// The general ledger: per account the balance at the start, every posting with the balance after it, and the balance at
/// the end. It is the trial balance with the postings between its columns, and must come to the same.
/// </summary>
public static class GeneralLedgerReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "general-ledger",
        Title = "General ledger",
        Subject = "Statements",
        Question = "What was posted to each account, with balances?",
        Words = ["accounts", "postings", "transactions", "balances", "running", "opening", "closing", "ledger", "statement", "gl"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Basis, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where,
            ReportOptions.Select, ReportOptions.Columns, ReportOptions.Zeros,
            ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month --only account=1000", "one account, last month"),
            ("--period last-month --only account=4000/4999 --except kind=journal", "some accounts, without journals"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        if (request.HasBothBases)
        {
            throw new ProblemException(
                ProblemKind.Usage, "A ledger has a balance after each posting, which is of one basis.",
                "Take --basis accrual or cash; vlei show basis-differences lists what makes the two differ.");
        }

        var shape = TrialBalanceReport.Shape(context, request);
        return Statement.SumsThatFit(Definition, context, request, shape, () =>
        {
            var figures = StatementFigures.Of(context, request, shape, _ => true, TrialBalanceReport.Spans);
            var accounts = TrialBalanceReport.Rows(context.Ledger.Accounts, figures, request.Statement.Zeros);
            var ledger = new GeneralLedgerFigures(context, figures, shape.Source);
            var report = ledger.Table(Definition, accounts, out var checks)
                .In(Statement.Frame(Definition, context, request, isOfMoment: false, figures)) with
            {
                Checks = checks,
            };

            // Some accounts are whole in themselves; anything else leaves postings out of balances.
            return figures.Filter.IsOfAccounts ? report : Statement.MarkedInPart(report, figures);
        });
    }
}
