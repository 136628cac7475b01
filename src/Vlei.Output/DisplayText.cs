using System.Globalization;
using System.Text;

namespace Vlei.Output;

/// <summary>Text from records on its way to a terminal: made harmless, measured, broken into lines.</summary>
public static class DisplayText
{
    private static readonly (int First, int Last)[] Wide =
    [
        (0x1100, 0x115F), (0x2E80, 0x303E), (0x3041, 0xA4CF), (0xAC00, 0xD7A3), (0xF900, 0xFAFF), (0xFE30, 0xFE6F),
        (0xFF00, 0xFF60), (0xFFE0, 0xFFE6), (0x1F300, 0x1F64F), (0x1F680, 0x1F6FF), (0x1F900, 0x1F9FF), (0x20000, 0x3FFFD),
    ];

    /// <summary>Without control characters, which could steer the terminal; in ASCII where nothing else can be shown.</summary>
    public static string Harmless(string text, bool ascii)
    {
        if (IsPlain(text) || !IsChanged(text, ascii))
        {
            return text;
        }

        var harmless = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            harmless.Append(IsHidden(rune) ? " " : ascii && !rune.IsAscii ? "?" : rune.ToString());
        }

        return harmless.ToString();
    }

    // What stands for half a letter is written as a whole one.
    private static bool IsChanged(string text, bool ascii)
    {
        foreach (var rune in text.EnumerateRunes())
        {
            if (IsHidden(rune) || (ascii && !rune.IsAscii) || rune == Rune.ReplacementChar)
            {
                return true;
            }
        }

        return false;
    }

    private static bool IsHidden(Rune rune) => Rune.GetUnicodeCategory(rune) is UnicodeCategory.Control or UnicodeCategory.Format
        or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator;

    /// <summary>How many places of a terminal's line it takes.</summary>
    public static int Width(string text)
    {
        if (IsPlain(text))
        {
            return text.Length;
        }

        var width = 0;
        foreach (var rune in text.EnumerateRunes())
        {
            width += Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark or UnicodeCategory.EnclosingMark ? 0
                : IsWide(rune) ? 2
                : 1;
        }

        return width;
    }

    private static bool IsWide(Rune rune)
    {
        foreach (var (first, last) in Wide)
        {
            if (rune.Value >= first && rune.Value <= last)
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>How many places its longest word takes.</summary>
    public static int LongestWord(string text)
    {
        var (longest, isPlain) = (0, IsPlain(text));
        foreach (var range in text.AsSpan().Split(' '))
        {
            longest = Math.Max(longest, isPlain ? range.End.Value - range.Start.Value : Width(text[range]));
        }

        return longest;
    }

    // Most texts and all figures are: one place each, and nothing to hide.
    private static bool IsPlain(string text) => !text.AsSpan().ContainsAnyExceptInRange(' ', '~');

    /// <summary>Lines of at most that width, broken at blanks where there are any; nothing is left out.</summary>
    public static IEnumerable<string> Wrap(string text, int width)
    {
        var line = new StringBuilder();
        foreach (var word in text.Split(' '))
        {
            var rest = word;
            if (line.Length > 0 && Width(line.ToString()) + 1 + Width(rest) > width)
            {
                yield return line.ToString();
                line.Clear();
            }

            while (Width(rest) > width && Fitting(rest, width) is var cut && cut < rest.Length)
            {
                yield return rest[..cut];
                rest = rest[cut..];
            }

            line.Append(line.Length > 0 ? " " : "").Append(rest);
        }

        yield return line.ToString();
    }

    /// <summary>As much of it as that width holds, with a sign at its end where that is not all.</summary>
    public static string Cut(string text, int width) =>
        Width(text) <= width ? text : $"{text[..Fitting(text, Math.Max(1, width - 1))]}…";

    // How much of it the width holds, at least one of what a reader takes for a letter: an accent stays with what it stands on.
    private static int Fitting(string text, int width)
    {
        var (cut, used) = (0, 0);
        while (cut < text.Length)
        {
            var length = StringInfo.GetNextTextElementLength(text.AsSpan(cut));
            used += Width(text.Substring(cut, length));
            if (used > width && cut > 0)
            {
                break;
            }

            cut += length;
        }

        return cut;
    }
}
