using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// One entry of a list of columns as it was typed: <c>amount</c>, <c>+due</c>, <c>-memo</c>, <c>amount * 0.05:Rebate</c>,
/// <c>average(amount)</c>.
/// </summary>
/// <param name="Sign">+ to add to the usual columns, - to leave out of them, nothing for neither.</param>
/// <param name="Text">The field, formula or function.</param>
/// <param name="Heading">The heading; nothing for the usual one.</param>
public sealed record ColumnText(char? Sign, string Text, string? Heading)
{
    /// <summary>
    /// Reads entries with commas between them; what is in brackets or quotes is not cut. Throws a
    /// <see cref="ProblemException"/> where one is empty.
    /// </summary>
    public static IReadOnlyList<ColumnText> Parse(string option, string list)
    {
        var entries = new List<ColumnText>();
        foreach (var part in Cut(list, ',').Select(part => part.Trim()))
        {
            var sign = part.Length > 0 && part[0] is '+' or '-' ? part[0] : default(char?);
            var halves = Cut(sign is null ? part : part[1..], ':').ToList();
            var (text, heading) = (halves[0].Trim(), halves.Count > 1 ? string.Join(':', halves.Skip(1)).Trim() : null);
            if (text.Length == 0 || heading?.Length == 0)
            {
                throw new ProblemException(
                    ProblemKind.Usage, $"--{option}: \"{list}\" has an empty place.",
                    "Write fields with commas between them: date,contact.name:Customer,amount; +x adds to the usual ones, -x leaves out.");
            }

            entries.Add(new ColumnText(sign, text, heading));
        }

        return entries;
    }

    /// <summary>A function and what it is of; nothing where the text is none.</summary>
    public (string Name, string Of)? Function
    {
        get
        {
            var bracket = Text.IndexOf('(');
            return bracket > 0 && Text.EndsWith(')') && Text[..bracket].All(letter => char.IsAsciiLetter(letter) || letter == '-')
                ? (Text[..bracket].ToLowerInvariant(), Text[(bracket + 1)..^1].Trim()) : null;
        }
    }

    private static IEnumerable<string> Cut(string text, char at)
    {
        var (start, depth, isQuoted) = (0, 0, false);
        for (var place = 0; place < text.Length; place++)
        {
            isQuoted ^= text[place] == '"';
            depth += isQuoted ? 0 : text[place] == '(' ? 1 : text[place] == ')' ? -1 : 0;
            if (text[place] == at && depth <= 0 && !isQuoted)
            {
                yield return text[start..place];
                start = place + 1;
            }
        }

        yield return text[start..];
    }
}
