namespace Vlei.Core.Fields;

/// <summary>What is taken and what is left out, kept under a name, for any report that has such fields.</summary>
/// <param name="Name">The name.</param>
/// <param name="Source">What it is, for messages: <c>selection coast (selections/coast.toml)</c>.</param>
/// <param name="Only">What is taken alone, as <c>--only</c> has it.</param>
/// <param name="Except">What is left out, as <c>--except</c> has it.</param>
/// <param name="Where">Predicates that must hold, as <c>--where</c> has them.</param>
public sealed record SavedSelection(
    string Name, string Source, IReadOnlyList<string> Only, IReadOnlyList<string> Except, IReadOnlyList<string> Where)
{
    /// <summary>The question that it is for; empty where nothing is said.</summary>
    public string Question { get; init; } = "";

    /// <summary>Whether it is listed first.</summary>
    public bool IsFavourite { get; init; }

    /// <summary>The choices that it makes.</summary>
    public IEnumerable<FieldChoice> Choices =>
        Only.Select(text => FieldChoice.Parse(text, isExcept: false, Source))
            .Concat(Except.Select(text => FieldChoice.Parse(text, isExcept: true, Source)));

    /// <summary>The predicates that it makes.</summary>
    public IEnumerable<PredicateText> Predicates => Where.Select(text => new PredicateText(text, Source));
}
