using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Cash flow: why there is more money than there was, or less.</summary>
public static class CashFlowReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "cash-flow",
        Title = "Cash flow",
        Subject = "Statements",
        Question = "Where did money come from, and where did it go?",
        Words = ["money", "bank", "liquidity", "operating", "investing", "financing", "indirect", "direct", "receipts", "payments"],
        Options = [ReportOptions.Period, ReportOptions.Method, .. ReportOptions.OfStatements],
        Examples =
        [
            ("--period last-month", "last month"),
            ("--period fy2026 --by fiscal-quarter", "a fiscal year, by quarter"),
            ("--period last-month --method direct", "last month, from what was received and paid"),
        ],
        Build = (context, request) => Statement.Build(
            Definition!, request.Statement.IsDirect ? StatementKind.CashFlowDirect : StatementKind.CashFlow, context, request),
    };
}
