using System.Globalization;
using System.Text;
using Vlei.Core.Reports;

namespace Vlei.Output.Web;

/// <summary>
/// A report, or several, as one web page (HTML) that needs nothing else: it is read without its script, which folds, finds
/// and sorts.
/// </summary>
internal sealed class WebReport
{
    private readonly StreamWriter _text;

    private WebReport(StreamWriter text) => _text = text;

    /// <summary>Writes the report.</summary>
    public static void Write(Report report, Stream stream) => Page(stream, report.Title, page =>
    {
        page.WriteHead(report, "h1");
        page.WriteBody(report, "report");
    });

    /// <summary>Writes the reports, one after the other, under a list of them.</summary>
    public static void WritePack(ReportPack pack, Stream stream) => Page(stream, pack.Title, page =>
    {
        page._text.WriteLine($"<header id=\"top\"><h1>{PageText.Of(pack.Title)}</h1></header>");
        page._text.WriteLine("<nav aria-label=\"Contents\"><ol>");
        var reports = pack.Whole.ToList();
        for (var place = 0; place < reports.Count; place++)
        {
            page._text.WriteLine($"<li><a href=\"#report-{place + 1}\">{PageText.Of(reports[place].Title)}</a></li>");
        }

        page._text.WriteLine("</ol></nav>");
        for (var place = 0; place < reports.Count; place++)
        {
            page._text.WriteLine($"<article id=\"report-{place + 1}\">");
            page.WriteHead(reports[place], "h2");
            page.WriteBody(reports[place], $"report-{place + 1}-table");
            page._text.WriteLine("<p class=\"back\"><a href=\"#top\">Contents</a></p></article>");
        }
    });

    private static void Page(Stream stream, string title, Action<WebReport> write)
    {
        using var text = new StreamWriter(stream, new UTF8Encoding(false), 1 << 16, leaveOpen: true) { NewLine = "\n" };
        text.WriteLine("<!doctype html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">");
        text.WriteLine("<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">");
        text.WriteLine("<meta http-equiv=\"Content-Security-Policy\" content=\"default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; img-src data:\">");
        text.WriteLine("<meta name=\"generator\" content=\"Vlei\">");
        text.WriteLine($"<title>{PageText.Of(title)}</title>");
        text.WriteLine($"<style>\n{PageText.Part("page.css")}</style>\n</head>\n<body>\n<main>");
        write(new WebReport(text));
        text.WriteLine($"</main>\n<script>\n{PageText.Part("page.js")}</script>\n</body>\n</html>");
    }

    private void WriteHead(Report report, string heading)
    {
        _text.WriteLine($"<header><{heading}>{PageText.Of(report.Title)}</{heading}>");
        foreach (var line in new[] { report.Book, report.PeriodInWords, ReportWords.InWhat(report) }.Concat(report.Narrowed).Concat(report.Notes))
        {
            _text.WriteLine($"<p>{PageText.Of(line)}</p>");
        }

        if (report.AddressedTo.Count > 0)
        {
            _text.WriteLine($"<p class=\"to\">{string.Join('\n', report.AddressedTo.Select(PageText.Of))}</p>");
        }

        _text.WriteLine("</header>");
    }

    private void WriteBody(Report report, string id)
    {
        if (report.Rows.Count > 0)
        {
            WriteTable(report, id);
        }

        _text.WriteLine("<footer>");
        foreach (var line in report.Foot)
        {
            _text.WriteLine($"<p>{PageText.Of(line)}</p>");
        }

        var checks = ReportWords.ShownChecks(report);
        foreach (var line in ReportWords.Held(checks))
        {
            _text.WriteLine($"<p>{PageText.Of(line)}</p>");
        }

        foreach (var check in checks.Where(check => !check.Ok))
        {
            _text.WriteLine($"<p class=\"failed\">{PageText.Of(ReportWords.Failed(report, check))}</p>");
        }

        _text.WriteLine("</footer>");
    }

    // What scrolls sideways can be reached with the keyboard.
    private void WriteTable(Report report, string id)
    {
        var shown = ReportWords.ShownColumns(report);
        _text.WriteLine($"<div class=\"wide\" tabindex=\"0\" role=\"region\" aria-label=\"{PageText.Of(report.Title)}\">");
        _text.WriteLine($"<table class=\"report\" id=\"{id}\" data-find=\"Find\" data-fold=\"Fold\" data-fold-all=\"Fold all\" data-open-all=\"Open all\">");
        _text.Write("<thead><tr><td></td>");
        foreach (var column in shown)
        {
            _text.Write($"<th scope=\"col\"{(report.Columns[column].Kind == ColumnKind.Text ? "" : " class=\"n\"")}>{PageText.Of(report.Columns[column].Heading)}</th>");
        }

        _text.WriteLine("</tr></thead>\n<tbody>");
        foreach (var row in report.Rows)
        {
            WriteRow(report, row, shown);
        }

        _text.WriteLine("</tbody></table></div>");
    }

    private void WriteRow(Report report, ReportRow row, IReadOnlyList<int> shown)
    {
        _text.Write(string.Create(CultureInfo.InvariantCulture, $"<tr class=\"{ClassOf(row.Kind)}\" data-level=\"{row.Level}\"><th scope=\"row\""));
        _text.Write(row.Level == 0 ? ">" : string.Create(CultureInfo.InvariantCulture, $" style=\"--in:{row.Level}\">"));
        _text.Write($"{PageText.Of(row.Label)}</th>");
        foreach (var column in shown)
        {
            _text.Write(CellOf(report, row, column));
        }

        _text.WriteLine("</tr>");
    }

    private static string ClassOf(RowKind kind) => kind switch
    {
        RowKind.Heading => "heading",
        RowKind.Total => "total",
        RowKind.Result => "result",
        RowKind.GrandTotal => "grand",
        RowKind.Record => "record",
        _ => "account",
    };

    // A page that is read by a program says every figure exactly.
    private static string CellOf(Report report, ReportRow row, int column)
    {
        var isText = report.Columns[column].Kind == ColumnKind.Text;
        var exact = Figures.Exact(report, row, column);
        if (exact is null)
        {
            return isText ? "<td></td>" : "<td class=\"n\"></td>";
        }

        if (row.Cells[column].Units is null)
        {
            return $"<td>{PageText.Of(exact)}</td>";
        }

        var (figure, mark) = ReportWords.FigureAndMark(report, row, column);
        var data = $"<data value=\"{exact}\">{PageText.Of(figure)}</data>";
        return $"<td class=\"n\">{data}{(mark is { } change ? $"<span class=\"mark\">{change}</span>" : "")}</td>";
    }
}
