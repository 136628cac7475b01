using System.Globalization;
using System.Text.Json;
using System.Xml.Linq;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Output.Charts;

/// <summary>
/// A chart as a picture: what is asked of who draws it, and what is made of the drawing.
/// </summary>
internal static class ChartDrawing
{
    private const string Font = "IBM Plex Sans";
    private const int Width = 960;
    private const int Height = 480;
    private const int RowHeight = 34;
    private const int BarHeight = 14;
    private const int HeightBesideRows = 140;

    /// <summary>The chart as SVG (W3C Scalable Vector Graphics).</summary>
    public static string Svg(ReportWords words, IChartDrawer? drawer)
    {
        var chart = ChartOf(words);
        var drawing = XDocument.Load(new MemoryStream(Draw(words, chart, "svg", drawer)));
        foreach (var text in drawing.Descendants().Where(element => element.Name.LocalName == "text"))
        {
            text.SetAttributeValue("font-family", $"{Font}, system-ui, sans-serif");
            Loosen(text);
        }

        // Without it, a narrow page cuts the drawing off rather than making it smaller.
        var (width, height) = SizeOf(chart);
        drawing.Root!.SetAttributeValue("viewBox", string.Create(CultureInfo.InvariantCulture, $"0 0 {width} {height}"));
        return drawing.Root!.ToString(SaveOptions.DisableFormatting);
    }

    // Where each letter stands is right for the font that it was drawn with alone; how long the whole is, is right for any.
    private static void Loosen(XElement text)
    {
        var places = ((string?)text.Attribute("x") ?? "").Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            .Select(place => double.Parse(place, CultureInfo.InvariantCulture)).ToList();
        if (places.Count > 1)
        {
            var length = (places[^1] - places[0]) * places.Count / (places.Count - 1);
            text.SetAttributeValue("x", Math.Round(places[0], 1).ToString(CultureInfo.InvariantCulture));
            text.SetAttributeValue("textLength", Math.Round(length, 1).ToString(CultureInfo.InvariantCulture));
            text.SetAttributeValue("lengthAdjust", "spacingAndGlyphs");
        }

        if ((string?)text.Attribute("y") is { } heights && heights.IndexOf(',', StringComparison.Ordinal) is > 0 and var comma)
        {
            text.SetAttributeValue("y", heights[..comma].Trim());
        }
    }

    /// <summary>The chart as PNG.</summary>
    public static byte[] Png(ReportWords words, IChartDrawer? drawer) => Draw(words, ChartOf(words), "png", drawer);

    /// <summary>How wide and how high a chart is, in dots of a screen.</summary>
    public static (int Width, int Height) SizeOf(ReportChart chart) =>
        chart.IsOfTime || chart.Kind is ChartKind.Lines or ChartKind.Share ? (Width, Height)
        : (Width,
            HeightBesideRows
                + (chart.Categories.Count * Math.Max(RowHeight, chart.Kind == ChartKind.Stacked ? 0 : chart.Series.Count * BarHeight)));

    /// <summary>What stands above a chart.</summary>
    public static string TitleOf(ReportWords words, ReportChart chart)
    {
        if (chart.OutOf is not { } all)
        {
            return words.Report.Title;
        }

        var shown = chart.IsOfTime ? chart.Series.Count : chart.Categories.Count;
        var largest = words.Language.Say(
            "the {0} largest of {1}", shown.ToString(CultureInfo.InvariantCulture), all.ToString(CultureInfo.InvariantCulture));
        return $"{words.Report.Title} ({largest})";
    }

    /// <summary>What a chart says, for those who do not see it.</summary>
    public static string InWords(ReportWords words, ReportChart chart) =>
        $"{TitleOf(words, chart)}: {string.Join(", ", chart.Series.Select(series => series.Name))}";

    // A picture has the chart that suits the report where none is asked for.
    private static ReportChart ChartOf(ReportWords words) => words.Chart ?? ReportChart.Of(words.Report, out var refusal)
        ?? throw refusal!.AsProblem();

    private static byte[] Draw(ReportWords words, ReportChart chart, string format, IChartDrawer? drawer)
    {
        using var asked = new MemoryStream();
        Write(words, chart, asked);
        return drawer is not null ? drawer.Draw(format, asked.ToArray()) : throw new ProblemException(
            ProblemKind.CannotWrite, "The chart cannot be drawn: there is nothing that draws here.", "Leave --chart out.");
    }

    private static void Write(ReportWords words, ReportChart chart, Stream stream)
    {
        var (width, height) = SizeOf(chart);
        using var json = new Utf8JsonWriter(stream);
        json.WriteStartObject();
        json.WriteString("title", DisplayText.Harmless(TitleOf(words, chart), ascii: false));
        json.WriteString("subtitle", $"{words.Report.PeriodInWords}. {words.InWhat}");
        json.WriteString("kind", ChartText.Words[(int)chart.Kind]);
        json.WriteBoolean("of_time", chart.IsOfTime);
        json.WriteNumber("width", width);
        json.WriteNumber("height", height);
        json.WriteString("thousands", words.ThousandsMark);
        json.WriteString("decimal_mark", words.DecimalMark);
        json.WriteStartArray("categories");
        foreach (var category in chart.Categories)
        {
            json.WriteStringValue(DisplayText.Harmless(category, ascii: false));
        }

        json.WriteEndArray();
        json.WriteStartArray("colours");
        for (var place = 0; place < Math.Max(chart.Series.Count, chart.Categories.Count); place++)
        {
            json.WriteNumberValue(ChartColours.At(place, words.Look.Accent));
        }

        json.WriteEndArray();
        json.WriteStartArray("series");
        foreach (var series in chart.Series)
        {
            json.WriteStartObject();
            json.WriteString("name", DisplayText.Harmless(series.Name, ascii: false));
            json.WriteStartArray("values");
            foreach (var cell in series.Cells)
            {
                if (ReportChart.UnitsAt(words.Report, cell) is { } units)
                {
                    json.WriteNumberValue((double)units / DivisorOf(words, chart.Figures));
                }
                else
                {
                    json.WriteNullValue();
                }
            }

            json.WriteEndArray();
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static double DivisorOf(ReportWords words, ColumnKind kind) => Math.Pow(10, kind switch
    {
        ColumnKind.Money => words.Report.Currency.Decimals + words.Look.ScaleDigits,
        ColumnKind.Quantity => Figures.QuantityDecimals,
        ColumnKind.Count => 0,
        _ => Percentage.Decimals,
    });
}
