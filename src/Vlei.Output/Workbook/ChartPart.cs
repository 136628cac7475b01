using System.Globalization;
using System.Xml;
using Vlei.Core.Reports;
using Vlei.Output.Charts;

namespace Vlei.Output.Workbook;

/// <summary>A chart that a workbook draws itself, from the cells of the report (DrawingML charts, ECMA-376).</summary>
/// <param name="words">The report.</param>
/// <param name="chart">What it shows.</param>
/// <param name="sheet">The name of the sheet.</param>
/// <param name="headings">The row of the column headings, from 1.</param>
/// <param name="column">The column that it begins in, from 0.</param>
/// <param name="row">The row that it begins in, from 0.</param>
/// <param name="lines">How many rows it is high.</param>
internal sealed class ChartPart(ReportWords words, ReportChart chart, string sheet, int headings, int column, int row, int lines)
{
    private const string Namespace = "http://schemas.openxmlformats.org/drawingml/2006/chart";
    private const string Main = "http://schemas.openxmlformats.org/drawingml/2006/main";
    private const int PointsAcross = 490;

    private static readonly string[] Markers = ["circle", "square", "triangle", "diamond", "x", "plus"];

    /// <summary>Writes its place on the sheet.</summary>
    public void WriteFrame(XmlWriter xml, string relation)
    {
        SheetDrawing.Start(xml, "oneCellAnchor");
        SheetDrawing.WritePlace(xml, "from", column, row);
        SheetDrawing.Start(xml, "ext");
        xml.WriteAttributeString("cx", SheetWriter.Text(PointsAcross * SheetDrawing.UnitsPerPoint));
        xml.WriteAttributeString("cy", SheetWriter.Text(lines * SheetWriter.LineHeight * SheetDrawing.UnitsPerPoint));
        xml.WriteEndElement();
        SheetDrawing.Start(xml, "graphicFrame");
        xml.WriteAttributeString("macro", "");
        SheetDrawing.Start(xml, "nvGraphicFramePr");
        SheetDrawing.Start(xml, "cNvPr");
        xml.WriteAttributeString("id", "3");
        xml.WriteAttributeString("name", "Chart");
        xml.WriteAttributeString("descr", CellText.Escaped(words.Report.Title));
        xml.WriteEndElement();
        SheetDrawing.Empty(xml, "cNvGraphicFramePr");
        xml.WriteEndElement();
        SheetDrawing.Start(xml, "xfrm");
        foreach (var (name, one, other) in new[] { ("off", "x", "y"), ("ext", "cx", "cy") })
        {
            xml.WriteStartElement("a", name, Main);
            xml.WriteAttributeString(one, "0");
            xml.WriteAttributeString(other, "0");
            xml.WriteEndElement();
        }

        xml.WriteEndElement();
        xml.WriteStartElement("a", "graphic", Main);
        xml.WriteStartElement("a", "graphicData", Main);
        xml.WriteAttributeString("uri", Namespace);
        xml.WriteStartElement("c", "chart", Namespace);
        xml.WriteAttributeString("r", "id", WorkbookPackage.Relations, relation);
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        SheetDrawing.Empty(xml, "clientData");
        xml.WriteEndElement();
    }

