using Vlei.Core.Reports;

namespace Vlei.Output.Charts;

/// <summary>Figures drawn beside themselves on a terminal: a line of small bars along time, else one bar for each row.</summary>
internal static class ChartColumn
{
    private const int BarWidth = 24;
    private const int Eighths = 8;
    private const string Parts = " ▏▎▍▌▋▊▉";

    /// <summary>The report with a column more.</summary>
    public static Report AddTo(Report report, ReportChart chart, bool ascii)
    {
        // Of several columns that add up to one, that one is drawn: a bar says one thing.
        var total = report.Columns.Select(column => column.Key).ToList().IndexOf("total");
        List<int> columns = chart.IsOfTime ? [.. chart.Series[0].Cells.Select(cell => cell.Column)]
            : [chart.Series.Count > 1 && total >= 0 ? total : chart.Series[0].Cells[0].Column];
        var isNamed = report.Look.Chart is { Rows.Count: > 0 };
        var drawn =
            (chart.IsOfTime ? chart.Series.Select(series => series.Cells[0].Row) : chart.Series[0].Cells.Select(cell => cell.Row))
                .ToHashSet();
        var scale = Scale.Of(
            chart.Series[0].Cells.Select(cell => ReportChart.UnitsAt(report, cell with { Column = columns[0] }) ?? 0));
        var rows = new List<ReportRow>(report.Rows.Count);
        foreach (var row in report.Rows)
        {
            var isDrawn = chart.IsOfTime ? !isNamed || drawn.Contains(rows.Count) : drawn.Contains(rows.Count);
            var units = columns.Select(column => row.Cells[column].Units).ToList();
            var words = !isDrawn || row.Kind == RowKind.Heading || units.TrueForAll(value => value is null) ? ""
                : chart.IsOfTime ? TextDrawing.Line(units, ascii) : scale.Bar(units[0] ?? 0, ascii);
            rows.Add(row with { Cells = [.. row.Cells, Cell.Of(words)] });
        }

        return report with { Columns = [.. report.Columns, new ReportColumn("chart", "", ColumnKind.Text)], Rows = rows };
    }

    // What is below nought stands at the left of a line, all else at its right.
    private sealed record Scale(double Least, double Most)
    {
        public static Scale Of(IEnumerable<long> units) =>
            units.Append(0).ToList() is var all ? new Scale(all.Min(), all.Max()) : throw new InvalidOperationException();

        public string Bar(long units, bool ascii)
        {
            var span = Most - Least;
            var left = span == 0 ? 0 : (int)Math.Round(BarWidth * -Least / span);
            var eighths = span == 0 ? 0 : (int)Math.Round(BarWidth * Eighths * Math.Abs((double)units) / span);
            var part = ascii || units < 0 || eighths % Eighths == 0 ? "" : Parts[eighths % Eighths].ToString();
            var bar = new string(ascii ? '#' : '█', eighths / Eighths) + part is { Length: > 0 } drawn ? drawn : units == 0 ? "" : ascii
                ? "#" : "▏";
            var line = ascii ? '|' : '│';
            return left == 0 ? bar : units < 0 ? bar.PadLeft(left) + line : new string(' ', left) + line + bar;
        }
    }
}
