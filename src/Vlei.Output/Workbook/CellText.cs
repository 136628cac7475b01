using System.Globalization;
using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Output.Workbook;

/// <summary>Text and places as the cells of a workbook hold them (ECMA-376, part 1).</summary>
internal static class CellText
{
    /// <summary>How many rows a sheet has room for.</summary>
    public const int MostRows = 1_048_576;

    /// <summary>How many columns a sheet has room for.</summary>
    public const int MostColumns = 16_384;

    /// <summary>How many links a sheet has room for: programs take one with more for damaged, and leave all of them out.</summary>
    public const int MostLinks = 65_530;

    /// <summary>The first cell of a sheet.</summary>
    public const string First = "A1";

    /// <summary>How much text a cell has room for.</summary>
    private const int MostLetters = 32_767;

    /// <summary>The name of a column, from 0: A, B, … AA.</summary>
    public static string ColumnName(int column) => FilePlace.ColumnName(column + 1);

    /// <summary>The name of a cell; rows count from 1, columns from 0.</summary>
    public static string Name(int row, int column) => string.Create(CultureInfo.InvariantCulture, $"{ColumnName(column)}{row}");

    /// <summary>A place in a workbook, as a formula names it.</summary>
    public static string Place(string sheet, string cells) => $"'{sheet.Replace("'", "''", StringComparison.Ordinal)}'!{cells}";

    /// <summary>
    /// Text with what XML has no room for written as <c>_x0001_</c>, which programs that open workbooks read back; what only
    /// looks like that is written so that it stays what it is.
    /// </summary>
    public static string Escaped(string text)
    {
        var cut = text.Length <= MostLetters ? text : $"{text[..(MostLetters - 1)]}…";
        if (!cut.AsSpan().ContainsAnyExceptInRange(' ', '~') && !cut.Contains("_x", StringComparison.Ordinal))
        {
            return cut;
        }

        var escaped = new StringBuilder(cut.Length);
        for (var place = 0; place < cut.Length; place++)
        {
            var letter = cut[place];
            if (letter == '_' && IsEscape(cut.AsSpan(place)))
            {
                escaped.Append("_x005F_");
            }
            else if (char.IsSurrogate(letter)
                && !(char.IsHighSurrogate(letter) && place + 1 < cut.Length && char.IsLowSurrogate(cut[place + 1]))
                && !(char.IsLowSurrogate(letter) && place > 0 && char.IsHighSurrogate(cut[place - 1])))
            {
                escaped.Append('\uFFFD');
            }
            else if (letter is < ' ' and not ('\t' or '\n') or '\uFFFE' or '\uFFFF')
            {
                escaped.Append(CultureInfo.InvariantCulture, $"_x{(int)letter:X4}_");
            }
            else
            {
                escaped.Append(letter);
            }
        }

        return escaped.ToString();
    }

    private static bool IsHexadecimal(ReadOnlySpan<char> text)
    {
        foreach (var letter in text)
        {
            if (!char.IsAsciiHexDigit(letter))
            {
                return false;
            }
        }

        return true;
    }

    private static bool IsEscape(ReadOnlySpan<char> text) =>
        text.Length >= 7 && text[1] is 'x' && text[6] == '_' && IsHexadecimal(text[2..6]);
}
