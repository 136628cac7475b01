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

    /// <summary>Refuses names that the report does not know.</summary>
    public static void Refuse(IEnumerable<SortOrder> keys, IReadOnlyList<string> known)
    {
        foreach (var key in keys.Where(key => !known.Contains(key.Name)))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--sort does not take \"{key.Name}\".",
                Suggestion.DidYouMean(key.Name, known) ?? $"It takes {Suggestion.Listed(known, "or")}.");
        }
    }
}
