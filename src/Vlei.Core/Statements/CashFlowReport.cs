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
        Question = "Where did the money come from, and where did it go?",
        Words = ["money", "bank", "liquidity", "operating", "investing", "financing", "indirect"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Basis, ReportOptions.By, ReportOptions.Compare, ReportOptions.Change,
            ReportOptions.Zeros, ReportOptions.Depth, ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month", "last month"),
            ("--period fy2026 --by fiscal-quarter", "a fiscal year, by quarter"),
        ],
        Build = (context, request) => Statement.Build(Definition!, StatementLayout.CashFlow, context, request),
    };
}
