using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using CsCheck;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>
/// Random reports, with words that could be taken for something else, as documents: what is in the report is in them, exactly.
/// </summary>
public partial class DocumentTests
{
    private static readonly XNamespace Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

    private static readonly Gen<ReportLook> GenLook =
        from negatives in Gen.Enum<NegativeStyle>()
        from thousands in Choose.One(null, ",", "", "'")
        from scale in Choose.One(0, 0, 3)
        from decimals in Choose.One<int?>(null, null, 1)
        from accent in Choose.One<int?>(null, 0x1F5F8B)
        from size in Choose.One<double?>(null, 7.5, 20)
        from turn in Choose.One<PaperTurn?>(null, PaperTurn.Landscape, PaperTurn.Portrait)
        from words in Choose.One(null, "A <b> & \"c\"")
        select new ReportLook
        {
            Negatives = negatives, Thousands = thousands, ScaleDigits = scale, Decimals = decimals, Accent = accent, FontSize = size,
            Turn = turn, Subtitle = words, Footer = words,
            Widths = new Dictionary<string, int> { ["k1"] = 12 },
            Aligns = new Dictionary<string, ColumnAlign> { ["k0"] = ColumnAlign.Center },
        };

    [Fact]
    public void A_web_page_is_whole_markup_and_has_every_figure_exactly() =>
        Gen.Select(OutputTests.GenReport, GenLook).Sample((report, look) =>
    {
        var page = Written(report with { Look = look }, "html");
        var body =
            page[page.IndexOf("<main>", StringComparison.Ordinal)..(page.IndexOf("</main>", StringComparison.Ordinal) + "</main>".Length)];
        var read = XElement.Parse(body.Replace("&emsp;", " ", StringComparison.Ordinal));
        var rows = read.Descendants("tr").Skip(report.Rows.Count == 0 ? 0 : 1).ToList();
        Assert.Equal(report.Rows.Count, rows.Count);
        var columns = report.Rows.Count == 0 ? [] : read.Descendants("th").Where(cell => (string?)cell.Attribute("scope") == "col")
            .Select(cell => cell.Value).ToList();
        foreach (var (row, line) in report.Rows.Zip(rows))
        {
            Assert.Equal(Flat(row.Label), line.Element("th")!.Value.Trim());
            Assert.Equal(columns.Count, line.Elements("td").Count());
            Assert.Equal(
                Shown(report).Where(column => row.Cells[column].Units is not null).Select(column => OutputTests.Exact(report, row, column)),
                line.Elements("td").Zip(Shown(report)).Where(cell => row.Cells[cell.Second].Units is not null).Select(cell =>
                    (string?)cell.First.Element("data")?.Attribute("value") ?? string.Concat(cell.First.Nodes().OfType<XText>())));
        }
    });

