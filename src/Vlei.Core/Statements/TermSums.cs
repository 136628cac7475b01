namespace Vlei.Core.Statements;

/// <summary>What counts towards a row of a statement, for each measure of the columns.</summary>
/// <param name="ByMeasure">The terms, by measure.</param>
internal readonly record struct TermSums(Term[][] ByMeasure)
{
    /// <summary>Of statements with one measure, what counts towards it.</summary>
    public Term[] Only => ByMeasure[0];

    /// <summary>One with one measure.</summary>
    public static TermSums Of(params Term[] terms) => new([terms]);

    /// <summary>Several together, measure by measure.</summary>
    public static TermSums Together(IEnumerable<TermSums> parts)
    {
        List<TermSums> all = [.. parts];
        return new TermSums([.. Enumerable.Range(0, all.Max(part => part.ByMeasure.Length))
            .Select(measure => all.SelectMany(part => part.ByMeasure[measure]).ToArray())]);
    }

    /// <summary>Several together, each as often as its sign says.</summary>
    public static TermSums Of(IReadOnlyCollection<(TermSums Part, int Sign)> parts)
    {
        var (terms, first) = (new Term[parts.Sum(part => part.Part.Only.Length)], 0);
        foreach (var (part, sign) in parts)
        {
            foreach (var term in part.Only)
            {
                terms[first++] = term with { Sign = checked(term.Sign * sign) };
            }
        }

        return Of(Gathered(terms));
    }

    // Rows that are made of rows that are made of rows name the same accounts over and over: these are counted once, as often.
    private static Term[] Gathered(Term[] terms)
    {
        const int Many = 2000;
        return terms.Length <= Many ? terms
            : [.. terms.GroupBy(term => term with { Sign = 0 })
                .Select(same => same.Key with { Sign = same.Aggregate(0, (sum, term) => checked(sum + term.Sign)) })];
    }
}
