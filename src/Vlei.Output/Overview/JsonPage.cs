using System.Text.Json;
using Vlei.Core.Calendar;
using Vlei.Core.Pages;

namespace Vlei.Output.Overview;

/// <summary>A page for tools: its panels, each with its figures, exactly.</summary>
internal static class JsonPage
{
    /// <summary>Writes the page.</summary>
    public static void Write(Page page, Stream stream)
    {
        using (var json = new Utf8JsonWriter(stream, new JsonWriterOptions { Indented = true }))
        {
            json.WriteStartObject();
            json.WriteString("page", page.Key);
            json.WriteString("title", page.Title);
            json.WriteString("book", page.Book);
            json.WriteString("day", PeriodText.Iso(page.Day));
            json.WriteStartArray("panels");
            foreach (var panel in page.Panels)
            {
                Write(json, panel);
            }

            json.WriteEndArray();
            json.WriteEndObject();
        }

        stream.WriteByte((byte)'\n');
    }

    private static void Write(Utf8JsonWriter json, Panel panel)
    {
        json.WriteStartObject();
        json.WriteString("title", panel.Title);
        json.WriteString("command", panel.Command);
        json.WriteString("problem", panel.Problem);
        if (panel is { Report: { } report, Plan: { } plan })
        {
            json.WriteString("currency", report.Currency.Code);
            json.WriteString("period", report.PeriodInWords);
            json.WriteStartArray("figures");
            foreach (var line in PanelLines.Of(report, plan))
            {
                json.WriteStartObject();
                json.WriteString("row", report.Rows[line.Row].Key);
                json.WriteString("column", report.Columns[line.Column].Key);
                json.WriteString("label", line.Label);
                json.WritePropertyName("value");
                json.WriteRawValue(Figures.Exact(report, report.Rows[line.Row], line.Column) ?? "null");
                json.WriteStartArray("changes");
                foreach (var change in line.Changes)
                {
                    json.WriteStartObject();
                    json.WriteString("against", change.Against);
                    json.WritePropertyName("percent");
                    json.WriteRawValue(change.Percent is { } percent
                        ? Core.Money.DecimalText.Write(percent, Core.Money.Percentage.Decimals) : "null");
                    json.WriteEndObject();
                }

                json.WriteEndArray();
                json.WriteEndObject();
            }

            json.WriteEndArray();
        }
        else
        {
            json.WriteStartArray("words");
            foreach (var (text, command) in panel.Words)
            {
                json.WriteStartObject();
                json.WriteString("text", text);
                json.WriteString("command", command);
                json.WriteEndObject();
            }

            json.WriteEndArray();
        }

        json.WriteEndObject();
    }
}
