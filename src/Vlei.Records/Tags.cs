using System.Text.Json;

namespace Vlei.Records;

/// <summary>A record's tags as the store keeps them: one JSON object, names in order.</summary>
internal static class Tags
{
    /// <summary>Writes the tags, which come in the order of their names.</summary>
    public static byte[] ToJson(SortedDictionary<string, string> tags)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream))
        {
            writer.WriteStartObject();
            foreach (var (name, value) in tags)
            {
                writer.WriteString(name, value);
            }

            writer.WriteEndObject();
        }

        return stream.ToArray();
    }
}
