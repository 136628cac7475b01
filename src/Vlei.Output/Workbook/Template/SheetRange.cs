using System.Globalization;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// A place of a sheet as formulas name it, with whether each part is fixed; rows and columns from 1, 0 where a whole row or
/// column is meant.
/// </summary>
internal readonly record struct CellName(int Row, int Column, bool IsRowFixed, bool IsColumnFixed)
{
    private const int LettersInAlphabet = 26;
    private const int MostLetters = 3;
    private const int MostDigits = 7;

    /// <summary>Reads <c>$A$1</c>, <c>A</c> or <c>1</c> at a place of a text, and moves behind it; nothing where there is none.</summary>
    public static CellName? Read(string text, ref int place)
    {
        var at = place;
        var isColumnFixed = Skip(text, ref at, '$');
        var (column, letters) = (0, 0);
        for (; at < text.Length && char.IsAsciiLetter(text[at]) && letters <= MostLetters; at++, letters++)
        {
            column = (column * LettersInAlphabet) + (char.ToUpperInvariant(text[at]) - 'A' + 1);
        }

        var isRowFixed = letters > 0 ? Skip(text, ref at, '$') : isColumnFixed;
        var (row, digits) = (0, 0);
        for (; at < text.Length && char.IsAsciiDigit(text[at]) && digits <= MostDigits; at++, digits++)
        {
            row = (row * 10) + (text[at] - '0');
        }

        if ((letters == 0 && digits == 0) || column > CellText.MostColumns || row > CellText.MostRows || (digits > 0 && row == 0))
        {
            return null;
        }

        place = at;
        return new CellName(row, column, isRowFixed, letters > 0 && isColumnFixed);
    }

    /// <inheritdoc/>
    public override string ToString() => string.Create(
        CultureInfo.InvariantCulture,
        $"{(Column == 0 ? "" : (IsColumnFixed ? "$" : "") + CellText.ColumnName(Column - 1))}"
        + $"{(Row == 0 ? "" : (IsRowFixed ? "$" : "") + Row.ToString(CultureInfo.InvariantCulture))}");

    private static bool Skip(string text, ref int at, char mark)
    {
        var isThere = at < text.Length && text[at] == mark;
        at += isThere ? 1 : 0;
        return isThere;
    }
}

/// <summary>A stretch of cells of a sheet, as formulas name it; one cell where there is no last one.</summary>
internal readonly record struct SheetRange(CellName First, CellName? Last)
{
    /// <summary>Reads <c>A1:B2</c>; nothing where a text is not that.</summary>
    public static SheetRange? Parse(string text)
    {
        var place = 0;
        return Read(text, ref place) is { } range && place == text.Length ? range : null;
    }

    /// <summary>Reads one at a place of a text, and moves behind it; nothing where there is none.</summary>
    public static SheetRange? Read(string text, ref int place)
    {
        var at = place;
        if (CellName.Read(text, ref at) is not { } first)
        {
            return null;
        }

        if (at < text.Length && text[at] == ':')
        {
            var behind = at + 1;
            if (CellName.Read(text, ref behind) is { } last && (first.Row == 0) == (last.Row == 0)
                && (first.Column == 0) == (last.Column == 0))
            {
                place = behind;
                return new SheetRange(first, last);
            }
        }

        if (first.Row == 0 || first.Column == 0)
        {
            return null;
        }

        place = at;
        return new SheetRange(first, null);
    }

    /// <inheritdoc/>
    public override string ToString() => Last is { } last ? $"{First}:{last}" : First.ToString();
}
