using UglyToad.PdfPig.Outline;
using UglyToad.PdfPig.Writer;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output.Overview;

namespace Vlei.Output.Pages;

/// <summary>A report, or several, as PDF (ISO 32000): the same reports make the same bytes.</summary>
internal static class PdfReport
{
    private const double PdfVersion = 1.7;
    private const double TextSize = 9;

    /// <summary>Writes the report.</summary>
    public static void Write(ReportWords words, Stream stream, IChartDrawer? charts) =>
        WriteDocument(stream, words.Report.Title, words.Look, (document, text) =>
    {
        var pages = new ReportPages(document, words, text, charts);
        pages.Finish(pages.Count);
        return [pages.Node];
    });

    /// <summary>
    /// Writes the reports after a page of panels and a page that lists them, which is the cover where there is one, with the numbers of
    /// pages throughout.
    /// </summary>
    public static void WritePack(ReportPack pack, Stream stream, IChartDrawer? charts)
    {
        var reports = pack.Whole.Select(report => new ReportWords(report)).ToList();
        WriteDocument(stream, pack.Title, reports.Select(words => words.Look).LastOrDefault(new ReportLook()), (document, text) =>
        {
            var front = pack.Front is { } page ? SheetOf(document, text, new PageWords(page)) : null;
            var contents = pack.Cover is null ? new ContentsPages(document, pack, reports, text) : null;
            var all = reports.Select((words, place) => new ReportPages(
                document, words, text, charts, isContents: pack.Cover is not null && place == 0)).ToList();
            var count = (front is null ? 0 : 1) + (contents?.Sheets.Count ?? 0) + all.Sum(pages => pages.Count);
            contents?.Fill([.. all.Select(pages => pages.First)], count);
            all.ForEach(pages => pages.Finish(count));
            if (pack.Cover is not null)
            {
                all[0].LeadOn(pack.Reports.Zip(all.Skip(1)).ToDictionary(pair => pair.First.Name, pair => pair.Second.First));
            }

            return [.. all.Select(pages => pages.Node)];
        });
    }

    /// <summary>Writes a page of panels, on one sheet.</summary>
    public static void WritePage(PageWords words, Stream stream) => WriteDocument(stream, words.Title, words.Page.Look, (document, text) =>
    {
        _ = SheetOf(document, text, words);
        return [];
    });

    /// <summary>A page of panels as a picture.</summary>
    /// <param name="words">The page.</param>
    /// <param name="format">As what: <c>svg</c> or <c>png</c>.</param>
    /// <param name="drawer">Who draws it.</param>
    public static byte[] PictureOf(PageWords words, string format, IChartDrawer? drawer)
    {
        using var measured = new MemoryStream();
        using var document = new PdfDocumentBuilder(measured, disposeStream: false, PdfWriterType.Default, PdfVersion);
        var text = TextOf(document, words.Page.Look);
        var picture = new PicturePaper(SizeOf(words).Width, text.Bold);
        var height = new PanelSheet(picture, text, words).Height;
        return drawer?.Draw($"page-{format}", picture.Json(height)) ?? throw new ProblemException(
            ProblemKind.CannotWrite, "The page cannot be drawn: there is nothing that draws here.", "Take pdf or html.");
    }

    // As high as its panels need, where they need more than the paper has.
    private static PanelSheet SheetOf(PdfDocumentBuilder document, PageText text, PageWords words)
    {
        var (width, height) = SizeOf(words);
        var needed = new PanelSheet(new PicturePaper(width, text.Bold), text, words).Height;
        return new PanelSheet(new Sheet(document, width, Math.Max(height, needed)), text, words);
    }

    private static (double Width, double Height) SizeOf(PageWords words) =>
        Paper.Of(words.Page.Look) is var paper && words.Page.Look.Turn == PaperTurn.Portrait ? (paper.Width, paper.Height)
            : (paper.Height, paper.Width);

    private static PageText TextOf(PdfDocumentBuilder document, ReportLook look) => new(
        new PageFace(document, "IBMPlexSans-Regular.ttf"), new PageFace(document, "IBMPlexSans-SemiBold.ttf"), look.FontSize ?? TextSize);

    private static void WriteDocument(
        Stream stream, string title, ReportLook look, Func<PdfDocumentBuilder, PageText, List<BookmarkNode>> write)
    {
        using var whole = new IdentifiedStream(stream);
        using (var document = new PdfDocumentBuilder(whole, disposeStream: false, PdfWriterType.Default, PdfVersion))
        {
            document.DocumentInformation.Title = title;
            document.DocumentInformation.Producer = "Vlei";
            var text = TextOf(document, look);
            document.Bookmarks = new Bookmarks(write(document, text));
            whole.Release();
        }

        whole.Finish();
    }
}
