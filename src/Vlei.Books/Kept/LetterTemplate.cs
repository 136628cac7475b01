using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>A place in a letter that is filled in when it is written.</summary>
/// <param name="Words">What stands there, parted at the points: a word, or a report with a row and perhaps a column.</param>
public sealed record LetterPlace(IReadOnlyList<string> Words)
{
    /// <summary>Whether it is a figure of a report.</summary>
    public bool IsFigure => Words.Count > 1;

    /// <summary>How it stands in the letter.</summary>
    public string Text => $"{{{string.Join('.', Words)}}}";
}

/// <summary>The words of a letter, with places in braces; a brace that is meant as such is written twice.</summary>
public static class LetterTemplate
{
    /// <summary>The words that a place may have by itself.</summary>
    public static IReadOnlyList<string> Known { get; } = ["period", "book", "title", "findings", "contact"];

    private const int MostParts = 3;

    /// <summary>
    /// Checks the places of a letter. Throws a <see cref="ProblemException"/> where one is none.
    /// </summary>
    /// <param name="text">The letter.</param>
    /// <param name="reports">The names of the reports whose figures it may have.</param>
    public static void Check(string text, IReadOnlyList<string> reports) => _ = Fill(text, place =>
        place.IsFigure && !reports.Contains(place.Words[0]) ? throw new ProblemException(
            ProblemKind.BadData, $"{place.Text} is of no report that goes along.",
            reports.Count == 0 ? "A page has no figures that a letter can name; a group has them, and may begin with the page: front."
                : Suggestion.DidYouMean(place.Words[0], reports) ?? $"Its reports are {Suggestion.Listed(reports, "and")}.")
        : "");

    /// <summary>
    /// The letter with its places filled in. Throws a <see cref="ProblemException"/> where a place is none, or a brace is left open.
    /// </summary>
    public static string Fill(string text, Func<LetterPlace, string> fill)
    {
        var filled = new StringBuilder();
        for (var at = 0; at < text.Length; at++)
        {
            if (text[at] is not ('{' or '}'))
            {
                filled.Append(text[at]);
            }
            else if (at + 1 < text.Length && text[at + 1] == text[at])
            {
                filled.Append(text[at++]);
            }
            else if (text[at] == '{' && text.IndexOf('}', at) is > 0 and var end)
            {
                filled.Append(fill(PlaceOf(text[(at + 1)..end])));
                at = end;
            }
            else
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"The letter has a {text[at]} that belongs to no other.",
                    "Write it twice where it is meant as such.");
            }
        }

        return filled.ToString();
    }

    // The key of a column may have points of its own, as one of a formula has.
    private static LetterPlace PlaceOf(string text)
    {
        var words = text.Trim().Split('.', MostParts, StringSplitOptions.TrimEntries);
        return (words.Length > 1 && words.All(word => word.Length > 0)) || Known.Contains(words[0]) ? new LetterPlace(words)
            : throw new ProblemException(
                ProblemKind.BadData, $"There is nothing to put in the place of {{{text}}}.",
                Suggestion.DidYouMean(text, Known)
                    ?? $"Write {{{string.Join("}, {", Known)}}}, or {{REPORT.ROW}} or {{REPORT.ROW.COLUMN}}.");
    }
}
