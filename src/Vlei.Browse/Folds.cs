using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Browse;

/// <summary>Which rows of a report are folded away: those that stand deeper below a row that is folded.</summary>
/// <param name="table">The report.</param>
/// <param name="folded">The keys of the rows that are folded.</param>
internal sealed class Folds(ScreenTable table, IReadOnlySet<string> folded)
{
    // Nothing where all are shown, so that a long list costs nothing.
    private readonly int[]? _shown = folded.Count == 0 ? null : [.. Shown(table.Report.Rows, folded)];

    /// <summary>The keys of the rows that are folded.</summary>
    public IReadOnlySet<string> Folded => folded;

    /// <summary>How many rows are shown.</summary>
    public int Count => _shown?.Length ?? table.Report.Rows.Count;

    /// <summary>The place in the report of a row that is shown.</summary>
    public int PlaceOf(int shown) => _shown?[shown] ?? shown;

    /// <summary>Where a row of the report is shown, or the one that it is folded under.</summary>
    public int ShownAt(int place)
    {
        if (_shown is null)
        {
            return Math.Clamp(place, 0, Math.Max(0, Count - 1));
        }

        var found = Array.BinarySearch(_shown, place);
        return found >= 0 ? found : Math.Max(0, ~found - 1);
    }

    /// <summary>The same with one row folded, or not folded any more: the row at a place, or what it stands under.</summary>
    public Folds Toggled(int place)
    {
        var rows = table.Report.Rows;
        while (place > 0 && !HasDeeper(rows, place))
        {
            var level = rows[place].Level;
            do
            {
                place--;
            }
            while (place > 0 && rows[place].Level >= level);
        }

        return rows.Count == 0 || !HasDeeper(rows, place) ? this
            : With(folded.Contains(rows[place].Key) ? folded.Where(key => key != rows[place].Key) : folded.Append(rows[place].Key));
    }

    /// <summary>The same with everything folded; with nothing folded, where something was.</summary>
    public Folds AllToggled() => With(folded.Count > 0 ? []
        : Enumerable.Range(0, table.Report.Rows.Count).Where(place => HasDeeper(table.Report.Rows, place))
            .Select(place => table.Report.Rows[place].Key));

    private Folds With(IEnumerable<string> keys) => new(table, keys.ToHashSet());

    private static bool HasDeeper(IReadOnlyList<ReportRow> rows, int place) =>
        place + 1 < rows.Count && rows[place + 1].Level > rows[place].Level;

    private static IEnumerable<int> Shown(IReadOnlyList<ReportRow> rows, IReadOnlySet<string> folded)
    {
        var (place, under) = (0, int.MaxValue);
        foreach (var row in rows)
        {
            if (row.Level <= under)
            {
                under = folded.Contains(row.Key) ? row.Level : int.MaxValue;
                yield return place;
            }

            place++;
        }
    }
}
