using System.Text;
using CsCheck;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>A report on a screen: what stands there is what the report says, however long it is.</summary>
public sealed class ScreenTableTests
{
    [Fact]
    public void What_stands_in_its_cells_is_what_text_shows_and_fits_its_columns() =>
        Gen.Select(OutputTests.GenReport, Gen.Bool).Sample((report, ascii) =>
    {
        var table = new ScreenTable(report, ascii);
        var words = new ReportWords(report);
        Assert.Equal(words.ShownColumns(), table.Columns);
        Assert.Equal(DisplayText.Harmless(report.Title, ascii), table.Title);
        for (var place = 0; place < report.Rows.Count; place++)
        {
            var row = table.RowAt(place);
            table.Measure(row);
            Assert.Equal(words.Report.Rows[place].Key, row.Key);
            Assert.True(DisplayText.Width(table.LabelOf(row)) <= table.LabelWidth);
            Assert.StartsWith(new string(' ', 2 * row.Level), table.LabelOf(row));
            foreach (var column in table.Columns)
            {
                var shown = table.FigureOf(row, column);
                Assert.Equal(words.Figure(row, column, ascii), shown);
                Assert.True(table.IsText(column) || DisplayText.Width(shown) <= table.WidthOf(column), shown);
                Assert.True(!ascii || shown.All(char.IsAscii), shown);
            }
        }

        Assert.All(table.Failed.Concat(table.Head).Append(table.Book), line => Assert.DoesNotContain(line, char.IsControl));
    });

    [Fact]
    public void Of_a_long_list_the_first_rows_alone_are_kept()
    {
        const int Long = 200_000;
        var made = 0;
        var rows = new RowList(Long, place =>
        {
            made++;
            return new ReportRow($"r{place}", $"Row {place}", RowKind.Record, 0, [new Cell(place)]);
        });
        var report = OutputTests.GenReport.Single() with
        {
            Columns = [ReportColumn.Sum("amount", "Amount")],
            Rows = rows,
            Checks = [],
            Look = new ReportLook(),
        };
        var table = new ScreenTable(report, ascii: false);
        Assert.Equal(Long, made);
        Assert.Equal("r5", table.RowAt(5).Key);
        Assert.Equal(Long, made);
        Assert.Equal($"r{Long - 1}", table.RowAt(Long - 1).Key);
        Assert.Equal(Long + 1, made);
        var before = table.WidthOf(0);
        table.Measure(table.RowAt(Long - 1));
        Assert.True(table.WidthOf(0) > before);
    }

    [Fact]
    public void A_text_is_cut_to_a_width_and_says_so() =>
        Gen.Select(Gen.String[Gen.Char["ab é日本\u0301😀"], 0, 30], Gen.Int[2, 40]).Sample((text, width) =>
    {
        var cut = DisplayText.Cut(text, width);
        Assert.True(DisplayText.Width(cut) <= Math.Max(width, 3), $"{cut}: {DisplayText.Width(cut)} on {width}");
        Assert.True(cut == text || (cut.EndsWith('…') && text.StartsWith(cut[..^1], StringComparison.Ordinal)));
        Assert.Equal(DisplayText.Width(text) <= width, cut == text);
    });

    [Fact]
    public void A_text_stays_as_it_is_but_for_what_could_steer_a_terminal_or_cannot_be_shown() =>
        Gen.Select(Gen.String[Gen.Char["ab é–─日\u0301\u001b\n\u202e\u2028\ud83d"], 0, 20], Gen.Bool).Sample((text, ascii) =>
    {
        var (shown, runes) = (DisplayText.Harmless(text, ascii).EnumerateRunes().ToList(), text.EnumerateRunes().ToList());
        Assert.Equal(runes.Count, shown.Count);
        Assert.All(runes.Zip(shown), pair => Assert.Equal(
            "\u001b\n\u202e\u2028".Contains(pair.First.ToString(), StringComparison.Ordinal) ? new Rune(' ')
                : ascii && !pair.First.IsAscii ? new Rune('?') : pair.First,
            pair.Second));
    });
}
