using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// What lists of columns make of the usual ones, one list after the other: <c>+x</c> adds one, <c>-x</c> leaves one out,
/// <c>x:Heading</c> gives one that is there another heading where it stands, and a list that names columns plainly says which
/// there are and in which order. What is not said of a column stays: its heading, its place, and that it is there once.
/// </summary>
internal static class ColumnLists
{
    /// <summary>The columns. Throws a <see cref="ProblemException"/> where one is left out that is not there.</summary>
    /// <param name="usual">The usual ones.</param>
    /// <param name="lists">The lists, in the order in which they are said.</param>
    /// <param name="known">Other columns whose headings stay theirs when they are named.</param>
    public static List<ColumnText> Applied(
        IReadOnlyList<ColumnText> usual, IEnumerable<IReadOnlyList<ColumnText>> lists, IReadOnlyList<ColumnText> known)
    {
        var columns = usual.ToList();
        foreach (var list in lists)
        {
            var named = list.Select(entry => Known([.. columns, .. known], entry)).ToList();
            if (named.Exists(entry => entry.Sign is null && (entry.Heading is null || !columns.Exists(column => Same(column, entry)))))
            {
                known = [.. columns, .. known];
                columns.Clear();
            }

            foreach (var entry in named)
            {
                Apply(entry, columns, known);
            }
        }

        return columns;
    }

    private static void Apply(ColumnText entry, List<ColumnText> columns, IReadOnlyList<ColumnText> known)
    {
        var place = columns.FindIndex(column => Same(column, entry));
        if (entry.Sign == '-')
        {
            if (place < 0)
            {
                throw new ProblemException(
                    ProblemKind.Usage, $"--columns: {entry.Text} is not among the columns, so it cannot be left out.",
                    Suggestion.DidYouMean(entry.Text, columns.Select(column => column.Text))
                        ?? $"They are {Suggestion.Listed([.. columns.Select(column => column.Text)], "and")}.");
            }

            columns.RemoveAt(place);
        }
        else if (place < 0)
        {
            columns.Add(entry with
            {
                Sign = null,
                Heading = entry.Heading ?? known.FirstOrDefault(column => Same(column, entry))?.Heading,
            });
        }
        else if (entry.Heading is not null)
        {
            columns[place] = columns[place] with { Heading = entry.Heading };
        }
    }

    // A column may be named by its heading too.
    private static ColumnText Known(IReadOnlyList<ColumnText> columns, ColumnText entry) =>
        columns.Any(column => Same(column, entry)) ? entry
        : columns.FirstOrDefault(column => entry.Text.Equals(column.Heading, StringComparison.OrdinalIgnoreCase)) is { } headed
            ? entry with { Text = headed.Text } : entry;

    private static bool Same(ColumnText one, ColumnText other) => one.Text.Equals(other.Text, StringComparison.OrdinalIgnoreCase);
}
