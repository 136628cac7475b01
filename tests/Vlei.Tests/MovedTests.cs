using System.Text.Json;

namespace Vlei.Tests;

/// <summary>What a run says has moved, held against a comparison of its own of what the two runs left, cell by cell.</summary>
public sealed class MovedTests : IDisposable
{
    private static readonly string[] Documents = ["BILL-00585", "INV-00806", "INV-00809", "INV-00816", "BILL-00589"];

    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void Every_figure_that_moved_is_counted_and_the_largest_are_shown_as_they_were_and_are()
    {
        var random = new Random(20261123);
        Run("2026-05");
        for (var round = 0; round < 6; round++)
        {
            var before = Kept("2026-05");
            foreach (var document in Documents.OrderBy(_ => random.Next()).Take(random.Next(1, 4)))
            {
                Double(document);
            }

            _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
            var summary = Run("2026-05");
            var after = Kept("2026-05");
            Assert.NotEmpty(before);
            foreach (var (name, figures) in after)
            {
                var moved = figures.Keys.Union(before[name].Keys).Where(
                    key => figures.GetValueOrDefault(key) != before[name].GetValueOrDefault(key)).ToList();
                var shown = summary.Where(row => row.Key.StartsWith($"{name}/", StringComparison.Ordinal) && row.Cells[1] is not null)
                    .ToList();
                var more = summary.Where(row => row.Key == $"{name}/more")
                    .Select(row => int.Parse(row.Label.Split(' ')[1], CultureInfo.InvariantCulture)).FirstOrDefault();
                Assert.Equal(moved.Count, shown.Count + more);
                Assert.Equal(Math.Min(5, moved.Count), shown.Count);
                var changes = moved.Select(key => (Before: before[name].GetValueOrDefault(key), After: figures.GetValueOrDefault(key)))
                    .ToList();
                Assert.All(shown, row =>
                {
                    Assert.Contains((row.Cells[1]!.Value, row.Cells[2]!.Value), changes);
                    Assert.Equal(row.Cells[2] - row.Cells[1], row.Cells[3]);
                });
            }

            // The documents that were changed are named, each with its sums then and now.
            var why = summary.Where(row => row.Key.StartsWith("why/", StringComparison.Ordinal)).ToList();
            Assert.NotEmpty(why);
            Assert.All(why, row => Assert.Equal(2 * row.Cells[1], row.Cells[2]));

            // And the same again has nothing to say.
            Assert.DoesNotContain(Run("2026-05"), row => row.Cells[1] is not null);
        }
    }

    [Fact]
    public void Earlier_periods_are_told_exactly_where_their_figures_are_others_now()
    {
        string[] periods = ["2026-03", "2026-04", "2026-05"];
        foreach (var period in periods)
        {
            Run(period);
        }

        var before = periods.ToDictionary(period => period, Kept);

        // A bill of May moves nothing in March and April, an account of another kind moves all of them.
        Double("BILL-00585");
        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
        Assert.Equal(["earlier/2026-05"], EarlierIn(Run("2026-06")));
        var path = _tool.PathOf("reedwater/records/accounts.csv");
        File.WriteAllText(
            path, File.ReadAllText(path).Replace("Bank charges,expense", "Bank charges,other-expense", StringComparison.Ordinal));
        _tool.Run("import", "reedwater/records", "--book", "reedwater").Done();
        Assert.Equal(periods.Select(period => $"earlier/{period}"), EarlierIn(Run("2026-06")));

        // Telling is all: what was produced for those periods is as it was.
        Assert.All(periods, period => Assert.Equal(before[period]["profit-by-month"], Kept(period)["profit-by-month"]));
        foreach (var period in periods)
        {
            Run(period);
        }

        Assert.Empty(EarlierIn(Run("2026-06")));
    }

    public void Dispose() => _tool.Dispose();

    private static IEnumerable<string> EarlierIn(List<(string Key, string Label, decimal?[] Cells)> summary) =>
        summary.Select(row => row.Key).Where(key => key.StartsWith("earlier/", StringComparison.Ordinal));

    private List<(string Key, string Label, decimal?[] Cells)> Run(string period)
    {
        _tool.Run("run", "month-end", "--book", "reedwater", "--period", period, "--summary", "summary.json").Done();
        return
        [
            .. JsonDocument.Parse(File.ReadAllText(_tool.PathOf("summary.json"))).RootElement.GetProperty("rows").EnumerateArray()
                .Select(row => (
                row.GetProperty("key").GetString()!, row.GetProperty("label").GetString()!,
                row.GetProperty("cells").EnumerateArray()
                    .Select(cell => cell.ValueKind == JsonValueKind.Number ? cell.GetDecimal() : (decimal?)null).ToArray())),
        ];
    }

    // The sums that a run kept: of each report, what is money and neither of a single record nor a change.
    private Dictionary<string, Dictionary<string, decimal>> Kept(string period)
    {
        var kept = new Dictionary<string, Dictionary<string, decimal>>();
        foreach (var path in Directory.EnumerateFiles(_tool.PathOf($"reedwater/out/month-end/{period}/.run"))
            .Where(path => !path.EndsWith("run.json", StringComparison.Ordinal)))
        {
            var report = JsonDocument.Parse(File.ReadAllText(path)).RootElement;
            var columns = report.GetProperty("columns").EnumerateArray()
                .Select(
                    column => (Key: column.GetProperty("key").GetString()!, IsMoney: column.GetProperty("kind").GetString() == "money"))
                        .ToList();
            var figures = kept[Path.GetFileNameWithoutExtension(path)] = [];
            foreach (var row in report.GetProperty("rows").EnumerateArray()
                .Where(row => row.GetProperty("kind").GetString() is not ("record" or "heading") && !row.TryGetProperty("shows", out _)))
            {
                for (var column = 0; column < columns.Count; column++)
                {
                    if (columns[column].IsMoney && !columns[column].Key.StartsWith("change(", StringComparison.Ordinal)
                        && row.GetProperty("cells")[column] is { ValueKind: JsonValueKind.Number } cell)
                    {
                        figures[$"{row.GetProperty("key").GetString()} {columns[column].Key}"] = cell.GetDecimal();
                    }
                }
            }
        }

        return kept;
    }

    // Twice the amounts of a document, so that it still adds up to nothing.
    private void Double(string document)
    {
        var path = _tool.PathOf("reedwater/records/lines.csv");
        var column = File.ReadLines(path).First().Split(',').ToList().IndexOf("amount");
        File.WriteAllLines(
            path, File.ReadAllLines(path).Select(
                line => line.StartsWith($"{document},", StringComparison.Ordinal) && line.Split(',') is var fields
            ? string.Join(
                ',',
                fields.Select(
                    (field, place) => place == column ? (2 * decimal.Parse(field, CultureInfo.InvariantCulture))
                        .ToString(CultureInfo.InvariantCulture) : field)) : line));
    }
}
