namespace Vlei.Core.Fields;

/// <summary>A predicate as it is written.</summary>
/// <param name="Text">The text.</param>
/// <param name="Source">What it comes from, for messages; nothing where it was typed.</param>
public sealed record PredicateText(string Text, string? Source = null)
{
    /// <summary>One that was typed.</summary>
    public static implicit operator PredicateText(string text) => new(text);
}
