using System.Text;

namespace Vlei.Output.Workbook.Template;

/// <summary>Rewrites the places that a formula names, and nothing else of it (ECMA-376, part 1, 18.17).</summary>
internal static class FormulaText
{
    /// <summary>
    /// The formula with other places. What no longer is a place is written as the number nought: of what is not there, there
    /// is none.
    /// </summary>
    /// <param name="formula">The formula.</param>
    /// <param name="placeOf">
    /// Where a stretch goes, by the sheet that it is said to be on (nothing where none is said); nothing where it is gone.
    /// </param>
    public static string With(string formula, Func<string?, SheetRange, SheetRange?> placeOf)
    {
        var written = new StringBuilder(formula.Length + 8);
        for (var place = 0; place < formula.Length;)
        {
            var letter = formula[place];
            if (letter == '"')
            {
                Copy(EndOfQuoted(formula, place));
            }
            else if (letter is '\'' || IsOfName(letter) || letter == '$')
            {
                place = AddNamed(formula, place, written, placeOf);
            }
            else if (letter == '[')
            {
                // The parts of a table are named in brackets, which may hold others; so are other workbooks, whose cells stay.
                var end = EndOfName(formula, EndOfBrackets(formula, place));
                Copy(end < formula.Length && formula[end] == '!' ? EndOfName(formula, end + 1) : EndOfBrackets(formula, place));
            }
            else
            {
                Copy(place + 1);
            }

            void Copy(int end)
            {
                written.Append(formula, place, end - place);
                place = end;
            }
        }

        return written.ToString();
    }

    /// <summary>The formula as it is in another cell: places that are not fixed go along.</summary>
    public static string Moved(string formula, int rows, int columns) =>
        With(
            formula, (_, range) => new SheetRange(
                Moved(range.First, rows, columns), range.Last is { } last ? Moved(last, rows, columns) : null) is var moved
        && IsOnSheet(moved.First) && (moved.Last is null || IsOnSheet(moved.Last.Value)) ? moved : null);

    private static bool IsOnSheet(CellName cell) => cell.Row >= 0 && cell.Column >= 0;

    // A sheet's name, a place, a function, a name: what it is shows in what follows it.
    private static int AddNamed(string formula, int place, StringBuilder written, Func<string?, SheetRange, SheetRange?> placeOf)
    {
        var (start, sheet) = (place, (string?)null);
        var end = formula[place] == '\'' ? EndOfQuoted(formula, place) : EndOfName(formula, place);
        if (end < formula.Length && formula[end] == '!')
        {
            sheet = formula[place] == '\'' ? formula[(place + 1)..(end - 1)].Replace("''", "'", StringComparison.Ordinal)
                : formula[place..end];
            place = end + 1;
        }

        var at = place;
        if (at < formula.Length && SheetRange.Read(formula, ref at) is { } range
            && (at == formula.Length || !(IsOfName(formula[at]) || formula[at] is '(' or '!' or '[')))
        {
            written.Append(placeOf(sheet, range) is { } other ? $"{formula[start..place]}{other}" : "0");
            return at;
        }

        end = sheet is null ? Math.Max(end, start + 1) : place < formula.Length ? Math.Max(EndOfName(formula, place), place) : place;
        written.Append(formula, start, end - start);
        return end;
    }

    private static CellName Moved(CellName cell, int rows, int columns) => cell with
    {
        Row = cell.IsRowFixed || cell.Row == 0 ? cell.Row : cell.Row + rows is > 0 and var row ? row : -1,
        Column = cell.IsColumnFixed || cell.Column == 0 ? cell.Column : cell.Column + columns is > 0 and var column ? column : -1,
    };

    private static bool IsOfName(char letter) => char.IsLetterOrDigit(letter) || letter is '_' or '.' or '\\';

    private static int EndOfName(string formula, int place)
    {
        while (place < formula.Length && (IsOfName(formula[place]) || formula[place] == '$'))
        {
            place++;
        }

        return place;
    }

    private static int EndOfQuoted(string formula, int place)
    {
        var quote = formula[place];
        for (place++; place < formula.Length; place++)
        {
            if (formula[place] == quote)
            {
                if (place + 1 >= formula.Length || formula[place + 1] != quote)
                {
                    return place + 1;
                }

                place++;
            }
        }

        return place;
    }

    private static int EndOfBrackets(string formula, int place)
    {
        var depth = 0;
        for (; place < formula.Length; place++)
        {
            depth += formula[place] switch { '[' => 1, ']' => -1, _ => 0 };
            if (depth == 0)
            {
                return place + 1;
            }
        }

        return place;
    }
}
