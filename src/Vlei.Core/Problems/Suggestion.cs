namespace Vlei.Core.Problems;

/// <summary>Finds the words that a mistyped one was probably meant to be.</summary>
public static class Suggestion
{
    private const int MostWords = 3;

    /// <summary>
    /// The candidates nearest to <paramref name="word"/>, all equally near, at most three; none where nothing is near.
    /// Capitals do not matter, and a candidate that starts with the word counts as near.
    /// </summary>
    public static IReadOnlyList<string> Nearest(string word, IEnumerable<string> candidates)
    {
        var wanted = word.ToLowerInvariant();
        var reach = Math.Max(1, wanted.Length / 3);
        var near = new List<(string Word, int Distance)>();
        foreach (var candidate in candidates)
        {
            var name = candidate.ToLowerInvariant();
            var distance = wanted.Length > 1 && name.StartsWith(wanted, StringComparison.Ordinal)
                ? 1
                : Math.Abs(name.Length - wanted.Length) > reach ? int.MaxValue : Distance(wanted, name);
            if (distance <= reach)
            {
                near.Add((candidate, distance));
            }
        }

        var nearest = near.Select(n => n.Distance).DefaultIfEmpty(0).Min();
        return [.. near.Where(n => n.Distance == nearest).Select(n => n.Word).Distinct(StringComparer.Ordinal)
            .Order(StringComparer.Ordinal).Take(MostWords)];
    }

    /// <summary>"Did you mean a, b or c?", or nothing where nothing is near.</summary>
    public static string? DidYouMean(string word, IEnumerable<string> candidates)
    {
        var near = Nearest(word, candidates);
        return near.Count == 0 ? null : $"Did you mean {Listed(near, "or")}?";
    }

    /// <summary>What there is to choose from, as a sentence.</summary>
    public static string ThereAre(IReadOnlyList<string> words) => $"There {(words.Count == 1 ? "is" : "are")} {Listed(words, "and")}.";

    /// <summary>Words as a sentence lists them: <c>a, b or c</c>.</summary>
    public static string Listed(IReadOnlyList<string> words, string conjunction) => words.Count switch
    {
        0 => "",
        1 => words[0],
        _ => $"{string.Join(", ", words.Take(words.Count - 1))} {conjunction} {words[^1]}",
    };

    // Optimal string alignment: a swap of two neighbours counts as one slip, as it is one for the hand.
    private static int Distance(string left, string right)
    {
        var costs = new int[left.Length + 1, right.Length + 1];
        for (var row = 0; row <= left.Length; row++)
        {
            for (var column = 0; column <= right.Length; column++)
            {
                if (row == 0 || column == 0)
                {
                    costs[row, column] = row + column;
                    continue;
                }

                var same = left[row - 1] == right[column - 1];
                var cost = Math.Min(
                    Math.Min(costs[row - 1, column], costs[row, column - 1]) + 1,
                    costs[row - 1, column - 1] + (same ? 0 : 1));
                if (row > 1 && column > 1 && left[row - 1] == right[column - 2] && left[row - 2] == right[column - 1])
                {
                    cost = Math.Min(cost, costs[row - 2, column - 2] + 1);
                }

                costs[row, column] = cost;
            }
        }

        return costs[left.Length, right.Length];
    }
}
