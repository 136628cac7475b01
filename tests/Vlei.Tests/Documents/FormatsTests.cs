using System.Collections.Concurrent;
using System.Net;
using System.Text.RegularExpressions;
using Vlei.Desk;

namespace Vlei.Tests.Documents;

/// <summary>Every report in every format: the figures that are read back are those of the JSON.</summary>
public sealed partial class FormatsTests : IDisposable
{
    private static readonly string[] Endings = ["json", "csv", "md", "txt", "html", "xlsx", "ods", "pdf"];

    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Figures_read_back_from_every_format_of_every_report_are_those_of_its_json()
    {
        var shown = ReportCatalogue.Standard.SelectMany(report => report.Examples.Select(example => $"{report.Key} {example.Options}"))
            .Where(options => !options.Contains("--to") && !options.Contains("--format"))
            .Append("profit-loss --period 2026-Q1 --by month --compare prior-year --change --share income --share row")
            .Append("sales-by-customer --period 2026 --compare prior-year --change --share column").ToList();
        Assert.NotEmpty(shown);
        var reports = ReportCatalogue.Standard.Where(report => report.Asks is null).Select(report => report.Key).ToList();
        Assert.InRange(reports.Count, 60, 200);
        var covered = shown.Select(options => options.Split(' ')[0]).ToHashSet();
        shown.AddRange(reports.Where(report => !covered.Contains(report)));
        var wrong = new ConcurrentBag<string>();
        Parallel.ForEach(shown.Select((options, place) => (options, place)), new ParallelOptions { MaxDegreeOfParallelism = 4 }, one =>
        {
            try
            {
                Compare(one.options, $"r{one.place}");
            }
            catch (Exception failed)
            {
                wrong.Add($"{one.options}: {failed.Message}");
            }
        });
        Assert.True(wrong.IsEmpty, string.Join('\n', wrong));
    }

    public void Dispose() => _tool.Dispose();

    private void Compare(string options, string name)
    {
        var to = string.Join(' ', Endings.Select(ending => $"--to {name}.{ending}"));

        // Numbers are looked for: what is nothing is one.
        _ = Shell.Run(_tool.Folder, "sh", "-c", $"\"{Tool.Binary}\" show {options} --nil zero --book reedwater {to} || [ $? = 1 ]");
        string PathOf(string ending) => _tool.PathOf($"{name}.{ending}");
        var json = JsonFigures.Read(PathOf("json"));
        CompareCsv(json, File.ReadAllText(PathOf("csv")));
        CompareMarkdown(json, File.ReadAllLines(PathOf("md")));
        CompareTokens(json, File.ReadAllText(PathOf("txt")), "text");
        CompareWeb(json, File.ReadAllText(PathOf("html")));
        using (var workbook = new WorkbookFile(PathOf("xlsx")))
        {
            Assert.Empty(workbook.Faults);
            CompareSheet(json, workbook.Table(workbook.Sheets[0]));
        }

        var spreadsheet = new OpenDocumentFile(PathOf("ods"));
        CompareSheet(json, spreadsheet.Report(spreadsheet.Sheets[0]));
        CompareTokens(json, Shell.Run(_tool.Folder, "pdftotext", "-layout", PathOf("pdf"), "-"), "PDF");
    }

    private static void CompareCsv(JsonFigures json, string text)
    {
        var records = text.TrimEnd().Split('\n').Select(NaiveRecords.Values).Skip(1).ToList();
        Assert.Equal(json.Rows.Count, records.Count);
        for (var row = 0; row < records.Count; row++)
        {
            Assert.Equal(json.Rows[row].Label, records[row][1]);
            Assert.Equal(json.Rows[row].Cells.Select(cell => cell.Value ?? ""), records[row].Skip(4));
        }
    }

    // A column that readers need not see is left out; what it holds is nothing, nought, or the label again.
    private static List<int> ShownOf(JsonFigures json, List<string> headings)
    {
        var (shown, next) = (new List<int>(), 0);
        for (var column = 0; column < json.Headings.Count; column++)
        {
            if (next < headings.Count && headings[next] == json.Headings[column]
                && (!IsIdle(json, column) || !json.Headings.Skip(column + 1).Contains(headings[next])))
            {
                shown.Add(column);
                next++;
            }
            else
            {
                Assert.True(IsIdle(json, column), $"{json.Headings[column]} is not shown");
            }
        }

        Assert.Equal(headings.Count, shown.Count);
        return shown;
    }

    private static bool IsIdle(JsonFigures json, int column) => json.Rows.All(row =>
        row.Cells[column] is var cell
            && (cell.Value is null || (cell.Kind == "text" ? cell.Value == row.Label : cell.Kind != "date" && cell.Number == 0)));

    private static void CompareMarkdown(JsonFigures json, string[] lines)
    {
        var table = lines.Where(line => line.StartsWith('|')).Select(line => Bar().Split(line)[1..^1].Select(Plain).ToList()).ToList();
        if (json.Rows.Count == 0)
        {
            Assert.Empty(table);
            return;
        }

        var shown = ShownOf(json, table[0].Skip(1).ToList());
        Assert.Equal(json.Rows.Count, table.Count - 2);
        for (var row = 0; row < json.Rows.Count; row++)
        {
            Assert.Equal(Flat(json.Rows[row].Label), table[row + 2][0]);
            Assert.Equal(shown.Select(column => Flat(json.Rows[row].Cells[column].Readable)), table[row + 2].Skip(1));
        }

        static string Plain(string cell) =>
            Mark()
                .Replace(
                    Escape()
                        .Replace(
                            cell.Trim().Replace("&emsp;", "", StringComparison.Ordinal).Replace("**", "", StringComparison.Ordinal),
                            "$1"), "");
    }

