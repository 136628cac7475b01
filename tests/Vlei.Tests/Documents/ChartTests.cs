using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>Charts: what they show is what the report says, in every form that they have.</summary>
public sealed partial class ChartTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("profit-loss --period last-12-months --by month", "line", 4, 12)]
    [InlineData("profit-loss --period last-3-months --by month", "bar", 4, 3)]
    [InlineData("profit-loss --period 2026-05 --compare prior-year --change", "bar", 2, 4)]
    [InlineData("receivables-aging --as-of 2026-05-31", "bar", 5, 15)]
    [InlineData("sales-by-customer --period 2026", "bar", 1, 15)]
    [InlineData("profit-loss --period 2026-05 --chart share", "pie", 1, 4)]
    [InlineData("cash-flow --period fy2026 --by quarter --chart stacked:total-operating,total-investing", "bar", 2, 5)]
    public void A_workbook_draws_it_from_its_cells_and_what_it_remembers_is_what_they_hold(
        string options, string kind, int series, int categories)
    {
        string[] chart = options.Contains("--chart") ? [] : ["--chart"];
        _tool.Run(
            ["show", .. options.Split(' '), .. chart, "--book", "reedwater", "--to", "c.xlsx", "--to", "c.svg", "--to", "c.png", "--to",
                "c.pdf", "--to", "c.html"]).Done();
        using var workbook = new WorkbookFile(_tool.PathOf("c.xlsx"));
        Assert.Empty(workbook.Faults);
        var cells = workbook.Cells(workbook.Sheets[0]);
        var drawn = workbook.Chart;
        Assert.NotNull(drawn.Descendants().FirstOrDefault(element => element.LocalName == $"{kind}Chart"));
        var drawnSeries = drawn.Descendants().Where(element => element.LocalName == "ser").ToList();
        Assert.Equal(series, drawnSeries.Count);
        foreach (var reference in drawn.Descendants().Where(element => element.LocalName is "numRef" or "strRef"))
        {
            var names = Cells(reference.ChildElements.Single(child => child.LocalName == "f").InnerText);
            var remembered = reference.Descendants().Where(element => element.LocalName == "pt")
                .ToDictionary(
                    point => int.Parse(point.GetAttribute("idx", "").Value!, CultureInfo.InvariantCulture), point => point.InnerText);
            Assert.All(Enumerable.Range(0, names.Count), place => Assert.Equal(
                cells.GetValueOrDefault(names[place]) is { } cell ? cell.Words
                    ?? cell.Number?.ToString("R", CultureInfo.InvariantCulture) : null,
                remembered.GetValueOrDefault(place) is { } text && reference.LocalName == "numRef"
                    ? double.Parse(text, CultureInfo.InvariantCulture).ToString("R", CultureInfo.InvariantCulture)
                    : remembered.GetValueOrDefault(place)));
        }

        Assert.All(
            drawnSeries, one => Assert.Equal(
                categories,
                Cells(
                    one.Descendants().Single(element => element.LocalName == "val").Descendants()
                        .Single(element => element.LocalName == "f").InnerText).Count));

        // The picture has all names, and a page has it inside.
        var svg = File.ReadAllText(_tool.PathOf("c.svg"));
        var first = Cells(
            drawnSeries[0].Descendants().Single(element => element.LocalName == "cat").Descendants()
                .Single(element => element.LocalName == "f").InnerText)[0];
        Assert.Contains(cells[first].Words!, svg);
        Assert.Matches("<svg[^>]* viewBox=\"0 0 960 \\d+\"", svg);
        Assert.Contains("<svg", File.ReadAllText(_tool.PathOf("c.html")));
        Assert.Equal([0x89, (byte)'P', (byte)'N', (byte)'G'], File.ReadAllBytes(_tool.PathOf("c.png"))[..4]);
        Assert.Contains(" image ", Shell.Run(_tool.Folder, "pdfimages", "-list", "c.pdf"));
    }

    [Fact]
    public void Colours_are_told_apart_in_grey_and_by_the_colour_blind_and_bars_stand_on_both_sides_of_nought()
    {
        _tool.Run(
            "show", "cash-flow", "--period", "fy2026", "--by", "quarter", "--chart",
            "bars:total-operating,total-financing,change-in-money", "--book", "reedwater", "--to", "c.svg").Done();
        var bars = Rectangle().Matches(File.ReadAllText(_tool.PathOf("c.svg")))
            .Select(match => (Fill: match.Groups[1].Value, match.Value)).ToList();
        var fills = bars.Select(bar => bar.Fill).Where(fill => fill is "#0072B2" or "#E69F00" or "#009E73").Distinct().ToList();
        Assert.Equal(3, fills.Count);
    }

    [Fact]
    public void A_terminal_draws_lines_and_bars_beside_the_figures()
    {
        var lines = _tool.Run(
            "show", "profit-loss", "--period", "2026-01/2026-03", "--by", "month", "--depth", "0", "--chart", "--book", "reedwater")
                .Done().Output;
        Assert.Matches(@"\nNet profit +168,341\.27 +252,266\.38 +68,980\.79 +489,588\.44  ▆█▃\n", lines);
        var bars = _tool.Run(
            [("LC_ALL", "C")], "show", "profit-loss", "--period", "2025-06", "--depth", "0", "--chart", "--book", "reedwater")
                .Done().Output;
        Assert.Matches(@"\nTotal income +282,812\.30  +\|#+\n", bars);
        Assert.Matches(@"\nNet profit +-\d[\d,.]+  +#+\|\n", bars);
    }

    [Fact]
    public void A_kept_chart_without_figures_in_a_month_does_not_keep_its_group_from_being_made()
    {
        _tool.Run("save", "drawn", "--from", "sales-by-customer", "--period", "last-month", "--chart", "bars", "--book", "reedwater")
            .Done();
        _tool.Run("group", "pack", "--add", "drawn", "--book", "reedwater").Done();
        _tool.Run("run", "pack", "--period", "2026-05", "--format", "text,html,pdf,xlsx,md", "--book", "reedwater").Done();
        Assert.Contains("<svg", File.ReadAllText(_tool.PathOf("reedwater/out/pack/2026-05/drawn.html")));
        Assert.Contains("█", File.ReadAllText(_tool.PathOf("reedwater/out/pack/2026-05/drawn.txt")));
        _tool.Run("run", "pack", "--period", "2019-05", "--format", "text,html,pdf,xlsx,md", "--book", "reedwater").Done();
        Assert.Contains(
            "No chart: Sales by customer has no rows with figures to draw.",
            File.ReadAllText(_tool.PathOf("reedwater/out/pack/2019-05/drawn.html")));
        Assert.Contains("No chart: ", File.ReadAllText(_tool.PathOf("reedwater/out/pack/2019-05/drawn.txt")));
    }

    [Theory]
    [InlineData(2, "has no figures to draw", "projects", "--to", "x.png")]
    [InlineData(2, "has figures below zero, which are no share of a whole.", "profit-loss", "--period", "2025-06", "--chart",
        "share:total-income,net-profit", "--to", "x.png")]
    [InlineData(2, "--chart does not take \"bar\".", "profit-loss", "--chart", "bar")]
    [InlineData(66, "--chart: the report has no row Net proft.", "profit-loss", "--chart", "bars:Net proft", "--to", "x.svg")]
    [InlineData(2, "--chart is for text, html, pdf, xlsx, svg and png, and nothing of that kind is written.", "profit-loss", "--chart",
        "--format", "csv")]
    [InlineData(2, "--with-detail is for html, pdf, xlsx and ods", "profit-loss", "--with-detail")]
    [InlineData(2, "--chart none leaves nothing of a picture.", "profit-loss", "--chart", "none", "--to", "x.svg")]
    [InlineData(2, "--chart adds none to a template: the charts in it are yours.", "profit-loss", "--chart", "--template", "none.xlsx",
        "--to", "x.xlsx")]
    public void What_cannot_be_drawn_is_refused(int status, string message, params string[] arguments)
    {
        var refused = _tool.Run(["show", .. arguments, "--book", "reedwater"]);
        Assert.Equal(status, refused.Status);
        Assert.Contains(message, refused.Messages);
        Assert.Empty(Directory.EnumerateFiles(_tool.Folder, "x.*"));
    }

    public void Dispose() => _tool.Dispose();

    // The cells of a reference: one stretch, or several in brackets.
    private static List<string> Cells(string reference)
    {
        var names = new List<string>();
        foreach (Match match in Stretch().Matches(reference))
        {
            var (column, row) = (Number(match.Groups[1].Value), int.Parse(match.Groups[2].Value, CultureInfo.InvariantCulture));
            var (lastColumn, lastRow) = match.Groups[3].Success
                ? (Number(match.Groups[3].Value), int.Parse(match.Groups[4].Value, CultureInfo.InvariantCulture)) : (column, row);
            for (var across = column; across <= lastColumn; across++)
            {
                for (var down = row; down <= lastRow; down++)
                {
                    names.Add(
                        $"{(across > 26 ? $"{(char)('A' + ((across - 1) / 26) - 1)}" : "")}{(char)('A' + ((across - 1) % 26))}{down}");
                }
            }
        }

        return names;

        static int Number(string letters) => letters.Aggregate(0, (number, letter) => (number * 26) + letter - 'A' + 1);
    }

    [GeneratedRegex(@"!\$([A-Z]+)\$(\d+)(?::\$([A-Z]+)\$(\d+))?")]
    private static partial Regex Stretch();

    [GeneratedRegex("<(?:rect|path)[^>]*fill=\"(#[0-9A-Fa-f]{6})\"[^>]*>")]
    private static partial Regex Rectangle();
}
