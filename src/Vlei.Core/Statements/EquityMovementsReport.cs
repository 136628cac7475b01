using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>Movements in equity: what belonged to the owners, what changed it, and what belongs to them now.</summary>
public static class EquityMovementsReport
{
    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "equity-movements",
        Title = "Movements in equity",
        Subject = "Statements",
        Question = "Why do the owners have more or less than before?",
        Words = ["owners", "capital", "drawings", "dividends", "contributions", "profit", "equity", "changes"],
        Options = [ReportOptions.Period, .. ReportOptions.OfStatements],
        Examples =
        [
            ("--period fy2026", "a fiscal year"),
            ("--period fy2026 --compare prior-year:2", "and the two before it"),
        ],
        Build = (context, request) => Statement.Build(Definition!, StatementKind.EquityMovements, context, request),
    };
}
