using System.Text.Json;

namespace Vlei.Core.Ledger;

/// <summary>A record's tags as the store keeps them: one JSON object of texts, names in order.</summary>
public static class TagText
{
    /// <summary>Writes tags.</summary>
    public static byte[] Write(SortedDictionary<string, string> tags)
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

    /// <summary>Reads tags; none from an empty text. Throws <see cref="JsonException"/> where it is no object of texts.</summary>
    public static SortedDictionary<string, string> Read(string json)
    {
        var tags = new SortedDictionary<string, string>(StringComparer.Ordinal);
        if (json.Length == 0)
        {
            return tags;
        }

        using var document = JsonDocument.Parse(json);
        foreach (var tag in document.RootElement.ValueKind == JsonValueKind.Object
            ? document.RootElement.EnumerateObject()
            : throw new JsonException("It is no object."))
        {
            tags[tag.Name] = tag.Value.ValueKind == JsonValueKind.String
                ? tag.Value.GetString()!
                : throw new JsonException("A tag is no text.");
        }

        return tags;
    }
}
