using UglyToad.PdfPig.Writer;
using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>The first pages of a document of several reports: its title, and what is on which page, each line leading there.</summary>
internal sealed class ContentsPages
{
    private const double Margin = 42;
    private const double TitleSize = 22;
    private const double LineHeight = 25;
    private const double FirstLine = 190;

    private readonly ReportPack _pack;
    private readonly IReadOnlyList<ReportWords> _reports;
    private readonly PageText _text;
    private readonly Paper _paper;
    private readonly int _linesOnPage;

    /// <summary>Makes the pages, empty as yet: what is where is known once the others are made.</summary>
    public ContentsPages(PdfDocumentBuilder document, ReportPack pack, IReadOnlyList<ReportWords> reports, PageText text)
    {
        var paper = Paper.Of(reports.Select(words => words.Look).LastOrDefault(new ReportLook()));
        (_pack, _reports, _text, _paper) = (pack, reports, text, paper);
        _linesOnPage = (int)((paper.Height - FirstLine - (2 * Margin)) / LineHeight);
        Sheets = [.. pack.Whole.Chunk(_linesOnPage).Select(_ => new Sheet(document, paper.Width, paper.Height))];
    }

    /// <summary>The pages.</summary>
    public IReadOnlyList<Sheet> Sheets { get; }

    /// <summary>Fills them.</summary>
    /// <param name="firstPages">The page that each report begins on.</param>
    /// <param name="pages">How many pages there are.</param>
    public void Fill(IReadOnlyList<int> firstPages, int pages)
    {
        var reports = _reports;
        for (var sheet = 0; sheet < Sheets.Count; sheet++)
        {
            var first = sheet * _linesOnPage;
            WriteTitle(Sheets[sheet], reports[0].Report.Book);
            for (var place = first; place < Math.Min(reports.Count, first + _linesOnPage); place++)
            {
                var report = reports[place];
                WriteLine(
                    Sheets[sheet], FirstLine + ((place - first) * LineHeight), report.Report.Title,
                    report.Report.PeriodInWords, firstPages[place]);
            }

            Sheets[sheet]
                .TextEndingAt(
                    _text.Regular, reports[0].Language.Say("Page {0} of {1}", $"{Sheets[sheet].Number}", $"{pages}"), _text.Size - 1,
                    _paper.Width - Margin, _paper.Height - Margin);
        }
    }

    private void WriteTitle(Sheet sheet, string book)
    {
        const double Top = 110;
        sheet.Text(
            _text.Bold, new PageText(_text.Regular, _text.Bold, TitleSize)
                .FirstLines(_text.Bold, _pack.Title, _paper.Width - (2 * Margin), 1)[0], TitleSize, Margin, Top);
        sheet.Text(_text.Regular, _text.Regular.Shown(book), TitleSize / 2, Margin, Top + TitleSize);
        sheet.Rule(Margin, _paper.Width - Margin, FirstLine - (1.5 * LineHeight), 0.9);
    }

    // What does not fit into a line goes on in a second one; the whole of it stands on the report's own page.
    private void WriteLine(Sheet sheet, double baseline, string title, string period, int page)
    {
        const double Size = 10;
        const double SmallSize = 8;
        const double Middle = 250;
        Write(_text.Bold, title, Size, Margin, Middle - Margin);
        Write(_text.Regular, period, SmallSize, Middle + Margin, _paper.Width - Middle - (3 * Margin));
        sheet.TextEndingAt(_text.Regular, $"{page}", Size, _paper.Width - Margin, baseline);
        sheet.Link(Margin, _paper.Width - Margin, baseline - Size, baseline + SmallSize, Sheet.PlaceOn(page, _paper.Height));

        void Write(PageFace face, string text, double size, double left, double room)
        {
            var lines = new PageText(_text.Regular, _text.Bold, size).FirstLines(face, text, room, 2);
            for (var line = 0; line < lines.Count; line++)
            {
                sheet.Text(face, lines[line], size, left, baseline + (line * (size + 1)));
            }
        }
    }
}
