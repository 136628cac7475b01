using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>What other programs show of a document is what the terminal shows: the same numbers in the same places.</summary>
public sealed partial class ShownTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Theory]
    [InlineData("profit-loss --period 2025-06 --compare prior-year --change --share income")]
    [InlineData("profit-loss --period 2025-06 --compare prior-year --change --negatives brackets --scale thousands")]
    [InlineData("profit-loss --period 2025-06 --depth 0 --negatives trailing-minus --thousands none --decimals 0")]
    [InlineData("documents --period 2026-05-28/2026-05-31 --dates dd/MM/yyyy")]
    [InlineData("stock-changes --as-of 2026-05-31 --compare prior-period")]
    [InlineData("collection --period fy2026 --by quarter")]
    public void LibreOffice_shows_in_every_cell_of_a_spreadsheet_what_the_terminal_shows(string options)
    {
        string[] show = ["show", .. options.Split(' '), "--book", "reedwater"];
        _tool.Run([.. show, "--to", "s.xlsx", "--to", "o.ods", "--to", "s.md"]).Done();
        Shell.Run(
            _tool.Folder, "soffice", "--headless", "--convert-to", "csv:Text - txt - csv (StarCalc):44,34,76,1,,1033,false,true",
            "--outdir", "shown", "s.xlsx", "o.ods");
        var table = File.ReadAllLines(_tool.PathOf("s.md")).Where(line => line.StartsWith('|'))
            .Select(line => Bar().Split(line)[1..^1].Select(Plain).ToList()).ToList();
        var rows = table.Skip(2).Where(row => row.Skip(1).Any(cell => cell.Length > 0)).ToList();
        foreach (var shown in new[] { "shown/s.csv", "shown/o.csv" })
        {
            CompareShown(options, table[0], rows, [.. File.ReadAllLines(_tool.PathOf(shown)).Select(NaiveRecords.Values)
                .Where(row => row.Count > 1 && row.Skip(1).Any(cell => cell.Trim().Length > 0))]);
        }
    }

    [Fact]
    public void On_paper_the_figures_of_a_column_end_at_one_line_and_the_names_of_a_level_begin_at_one()
    {
        _tool.Run(
            "show", "profit-loss", "--period", "2026-05", "--compare", "prior-year", "--change", "--book", "reedwater", "--to", "p.pdf")
                .Done();
        Shell.Run(_tool.Folder, "pdftotext", "-bbox", "p.pdf", "p.bbox");
        var words = Word().Matches(File.ReadAllText(_tool.PathOf("p.bbox"))).Select(match => (
            Left: double.Parse(match.Groups[1].Value, CultureInfo.InvariantCulture),
            Top: double.Parse(match.Groups[2].Value, CultureInfo.InvariantCulture),
            Right: double.Parse(match.Groups[3].Value, CultureInfo.InvariantCulture),
            Text: System.Net.WebUtility.HtmlDecode(match.Groups[4].Value))).ToList();
        var figures = words.Where(word => Amount().IsMatch(word.Text)).ToList();
        Assert.InRange(figures.Count, 100, 400);

        // Two columns of amounts, one of changes, whose marks stand behind them: three edges, bold or not.
        var edges = figures.GroupBy(figure => Math.Round(figure.Right, 0)).OrderBy(edge => edge.Key).ToList();
        Assert.Equal(3, edges.Count);
        Assert.All(edges, edge => Assert.True(edge.Max(figure => figure.Right) - edge.Min(figure => figure.Right) < 0.2, $"{edge.Key}"));
        var marks = words.Where(word => word.Text is "↑" or "↓" or "=" && word.Left > edges[2].Key).ToList();
        Assert.Equal(edges[2].Count(), marks.Count);
        Assert.True(marks.Max(mark => mark.Right) - marks.Min(mark => mark.Right) < 0.2);

        // Names begin where their level begins, and no two words of a line touch.
        var names = words.Where(word => word.Text is "Income" or "Repairs" or "Timber" or "Total" or "Rent" or "Materials")
            .GroupBy(word => word.Text).ToDictionary(word => word.Key, word => word.First().Left);
        Assert.Equal(names["Income"], names["Total"], 1);
        Assert.Equal(names["Repairs"], names["Materials"], 1);
        Assert.Equal(names["Timber"], names["Rent"], 1);
        Assert.True(names["Income"] < names["Repairs"] && names["Repairs"] < names["Timber"]);
        foreach (var line in words.GroupBy(word => Math.Round(word.Top, 0)))
        {
            var across = line.OrderBy(word => word.Left).ToList();
            Assert.All(
                across.Zip(across.Skip(1)), pair => Assert.True(
                    pair.First.Right < pair.Second.Left, $"{pair.First.Text} {pair.Second.Text}"));
        }
    }

    [Fact]
    public void Statements_of_account_go_to_each_customer_in_their_language_in_every_format()
    {
        var contacts = File.ReadAllLines(_tool.PathOf("reedwater/records/contacts.csv")).ToList();
        var languages = new[] { "de", "fr", "af", "" };
        File.WriteAllLines(
            _tool.PathOf("reedwater/records/contacts.csv"),
            contacts.Select((line, number) => line + (number == 0 ? ",tag.language" : $",{languages[number % 4]}")));
        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
        var ids = contacts.Select(
            (line, number) => (Id: NaiveRecords.Values(line)[0], Language: number == 0 ? "" : languages[number % 4])).Skip(1)
                .ToDictionary(one => one.Id, one => one.Language);
        var titles = new Dictionary<string, string>
        {
            ["de"] = "Kontoauszug",
            ["fr"] = "Relevé de compte",
            ["af"] = "Rekeningstaat",
            [""] = "Statement of account",
        };
        foreach (var (format, ending) in new[] { ("html", "html"), ("md", "md"), ("text", "txt") })
        {
            _tool.Run(
                "show", "statement-of-account", "--period", "2026-05", "--to", $"{format}/", "--format", format, "--book", "reedwater")
                    .Done();
            var files = Directory.EnumerateFiles(_tool.PathOf(format), $"*.{ending}").ToList();
            Assert.InRange(files.Count, 20, 200);
            Assert.True(files.Select(file => ids[Path.GetFileNameWithoutExtension(file)]).Distinct().Count() == 4);
            Assert.All(files, file => Assert.Contains(titles[ids[Path.GetFileNameWithoutExtension(file)]], File.ReadAllText(file)));
            Assert.All(files, file => Assert.All(
                titles.Where(title => title.Key != ids[Path.GetFileNameWithoutExtension(file)]),
                title => Assert.DoesNotContain(title.Value, File.ReadAllText(file))));
        }

        // What is asked for counts more than whose it is.
        var asked = _tool.Run(
            "show", "statement-of-account", "--period", "2026-05", "--only", "contact.name=Osprey*", "--lang", "en", "--book",
            "reedwater").Done().Output;
        Assert.Contains("Statement of account", asked);
    }

    [Fact]
    public void A_group_is_in_the_language_of_its_book_in_every_format_and_its_figures_are_those_of_the_reports()
    {
        File.AppendAllText(_tool.PathOf("reedwater/book.toml"), "language = \"de\"\n");
        _tool.Run("run", "month-end", "--book", "reedwater", "--format", "text,md,csv,json,html,pdf,xlsx").Done();
        string Path(string name) => _tool.PathOf($"reedwater/out/month-end/2026-05/{name}");
        foreach (var (file, words) in new[]
        {
            ("balance-sheet.txt", "Summe Aktiva"), ("month-end.md", "# Bilanz"), ("month-end.csv", "Summe Aktiva"),
            ("month-end.html", "<html lang=\"de\">"), ("month-end.html", "Inhalt"),
        })
        {
            Assert.Contains(words, File.ReadAllText(Path(file)));
        }

        Assert.Contains("\"label\":\"Total assets\"", File.ReadAllText(Path("balance-sheet.json")));
        var text = Shell.Run(_tool.Folder, "pdftotext", "-layout", Path("month-end.pdf"), "-");
        Assert.Contains("Seite 1 von ", text);
        Assert.Contains("Summe Aktiva", text);
        using var workbook = new WorkbookFile(Path("month-end.xlsx"));
        Assert.Equal("Month end", workbook.Sheets[0]);
        Assert.Contains("Inhalt", workbook.Cells("Month end").Values.Select(cell => cell.Words));
        Assert.Contains("Bilanz", workbook.Sheets);

        // The one table of all has a line for every figure of every report.
        var lines = File.ReadAllText(Path("month-end.csv")).TrimEnd().Split('\n').Skip(1).Select(NaiveRecords.Values)
            .GroupBy(line => line[0]).ToDictionary(line => line.Key, line => line.Count());
        foreach (var (report, count) in lines)
        {
            Assert.Equal(JsonFigures.Read(Path($"{report}.json")).Rows.Sum(row => row.Cells.Count(cell => cell.Value is not null)), count);
        }
    }

    [Theory]
    [InlineData("html")]
    [InlineData("xlsx")]
    [InlineData("ods")]
    public void A_long_list_goes_through_a_small_heap(string format)
    {
        _tool.Run("demo", "set", "--record-set", "--documents", "12000", "--years", "1", "--seed", "5").Done();
        _tool.Run("init", "long", "--name", "Long", "--currency", "ZAR").Done();
        _tool.Run("import", "set", "--book", "long").Done();
        var outcome = _tool.Run(
            [("DOTNET_GCHeapHardLimit", "0x3000000")], "show", "lines", "--period", "all", "--book", "long", "--to", $"long.{format}");
        Assert.True(outcome.Status == 0, outcome.Messages);
        Assert.InRange(new FileInfo(_tool.PathOf($"long.{format}")).Length, 1_000_000, 100_000_000);
    }

    public void Dispose() => _tool.Dispose();

    private static void CompareShown(string options, List<string> headings, List<List<string>> rows, List<IReadOnlyList<string>> cells)
    {
        Assert.Equal(rows.Count, cells.Count - 1);
        var places = Places(headings, [.. cells[0]]);
        for (var row = 0; row < rows.Count; row++)
        {
            for (var column = 1; column < rows[row].Count; column++)
            {
                // A sheet says that a percentage is one, rounds one half away from nought, and keeps the sign of what it rounds to nought.
                var (expected, shown) =
                    (rows[row][column], cells[row + 1][places[column]].Trim().Replace("(0)", "0", StringComparison.Ordinal));
                Assert.True(
                    expected.TrimEnd(' ', '%') == shown.TrimEnd('%').Trim()
                        || (shown.EndsWith('%') && Math.Abs(Percent(expected) - Percent(shown)) <= 0.1m),
                    $"{options}, {rows[row][0]}, {headings[column]}: {shown}, not {expected}");
            }
        }

        static decimal Percent(string text) => decimal.Parse(text.TrimEnd(' ', '%'), NumberStyles.Any, CultureInfo.InvariantCulture);
    }

    // Readers of Markdown are shown no column that says nothing; a workbook hides it.
    private static List<int> Places(List<string> shown, List<string> all)
    {
        var (places, at) = (new List<int> { 0 }, 0);
        foreach (var heading in shown.Skip(1))
        {
            at = all.FindIndex(at + 1, other => other.Trim() == heading);
            Assert.True(at > 0, heading);
            places.Add(at);
        }

        return places;
    }

    private static string Plain(string cell) =>
        cell.Replace("&emsp;", "", StringComparison.Ordinal).Replace("**", "", StringComparison.Ordinal)
            .Replace("\\", "", StringComparison.Ordinal).Trim();

    [GeneratedRegex(@"(?<!\\)\|")]
    private static partial Regex Bar();

    [GeneratedRegex("<word xMin=\"([\\d.]+)\" yMin=\"([\\d.]+)\" xMax=\"([\\d.]+)\" yMax=\"[\\d.]+\">([^<]*)</word>")]
    private static partial Regex Word();

    [GeneratedRegex(@"^-?[\d,]+\.\d\d$")]
    private static partial Regex Amount();
}
