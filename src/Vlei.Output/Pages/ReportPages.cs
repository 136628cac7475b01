using UglyToad.PdfPig.Outline;
using UglyToad.PdfPig.Writer;

namespace Vlei.Output.Pages;

/// <summary>The pages of a report, and behind them those of the records and documents that go along with it.</summary>
internal sealed class ReportPages
{
    private readonly ReportWords _words;
    private readonly PagedReport _report;
    private readonly PagedReport? _records;
    private readonly PagedReport? _documents;

    /// <summary>Makes the pages.</summary>
    /// <param name="document">Where they are added.</param>
    /// <param name="words">The report.</param>
    /// <param name="text">Its text.</param>
    /// <param name="charts">Who draws its chart.</param>
    /// <param name="isContents">Whether its rows lead on to other pages, whose numbers stand at their ends.</param>
    public ReportPages(PdfDocumentBuilder document, ReportWords words, PageText text, IChartDrawer? charts, bool isContents = false)
    {
        _words = words;
        _report = new PagedReport(
            document, words, text, charts,
            isContents ? KeptPlaces.All : words.Records is null ? KeptPlaces.None : KeptPlaces.Leading);
        _records = words.Records is { } records ? new PagedReport(document, records, text, charts, KeptPlaces.Leading) : null;
        _documents = words.Documents is { } documents ? new PagedReport(document, documents, text, charts, KeptPlaces.None) : null;
    }

    /// <summary>How many there are.</summary>
    public int Count => All.Sum(pages => pages.Sheets.Count);

    /// <summary>The number of the first.</summary>
    public int First => _report.Sheets[0].Number;

    /// <summary>What the outline of the document says of them.</summary>
    public DocumentBookmarkNode Node => new(
        _words.Report.Title, 0, Sheet.PlaceOn(First, _report.Sheets[0].Height),
        [
            .. _report.Rows.Headings.Select(
                heading => new DocumentBookmarkNode(heading.Title, 1, Sheet.PlaceOn(heading.Page, heading.FromBottom), [])),
            .. All.Skip(1)
                .Select(
                    pages => new DocumentBookmarkNode(pages.Title, 1, Sheet.PlaceOn(pages.Sheets[0].Number, pages.Sheets[0].Height), [])),
        ]);

    private IEnumerable<PagedReport> All => new[] { _report, _records, _documents }.OfType<PagedReport>();

    /// <summary>Has its rows lead on to pages, by their keys, and says their numbers.</summary>
    public void LeadOn(IReadOnlyDictionary<string, int> pages) => _report.LeadOn(pages);

    /// <summary>Writes what is known once all pages are there: their number, and what leads where.</summary>
    /// <param name="pages">How many pages the document has.</param>
    public void Finish(int pages)
    {
        foreach (var part in All)
        {
            part.AddFeet(pages);
        }

        if (_records is null)
        {
            return;
        }

        var behind = _words.Report.Records!;
        _report.Rows.Lead((cell, _) => behind.HeadingOf(cell) is { } row ? _records.Rows.Starts[row] : null);
        var (documents, places) = (_words.Documents?.RowsOfDocuments() ?? [], _report.Rows.LeadingRows());
        _records.Rows.Lead((cell, row) => behind.Figures.TryGetValue(cell.Row, out var figure) ? places.GetValueOrDefault(figure.Row)
            : behind.HeadingBehind(cell.Row) is { } heading ? _records.Rows.Starts[heading]
            : row.Document is { } id && documents.TryGetValue(id, out var document) ? _documents!.Rows.Starts[document] : null);
    }
}
