using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>One <c>--only</c> or <c>--except</c>.</summary>
/// <param name="Field">The name of the field.</param>
/// <param name="List">The values.</param>
/// <param name="IsExcept">Whether they are left out, rather than taken alone.</param>
/// <param name="Source">What it comes from, for messages; nothing where it was typed.</param>
public sealed record FieldChoice(string Field, ValueList List, bool IsExcept, string? Source = null)
{
    /// <summary>Reads <c>FIELD=LIST</c>. Throws a <see cref="ProblemException"/> where it is not that.</summary>
    public static FieldChoice Parse(string text, bool isExcept, string? source = null)
    {
        var equals = text.IndexOf('=');
        var comparison = text.AsSpan().IndexOfAny('<', '>');
        return Naming.Of(source, () => comparison > 0 && (equals < 0 || comparison == equals - 1 || comparison < equals)
            ? throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" does not say which field.",
                $"A comparison stands behind the equals sign: \"{text[..comparison].Trim()}={text[comparison..].Trim()}\".")
            : equals > 0
            ? new FieldChoice(text[..equals].Trim(), ValueList.Parse(text[(equals + 1)..]), isExcept, source)
            : throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" does not say which field.",
                "Write the field, an equals sign and its values: contact=C-12, account=4000/4999, kind=invoice."));
    }

    /// <summary>
    /// Whether choices of the same field take a value: where any of it alone is taken, it must be one of those, and it must be
    /// none of what is left out.
    /// </summary>
    /// <param name="choices">The choices.</param>
    /// <param name="means">Whether one of them means the value.</param>
    public static bool Take(IReadOnlyList<FieldChoice> choices, Func<FieldChoice, bool> means) =>
        !choices.Any(choice => choice.IsExcept && means(choice))
        && (choices.All(choice => choice.IsExcept) || choices.Any(choice => !choice.IsExcept && means(choice)));

    /// <summary>
    /// What belongs together: choices of the same field are alternatives, as far as they come from the same place. What is
    /// left out comes last.
    /// </summary>
    public static IEnumerable<IReadOnlyList<FieldChoice>> Together(IEnumerable<FieldChoice> choices) => choices
        .GroupBy(choice => (Field: choice.Field.ToLowerInvariant(), choice.Source))
        .Select(ofField => ofField.OrderBy(choice => choice.IsExcept).ToList());
}
