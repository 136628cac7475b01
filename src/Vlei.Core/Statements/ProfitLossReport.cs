using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Profit and loss: what was earned, what it cost, and what is left.</summary>
public static class ProfitLossReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "profit-loss",
        Title = "Profit and loss",
        Subject = "Statements",
        Question = "What did we earn, what did it cost, what is left?",
        Words = ["income statement", "p&l", "pl", "pnl", "earnings", "margin", "sales", "expenses", "result", "surplus"],
        Options = [ReportOptions.Period, .. ReportOptions.OfStatements],
        Examples =
        [
            ("--period last-month", "last month"),
            ("--period fy2026 --by month", "a fiscal year, a column per month"),
            ("--period 2026-03 --compare prior-year --change", "March beside March a year before"),
            ("--period last-3-months --basis cash --share income", "what was paid, and its share of income"),
            ("--period fy2026 --format json", "for a script"),
        ],
        Build = (context, request) => Statement.Build(Definition!, StatementKind.ProfitAndLoss, context, request),
    };
}
