using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Core.Reports;

/// <summary>Every option that a report can have.</summary>
public static class ReportOptions
{
    /// <summary>The days that it covers.</summary>
    public static ReportOption Period { get; } = new(
        "period", "P",
        "The days to cover: 2026, 2026-Q1, 2026-03, 2026-W07, 2026-03-15, fy2026, fy2026-Q1, 2026-01-15/2026-02-14, "
        + "2026-01/P3M, /2026-03, last-month, this-fiscal-year-to-date, last-30-days, last-3-months, all")
    {
        Words = PeriodGrammar.Words,
    };

    /// <summary>The moment that it shows.</summary>
    public static ReportOption AsOf { get; } = new(
        "as-of", "D", "The day to show, at its end: 2026-03-31, or the end of any period: 2026-03, fy2026, last-month")
    {
        Words = PeriodGrammar.Words,
    };

    /// <summary>Accrual or cash.</summary>
    public static ReportOption Basis { get; } = new(
        "basis", "BASIS", "Count what is invoiced, or what is paid (the book says which, if this does not)")
    {
        Words = AccountingBases.Names, OnlyWords = true,
    };

    /// <summary>Columns of time.</summary>
    public static ReportOption By { get; } = new("by", "UNIT", "A column per unit of time, and a total")
    {
        Words = FiscalCalendar.UnitNames, OnlyWords = true,
    };

    /// <summary>Earlier periods.</summary>
    public static ReportOption Compare { get; } = new(
        "compare", "X[:N]", "Beside it, the prior period, the prior year or any period; N earlier ones; may be repeated")
    {
        Words = Comparison.Words, Repeatable = true,
    };

    /// <summary>The change against earlier periods.</summary>
    public static ReportOption Change { get; } = new(
        "change", null, "With --compare: the change and the percent change");

    /// <summary>Percentages.</summary>
    public static ReportOption Percent { get; } = new(
        "percent", "OF", "Beside each figure, its percentage of total income, of total assets, or of the row's total across the columns; may be repeated")
    {
        Words = ["income", "assets", "row"], OnlyWords = true, Repeatable = true,
    };

    /// <summary>Rows without figures.</summary>
    public static ReportOption Zeros { get; } = new("zeros", null, "Show accounts without any figure too");

    /// <summary>Levels of accounts.</summary>
    public static ReportOption Depth { get; } = new(
        "depth", "N", "Show N levels of accounts: 1 without parts of accounts, 0 totals alone");

    /// <summary>A title.</summary>
    public static ReportOption Title { get; } = new("title", "T", "A title in the place of the report's own");

    /// <summary>What says which columns a statement has and which rows it shows; the period or the moment comes first.</summary>
    public static IReadOnlyList<ReportOption> OfStatements { get; } =
        [Basis, By, Compare, Change, Percent, Zeros, Depth, Title];

    /// <summary>All of them, in the order of help.</summary>
    public static IReadOnlyList<ReportOption> All { get; } =
        [Period, AsOf, Basis, By, Compare, Change, Percent, Zeros, Depth, Title];
}
