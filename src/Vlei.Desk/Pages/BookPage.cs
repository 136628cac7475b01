using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk.Pages;

/// <summary>Builds a page of panels of a book: all of its reports of the same records, as they are at one moment.</summary>
public static class BookPage
{
    /// <summary>Builds it. What stands in the way of one panel is said in its place, and hides no other.</summary>
    /// <param name="desk">The book.</param>
    /// <param name="page">The page.</param>
    /// <param name="look">How it looks.</param>
    public static Page Of(ReportDesk desk, KeptPage page, ReportLook look)
    {
        using var ledger = LedgerReader.Open(desk.Book);
        var context = desk.ContextOf(ledger);
        look = look with { Language = look.Language ?? context.Language };
        return new Page(page.Name, page.Title, desk.Settings.Name, desk.Today.Date, [.. page.Panels.Select(Built)]) { Look = look };

        Panel Built(KeptPanel panel) => panel.Report is { } name ? OfReport(panel, name) : new Panel(panel.Title,
            PageLists.CommandOf(panel.List!))
        {
            Words = PageLists.Of(desk, context, panel.List!),
        };

        Panel OfReport(KeptPanel panel, string name)
        {
            var command = $"vlei show {name}{OptionText.Of(panel.Options)}";
            try
            {
                var definition = desk.Find(new ReportOrder(name, panel.Options));
                var request = desk.RequestOf(definition, panel.Options);
                var report = OpenReport.Build(definition, request with { Look = Merged(request.Look, look) }, context);

                // Rows are made when they are looked at, and the records are closed by then.
                return new Panel(panel.Title, command) { Plan = panel.Plan, Report = report with { Rows = [.. report.Rows] } };
            }
            catch (ProblemException problem)
            {
                return new Panel(panel.Title, command) { Problem = $"{problem.Message} {problem.Advice}".TrimEnd() };
            }
        }
    }

    // A page speaks one language, and has one way to write numbers.
    private static ReportLook Merged(ReportLook own, ReportLook page) => page with { Nil = own.Nil ?? page.Nil };
}
