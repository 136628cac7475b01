using System.Text.Json;

namespace Vlei.Books.Kept;

/// <summary>Options as JSON, in what the program notes for itself: texts by the names of options.</summary>
public static class OptionsJson
{
    /// <summary>Writes them.</summary>
    public static void Write(Utf8JsonWriter json, IReadOnlyDictionary<string, IReadOnlyList<string>> options)
    {
        json.WriteStartObject("options");
        foreach (var (name, texts) in options)
        {
            json.WriteStartArray(name);
            foreach (var text in texts)
            {
                json.WriteStringValue(text);
            }

            json.WriteEndArray();
        }

        json.WriteEndObject();
    }

    /// <summary>Reads them back, from what they were written into.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<string>> Read(JsonElement element) =>
        element.GetProperty("options").EnumerateObject().ToDictionary(
        option => option.Name, option => (IReadOnlyList<string>)[.. option.Value.EnumerateArray().Select(text => text.GetString()!)]);

    /// <summary>Whether an exception says that what was read is not what was written.</summary>
    public static bool IsDamage(Exception exception) =>
        exception is JsonException or KeyNotFoundException or InvalidOperationException or FormatException or ArgumentException;
}
