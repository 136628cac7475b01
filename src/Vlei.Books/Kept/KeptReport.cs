using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>A report that is defined in a file.</summary>
/// <param name="Definition">The report, with what the file and those that it is made from ask by themselves.</param>
/// <param name="From">The report or table that it is made from.</param>
/// <param name="Own">What the file itself asks, as texts by the names of options.</param>
/// <param name="IsFavourite">Whether it stands first where reports are listed.</param>
public sealed record KeptReport(
    ReportDefinition Definition, string From, IReadOnlyDictionary<string, IReadOnlyList<string>> Own, bool IsFavourite)
{
    /// <summary>Where it goes, and when.</summary>
    public DeliveryPlan Delivery { get; init; } = new();
}
