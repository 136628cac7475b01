namespace Vlei.Core.Reports;

/// <summary>The records behind the figures of a report, which go along with it.</summary>
/// <param name="List">All of them as one list: a heading for each figure, the records below it, and what they come to.</param>
/// <param name="Figures">Which figure each heading of the list is of, by the place of its row.</param>
public sealed record ReportRecords(Report List, IReadOnlyDictionary<int, CellPlace> Figures)
{
    /// <summary>The documents that the records are of, with a heading for each; nothing where they do not go along.</summary>
    public Report? Documents { get; init; }
}
