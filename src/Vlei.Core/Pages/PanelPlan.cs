using Vlei.Core.Reports;

namespace Vlei.Core.Pages;

/// <summary>How a panel shows its report.</summary>
public enum PanelShow
{
    /// <summary>Some rows with their figure, and how much that changed against each figure that stands beside it.</summary>
    Figures,

    /// <summary>Rows with a bar each, as long as their figure is large.</summary>
    Bars,

    /// <summary>Rows with a line through their figures from column to column, and the last of them.</summary>
    Line,

    /// <summary>One row with a bar for each of its columns.</summary>
    Across,

    /// <summary>A line through one column from row to row: where it begins, its lowest point, and where it ends.</summary>
    Down,
}

/// <summary>What a panel shows of a report, and how.</summary>
/// <param name="Show">How.</param>
public sealed record PanelPlan(PanelShow Show)
{
    /// <summary>The words for ways to show a report, as files have them.</summary>
    public static ChoiceOption<PanelShow> Words { get; } = new(
        "show", "HOW", "How it is shown", ("figures", PanelShow.Figures), ("bars", PanelShow.Bars), ("line", PanelShow.Line),
        ("across", PanelShow.Across), ("down", PanelShow.Down))
    { OnlyWords = true };

    /// <summary>The keys of the rows that are shown, in their order; where none are named, those that are no totals.</summary>
    public IReadOnlyList<string> Rows { get; init; } = [];

    /// <summary>The key or the heading of the column that is shown; the first figure where nothing is said.</summary>
    public string? Column { get; init; }

    /// <summary>How many rows are shown at most, where none are named.</summary>
    public int Most { get; init; } = UsualMost;

    /// <summary>How many rows are shown where nothing is said.</summary>
    public const int UsualMost = 5;
}
