using Vlei.Books.Kept;
using Vlei.Core.Reports;

namespace Vlei.Commands;

/// <summary>All about a page of panels: what is on it, and how one's own is written.</summary>
internal static class PageHelp
{
    /// <summary>The options that a page takes.</summary>
    public static IReadOnlyList<ReportOption> Looks { get; } =
    [
        LookOptions.Language, LookOptions.Negatives, LookOptions.Nil, LookOptions.Thousands, LookOptions.DecimalMark, LookOptions.Scale,
        LookOptions.Decimals, LookOptions.Dates, LookOptions.Paper, LookOptions.Orientation, LookOptions.Accent,
    ];

    /// <summary>Writes it.</summary>
    /// <param name="panels">The page of panels.</param>
    /// <param name="page">Where it is told.</param>
    public static void Write(KeptPage panels, HelpPage page)
    {
        page.Paragraph(panels.Question.Length > 0 ? $"{panels.Title}: {panels.Question}" : panels.Title);
        page.Paragraph($"Usage: vlei show {panels.Name} [OPTION]…");
        page.Pairs("On it:", [.. panels.Panels.Select(panel => (panel.Title, panel.Report ?? panel.List!))], named: panels.Panels.Max(
            panel => panel.Title.Length));
        CommandHelp.Options(page, Looks);
        page.Paragraph("It is text, html, pdf or json: --to FILE, --format FORMAT. A file pages/NAME.toml in the book is a page of your "
            + "own; one of the same name takes the place of this one. vlei schema page says what may stand in it.");
        page.Examples(
        [
            ($"vlei show {panels.Name}", "on the terminal"), ($"vlei show {panels.Name} --to {panels.Name}.pdf", "one sheet, for the wall"),
            ($"vlei show {panels.Name} --to {panels.Name}.html --open", "in a browser, with its reports beneath"),
        ]);
    }
}
