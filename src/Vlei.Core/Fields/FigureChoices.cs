using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// What is taken or left out by a figure that a report itself works out, as what is open or how late it is. As with
/// fields, those of the same figure are alternatives, different figures must all hold, and what is left out wins.
/// </summary>
public sealed class FigureChoices
{
    private readonly IReadOnlyList<FieldChoice> _choices;

    private FigureChoices(IReadOnlyList<FieldChoice> choices) => _choices = choices;

    /// <summary>Those of the choices that are of such figures, and the rest of them.</summary>
    /// <param name="choices">All choices.</param>
    /// <param name="figures">The names of the figures.</param>
    public static (FigureChoices OfFigures, IReadOnlyList<FieldChoice> Others) Among(
        IReadOnlyList<FieldChoice> choices, IReadOnlyList<string> figures) =>
        (new FigureChoices([.. choices.Where(choice => IsOne(choice, figures))]), [.. choices.Where(choice => !IsOne(choice, figures))]);

    /// <summary>What they say, in words, a condition each.</summary>
    public IEnumerable<string> InWords => _choices.Select(choice =>
        $"{(choice.IsExcept ? "Without" : "Only")} {choice.Field.ToLowerInvariant()} {choice.List.AsTyped}");

    /// <summary>Whether there are none.</summary>
    public bool IsEverything => _choices.Count == 0;

    /// <summary>
    /// Whether a figure is taken. Throws a <see cref="Problems.ProblemException"/> where a choice is no number.
    /// </summary>
    /// <param name="figure">The name of the figure.</param>
    /// <param name="units">What it is, in units of which there are 10^<paramref name="decimals"/> to one.</param>
    /// <param name="decimals">See there.</param>
    public bool Take(string figure, long units, int decimals)
    {
        bool Means(FieldChoice choice) => Naming.Of(choice.Source, () => choice.List.Takes(figure, units, decimals));
        return FieldChoice.Together(_choices.Where(choice => choice.Field.Equals(figure, StringComparison.OrdinalIgnoreCase)))
            .All(own => FieldChoice.Take(own, Means));
    }

    private static bool IsOne(FieldChoice choice, IReadOnlyList<string> figures) =>
        figures.Contains(choice.Field, StringComparer.OrdinalIgnoreCase);
}
