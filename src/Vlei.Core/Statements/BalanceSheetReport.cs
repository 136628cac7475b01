using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>The balance sheet: what is owned, what is owed, and what is left to the owners.</summary>
public static class BalanceSheetReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "balance-sheet",
        Title = "Balance sheet",
        Subject = "Statements",
        Question = "What do we own and owe, and what is the owners'?",
        Words = ["financial position", "assets", "liabilities", "equity", "net worth", "balances", "capital", "bs"],
        Options = [ReportOptions.AsOf, ReportOptions.Period, .. ReportOptions.OfStatements],
        Examples =
        [
            ("--as-of last-month", "at the end of last month"),
            ("--as-of fy2026 --compare prior-period --change", "opening and closing of a fiscal year"),
            ("--period fy2026 --by month --depth 0", "at each month's end"),
        ],
        Build = (context, request) => Statement.Build(Definition!, StatementKind.BalanceSheet, context, request),
    };
}
