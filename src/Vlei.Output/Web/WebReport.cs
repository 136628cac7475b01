using System.Globalization;
using System.Text;
using Vlei.Core.Languages;
using Vlei.Core.Reports;
using Vlei.Output.Charts;
using Vlei.Output.Overview;

namespace Vlei.Output.Web;

/// <summary>
/// A report, or several, as one web page (HTML) that needs nothing else: it is read without its script, which folds, finds
/// and sorts. Where records go along, every figure leads to those behind it.
/// </summary>
internal sealed class WebReport
{
    // Those that the style sheet knows; deeper rows say it themselves.
    private const int LevelsOfStyle = 4;
    private const int AlignedColumns = 12;

    private readonly StreamWriter _text;
    private readonly Language _language;
    private readonly IChartDrawer? _charts;

    private WebReport(StreamWriter text, Language language, IChartDrawer? charts) => (_text, _language, _charts) = (text, language, charts);

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream, IChartDrawer? charts) =>
        Page(stream, words.Report.Title, words.Language, words.Look, charts, page => page.WriteReport(words, "r", "h1"));

    /// <summary>Writes the reports, one after the other, under a list of them.</summary>
    public static void WritePack(ReportPack pack, Stream stream, IChartDrawer? charts)
    {
        var reports = pack.Whole.Select(report => new ReportWords(report)).ToList();
        var language = reports.Select(words => words.Language).FirstOrDefault(Language.English);
        Page(stream, pack.Title, language, reports.Select(words => words.Look).LastOrDefault(new ReportLook()), charts, page =>
        {
            page._text.WriteLine($"<header id=\"top\"><h1>{PageText.Of(pack.Title)}</h1></header>");
            if (pack.Front is { } front)
            {
                page.WritePanels(new PageWords(front), leads: false);
            }

            page._text.WriteLine($"<nav aria-label=\"{page.Said("Contents")}\"><ol>");
            for (var place = 0; place < reports.Count; place++)
            {
                page._text.WriteLine($"<li><a href=\"#report-{place + 1}\">{PageText.Of(reports[place].Report.Title)}</a></li>");
            }

            page._text.WriteLine("</ol></nav>");
            for (var place = 0; place < reports.Count; place++)
            {
                page._text.WriteLine($"<article id=\"report-{place + 1}\">");
                page.WriteReport(reports[place], $"report-{place + 1}-", "h2");
                page._text.WriteLine($"<p class=\"back\"><a href=\"#top\">{page.Said("Contents")}</a></p></article>");
            }
        });
    }

    /// <summary>Writes a page of panels, and the reports that they are of beneath, to which they lead.</summary>
    public static void WritePage(PageWords words, Stream stream, IChartDrawer? charts) =>
        Page(stream, words.Title, words.Language, words.Page.Look, charts, page =>
        {
            page._text.WriteLine($"<header id=\"top\"><h1>{PageText.Of(words.Title)}</h1><p>{PageText.Of(words.Page.Book)}</p>");
            page._text.WriteLine($"<p>{PageText.Of(words.Day)}</p></header>");
            page.WritePanels(words, leads: true);
            foreach (var (place, panel) in words.Panels.Index().Where(indexed => indexed.Item.Panel.Report is not null))
            {
                page._text.WriteLine($"<article id=\"report-{place + 1}\">");
                page.WriteReport(new ReportWords(panel.Panel.Report!), $"report-{place + 1}-", "h2");
                page._text.WriteLine($"<p class=\"back\"><a href=\"#top\">{PageText.Of(words.Title)}</a></p></article>");
            }
        });

    private void WritePanels(PageWords words, bool leads)
    {
        _text.WriteLine($"<style>\n{PageText.Part("panels.css")}</style>\n<div class=\"panels\">");
        foreach (var (place, panel) in words.Panels.Index())
        {
            WebPanel.Write(_text, panel, leads && panel.Panel.Report is not null ? $"report-{place + 1}" : null);
        }

        _text.WriteLine("</div>");
    }

    private static void Page(Stream stream, string title, Language language, ReportLook look, IChartDrawer? charts, Action<WebReport> write)
    {
        using var text = new StreamWriter(stream, new UTF8Encoding(false), 1 << 16, leaveOpen: true) { NewLine = "\n" };
        text.WriteLine($"<!doctype html>\n<html lang=\"{language.Code}\">\n<head>\n<meta charset=\"utf-8\">");
        text.WriteLine("<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">");
        text.WriteLine(
            "<meta http-equiv=\"Content-Security-Policy\" content=\"default-src 'none'; style-src 'unsafe-inline'; script-src "
                + "'unsafe-inline'; img-src data:\">");
        text.WriteLine("<meta name=\"generator\" content=\"Vlei\">");
        text.WriteLine($"<title>{PageText.Of(title)}</title>");
        text.WriteLine($"<style>\n{PageText.Part("page.css")}{StyleOf(look)}</style>\n</head>\n<body>\n<main>");
        write(new WebReport(text, language, charts));
        text.WriteLine($"</main>\n<script>\n{PageText.Part("page.js")}</script>\n</body>\n</html>");
    }

    private static string StyleOf(ReportLook look)
    {
        var style = new StringBuilder();
        if (look.Accent is { } accent)
        {
            style.Append(
                CultureInfo.InvariantCulture, $"h1, h2 {{ color: #{accent:x6}; }} thead th, thead td {{ border-color: #{accent:x6}; }}\n");
            style.Append(
                CultureInfo.InvariantCulture,
                $"@media (prefers-color-scheme: dark) {{ h1, h2 {{ color: color-mix(in srgb, #{accent:x6} 55%, white); }} }}\n");
        }

        var turn = look.Turn switch { PaperTurn.Landscape => " landscape", PaperTurn.Portrait => " portrait", _ => "" };
        style.Append(CultureInfo.InvariantCulture, $"@page {{ size: {(look.Paper == PaperSize.Letter ? "letter" : "A4")}{turn}; }}\n");
        return look.FontSize is { } size
            ? style.Append(CultureInfo.InvariantCulture, $"@media print {{ body {{ font-size: {size}pt; }} }}\n").ToString()
            : style.ToString();
    }

    private string Said(string english) => PageText.Of(_language.Say(english));

    private void WriteReport(ReportWords words, string id, string heading)
    {
        WriteHead(words, heading);
        if (words.Chart is { } chart)
        {
            _text.WriteLine(
                $"<figure class=\"chart\" role=\"img\" aria-label=\"{PageText.Of(ChartDrawing.InWords(words, chart))}\">"
                + $"{ChartDrawing.Svg(words, _charts)}</figure>");
        }

        var records = words.Report.Records;
        if (words.Report.Rows.Count > 0)
        {
            WriteTable(
                words, $"{id}table", new PageLinks { Figure = figure => records?.HeadingOf(figure) is { } row ? $"{id}d{row}" : null });
        }

        WriteFoot(words);
        WriteRecords(words, id, heading == "h1" ? "h2" : "h3");
    }

    private void WriteHead(ReportWords words, string heading)
    {
        _text.Write("<header>");
        if (words.Look.Logo is { } logo)
        {
            _text.Write(
                $"<img class=\"logo\" alt=\"{PageText.Of(words.Report.Book)}\" src=\"data:image/{(logo.IsPng ? "png" : "jpeg")};base64,"
                + $"{Convert.ToBase64String(logo.Bytes.Span)}\">");
        }

        _text.WriteLine($"<{heading}>{PageText.Of(words.Report.Title)}</{heading}>");
        foreach (var line in words.Head)
        {
            _text.WriteLine($"<p>{PageText.Of(line)}</p>");
        }

        if (words.Report.AddressedTo.Count > 0)
        {
            _text.WriteLine($"<p class=\"to\">{string.Join('\n', words.Report.AddressedTo.Select(PageText.Of))}</p>");
        }

        if (words.Report.Letter is { } letter)
        {
            _text.WriteLine(
                $"<p class=\"due\">{Said("Balance due")} <strong>{words.Report.Currency.Code} {PageText.Of(words.MoneyText(letter.Due))}"
                + "</strong></p>");
        }

        _text.WriteLine("</header>");
    }

    private void WriteFoot(ReportWords words)
    {
        _text.WriteLine("<footer>");
        foreach (var (line, isFailed) in words.Foot)
        {
            _text.WriteLine($"<p{(isFailed ? " class=\"failed\"" : "")}>{PageText.Of(line)}</p>");
        }

        _text.WriteLine("</footer>");
    }

    // A heading leads back to the figure that the records below it are behind, and a record on to its document.
    private void WriteRecords(ReportWords words, string id, string heading)
    {
        if (words.Records is not { } records)
        {
            return;
        }

        var known = words.Documents?.RowsOfDocuments().ToDictionary(document => document.Key, document => $"{id}doc{document.Value}") ?? [];
        var behind = words.Report.Records!;
        Write(records, $"{id}records", new PageLinks
        {
            Row = (_, place) => behind.Figures.ContainsKey(place) ? $"{id}d{place}" : null,
            Label = (row, place) => behind.Figures.ContainsKey(place) ? $"{id}d{place}f"
                : behind.HeadingBehind(place) is { } heading ? $"{id}d{heading}" : row.Document is { } document
                ? known.GetValueOrDefault(document) : null,
        });
        if (words.Documents is { } documents)
        {
            Write(documents, $"{id}documents", new PageLinks { Row = (row, _) => row.Document is { } document ? known[document] : null });
        }

        void Write(ReportWords further, string table, PageLinks links)
        {
            _text.WriteLine($"<section class=\"records\"><{heading}>{PageText.Of(further.Report.Title)}</{heading}>");
            WriteTable(further, table, links);
            _text.WriteLine("</section>");
        }
    }

    // What scrolls sideways can be reached with the keyboard.
    private void WriteTable(ReportWords words, string id, PageLinks links)
    {
        var (report, shown) = (words.Report, words.ShownColumns());
        _text.WriteLine($"<div class=\"wide\" tabindex=\"0\" role=\"region\" aria-label=\"{PageText.Of(report.Title)}\">");
        _text.WriteLine(
            $"<table class=\"report{Aligned(words, shown)}\" id=\"{id}\" data-find=\"{Said("Find")}\" data-fold=\"{Said("Fold")}\" "
            + $"data-fold-all=\"{Said("Fold all")}\" data-open-all=\"{Said("Open all")}\">");
        _text.Write($"<thead><tr><td{(words.LabelWidth is { } label ? $" style=\"width:{label}ch\"" : "")}></td>");
        foreach (var column in shown)
        {
            var width = words.WidthOf(column) is { } letters ? $" style=\"width:{letters}ch\"" : "";
            _text.Write($"<th scope=\"col\"{ClassOf(words.AlignOf(column))}{width}>{PageText.Of(report.Columns[column].Heading)}</th>");
        }

        _text.WriteLine("</tr></thead>\n<tbody>");
        var place = 0;
        RowLook? above = null;
        foreach (var row in report.Rows)
        {
            WriteRow(words, (row, above), place++, shown, links);
            above = RowLook.Of(row);
        }

        _text.WriteLine("</tbody></table></div>");
    }

    private void WriteRow(ReportWords words, (ReportRow Row, RowLook? Above) rows, int place, IReadOnlyList<int> shown, PageLinks links)
    {
        var row = rows.Row;
        var own = links.Row(row, place) is { } name ? $" id=\"{name}\"" : "";
        var bare = RowLook.Of(row).IsTotal && !RowLook.Of(row).HasRule(rows.Above) ? " bare" : "";
        var deep = row.Level > LevelsOfStyle ? string.Create(CultureInfo.InvariantCulture, $" style=\"--in:{row.Level}\"") : "";
        _text.Write(string.Create(
            CultureInfo.InvariantCulture,
            $"<tr class=\"{ClassOf(row.Kind)}{bare}\" data-level=\"{row.Level}\"{own}><th scope=\"row\"{deep}>"));
        _text.Write(
            links.Label(row, place) is { } target ? $"<a href=\"#{target}\">{PageText.Of(row.Label)}</a></th>"
                : $"{PageText.Of(row.Label)}</th>");
        foreach (var (number, column) in shown.Index())
        {
            var align = row.Kind == RowKind.Record && number < AlignedColumns ? "" : ClassOf(words.AlignOf(column));
            _text.Write(CellOf(words, row, column, align, links.Figure(new CellPlace(place, column))));
        }

        _text.WriteLine("</tr>");
    }

    // Records are many: where they stand is said once, for the table.
    private static string Aligned(ReportWords words, IReadOnlyList<int> shown) => string.Concat(
        shown.Take(AlignedColumns).Index().Select(column => words.AlignOf(column.Item) switch
        {
            ColumnAlign.Right => string.Create(CultureInfo.InvariantCulture, $" n{column.Index + 2}"),
            ColumnAlign.Center => string.Create(CultureInfo.InvariantCulture, $" c{column.Index + 2}"),
            _ => "",
        }));

    private static string ClassOf(ColumnAlign align) =>
        align switch { ColumnAlign.Right => " class=\"n\"", ColumnAlign.Center => " class=\"c\"", _ => "" };

    private static string ClassOf(RowKind kind) => kind switch
    {
        RowKind.Heading => "heading",
        RowKind.Total => "total",
        RowKind.Result => "result",
        RowKind.GrandTotal => "grand",
        RowKind.Record => "record",
        _ => "account",
    };

    // A page that is read by a program says every figure exactly: beside what a person reads, where that is not the same.
    private static string CellOf(ReportWords words, ReportRow row, int column, string align, string? records)
    {
        var exact = Figures.Exact(words.Report, row, column);
        if (exact is null or "")
        {
            return "<td></td>";
        }

        if (row.Cells[column].Units is null)
        {
            return $"<td{align}>{PageText.Of(exact)}</td>";
        }

        var (figure, mark) = words.FigureAndMark(row, column);
        var data = figure == exact ? exact : $"<data value=\"{exact}\">{PageText.Of(figure)}</data>";
        var linked = records is null ? data : $"<a id=\"{records}f\" href=\"#{records}\">{data}</a>";
        return $"<td{align}>{linked}{(mark is { } change ? $"<span class=\"mark\">{change}</span>" : "")}</td>";
    }
}