    [Fact]
    public void A_workbook_is_well_formed_and_has_every_figure_and_every_word_as_they_are() =>
        Gen.Select(OutputTests.GenReport, GenLook).Sample((report, look) =>
    {
        var sheet = SheetOf(report with { Look = look });
        var cells = sheet.Descendants(Main + "c").ToDictionary(cell => (string)cell.Attribute("r")!);
        var first = sheet.Descendants(Main + "pane").Select(
            pane => int.Parse((string)pane.Attribute("ySplit")!, CultureInfo.InvariantCulture)).Single() + 1;
        for (var row = 0; row < report.Rows.Count; row++)
        {
            Assert.Equal(report.Rows[row].Label, Words(cells[$"A{first + row}"]));
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var name = $"{(char)('B' + column)}{first + row}";
                var exact = OutputTests.Exact(report, report.Rows[row], column);
                if (report.Rows[row].Cells[column].Units is null)
                {
                    Assert.Equal(exact, cells.TryGetValue(name, out var words) ? Words(words) : "");
                    continue;
                }

                var number = decimal.Parse(cells[name].Element(Main + "v")!.Value, NumberStyles.Float, CultureInfo.InvariantCulture);
                Assert.Equal(exact, report.Columns[column].Kind switch
                {
                    ColumnKind.Date => DateTime.FromOADate((double)number).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    ColumnKind.Percent => (number * 100).ToString("F4", CultureInfo.InvariantCulture),
                    ColumnKind.Quantity => number.ToString("0.######", CultureInfo.InvariantCulture),
                    _ => cells[name].Element(Main + "v")!.Value,
                });
            }
        }

        // No formula but ours, and none begins as text.
        Assert.All(sheet.Descendants(Main + "f"), formula => Assert.Matches(@"^(SUM\(|-?[A-Z]+\d+|IF\()", formula.Value));
        Assert.DoesNotContain(sheet.Descendants(Main + "c"), cell => (string?)cell.Attribute("t") == "str");
    });

    [Fact]
    public void A_pdf_is_the_same_for_the_same_report_and_takes_any_words_at_any_size() =>
        Gen.Select(OutputTests.GenReport, GenLook).Sample((report, look) =>
    {
        var one = Bytes(report with { Look = look }, "pdf");
        Assert.Equal(one, Bytes(report with { Look = look }, "pdf"));
        Assert.Equal("%PDF-1.7"u8, one.AsSpan(0, 8));
        Assert.Contains("%%EOF", Encoding.Latin1.GetString(one.AsSpan(one.Length - 16)));
    }, iter: 30);

    [Fact]
    public void What_a_figure_follows_from_comes_to_it_in_every_random_report() => OutputTests.GenReport.Sample(report =>
    {
        var workings = ReportWorkings.Of(report);
        for (var row = 0; row < report.Rows.Count; row++)
        {
            workings.Take(report.Rows[row], row);
            for (var column = 0; column < report.Columns.Count; column++)
            {
                if (workings.Of(report.Rows[row], row, column) is Working.Sum sum)
                {
                    Assert.Equal((Int128)report.Rows[row].Cells[column].Units!.Value, Sum(report, sum));
                }
            }
        }
    });

    [Fact]
    public void A_chart_shows_figures_that_there_are_each_once_and_no_more_than_can_be_told_apart() =>
        OutputTests.GenReport.Sample(report =>
    {
        if (ReportChart.Of(report, out var refusal) is not { } chart)
        {
            Assert.Matches("no (figures|rows)", refusal!.Message);
            return;
        }

        Assert.NotEqual(ChartKind.Auto, chart.Kind);
        Assert.InRange(chart.IsOfTime ? chart.Series.Count : chart.Categories.Count, 1, 15);
        var cells = chart.Series.SelectMany(series => series.Cells).ToList();
        Assert.Equal(cells.Count, cells.Distinct().Count());
        Assert.All(chart.Series, series => Assert.Equal(chart.Categories.Count, series.Cells.Count));
        Assert.All(cells, cell => Assert.Equal(chart.Figures, report.Columns[cell.Column].Kind));
        Assert.All(cells, cell => Assert.NotEqual(RowKind.Heading, report.Rows[cell.Row].Kind));

        // Beside the figures of a terminal it is one column more, and changes none of the others.
        var text = Encoding.UTF8.GetString(
            Bytes(report with { Look = new ReportLook { Chart = new ChartText(ChartKind.Auto, []) } }, "text"));
        var plain = Encoding.UTF8.GetString(Bytes(report, "text")).Split('\n');
        Assert.Equal(plain.Length, text.Split('\n').Length);
        Assert.All(plain.Zip(text.Split('\n')), lines => Assert.StartsWith(lines.First.TrimEnd(), lines.Second));
    });

    private static Int128 Sum(Report report, Working.Sum sum)
    {
        Int128 total = 0;
        foreach (var term in sum.Terms)
        {
            for (var row = term.First.Row; row <= term.Last.Row; row++)
            {
                for (var column = term.First.Column; column <= term.Last.Column; column++)
                {
                    total += term.Sign * (Int128)(report.Rows[row].Cells[column].Units ?? 0);
                }
            }
        }

        return total;
    }

    private static IEnumerable<int> Shown(Report report) => Enumerable.Range(0, report.Columns.Count).Where(column =>
        report.Columns[column].Kind != ColumnKind.Text
            || report.Rows.Any(row => row.Cells[column].Words is { } words && words != row.Label));

    // XML reads line ends and blanks as it likes; control characters are shown as blanks.
    private static string Flat(string text) => string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter)).Trim();

    private static string Words(XElement cell) =>
        Control()
            .Replace(
                string.Concat(cell.Descendants(Main + "t").Select(text => text.Value)),
                match => $"{(char)Convert.ToInt32(match.Groups[1].Value, 16)}");

    private static XDocument SheetOf(Report report)
    {
        using var archive = new ZipArchive(new MemoryStream(Bytes(report, "xlsx")));
        foreach (var entry in archive.Entries)
        {
            using var part = entry.Open();
            _ = XDocument.Load(part);
        }

        using var sheet = archive.GetEntry("xl/worksheets/sheet1.xml")!.Open();
        return XDocument.Load(sheet, LoadOptions.PreserveWhitespace);
    }

    private static string Written(Report report, string format) => Encoding.UTF8.GetString(Bytes(report, format));

    private static byte[] Bytes(Report report, string format)
    {
        using var stream = new MemoryStream();
        ReportFormat.All.Single(known => known.Name == format).Write(report, stream, new Surface(null, false, false));
        return stream.ToArray();
    }

    [GeneratedRegex("_x([0-9A-F]{4})_")]
    private static partial Regex Control();
}
