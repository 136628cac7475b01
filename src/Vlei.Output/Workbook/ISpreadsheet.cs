
namespace Vlei.Output.Workbook;

/// <summary>A spreadsheet that reports are written into: a sheet after the other, as they come.</summary>
internal interface ISpreadsheet : IDisposable
{
    /// <summary>How its formulas name cells.</summary>
    FormulaNotation Notation { get; }

    /// <summary>Whether it has pictures and charts; where it has none, no room is left for them.</summary>
    bool HasDrawings { get; }

    /// <summary>Writes the next sheet.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="names">Names of cells in it, with the cells.</param>
    /// <param name="drawing">What is drawn on it; nothing where nothing is.</param>
    /// <param name="write">Writes what is in it.</param>
    void AddSheet(string name, IReadOnlyList<(string Name, string Cells)> names, SheetDrawing? drawing, Action<ISheet> write);

    /// <summary>Writes what is left.</summary>
    void Finish();
}

/// <summary>A sheet of it: what stands before the cells, the rows in their order, and what stands after them.</summary>
internal interface ISheet
{
    /// <summary>Writes what stands before the cells: what is frozen, and how wide the columns are.</summary>
    /// <param name="frozen">
    /// How many rows stay in view, the last of which is repeated on every page; the first column stays too where any does.
    /// </param>
    /// <param name="widths">The widths, in letters.</param>
    /// <param name="depth">How deep rows are folded.</param>
    /// <param name="hidden">The columns that readers need not see.</param>
    void Begin(int frozen, IReadOnlyList<int> widths, int depth, IReadOnlySet<int> hidden);

    /// <summary>Writes a row.</summary>
    /// <param name="number">Its number, from 1.</param>
    /// <param name="level">How deep it is folded.</param>
    /// <param name="write">Writes its cells.</param>
    /// <param name="lines">How many lines of text it has room for.</param>
    void Row(int number, int level, Action write, int lines = 1);

    /// <summary>Writes words into a column; whatever they begin with, they stay words.</summary>
    void Words(int column, string words, CellLook look, SheetLink? link = null);

    /// <summary>Writes a number, and how it follows from others where it does.</summary>
    void Number(int column, string value, string? formula, CellLook look, SheetLink? link = null);

    /// <summary>Writes what stands after the cells.</summary>
    void End(SheetPage page);
}

/// <summary>Where a cell leads to.</summary>
/// <param name="Sheet">The sheet.</param>
/// <param name="Cell">The cell of it.</param>
internal readonly record struct SheetLink(string Sheet, string Cell)
{
    /// <summary>Whether it can be spared where a sheet has no room for all of its links.</summary>
    public bool IsFurther { get; init; }
}

/// <summary>How formulas name cells.</summary>
/// <param name="Before">What stands before a cell, or a first and a last one.</param>
/// <param name="Between">What stands between a first and a last one.</param>
/// <param name="After">What stands behind them.</param>
/// <param name="Comma">What stands between what a function is given.</param>
internal sealed record FormulaNotation(string Before, string Between, string After, char Comma)
{
    /// <summary>As a workbook has it (ECMA-376, part 1).</summary>
    public static FormulaNotation Workbook { get; } = new("", ":", "", ',');

    /// <summary>As OpenFormula has it (ISO/IEC 26300, part 2).</summary>
    public static FormulaNotation OpenFormula { get; } = new("[.", ":.", "]", ';');
}
