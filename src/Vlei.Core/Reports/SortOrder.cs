using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>What rows are ordered by.</summary>
/// <param name="Name">The key of a column, or another word that the report knows.</param>
/// <param name="Downwards">Whether the largest comes first.</param>
public sealed record SortOrder(string Name, bool Downwards)
{
    /// <summary>Reads <c>-total,name</c>. Throws a <see cref="ProblemException"/> where a name is missing.</summary>
    public static IReadOnlyList<SortOrder> Parse(string text) =>
    [
        .. text.Split(',').Select(part => part.Trim()).Select(part => part.TrimStart('-').Length == 0
            ? throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" has an empty place where a column should be.",
                "Write columns with commas between them, and - before one for the largest first: -total,name.")
            : new SortOrder(part.TrimStart('-'), part.StartsWith('-'))),
    ];

    /// <summary>Refuses what is neither a column of the report nor another word that it knows.</summary>
    /// <param name="keys">What rows are to be ordered by.</param>
    /// <param name="columns">The columns.</param>
    /// <param name="others">The other words.</param>
    public static void Refuse(IEnumerable<SortOrder> keys, IReadOnlyList<ReportColumn> columns, params IReadOnlyList<string> others)
    {
        foreach (var key in keys.Where(key => !others.Contains(key.Name, StringComparer.OrdinalIgnoreCase)))
        {
            _ = ColumnNames.Named(ReportOptions.Sort.Name, key.Name, columns, others);
        }
    }
}
