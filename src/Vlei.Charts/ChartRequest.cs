using System.Text.Json;
using System.Text.Json.Serialization;

namespace Vlei.Charts;

/// <summary>What a chart shows, and how it looks.</summary>
internal sealed record ChartRequest(
    string Title, string Subtitle, string Kind, bool OfTime, int Width, int Height, string Thousands, string DecimalMark,
    IReadOnlyList<string> Categories, IReadOnlyList<int> Colours, IReadOnlyList<ChartRequestSeries> Series)
{
    /// <summary>Reads one.</summary>
    public static ChartRequest Read(Stream json) => JsonSerializer.Deserialize(json, ChartJson.Default.ChartRequest)!;
}

/// <summary>Figures that belong together, one for each category; nothing where there is none.</summary>
internal sealed record ChartRequestSeries(string Name, IReadOnlyList<double?> Values);

/// <summary>The JSON of a request.</summary>
[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.SnakeCaseLower,
    UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow)]
[JsonSerializable(typeof(ChartRequest))]
internal sealed partial class ChartJson : JsonSerializerContext;
