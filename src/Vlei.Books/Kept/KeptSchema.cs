using System.Text.Encodings.Web;
using System.Text.Json;

namespace Vlei.Books.Kept;

/// <summary>
/// What kept files may say, as JSON Schema (draft 2020-12), for editors that check and complete TOML by it. It is made from
/// the keys that the readers know.
/// </summary>
public static class KeptSchema
{
    /// <summary>The kinds that there is a schema of.</summary>
    public static IReadOnlyList<KeptKind> Kinds { get; } = [KeptKind.Report, KeptKind.Selection, KeptKind.Group, KeptKind.Page];

    /// <summary>Writes the schema of a kind.</summary>
    public static void Write(KeptKind kind, Stream stream) => Write(NameOf(kind), stream, json =>
    {
        if (kind == KeptKind.Selection)
        {
            WriteObject(json, SelectionFile.Keys);
        }
        else if (kind == KeptKind.Page)
        {
            WriteSent(
                json, PageFile.Keys, () => WriteTables(json, "panel", "The panels, in their order.", PageFile.PanelKeys, least: 1),
                ["panel"]);
        }
        else if (kind == KeptKind.Group)
        {
            WriteSent(
                json, GroupFile.Keys, () => WriteTables(json, "report", "The reports, in their order.", GroupFile.MemberKeys, least: 1),
                ["report"]);
        }
        else
        {
            WriteSent(json, ReportFile.Keys, () => { }, []);
        }
    });

    // A file of what goes to others, and when.
    private static void WriteSent(
        Utf8JsonWriter json, IReadOnlyList<FileKey> keys, Action writeTables, IReadOnlyList<string> neededTables) =>
        WriteObject(
            json, keys, () =>
            {
                writeTables();
                WriteTables(
                    json, DeliveryKeys.ScheduleTable, "When it is produced and sent by itself.", DeliveryKeys.ScheduleKeys, least: 0);
            }, neededTables);

    /// <summary>Writes the schema of a file that has keys and no tables.</summary>
    public static void Write(string file, IReadOnlyList<FileKey> keys, Stream stream) =>
        Write(file, stream, json => WriteObject(json, keys));

    /// <summary>Writes the schema of a kind whose files have keys and tables of texts.</summary>
    /// <param name="kind">The kind.</param>
    /// <param name="keys">The keys above the tables.</param>
    /// <param name="tables">The tables; where one has words, only these are keys of it.</param>
    /// <param name="stream">Where it goes.</param>
    public static void Write(KeptKind kind, IReadOnlyList<FileKey> keys, IReadOnlyList<FileKey> tables, Stream stream) =>
        Write(NameOf(kind), stream, json => WriteObject(json, keys, () =>
        {
            foreach (var table in tables)
            {
                json.WriteStartObject(table.Name);
                json.WriteString("description", table.Meaning);
                json.WriteString("type", "object");
                json.WriteStartObject(table.Words.Count > 0 ? "properties" : "additionalProperties");
                foreach (var word in table.Words)
                {
                    json.WriteStartObject(word);
                    json.WriteString("type", "string");
                    json.WriteEndObject();
                }

                if (table.Words.Count == 0)
                {
                    json.WriteString("type", "string");
                }

                json.WriteEndObject();
                if (table.Words.Count > 0)
                {
                    json.WriteBoolean("additionalProperties", false);
                }

                json.WriteEndObject();
            }
        }, tables.Where(table => table.IsRequired).Select(table => table.Name)));

    private static string NameOf(KeptKind kind) => $"{kind.Folder}/NAME.toml";

    private static void Write(string file, Stream stream, Action<Utf8JsonWriter> writeKeys)
    {
        using var json = new Utf8JsonWriter(
            stream, new JsonWriterOptions { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping });
        json.WriteStartObject();
        json.WriteString("$schema", "https://json-schema.org/draft/2020-12/schema");
        json.WriteString("title", file);
        writeKeys(json);
        json.WriteEndObject();
    }

    private static void WriteTables(Utf8JsonWriter json, string name, string meaning, IReadOnlyList<FileKey> keys, int least)
    {
        json.WriteStartObject(name);
        json.WriteString("description", meaning);
        json.WriteString("type", "array");
        json.WriteNumber("minItems", least);
        json.WriteStartObject("items");
        WriteObject(json, keys);
        json.WriteEndObject();
        json.WriteEndObject();
    }

    private static void WriteObject(
        Utf8JsonWriter json, IReadOnlyList<FileKey> keys, Action? writeMore = null, params IEnumerable<string> required)
    {
        json.WriteString("type", "object");
        json.WriteStartObject("properties");
        foreach (var key in keys)
        {
            json.WriteStartObject(key.Name);
            json.WriteString("description", key.Meaning);
            switch (key.Kind)
            {
                case FileKeyKind.Flag:
                    json.WriteString("type", "boolean");
                    break;
                case FileKeyKind.Number:
                    WriteStrings(json, "type", ["integer", "string"]);
                    break;
                case FileKeyKind.Texts:
                    WriteStrings(json, "type", ["string", "array"]);
                    json.WriteStartObject("items");
                    WriteText(json, key);
                    json.WriteEndObject();
                    break;
                default:
                    WriteText(json, key);
                    break;
            }

            json.WriteEndObject();
        }

        writeMore?.Invoke();
        json.WriteEndObject();
        WriteStrings(json, "required", [.. keys.Where(key => key.IsRequired).Select(key => key.Name), .. required]);
        json.WriteBoolean("additionalProperties", false);
    }

    private static void WriteText(Utf8JsonWriter json, FileKey key)
    {
        json.WriteString("type", "string");
        if (key.Words.Count > 0)
        {
            WriteStrings(json, "enum", key.Words);
        }
    }

    private static void WriteStrings(Utf8JsonWriter json, string name, IReadOnlyList<string> texts)
    {
        if (texts.Count > 0)
        {
            json.WriteStartArray(name);
            foreach (var text in texts)
            {
                json.WriteStringValue(text);
            }

            json.WriteEndArray();
        }
    }
}
