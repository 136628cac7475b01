using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>A tax return: what goes into each of its boxes.</summary>
public static class TaxReturnReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "tax-return",
        Title = "Tax return",
        Subject = "Statements",
        Question = "What goes into the tax return, what is payable?",
        Words = ["vat", "gst", "sales tax", "boxes", "output", "input", "payable", "refund", "declaration"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Basis, ReportOptions.By, ReportOptions.Compare, ReportOptions.Change, ReportOptions.Explain,
            ReportOptions.Layout,
            ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month", "last month, every tax code in a box"),
            ("--period 2026-04/2026-05 --basis cash", "two months, by what was paid"),
        ],
        Build = Build,
    };

    private static Report Build(ReportContext context, ReportRequest request)
    {
        if (request.Compare.Any(comparison => comparison.Kind == Calendar.ComparisonKind.Budget))
        {
            throw new ProblemException(
                ProblemKind.Usage, "A budget says nothing about tax.", "Leave out --compare budget, or show profit-loss.");
        }

        // A box is there whatever goes into it.
        var ledger = new TaxLedger(context.Ledger);
        var asked = request with { Statement = request.Statement with { Zeros = true } };
        return Statement.Build(Definition, StatementKind.TaxReturn, context with { Ledger = ledger }, asked) with { MadeFrom = ledger };
    }
}
