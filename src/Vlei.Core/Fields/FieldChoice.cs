using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>One <c>--only</c> or <c>--except</c>.</summary>
/// <param name="Field">The name of the field.</param>
/// <param name="List">The values.</param>
/// <param name="IsExcept">Whether they are left out, rather than taken alone.</param>
public sealed record FieldChoice(string Field, ValueList List, bool IsExcept)
{
    /// <summary>Reads <c>FIELD=LIST</c>. Throws a <see cref="ProblemException"/> where it is not that.</summary>
    public static FieldChoice Parse(string text, bool isExcept)
    {
        var equals = text.IndexOf('=');
        return equals > 0
            ? new FieldChoice(text[..equals].Trim(), ValueList.Parse(text[(equals + 1)..]), isExcept)
            : throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" does not say which field.",
                "Write the field, an equals sign and its values: contact=C-12, account=4000..4999, kind=invoice.");
    }
}
