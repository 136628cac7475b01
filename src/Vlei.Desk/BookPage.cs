using System.Collections.Concurrent;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core.Ledger;
using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk;

/// <summary>Builds a page of panels of a book: all of its reports of the same records.</summary>
public static class BookPage
{
    private const int MostAtOnce = 4;

    /// <summary>Builds it. What stands in the way of one panel is said in its place, and hides no other.</summary>
    /// <param name="desk">The book.</param>
    /// <param name="page">The page.</param>
    /// <param name="look">How it looks.</param>
    /// <param name="records">The records that it is of; those of the book as it is now where it is nothing.</param>
    public static Page Of(ReportDesk desk, KeptPage page, ReportLook look, ILedger? records = null)
    {
        var built = new Panel[page.Panels.Count];
        List<LedgerReader> own = records is null ? LedgersOf(desk.Book, Math.Clamp(Environment.ProcessorCount, 1, MostAtOnce)) : [];
        try
        {
            List<ReportContext> contexts = [.. (records is null ? own : (IEnumerable<ILedger>)[records]).Select(desk.ContextOf)];
            look = look with { Language = look.Language ?? contexts[0].Language };

            // Who takes the next goes on from the end of the page, where what takes longest stands.
            var waiting = new ConcurrentQueue<int>(Enumerable.Range(0, built.Length).Reverse());
            _ = Parallel.ForEach(contexts, new ParallelOptions { MaxDegreeOfParallelism = contexts.Count }, context =>
            {
                while (waiting.TryDequeue(out var place))
                {
                    built[place] = PanelOf(desk, context, page.Panels[place], look);
                }
            });
        }
        finally
        {
            own.ForEach(ledger => ledger.Dispose());
        }

        return new Page(page.Name, page.Title, desk.Settings.Name, desk.Today.Date, built) { Look = look };
    }

    // Each reads by itself; what an import changes between the opening of two of them has all of them opened again.
    private static List<LedgerReader> LedgersOf(Book book, int count)
    {
        while (true)
        {
            List<LedgerReader> ledgers = [.. Enumerable.Range(0, count).Select(_ => LedgerReader.Open(book))];
            if (ledgers.TrueForAll(ledger => ledger.Revision == ledgers[0].Revision))
            {
                return ledgers;
            }

            ledgers.ForEach(ledger => ledger.Dispose());
        }
    }

    private static Panel PanelOf(ReportDesk desk, ReportContext context, KeptPanel panel, ReportLook look)
    {
        var command = panel.Report is { } named ? $"vlei show {named}{OptionText.Of(panel.Options)}" : PageLists.CommandOf(panel.List!);
        try
        {
            if (panel.Report is not { } name)
            {
                return new Panel(panel.Title, command) { Words = PageLists.Of(desk, context, panel.List!) };
            }

            var definition = desk.Find(new ReportOrder(name, panel.Options));
            var request = desk.RequestOf(definition, panel.Options);
            var report = OpenReport.Build(definition, request with { Look = look with { Nil = request.Look.Nil ?? look.Nil } }, context);

            // Rows are made when they are looked at, and the records are closed by then. What is wrong with the plan is told here.
            report = report with { Rows = [.. report.Rows] };
            _ = PanelLines.Of(report, panel.Plan);
            return new Panel(panel.Title, command) { Plan = panel.Plan, Report = report };
        }
        catch (ProblemException problem)
        {
            return new Panel(panel.Title, command) { Problem = $"{problem.Message} {problem.Advice}".TrimEnd() };
        }
    }
}
