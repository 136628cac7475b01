namespace Vlei.Core.Reports;

/// <summary>The records behind the figures of a report, which go along with it: each record once.</summary>
/// <param name="List">
/// All of them as one list: a heading for each figure; below it the records, or the figures that it is made of, and what they come to.
/// </param>
/// <param name="Figures">Which figure each heading of the list is of, by the place of its row.</param>
/// <param name="Parts">Which figure each row of the list stands for that is of no record, by the place of its row.</param>
public sealed record ReportRecords(
    Report List, IReadOnlyDictionary<int, CellPlace> Figures, IReadOnlyDictionary<int, CellPlace> Parts)
{
    private readonly Lazy<Dictionary<CellPlace, int>> _headings =
        new(() => Figures.ToDictionary(figure => figure.Value, figure => figure.Key));

    /// <summary>The documents that the records are of, with a heading for each; nothing where they do not go along.</summary>
    public Report? Documents { get; init; }

    /// <summary>The place of the heading of a figure; nothing where it has none.</summary>
    public int? HeadingOf(CellPlace figure) => _headings.Value.TryGetValue(figure, out var place) ? place : null;

    /// <summary>The place of the heading that a row of the list leads to, as it stands for a figure; nothing where it does not.</summary>
    public int? HeadingBehind(int place) => Parts.TryGetValue(place, out var figure) ? HeadingOf(figure) : null;

    /// <summary>The figure that a row of the list names; nothing where it names none.</summary>
    public CellPlace? FigureOf(int place) =>
        Figures.TryGetValue(place, out var figure) || Parts.TryGetValue(place, out figure) ? figure : null;
}
