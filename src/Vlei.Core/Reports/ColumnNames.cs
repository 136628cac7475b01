using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// Columns as people name them, wherever they do: by key or by heading, in any case; and changes and shares by their kind, which
/// means the first of them.
/// </summary>
public static class ColumnNames
{
    private static readonly string[] More = ["more"];

    private static readonly string[] Kinds =
        ["change", "percent-change", "share", .. ReportOptions.Share.Words.Select(whole => $"share-of-{whole}")];

    /// <summary>The place of the column of that name; less than 0 where there is none.</summary>
    public static int PlaceOf(string name, IReadOnlyList<ReportColumn> columns)
    {
        var typed = name.Trim();
        return First(column => column.Key.Equals(typed, StringComparison.Ordinal)) is >= 0 and var exact ? exact
            : First(column => column.Key.Equals(typed, StringComparison.OrdinalIgnoreCase)) is >= 0 and var key ? key
            : First(column => column.Heading.Equals(typed, StringComparison.OrdinalIgnoreCase)) is >= 0 and var heading ? heading
            : Kinds.Contains(typed, StringComparer.OrdinalIgnoreCase) ? First(column => IsOfKind(column, typed.ToLowerInvariant())) : -1;

        int First(Predicate<ReportColumn> holds)
        {
            for (var place = 0; place < columns.Count; place++)
            {
                if (holds(columns[place]))
                {
                    return place;
                }
            }

            return -1;
        }
    }

    /// <summary>
    /// The place of the column of that name. Throws a <see cref="ProblemException"/> that names the nearest, or all, where there is
    /// none.
    /// </summary>
    /// <param name="option">The option that names it, for the message.</param>
    /// <param name="name">The name.</param>
    /// <param name="columns">The columns.</param>
    /// <param name="others">What else the option takes.</param>
    public static int Named(string option, string name, IReadOnlyList<ReportColumn> columns, params IReadOnlyList<string> others) =>
        PlaceOf(name, columns) is >= 0 and var place ? place : throw Unknown(option, name, columns, others);

    /// <summary>The problem that there is no column of a name.</summary>
    public static ProblemException Unknown(
        string option, string name, IReadOnlyList<ReportColumn> columns, params IReadOnlyList<string> others)
    {
        const int Most = 12;
        List<string> keys = [.. columns.Select(column => column.Key).Distinct(), .. others];
        return new ProblemException(
            ProblemKind.NotFound, $"--{option}: the report has no column {name}.",
            Suggestion.DidYouMean(name, keys.Concat(columns.Select(column => column.Heading)
                .Where(heading => !keys.Contains(heading, StringComparer.OrdinalIgnoreCase))))
                ?? $"It has {Suggestion.Listed([.. keys.Take(Most), .. keys.Count > Most ? More : []], "and")}.");
    }

    private static bool IsOfKind(ReportColumn column, string kind) => column.Key.StartsWith(
        kind == "share" && !column.Key.StartsWith("share(", StringComparison.Ordinal) ? "share-of-" : $"{kind}(", StringComparison.Ordinal);
}
