using CsCheck;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>A cell gives back what it was made of; what is kept of rows as text is what would be written out again.</summary>
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
    public void What_was_written_out_before_is_what_would_be_written_out_again() =>
        Gen.Select(OutputTests.GenReport, Gen.Int[0, 1_000_000].Array[0, 60], Gen.Bool).Sample((report, order, ascii) =>
    {
        var words = new ReportWords(report);
        var (cells, seen) = (new CellTexts(words, ascii), new HashSet<(int, string)>());
        foreach (var row in order.Where(_ => report.Rows.Count > 0).Select(place => report.Rows[place % report.Rows.Count]))
        {
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var (figure, cell) = (words.Figure(row, column, ascii), cells.Of(row, column, out _));
                Assert.Equal((figure, DisplayText.Width(figure), row.Cells[column].Units < 0), (cell.Text, cell.Width, cell.IsBelow));
                Assert.True(cell.IsNew || seen.Contains((column, figure)));
                seen.Add((column, figure));
            }
        }
    });

    [Fact]
    public void Rows_are_the_same_when_they_are_gone_through_again_however_much_of_them_is_kept() =>
        Gen.Select(OutputTests.GenReport, Gen.Int[0, 2000], Gen.Bool).Sample((report, most, ascii) =>
        {
            static object Copy(TextRow row) => (row.Look, row.Label with { IsNew = false }, string.Join('|', row.Cells.Select(
                cell => cell with { IsNew = false })));

            var (words, rows) = (new ReportWords(report), new TextRows(new ReportWords(report), ascii, most));
            var measured = rows.Measured().Select(row => (row.Row, Text: Copy(row.Text))).ToList();
            Assert.Equal(words.Report.Rows, measured.Select(row => row.Row));
            Assert.Equal(measured.Select(row => row.Text), rows.All().Select(Copy));
            Assert.Equal(measured.Select(row => row.Text), rows.All().Select(Copy));
        });
}
