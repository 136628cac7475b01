using System.Text.Json;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Records;

/// <summary>
/// The <c>datapackage.json</c> beside the files, as the Data Package and Table Schema standards have it, so that
/// general tools can read and check a record set too.
/// </summary>
internal static class DataPackage
{
    /// <summary>
    /// Checks that every file that the package lists is there, and that it is in the book's currency where it says one.
    /// Throws a <see cref="ProblemException"/> otherwise.
    /// </summary>
    public static void Check(string path, Currency currency)
    {
        try
        {
            using var stream = File.OpenRead(path);
            using var package = JsonDocument.Parse(stream);
            if (package.RootElement.ValueKind != JsonValueKind.Object)
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"{path}: this is no description of a record set.",
                    "Expected an object with \"resources\"; or remove it: it is not needed to import.");
            }

            if (package.RootElement.TryGetProperty("currency", out var code)
                && code.ValueKind == JsonValueKind.String && code.GetString() != currency.Code)
            {
                throw new ProblemException(
                    ProblemKind.BadData,
                    $"{path}: the records are in {code.GetString()}, the book is in {currency.Code}.",
                    "Import them into a book of that currency.");
            }

            if (!package.RootElement.TryGetProperty("resources", out var resources)
                || resources.ValueKind != JsonValueKind.Array)
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"{path}: there is no list of resources.", "Expected \"resources\": [{\"path\": …}].");
            }

            foreach (var resource in resources.EnumerateArray())
            {
                CheckResource(path, resource);
            }
        }
        catch (JsonException broken)
        {
            throw new ProblemException(
                ProblemKind.BadData,
                $"{path}:{broken.LineNumber + 1}:{broken.BytePositionInLine + 1}: this is not JSON.",
                "Mend the file, or remove it: it is not needed to import.",
                broken);
        }
        catch (InvalidOperationException broken)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{path}: a text in it is no Unicode: half of a pair of surrogates.",
                "Mend the file, or remove it: it is not needed to import.", broken);
        }
    }

    /// <summary>Writes the description of the tables.</summary>
    public static void Write(
        string path, string title, Currency currency, IEnumerable<(RecordTable Table, IReadOnlyList<string> Tags)> tables)
    {
        using var stream = File.Create(path);
        using var json = new Utf8JsonWriter(stream, new JsonWriterOptions { Indented = true });
        json.WriteStartObject();
        json.WriteString("$schema", "https://datapackage.org/profiles/2.0/datapackage.json");
        json.WriteString("name", "records");
        json.WriteString("title", title);
        json.WriteString("currency", currency.Code);
        json.WriteStartArray("resources");
        foreach (var (table, tags) in tables)
        {
            json.WriteStartObject();
            json.WriteString("name", table.Name);
            json.WriteString("path", table.FileName);
            json.WriteString("type", "table");
            json.WriteString("format", "csv");
            json.WriteString("mediatype", "text/csv");
            json.WriteString("encoding", "utf-8");
            json.WritePropertyName("schema");
            WriteSchema(json, table, tags);
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static void CheckResource(string path, JsonElement resource)
    {
        if (resource.ValueKind == JsonValueKind.Object
            && resource.TryGetProperty("path", out var file) && file.ValueKind == JsonValueKind.String
            && !File.Exists(Path.Combine(Path.GetDirectoryName(path) ?? "", file.GetString()!)))
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{path}: it lists {file.GetString()}, which is not there.",
                "Put the file beside it, or take it off the list.");
        }
    }

    private static void WriteSchema(Utf8JsonWriter json, RecordTable table, IReadOnlyList<string> tags)
    {
        json.WriteStartObject();
        json.WriteStartArray("fields");
        foreach (var field in table.Fields)
        {
            json.WriteStartObject();
            json.WriteString("name", field.Name);
            json.WriteString("type", TypeOf(field.Type));
            json.WriteString("description", field.Meaning);
            WriteConstraints(json, field, table.Id == field.Name);
            json.WriteEndObject();
        }

        foreach (var tag in tags)
        {
            json.WriteStartObject();
            json.WriteString("name", $"tag.{tag}");
            json.WriteString("type", "string");
            json.WriteEndObject();
        }

        json.WriteEndArray();
        if (table.Id is { } id)
        {
            json.WriteString("primaryKey", id);
        }

        json.WriteStartArray("foreignKeys");
        foreach (var field in table.Fields.Where(field => field.Target is not null))
        {
            json.WriteStartObject();
            json.WriteString("fields", field.Name);
            json.WriteStartObject("reference");
            json.WriteString("resource", field.Target == table.Name ? "" : field.Target);
            json.WriteString("fields", RecordTables.Named(field.Target!).Id);
            json.WriteEndObject();
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static void WriteConstraints(Utf8JsonWriter json, RecordField field, bool unique)
    {
        if (!field.Required && field.Choices.Count == 0)
        {
            return;
        }

        json.WriteStartObject("constraints");
        if (field.Required)
        {
            json.WriteBoolean("required", true);
        }

        if (unique)
        {
            json.WriteBoolean("unique", true);
        }

        if (field.Choices.Count > 0)
        {
            json.WriteStartArray("enum");
            foreach (var choice in field.Choices)
            {
                json.WriteStringValue(choice);
            }

            json.WriteEndArray();
        }

        json.WriteEndObject();
    }

    private static string TypeOf(FieldType type) => type switch
    {
        FieldType.Date => "date",
        FieldType.Month => "yearmonth",
        FieldType.Money or FieldType.Decimal => "number",
        FieldType.Integer => "integer",
        FieldType.Boolean => "boolean",
        _ => "string",
    };
}
