using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Changes in working capital: what the day-to-day business ties up, and what changed it.</summary>
public static class WorkingCapitalReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "working-capital",
        Title = "Changes in working capital",
        Subject = "Statements",
        Question = "What does the daily business tie up, and why?",
        Words = ["current", "assets", "liabilities", "liquidity", "stock", "receivables", "payables", "lender", "changes"],
        Options = [ReportOptions.Period, .. ReportOptions.OfStatements],
        Examples =
        [
            ("--period fy2026", "a fiscal year"),
            ("--period fy2026 --by fiscal-quarter --depth 0", "by quarter, the kinds of accounts only"),
        ],
        Build = (context, request) => Statement.Build(Definition!, StatementKind.WorkingCapital, context, request),
    };
}
