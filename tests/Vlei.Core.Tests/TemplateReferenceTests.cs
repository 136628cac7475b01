using CsCheck;
using Vlei.Output.Workbook.Template;

namespace Vlei.Core.Tests;

/// <summary>
/// Where cells go when a table gets other rows, against a model that moves whole rows by hand; and that nothing else of a formula
/// changes.
/// </summary>
public class TemplateReferenceTests
{
    private const int First = 5;

    private static readonly string[] Labels =
        ["Income", "Sales", "Hire", "Repairs", "Total income", "Rent", "Fuel", "Total expenses", "Net profit"];

    private static readonly Gen<string[]> GenLabels = Gen.Shuffle(Labels)
        .SelectMany(
            all => Gen.Int[1, all.Length].Select(count => all.Take(count).OrderBy(label => Array.IndexOf(Labels, label)).ToArray()));

    private static readonly Gen<string> GenPiece = Choose.One(
        "A1", "$B$7", "C$9", "$D10", "B6:B12", "$B$6:$B$12", "A:A", "7:9", "'Other sheet'!B7", "Sheet2!B7:C9", "SUM(", "IF(", ")",
        "\"B7 \"\"B8\"\"\"", "LOG10(", "name_B7", "B7x", "1E5", "7", "Table1[B7]",
        "Table1[[#All],[B7]]", "[2]Far!B7", "'[Far.xlsx]Near'!B7", "TRUE", "#REF!", "B7%", "&", "+", "-", "*", " ", ",", "<>",
        "{1,2;3,4}", "XFE7", "B1048577", "AAAA7", "B7(", "_xlfn.B7", "Häuser!B7");

    [Fact]
    public void A_formula_whose_places_stay_stays_to_the_letter() => GenPiece.Array[0, 12].Sample(pieces =>
    {
        var formula = string.Concat(pieces);
        Assert.Equal(formula, FormulaText.With(formula, (_, range) => range));
        Assert.Equal(formula, FormulaText.Moved(formula, 0, 0));
    });

    [Fact]
    public void Places_that_are_not_fixed_go_along_and_come_back() =>
        Gen.Select(GenPiece.Array[0, 8], Gen.Int[0, 9], Gen.Int[0, 5]).Sample((pieces, rows, columns) =>
    {
        var formula = string.Concat(pieces);
        Assert.Equal(formula, FormulaText.Moved(FormulaText.Moved(formula, rows, columns), -rows, -columns));
    });

    [Theory]
    [InlineData("SUM(B6:B9)*$C$7", "SUM(B8:B11)*$C$9")]
    [InlineData("'Profit and loss'!B6+Other!B6", "'Profit and loss'!B8+Other!B6")]
    [InlineData("\"B6\"&B6", "\"B6\"&B8")]
    [InlineData("B2", "0")]
    public void Only_the_places_of_the_sheet_that_is_meant_are_others(string formula, string expected) =>
        Assert.Equal(expected, FormulaText.With(formula, (sheet, range) =>
        sheet is not (null or "Profit and loss") ? range : range.First.Row < 3 ? null
            : new SheetRange(
                range.First with { Row = range.First.Row + 2 }, range.Last is { } last ? last with { Row = last.Row + 2 } : null)));

    [Fact]
    public void A_cell_goes_where_its_row_goes_and_what_is_below_as_far_as_the_table_grows() =>
        Gen.Select(GenLabels, GenLabels, Gen.Int[1, 30]).Sample((old, @new, row) =>
    {
        var shift = Shift(old, @new);
        var expected = row <= First ? row : row > First + old.Length ? row + @new.Length - old.Length
            : Array.IndexOf(@new, old[row - First - 1]) is >= 0 and var place ? First + 1 + place : (int?)null;
        Assert.Equal(expected, shift.RowOf(row));
        Assert.Equal(expected is null ? null : new SheetRange(Cell(expected.Value), null), shift.Of(new SheetRange(Cell(row), null)));
    });

    [Fact]
    public void A_stretch_takes_all_of_its_rows_that_are_left_and_those_that_came_between_but_none_that_stood_outside() =>
        Gen.Select(GenLabels, GenLabels, Gen.Int[1, 25], Gen.Int[0, 12]).Sample((old, @new, from, length) =>
    {
        var shift = Shift(old, @new);
        var stretch = new SheetRange(Cell(from), Cell(from + length));
        var moved = shift.Of(stretch);
        var inside = Enumerable.Range(from, length + 1).Select(shift.RowOf).OfType<int>().ToList();
        var outside = Enumerable.Range(1, 40).Where(row => row < from || row > from + length).Select(shift.RowOf).OfType<int>().ToList();
        if (moved is null)
        {
            Assert.Empty(inside);
            return;
        }

        var (first, last) = (moved.Value.First.Row, moved.Value.Last!.Value.Row);
        Assert.All(inside, row => Assert.InRange(row, first, last));
        Assert.DoesNotContain(outside, row => row >= first && row <= last);

        // All of the table stays all of it.
        Assert.Equal(First + @new.Length, shift.Of(new SheetRange(Cell(First + 1), Cell(First + old.Length)))!.Value.Last!.Value.Row);
    });

    [Fact]
    public void What_is_written_reads_back() =>
        Gen.Select(Gen.Int[1, 1_048_576], Gen.Int[1, 16_384], Gen.Bool, Gen.Bool).Sample((row, column, isRowFixed, isColumnFixed) =>
    {
        var cell = new CellName(row, column, isRowFixed, isColumnFixed);
        Assert.Equal(new SheetRange(cell, null), SheetRange.Parse(cell.ToString()));
        Assert.Equal(new SheetRange(cell, cell), SheetRange.Parse($"{cell}:{cell}"));
        Assert.Null(SheetRange.Parse($"{cell}!"));
    });

    private static CellName Cell(int row) => new(row, 2, false, false);

    private static TableShift Shift(string[] old, string[] @new) => new(
        new SheetRange(new CellName(First, 1, true, true), new CellName(First + old.Length, 3, true, true)), old,
        ["May 2026", "May 2025"], @new, ["June 2026", "June 2025"]);
}
