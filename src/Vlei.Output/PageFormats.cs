using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Output.Overview;
using Vlei.Output.Pages;
using Vlei.Output.Web;

namespace Vlei.Output;

/// <summary>What a page of panels can be written as.</summary>
public static class PageFormats
{
    private static readonly Dictionary<string, Action<Page, Stream, Surface>> Writers = new()
    {
        ["text"] = (page, stream, surface) => TextPage.Write(new PageWords(page), stream, surface),
        ["html"] = (page, stream, surface) => WebReport.WritePage(new PageWords(page), stream, surface.Charts),
        ["pdf"] = (page, stream, _) => PdfReport.WritePage(new PageWords(page), stream),
        ["svg"] = (page, stream, surface) => stream.Write(PdfReport.PictureOf(new PageWords(page), "svg", surface.Charts)),
        ["png"] = (page, stream, surface) => stream.Write(PdfReport.PictureOf(new PageWords(page), "png", surface.Charts)),
        ["json"] = (page, stream, _) => JsonPage.Write(page, stream),
    };

    /// <summary>Writes a page. Throws a <see cref="ProblemException"/> where it cannot be written as that.</summary>
    public static void Write(Page page, ReportFormat format, Stream stream, Surface surface)
    {
        RefuseOther(page.Key, format);
        Writers[format.Name](page, stream, surface);
    }

    /// <summary>Refuses what a page cannot be written as. Throws a <see cref="ProblemException"/> then.</summary>
    public static void RefuseOther(string page, ReportFormat format)
    {
        if (!Writers.ContainsKey(format.Name))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{page} is a page of panels, which is no {format.Name}.",
                $"It can be {Suggestion.Listed([.. Writers.Keys], "or")}; the reports on it can be anything.");
        }
    }
}
