using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>
/// What a report that is sent as a letter has on its pages: the address where an envelope with a window shows it (DIN 5008, form B),
/// what is due set off beside it, and at the end a part to return with the payment.
/// </summary>
internal sealed class LetterSheet
{
    /// <summary>How far from the edges of the page it is written.</summary>
    public const double Margin = 62;

    /// <summary>How high the part to return is.</summary>
    public const double SlipHeight = 108;

    // Baselines and places, from the top and the left of the page, in points.
    private const double Sender = 62, ReturnLine = 173, FirstLine = 192, Block = 340, Title = 300;
    private const double SmallSize = 6.5, LargeSize = 15, TitleSize = 16;
    private const double Thin = 0.5, Thick = 1.1;

    private readonly ReportWords _words;
    private readonly Report _report;
    private readonly ReportLetter _letter;
    private readonly PageText _text;

    /// <summary>Reads a letter.</summary>
    public LetterSheet(ReportWords words, ReportLetter letter, PageText text) =>
        (_words, _report, _letter, _text) = (words, words.Report, letter, text);

    private string Due => $"{_report.Currency.Code} {_words.MoneyText(_letter.Due)}";

    /// <summary>Writes what stands above the rows of the first page; gives how far it is used then.</summary>
    public double WriteHead(Sheet sheet)
    {
        var right = sheet.Width - Margin;
        _ = _words.Look.Logo is { } logo ? sheet.Logo(logo, right, Sender - LargeSize) : 0;
        sheet.Text(_text.Bold, _text.Bold.Shown(_report.Book), LargeSize - 2, Margin, Sender);
        sheet.Text(_text.Regular, _text.Regular.Shown(_report.Book), SmallSize, Margin, ReturnLine);
        sheet.Rule(Margin, Block - (2 * LargeSize), ReturnLine + 2, Thin / 2);
        var top = FirstLine;
        foreach (var line in _report.AddressedTo.SelectMany(line => _text.Lines(_text.Regular, line, Block - Margin - LargeSize)))
        {
            sheet.Text(_text.Regular, line, _text.Size + 1, Margin, top);
            top += _text.LineHeight + 1;
        }

        WriteBlock(sheet, right);

        // An address that the window does not hold, and a long title, move what stands below them.
        var title = new PageText(_text.Regular, _text.Bold, TitleSize);
        top = Math.Max(Title, top + title.LineHeight);
        foreach (var line in title.Lines(_text.Bold, _report.Title, right - Margin))
        {
            sheet.Text(_text.Bold, line, TitleSize, Margin, top, _words.Look.Accent);
            top += title.LineHeight;
        }

        return top - title.LineHeight + _text.LineHeight;
    }

    /// <summary>Writes the part to return, above that height.</summary>
    public void WriteSlip(Sheet sheet, double bottom)
    {
        const double Dash = 4;
        var (top, right) = (bottom - SlipHeight, sheet.Width - Margin);
        for (var left = Margin; left < right; left += 2 * Dash)
        {
            sheet.Rule(left, Math.Min(right, left + Dash), top, Thin);
        }

        var line = top + (2 * _text.LineHeight);
        sheet.Text(_text.Bold, Said("Please return this part with your payment."), _text.Size, Margin, line);
        line += 1.6 * _text.LineHeight;
        foreach (var words in new[] { _report.Book, "", _report.AddressedTo is [var name, ..] ? name : "", _letter.Reference })
        {
            sheet.Text(_text.Regular, _text.FirstLines(_text.Regular, words, Block - Margin - LargeSize, 1)[0], _text.Size, Margin, line);
            line += _text.LineHeight;
        }

        line = top + (3.6 * _text.LineHeight);
        Pair(sheet, "Period", _report.PeriodInWords, right, ref line);
        Pair(sheet, "Balance due", Due, right, ref line);
        line += _text.LineHeight;
        Pair(sheet, "Amount paid", "", right, ref line);
        sheet.Rule(Block + ((right - Block) / 2), right, line - _text.LineHeight + 2, Thin);
    }

    private void WriteBlock(Sheet sheet, double right)
    {
        var line = FirstLine;
        Pair(sheet, "Customer", _letter.Reference, right, ref line);
        Pair(sheet, "Period", _report.PeriodInWords, right, ref line);
        line += _text.LineHeight / 2;
        sheet.Rule(Block, right, line, Thick);
        line += _text.LineHeight + LargeSize - 2;
        sheet.Text(_text.Bold, Said("Balance due"), _text.Size + 1, Block, line - LargeSize);
        sheet.TextEndingAt(_text.Bold, _text.Bold.Shown(Due), LargeSize, right, line + 2);
        sheet.Rule(Block, right, line + (_text.LineHeight * 0.8), Thick);
    }

    private void Pair(Sheet sheet, string name, string said, double right, ref double line)
    {
        sheet.Text(_text.Regular, Said(name), _text.Size, Block, line);
        sheet.TextEndingAt(_text.Regular, _text.Regular.Shown(said), _text.Size, right, line);
        line += _text.LineHeight;
    }

    private string Said(string english) => _text.Regular.Shown(_words.Language.Say(english));
}
