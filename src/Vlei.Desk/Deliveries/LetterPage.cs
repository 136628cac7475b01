using System.Net;

namespace Vlei.Desk.Deliveries;

/// <summary>Paragraphs of a letter as a page has them: those that name figures, a line each, become a small table.</summary>
internal static class LetterPage
{
    private const string Mark = ": ";
    private const string Cell = "padding:.1em 0;border-bottom:1px solid #e4e7ea";

    /// <summary>A paragraph.</summary>
    public static string Of(string paragraph)
    {
        var lines = paragraph.Split('\n');
        if (lines.Length < 2 || !Array.TrueForAll(lines, IsFigure))
        {
            return $"<p style=\"margin:0 0 1em\">{string.Join("<br>\n", lines.Select(WebUtility.HtmlEncode))}</p>\n";
        }

        return $"<table style=\"margin:0 0 1em;border-collapse:collapse\">\n{string.Concat(lines.Select(RowOf))}</table>\n";
    }

    private static bool IsFigure(string line) => line.LastIndexOf(Mark, StringComparison.Ordinal) is > 0 and var at
        && line[(at + Mark.Length)..] is var figure && figure.Any(char.IsDigit)
        && figure.All(letter => char.IsDigit(letter) || letter is '.' or ',' or '\'' or '-' or ' ' or '\u00a0' or '(' or ')' or '%');

    private static string RowOf(string line)
    {
        var at = line.LastIndexOf(Mark, StringComparison.Ordinal);
        return $"<tr><td style=\"{Cell};padding-right:2.5em\">{WebUtility.HtmlEncode(line[..at])}</td>"
            + $"<td style=\"{Cell};text-align:right;font-variant-numeric:tabular-nums;white-space:nowrap\">"
            + $"{WebUtility.HtmlEncode(line[(at + Mark.Length)..])}</td></tr>\n";
    }
}
