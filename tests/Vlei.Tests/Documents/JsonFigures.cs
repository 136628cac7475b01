using System.Text.Json;

namespace Vlei.Tests.Documents;

/// <summary>
/// A cell of a report's JSON: its kind, what it holds (nothing where it is empty), and what a reader is told that it is where its
/// column says money.
/// </summary>
internal sealed record JsonCell(string Kind, string? Value, string Unit = "")
{
    /// <summary>As people read it: thousands apart, a percentage to one decimal.</summary>
    public string Readable => Value is null || Kind is "text" or "date" ? Value ?? "" : Kind switch
    {
        "percent" => Rounded(1) + Unit,
        "ratio" => Rounded(2),
        "count" => Number.ToString("N0", CultureInfo.InvariantCulture),
        "quantity" => Number.ToString("#,##0.######", CultureInfo.InvariantCulture),
        _ => Number.ToString($"N{DecimalsIn(Value)}", CultureInfo.InvariantCulture),
    };

    /// <summary>The number.</summary>
    public decimal Number => decimal.Parse(Value!, CultureInfo.InvariantCulture);

    private string Rounded(int decimals) =>
        Math.Round(Number, decimals, MidpointRounding.ToEven).ToString($"N{decimals}", CultureInfo.InvariantCulture);

    private static int DecimalsIn(string number) => number.IndexOf('.', StringComparison.Ordinal) is >= 0 and var point
        ? number.Length - point - 1 : 0;
}

/// <summary>The figures of a report, as its JSON has them: what every other format is held against.</summary>
internal sealed record JsonFigures(
    string Title, IReadOnlyList<string> Headings, IReadOnlyList<(string Label, string Kind, IReadOnlyList<JsonCell> Cells)> Rows)
{
    /// <summary>Reads a file.</summary>
    public static JsonFigures Read(string path)
    {
        using var json = JsonDocument.Parse(File.ReadAllText(path));
        var root = json.RootElement;
        var kinds = root.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("kind").GetString()!).ToList();
        return new JsonFigures(
            root.GetProperty("title").GetString()!,
            [.. root.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("heading").GetString()!)],
            [.. root.GetProperty("rows").EnumerateArray().Select(row => (
                row.GetProperty("label").GetString()!, row.GetProperty("kind").GetString()!,
                CellsOf(
                    row, kinds,
                    [.. root.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("heading").GetString()!)])))]);
    }

    private static IReadOnlyList<JsonCell> CellsOf(JsonElement row, List<string> kinds, List<string> headings)
    {
        var shows = row.TryGetProperty("shows", out var shown) ? shown.GetString() : null;
        return
        [
            .. row.GetProperty("cells").EnumerateArray().Select((cell, column) => new JsonCell(
                kinds[column] == "money" ? shows ?? "money" : kinds[column],
                cell.ValueKind == JsonValueKind.Null ? null : cell.ValueKind == JsonValueKind.Number ? cell.GetRawText() : cell.GetString(),
                shows is null ? "" : headings[column] == "Change" ? " pts" : " %")),
        ];
    }
}
