using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>How a figure follows from others, as the formula of a cell.</summary>
/// <param name="firstRow">The row of the sheet that the report's first row stands in, from 1.</param>
/// <param name="columns">The column of the sheet that each column of the report stands in, from 0.</param>
/// <param name="notation">How it names cells.</param>
internal sealed class CellFormula(int firstRow, IReadOnlyList<int> columns, FormulaNotation notation)
{
    // A formula has room for so many arguments, and for so many letters.
    private const int MostArguments = 255;
    private const int MostLetters = 8000;

    /// <summary>The formula, without an equals sign; nothing where it would be longer than formulas may be.</summary>
    public string? Of(Working working) => working switch
    {
        Working.Sum sum => Of(sum.Terms),
        Working.Share { IsChange: true } share =>
            UnlessZero(share.Whole, $"({Cell(share.Part)}-{Cell(share.Whole)})/ABS({Cell(share.Whole)})"),
        Working.Share share => UnlessZero(share.Whole, $"{Cell(share.Part)}/{Cell(share.Whole)}"),
        _ => null,
    };

    private string? Of(IReadOnlyList<SumTerm> terms)
    {
        var isPlain = terms.All(term => term.First == term.Last);
        var formula = !isPlain && terms.All(term => term.Sign > 0)
            ? $"SUM({string.Join(notation.Comma, terms.Select(Range))})"
            : string.Concat(terms.Select((term, place) =>
                (term.Sign < 0 ? "-" : place > 0 ? "+" : "") + (term.First == term.Last ? Cell(term.First) : $"SUM({Range(term)})")));
        return terms.Count > MostArguments || formula.Length > MostLetters ? null : formula;
    }

    private string UnlessZero(CellPlace whole, string formula) =>
        $"IF({Cell(whole)}=0{notation.Comma}\"\"{notation.Comma}{formula})";

    private string Range(SumTerm term) => term.First == term.Last ? Cell(term.First)
        : $"{notation.Before}{Name(term.First)}{notation.Between}{Name(term.Last)}{notation.After}";

    private string Cell(CellPlace cell) => $"{notation.Before}{Name(cell)}{notation.After}";

    private string Name(CellPlace cell) => CellText.Name(firstRow + cell.Row, columns[cell.Column]);
}