    /// <summary>Writes the chart.</summary>
    public void Write(XmlWriter xml)
    {
        xml.WriteStartElement("c", "chartSpace", Namespace);
        xml.WriteAttributeString("xmlns", "a", null, Main);
        xml.WriteStartElement("c", "chart", Namespace);
        WriteTitle(xml);
        Value(xml, "autoTitleDeleted", "0");
        xml.WriteStartElement("c", "plotArea", Namespace);
        xml.WriteElementString("c", "layout", Namespace, "");
        WritePlot(xml);
        if (chart.Kind != ChartKind.Share)
        {
            WriteAxes(xml);
        }

        xml.WriteEndElement();
        if (chart.Series.Count > 1 || chart.Kind == ChartKind.Share)
        {
            xml.WriteStartElement("c", "legend", Namespace);
            Value(xml, "legendPos", "b");
            Value(xml, "overlay", "0");
            xml.WriteEndElement();
        }

        Value(xml, "plotVisOnly", "0");
        Value(xml, "dispBlanksAs", "gap");
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private void WriteTitle(XmlWriter xml)
    {
        xml.WriteStartElement("c", "title", Namespace);
        xml.WriteStartElement("c", "tx", Namespace);
        xml.WriteStartElement("c", "rich", Namespace);
        xml.WriteElementString("a", "bodyPr", Main, "");
        xml.WriteStartElement("a", "p", Main);
        xml.WriteStartElement("a", "pPr", Main);
        xml.WriteStartElement("a", "defRPr", Main);
        xml.WriteAttributeString("sz", "1200");
        xml.WriteAttributeString("b", "1");
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteStartElement("a", "r", Main);
        xml.WriteStartElement("a", "rPr", Main);
        xml.WriteAttributeString("sz", "1200");
        xml.WriteAttributeString("b", "1");
        xml.WriteEndElement();
        xml.WriteElementString("a", "t", Main, CellText.Escaped(ChartDrawing.TitleOf(words, chart)));
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        Value(xml, "overlay", "0");
        xml.WriteEndElement();
    }

    private void WritePlot(XmlWriter xml)
    {
        xml.WriteStartElement(
            "c", chart.Kind switch { ChartKind.Lines => "lineChart", ChartKind.Share => "pieChart", _ => "barChart" }, Namespace);
        if (chart.Kind is ChartKind.Bars or ChartKind.Stacked)
        {
            Value(xml, "barDir", chart.IsOfTime ? "col" : "bar");
        }

        if (chart.Kind != ChartKind.Share)
        {
            Value(xml, "grouping", chart.Kind switch { ChartKind.Stacked => "stacked", ChartKind.Lines => "standard", _ => "clustered" });
        }

        Value(xml, "varyColors", chart.Kind == ChartKind.Share ? "1" : "0");
        for (var place = 0; place < chart.Series.Count; place++)
        {
            WriteSeries(xml, place);
        }

        if (chart.Kind is ChartKind.Bars or ChartKind.Stacked)
        {
            Value(xml, "gapWidth", "60");
            if (chart.Kind == ChartKind.Stacked)
            {
                Value(xml, "overlap", "100");
            }
        }

        if (chart.Kind == ChartKind.Lines)
        {
            Value(xml, "marker", "1");
        }

        if (chart.Kind != ChartKind.Share)
        {
            Value(xml, "axId", "1");
            Value(xml, "axId", "2");
        }

        xml.WriteEndElement();
    }

    private void WriteSeries(XmlWriter xml, int place)
    {
        var series = chart.Series[place];
        xml.WriteStartElement("c", "ser", Namespace);
        Value(xml, "idx", SheetWriter.Text(place));
        Value(xml, "order", SheetWriter.Text(place));
        xml.WriteStartElement("c", "tx", Namespace);
        WriteTexts(xml, "strRef", [chart.IsOfTime ? (series.Cells[0].Row + 1, 0) : (0, series.Cells[0].Column + 1)], [series.Name]);
        xml.WriteEndElement();
        if (chart.Kind != ChartKind.Share)
        {
            WriteColour(xml, ChartColours.At(place, words.Look.Accent), isLine: chart.Kind == ChartKind.Lines);
        }

        if (chart.Kind == ChartKind.Lines)
        {
            xml.WriteStartElement("c", "marker", Namespace);
            Value(xml, "symbol", Markers[place % Markers.Length]);
            Value(xml, "size", "6");
            xml.WriteEndElement();
        }
        else if (chart.Kind != ChartKind.Share)
        {
            Value(xml, "invertIfNegative", "0");
        }

        for (var slice = 0; chart.Kind == ChartKind.Share && slice < chart.Categories.Count; slice++)
        {
            xml.WriteStartElement("c", "dPt", Namespace);
            Value(xml, "idx", SheetWriter.Text(slice));
            WriteColour(xml, ChartColours.At(slice, words.Look.Accent), isLine: false);
            xml.WriteEndElement();
        }

        if (chart.Kind == ChartKind.Share)
        {
            WriteShareLabels(xml);
        }

        xml.WriteStartElement("c", "cat", Namespace);
        WriteTexts(
            xml, "strRef", [.. series.Cells.Select(cell => chart.IsOfTime ? (0, cell.Column + 1) : (cell.Row + 1, 0))], chart.Categories);
        xml.WriteEndElement();
        xml.WriteStartElement("c", "val", Namespace);
        WriteNumbers(xml, series);
        xml.WriteEndElement();
        if (chart.Kind == ChartKind.Lines)
        {
            Value(xml, "smooth", "0");
        }

        xml.WriteEndElement();
    }

    private static void WriteShareLabels(XmlWriter xml)
    {
        xml.WriteStartElement("c", "dLbls", Namespace);
        Value(xml, "showLegendKey", "0");
        Value(xml, "showVal", "0");
        Value(xml, "showCatName", "0");
        Value(xml, "showSerName", "0");
        Value(xml, "showPercent", "1");
        Value(xml, "showBubbleSize", "0");
        xml.WriteEndElement();
    }

    private static void WriteColour(XmlWriter xml, int colour, bool isLine)
    {
        xml.WriteStartElement("c", "spPr", Namespace);
        if (isLine)
        {
            xml.WriteStartElement("a", "ln", Main);
            xml.WriteAttributeString("w", "25400");
        }

        xml.WriteStartElement("a", "solidFill", Main);
        xml.WriteStartElement("a", "srgbClr", Main);
        xml.WriteAttributeString("val", colour.ToString("X6", CultureInfo.InvariantCulture));
        xml.WriteEndElement();
        xml.WriteEndElement();
        if (isLine)
        {
            xml.WriteEndElement();
        }

        xml.WriteEndElement();
    }

    private void WriteTexts(XmlWriter xml, string kind, IReadOnlyList<(int Row, int Column)> cells, IReadOnlyList<string> texts)
    {
        xml.WriteStartElement("c", kind, Namespace);
        xml.WriteElementString("c", "f", Namespace, Reference(cells));
        xml.WriteStartElement("c", "strCache", Namespace);
        WritePoints(xml, [.. texts.Select(CellText.Escaped)]);
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private void WriteNumbers(XmlWriter xml, ChartSeries series)
    {
        xml.WriteStartElement("c", "numRef", Namespace);
        xml.WriteElementString("c", "f", Namespace, Reference([.. series.Cells.Select(cell => (cell.Row + 1, cell.Column + 1))]));
        xml.WriteStartElement("c", "numCache", Namespace);
        xml.WriteElementString("c", "formatCode", Namespace, "General");
        WritePoints(
            xml,
            [
                .. series.Cells.Select(
                    cell => ReportChart.UnitsAt(words.Report, cell) is { } units
                        ? CellFormat.Value(words.Report, words.Report.Rows[cell.Row], cell.Column, units) : null)]);
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private static void WritePoints(XmlWriter xml, IReadOnlyList<string?> values)
    {
        Value(xml, "ptCount", SheetWriter.Text(values.Count));
        for (var place = 0; place < values.Count; place++)
        {
            if (values[place] is { } value)
            {
                xml.WriteStartElement("c", "pt", Namespace);
                xml.WriteAttributeString("idx", SheetWriter.Text(place));
                xml.WriteElementString("c", "v", Namespace, value);
                xml.WriteEndElement();
            }
        }
    }

    private void WriteAxes(XmlWriter xml)
    {
        var isUpright = chart.IsOfTime || chart.Kind == ChartKind.Lines;
        xml.WriteStartElement("c", "catAx", Namespace);
        WriteAxis(xml, "1", "2", isUpright ? "b" : "l", isReversed: !isUpright);
        xml.WriteEndElement();
        xml.WriteStartElement("c", "valAx", Namespace);
        WriteAxis(xml, "2", "1", isUpright ? "l" : "b", isReversed: false);
        xml.WriteEndElement();
    }

    // Rows are read downwards, so that the first of them is the uppermost bar.
    private void WriteAxis(XmlWriter xml, string own, string other, string side, bool isReversed)
    {
        var isOfValues = own == "2";
        Value(xml, "axId", own);
        xml.WriteStartElement("c", "scaling", Namespace);
        Value(xml, "orientation", isReversed ? "maxMin" : "minMax");
        xml.WriteEndElement();
        Value(xml, "delete", "0");
        Value(xml, "axPos", side);
        if (isOfValues)
        {
            xml.WriteElementString("c", "majorGridlines", Namespace, "");
            xml.WriteStartElement("c", "numFmt", Namespace);
            xml.WriteAttributeString(
                "formatCode", chart.Figures == ColumnKind.Percent ? "0%" : $"#,##0{new string(',', words.Look.ScaleDigits / 3)}");
            xml.WriteAttributeString("sourceLinked", "0");
            xml.WriteEndElement();
        }

        Value(xml, "majorTickMark", "none");
        Value(xml, "minorTickMark", "none");
        Value(xml, "tickLblPos", isOfValues ? "nextTo" : "low");
        Value(xml, "crossAx", other);
        Value(xml, "crosses", isOfValues && side == "b" ? "max" : "autoZero");
    }

    // The cells of a table stand below or beside each other; where they do not, they are named one by one.
    private string Reference(IReadOnlyList<(int Row, int Column)> cells)
    {
        var (first, last) = (cells[0], cells[^1]);
        var isRun = (first.Row == last.Row && last.Column - first.Column == cells.Count - 1)
            || (first.Column == last.Column && last.Row - first.Row == cells.Count - 1);
        var names = (isRun ? [Absolute(first) + (cells.Count > 1 ? $":{Absolute(last)}" : "")] : cells.Select(Absolute))
            .Select(name => CellText.Place(sheet, name)).ToList();
        return names.Count == 1 ? names[0] : $"({string.Join(',', names)})";
    }

    private string Absolute((int Row, int Column) cell) =>
        string.Create(CultureInfo.InvariantCulture, $"${CellText.ColumnName(cell.Column)}${headings + cell.Row}");

    private static void Value(XmlWriter xml, string name, string value)
    {
        xml.WriteStartElement("c", name, Namespace);
        xml.WriteAttributeString("val", value);
        xml.WriteEndElement();
    }
}