    private static void CompareWeb(JsonFigures json, string page)
    {
        var rows = PageRow().Matches(page).ToList();
        if (json.Rows.Count == 0)
        {
            Assert.Empty(rows);
            return;
        }

        var shown = ShownOf(json, PageHeading().Matches(page).Select(match => WebUtility.HtmlDecode(match.Groups[1].Value)).ToList());
        Assert.Equal(json.Rows.Count, rows.Count);
        for (var row = 0; row < json.Rows.Count; row++)
        {
            Assert.Equal(Flat(json.Rows[row].Label), WebUtility.HtmlDecode(rows[row].Groups[1].Value).Trim());
            var cells = PageCell().Matches(rows[row].Groups[2].Value).ToList();
            Assert.Equal(shown.Count, cells.Count);
            for (var place = 0; place < shown.Count; place++)
            {
                var (cell, expected) = (cells[place], json.Rows[row].Cells[shown[place]]);
                if (expected.Kind == "text" || expected.Value is null)
                {
                    Assert.Equal(Flat(expected.Value ?? ""), WebUtility.HtmlDecode(cell.Groups[3].Value).Trim());
                }
                else
                {
                    Assert.Equal(
                        (expected.Value, expected.Readable), cell.Groups[1].Success ? (cell.Groups[1].Value, cell.Groups[2].Value)
                            : (cell.Groups[3].Value, cell.Groups[3].Value));
                }
            }
        }
    }

    private static void CompareSheet(JsonFigures json, List<List<FileCell?>> table)
    {
        Assert.Equal(json.Headings, table[0].Skip(1).Select(cell => cell!.Words));
        Assert.Equal(json.Rows.Count, table.Count - 1);
        for (var row = 0; row < json.Rows.Count; row++)
        {
            Assert.Equal(json.Rows[row].Label, table[row + 1][0]?.Words ?? "");
            for (var column = 0; column < json.Headings.Count; column++)
            {
                var (expected, cell) = (json.Rows[row].Cells[column], table[row + 1][column + 1]);
                Assert.Equal(expected.Value, expected.Kind switch
                {
                    _ when cell is null or { Words: null or "", Number: null } => null,
                    "text" => cell.Words,
                    "date" => DateTime.FromOADate(cell.Number!.Value).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    "percent" => Same(expected, (decimal)cell.Number!.Value * 100),
                    _ =>
                        Same(
                            expected,
                            decimal.Parse(
                                cell.Number!.Value.ToString("R", CultureInfo.InvariantCulture), NumberStyles.Float,
                                CultureInfo.InvariantCulture)),
                });
            }
        }

        static string? Same(JsonCell expected, decimal number) =>
            Math.Round(number, 6) is var rounded && Math.Abs(rounded - expected.Number) <= (expected.Kind == "percent" ? 0.00005m : 0)
                ? expected.Value : $"{number}";
    }

    // Every figure that is shown stands there as often as it should; columns are broken into blocks, so places are not compared.
    private static void CompareTokens(JsonFigures json, string text, string what)
    {
        var found = text.Split([' ', '\n', '\f'], StringSplitOptions.RemoveEmptyEntries).GroupBy(token => token)
            .ToDictionary(group => group.Key, group => group.Count());
        var columns = Enumerable.Range(0, json.Headings.Count).Where(column => !IsIdle(json, column));
        foreach (var expected in columns.SelectMany(column => json.Rows.Select(row => row.Cells[column]))
            .Where(cell => cell.Value is not null && cell.Kind != "text").GroupBy(cell => cell.Readable.Split(' ')[0]))
        {
            Assert.True(
                found.GetValueOrDefault(expected.Key) >= expected.Count(),
                $"{what}: {expected.Key} stands there {found.GetValueOrDefault(expected.Key)} times, not {expected.Count()}");
        }
    }

    private static string Flat(string text) => string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter)).Trim();



    [GeneratedRegex(@"(?<!\\)\|")]
    private static partial Regex Bar();

    [GeneratedRegex(@" [▲▼=]$")]
    private static partial Regex Mark();

    [GeneratedRegex(@"\\(.)")]
    private static partial Regex Escape();

    [GeneratedRegex("<tr class=\"[a-z ]+\" data-level=\"\\d+\"><th scope=\"row\"[^>]*>(.*?)</th>(.*?)</tr>")]
    private static partial Regex PageRow();

    [GeneratedRegex("<th scope=\"col\"[^>]*>(.*?)</th>")]
    private static partial Regex PageHeading();

    [GeneratedRegex("<td[^>]*>(?:<data value=\"([^\"]*)\">(.*?)</data>|(.*?))(?:<span class=\"mark\">.</span>)?</td>")]
    private static partial Regex PageCell();
}
