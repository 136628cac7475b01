using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>What a percentage is taken of.</summary>
public enum ShareOf
{
    /// <summary>Total income of the same column.</summary>
    Income,

    /// <summary>Total assets of the same column.</summary>
    Assets,

    /// <summary>The grand total of the same column.</summary>
    Column,

    /// <summary>The row's total across the columns that it is spread over.</summary>
    Row,

    /// <summary>The total of the group that the row stands in.</summary>
    Group,

    /// <summary>The grand total of all rows and columns.</summary>
    Whole,
}

/// <summary>What the columns of a report are spread over.</summary>
/// <param name="Unit">A unit of time; nothing where it is a field.</param>
/// <param name="Field">The name of a field; nothing where it is a unit of time.</param>
public sealed record Spread(TimeUnit? Unit, string? Field)
{
    /// <summary>A column per unit of time.</summary>
    public static Spread Of(TimeUnit unit) => new(unit, null);

    /// <summary>A column per value of a field.</summary>
    public static Spread Of(string field) => new(null, field);

    /// <summary>What it is called, as people type it.</summary>
    public string Name => Unit is { } unit ? FiscalCalendar.NameOf(unit) : Field!;
}

/// <summary>What a person asks of a report; what is not said follows from the report and the book.</summary>
public sealed record ReportRequest
{
    /// <summary>The days that it covers; for a report of a moment, the last of them is meant.</summary>
    public OpenPeriod? Period { get; init; }

    /// <summary>Its basis.</summary>
    public AccountingBasis? Basis { get; init; }

    /// <summary>Whether both bases stand side by side.</summary>
    public bool HasBothBases { get; init; }

    /// <summary>What its columns are spread over.</summary>
    public Spread? By { get; init; }

    /// <summary>What it is compared with.</summary>
    public IReadOnlyList<Comparison> Compare { get; init; } = [];

    /// <summary>Whether comparisons show the change and the percent change.</summary>
    public bool Change { get; init; }

    /// <summary>Whether it says below what made its last total change.</summary>
    public bool Explain { get; init; }

    /// <summary>The percentages that it shows.</summary>
    public IReadOnlyList<ShareOf> Shares { get; init; } = [];

    /// <summary>What it takes and what it leaves out.</summary>
    public IReadOnlyList<FieldChoice> Choices { get; init; } = [];

    /// <summary>Predicates that must all hold.</summary>
    public IReadOnlyList<PredicateText> Where { get; init; } = [];

    /// <summary>Predicates over the figures of rows that must all hold for a row to be shown.</summary>
    public IReadOnlyList<PredicateText> Having { get; init; } = [];

    /// <summary>Lists of columns, in the order in which they are said: each says which there are, or changes those that are.</summary>
    public IReadOnlyList<IReadOnlyList<ColumnText>> Columns { get; init; } = [];

    /// <summary>The columns that a person typed: they are shown whether they have figures or not.</summary>
    public IReadOnlyList<string> TypedColumns { get; init; } = [];

    /// <summary>Whether every document has a row of its own.</summary>
    public bool Detail { get; init; }

    /// <summary>Whether there are rows for control accounts alone, rather than for contacts.</summary>
    public bool Summary { get; init; }

    /// <summary>What rows are ordered by; the report's own order where there is nothing.</summary>
    public IReadOnlyList<SortOrder> Sort { get; init; } = [];

    /// <summary>Whether a person typed that order; else it holds as far as the report still has its columns.</summary>
    public bool IsSortTyped { get; init; }

    /// <summary>How many rows are shown by themselves, the others together; all where nothing is said.</summary>
    public int? Top { get; init; }

    /// <summary>How many levels of accounts are shown; all where nothing is said.</summary>
    public int? Depth { get; init; }

    /// <summary>A title in the place of the report's own.</summary>
    public string? Title { get; init; }

    /// <summary>What is asked of a statement.</summary>
    public StatementRequest Statement { get; init; } = new();

    /// <summary>What is asked of a list, or a cross-table.</summary>
    public ListRequest List { get; init; } = new();

    /// <summary>What is asked of open items.</summary>
    public OpenItemRequest Items { get; init; } = new();

    /// <summary>How it looks.</summary>
    public ReportLook Look { get; init; } = new();
}

/// <summary>What a person asks of a statement.</summary>
public sealed record StatementRequest
{
    /// <summary>The layout to take in the place of the standard one.</summary>
    public string? Layout { get; init; }

    /// <summary>Whether a cash flow starts from the movements of money, rather than from net profit.</summary>
    public bool IsDirect { get; init; }

    /// <summary>Whether rows without any figure are shown.</summary>
    public bool Zeros { get; init; }
}

/// <summary>What a person asks of a list, or a cross-table.</summary>
public sealed record ListRequest
{
    /// <summary>The fields that a list is grouped by, from the outermost.</summary>
    public IReadOnlyList<string> GroupBy { get; init; } = [];

    /// <summary>Whether groups that a report has of its own are taken away.</summary>
    public bool IsUngrouped { get; init; }

    /// <summary>What is made of columns for groups and for all, besides the sums.</summary>
    public IReadOnlyList<ColumnText> Totals { get; init; } = [];

    /// <summary>What stands in the cells of a cross-table.</summary>
    public IReadOnlyList<ColumnText> Measures { get; init; } = [];

    /// <summary>The columns that a report has where it is no cross-table: the main figure of one is found among them.</summary>
    public IReadOnlyList<ColumnText> Usual { get; init; } = [];
}

/// <summary>What a person asks of open items.</summary>
public sealed record OpenItemRequest
{
    /// <summary>The key of the one contact that it is for, where a report is of one.</summary>
    public ContactKey? Contact { get; init; }

    /// <summary>The limits of an aging in days, growing; 30, 60 and 90 where nothing is said.</summary>
    public IReadOnlyList<int>? Limits { get; init; }

    /// <summary>Whether an aging counts from the documents' dates, rather than from the days that they are due.</summary>
    public bool AgesByDocument { get; init; }

    /// <summary>Whether an aging keeps unapplied money and credits in a column of their own.</summary>
    public bool KeepsUnappliedApart { get; init; }

    /// <summary>The money to start from; what the money accounts come to where nothing is said.</summary>
    public Amount? Money { get; init; }

    /// <summary>Whether contacts are expected to pay as late as they usually do, rather than when it is due.</summary>
    public bool AsUsual { get; init; }
}
