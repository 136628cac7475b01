using CsCheck;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>Where columns stand on lines of any width.</summary>
public sealed class TextColumnsTests
{
    private static readonly Gen<TextColumn> Column =
        from least in Gen.Int[3, 20]
        from more in Gen.Int[0, 12]
        from isText in Gen.Bool
        from tie in Gen.Int[0, 2]
        select new TextColumn(least + more, least, isText, (ColumnTie)tie);

    private static readonly Gen<(int Label, int Word, TextColumn[] Columns, int Width)> Tables =
        from label in Gen.Int[1, 50]
        from word in Gen.Int[1, 20]
        from columns in Column.Array[1, 14]
        from width in Gen.Int[40, 160]
        select (label, Math.Min(label, word), columns, width);

    [Fact]
    public void Every_column_is_shown_none_is_cut_and_what_belongs_together_stays_together() => Tables.Sample(table =>
    {
        var (label, word, columns, width) = table;
        var placed = new TextColumns(label, word, columns, width);
        int Needed(IEnumerable<int> block) => placed.LabelWidth + block.Sum(place => placed.Widths[place] + TextColumns.Gap);
        Assert.Equal(Enumerable.Range(0, columns.Length), placed.Blocks.SelectMany(block => block).Distinct().Order());
        Assert.All(
            columns.Index(),
            column => Assert.InRange(placed.Widths[column.Index], Math.Min(column.Item.Width, column.Item.Least), 200));
        for (var number = 0; number < placed.Blocks.Count; number++)
        {
            var block = placed.Blocks[number];
            Assert.True(Needed(block) <= width || block.Length == 1, $"{Needed(block)} on {width}");

            // What is said about a figure stands in a block without it only where both do not fit.
            foreach (var remark in block.Where(place => place > 0 && columns[place].Tie == ColumnTie.About))
            {
                var about = Enumerable.Range(0, remark).Last(place => place == 0 || columns[place].Tie != ColumnTie.About);
                Assert.True(block.Contains(about) || Needed([about, remark]) > width, $"column {remark} without {about}");
            }

            // What is compared with a figure stands beside it, where it can.
            foreach (var compared in block.Where(place => place > 0 && columns[place].Tie == ColumnTie.Compared))
            {
                var own = Enumerable.Range(0, compared).Last(place => place == 0 || columns[place].Tie == ColumnTie.None);
                Assert.True(block.Contains(own) || Needed([own, compared]) > width
                    || Needed([own, .. PackAt(columns, compared)]) > width, $"column {compared} without {own}");
            }
        }

        // As few blocks as a reader can have: one, where words can give way.
        var least = Math.Max(word, Math.Max(16, label / 2));
        Assert.True(
            placed.Blocks.Count == 1 || Math.Min(label, least) + columns.Sum(column => Math.Min(column.Width, column.Least) + 2) > width);
    });

    private static IEnumerable<int> PackAt(TextColumn[] columns, int first) =>
        Enumerable.Range(first, columns.Length - first).TakeWhile(place => place == first || columns[place].Tie == ColumnTie.About);
}
