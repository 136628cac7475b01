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

    [Fact]
    public void What_was_written_out_before_is_what_would_be_written_out_again() =>
        Gen.Select(OutputTests.GenReport, Gen.Int[0, 1_000_000].Array[0, 60], Gen.Bool).Sample((report, order, ascii) =>
    {
        var words = new ReportWords(report);
        var (cells, seen) = (new CellTexts(words, ascii), new HashSet<(int, string)>());
        foreach (var row in order.Where(_ => report.Rows.Count > 0).Select(place => report.Rows[place % report.Rows.Count]))
        {
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var figure = words.Figure(row, column, ascii);
                Assert.Equal((figure, DisplayText.Width(figure)), cells.Of(row, column, out var isKnown));
                Assert.False(seen.Add((column, figure)) && isKnown);
            }
        }
    });
}
