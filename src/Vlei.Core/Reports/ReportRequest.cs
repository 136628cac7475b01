using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Core.Reports;

/// <summary>What a percentage is taken of.</summary>
public enum PercentOf
{
    /// <summary>Total income of the same column.</summary>
    Income,

    /// <summary>Total assets of the same column.</summary>
    Assets,

    /// <summary>The row's total across the columns that it is spread over.</summary>
    Row,
}

/// <summary>What a person asks of a report; what is not said follows from the report and the book.</summary>
public sealed record ReportRequest
{
    /// <summary>The days that it covers; for a report of a moment, the last of them is meant.</summary>
    public OpenPeriod? Period { get; init; }

    /// <summary>Its basis.</summary>
    public AccountingBasis? Basis { get; init; }

    /// <summary>The unit of time that each column is.</summary>
    public TimeUnit? By { get; init; }

    /// <summary>What it is compared with.</summary>
    public IReadOnlyList<Comparison> Compare { get; init; } = [];

    /// <summary>Whether comparisons show the change and the percent change.</summary>
    public bool Change { get; init; }

    /// <summary>The percentages that it shows.</summary>
    public IReadOnlyList<PercentOf> Percent { get; init; } = [];

    /// <summary>Whether rows without any figure are shown.</summary>
    public bool Zeros { get; init; }

    /// <summary>How many levels of accounts are shown; all where nothing is said.</summary>
    public int? Depth { get; init; }

    /// <summary>A title in the place of the report's own.</summary>
    public string? Title { get; init; }
}
