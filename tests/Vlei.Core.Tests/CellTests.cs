using CsCheck;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>A cell gives back what it was made of; what is passed over where columns are measured takes no more room.</summary>
public class CellTests
{
    [Fact]
    public void A_cell_gives_back_its_figure_and_its_words() =>
        Gen.Select(Gen.Long.Where(units => units != long.MinValue).Nullable(), Gen.String.Null()).Sample((units, words) =>
        {
            var cell = new Cell(units, words);
            var (figure, text) = cell;
            Assert.Equal((units, words, units, words), (cell.Units, cell.Words, figure, text));
            Assert.Equal(new Cell(units, words), cell);
            Assert.Equal(units is null && words is null, cell == Cell.Empty);
        });

    [Fact]
    public void The_least_number_is_no_figure() => Assert.Throws<OverflowException>(() => new Cell(long.MinValue));

    [Fact]
    public void What_is_not_new_is_not_wider() => OutputTests.GenReport.Sample(report =>
    {
        var (words, seen) = (new ReportWords(report), new SeenFigures(report));
        var (all, measured) = (new int[report.Columns.Count], new int[report.Columns.Count]);
        foreach (var row in report.Rows)
        {
            for (var column = 0; column < all.Length; column++)
            {
                var width = DisplayText.Width(words.Figure(row, column, ascii: false));
                all[column] = Math.Max(all[column], width);
                measured[column] = seen.IsNew(row, column) ? Math.Max(measured[column], width) : measured[column];
            }
        }

        Assert.Equal(all, measured);
    });
}
