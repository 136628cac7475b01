using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Reports;

namespace Vlei.Desk.Runs;

/// <summary>A report of a run: what was asked of it.</summary>
/// <param name="Name">Its name in the group.</param>
/// <param name="Report">The report.</param>
/// <param name="Options">Everything that was asked of it but its period, as texts by the names of options.</param>
/// <param name="Period">Its days.</param>
/// <param name="Problem">Why it could not be made; nothing where it was.</param>
public sealed record RunMember(
    string Name, string Report, IReadOnlyDictionary<string, IReadOnlyList<string>> Options, OpenPeriod? Period, string? Problem)
{
    /// <summary>What of its options its figures depend on: how it looks changes none.</summary>
    public Dictionary<string, IReadOnlyList<string>> OfFigures =>
        Options.Where(option => LookOptions.All.All(look => look.Name != option.Key)).ToDictionary();
}

/// <summary>
/// What a run leaves beside its files, so that the next one can say what has changed. It holds no clock: the same run leaves the
/// same bytes.
/// </summary>
/// <param name="Days">The days that it was for.</param>
/// <param name="Revision">The records that it was made from.</param>
/// <param name="Members">Its reports.</param>
/// <param name="Files">The files that it wrote, each with its sum (SHA-256).</param>
public sealed record RunRecord(DateRange Days, long Revision, IReadOnlyList<RunMember> Members, IReadOnlyDictionary<string, string> Files)
{
    /// <summary>The folder of what a run keeps for the next one.</summary>
    public const string Folder = ".run";

    private const string FileName = "run.json";

    /// <summary>The file of a report's figures, within a run's folder.</summary>
    public static string FiguresOf(string member) => Path.Combine(Folder, $"{member}.json");

    /// <summary>
    /// What the run in a folder left; nothing where there is none, or where it is damaged, which is said.
    /// </summary>
    public static RunRecord? Read(string folder, Action<string> say) => Kept(Path.Combine(folder, Folder, FileName), say, path =>
    {
        using var json = JsonDocument.Parse(File.ReadAllBytes(path));
        var root = json.RootElement;
        return new RunRecord(
            new DateRange(DayOf(root, "from")!.Value, DayOf(root, "to")!.Value), root.GetProperty("revision").GetInt64(),
            [
                .. root.GetProperty("reports").EnumerateArray().Select(member => new RunMember(
                    member.GetProperty("name").GetString()!, member.GetProperty("report").GetString()!, OptionsJson.Read(member),
                    member.GetProperty("period") is { ValueKind: JsonValueKind.Object } period
                        ? new OpenPeriod(DayOf(period, "from"), DayOf(period, "to"), UnitOf(period)) : null,
                    member.GetProperty("problem").GetString())),
            ],
            root.GetProperty("files").EnumerateObject().ToDictionary(file => file.Name, file => file.Value.GetString()!));
    });

    /// <summary>
    /// What a run kept for the next one in a file; nothing where there is no such file, or where it is damaged, which is said: a run
    /// is as good without it, but does not know what has moved since.
    /// </summary>
    public static T? Kept<T>(string path, Action<string> say, Func<string, T> read)
        where T : class
    {
        try
        {
            return FileState.Of(path) is { IsRegular: true } ? read(path) : null;
        }
        catch (Exception damaged) when (OptionsJson.IsDamage(damaged) || damaged is IOException or UnauthorizedAccessException)
        {
            say($"{path} is damaged, so that what has moved since is not known: {damaged.Message}");
            return null;
        }
    }

    /// <summary>Writes it into a run's folder.</summary>
    public void Write(string folder)
    {
        using var stream = File.Create(Path.Combine(folder, Folder, FileName));
        using var json = new Utf8JsonWriter(
            stream, new JsonWriterOptions { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping });
        json.WriteStartObject();
        json.WriteString("schema", "vlei/run/1");
        json.WriteString("from", PeriodText.Iso(Days.From));
        json.WriteString("to", PeriodText.Iso(Days.To));
        json.WriteNumber("revision", Revision);
        json.WriteStartArray("reports");
        foreach (var member in Members)
        {
            json.WriteStartObject();
            json.WriteString("name", member.Name);
            json.WriteString("report", member.Report);
            OptionsJson.Write(json, member.OfFigures);
            WritePeriod(json, member.Period);
            json.WriteString("problem", member.Problem);
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteStartObject("files");
        foreach (var (name, sum) in Files.OrderBy(file => file.Key, StringComparer.Ordinal))
        {
            json.WriteString(name, sum);
        }

        json.WriteEndObject();
        json.WriteEndObject();
    }

    private static void WritePeriod(Utf8JsonWriter json, OpenPeriod? period)
    {
        if (period is not { } days)
        {
            json.WriteNull("period");
            return;
        }

        json.WriteStartObject("period");
        json.WriteString("from", days.From is { } from ? PeriodText.Iso(from) : null);
        json.WriteString("to", days.To is { } to ? PeriodText.Iso(to) : null);
        json.WriteString("to_date_of", days.ToDateOf?.ToString());
        json.WriteEndObject();
    }

    private static DateOnly? DayOf(JsonElement json, string name) => json.GetProperty(name).GetString() is { } text
        ? DateOnly.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture) : null;

    private static TimeUnit? UnitOf(JsonElement json) =>
        json.GetProperty("to_date_of").GetString() is { } text ? Enum.Parse<TimeUnit>(text) : null;
}
