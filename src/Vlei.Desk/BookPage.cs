using System.Collections.Concurrent;
using System.Globalization;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core.Languages;
using Vlei.Core.Ledger;
using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk.Runs;

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

    /// <summary>
    /// The same of several books: of each, the lines that go through its months. What is wrong with one book is said in its place, and
    /// hides no other.
    /// </summary>
    /// <param name="page">The page.</param>
    /// <param name="look">How it looks.</param>
    /// <param name="folders">The books' folders.</param>
    /// <param name="today">The day; nothing for that of each book.</param>
    /// <param name="day">The day that the page is headed by.</param>
    public static Page OfBooks(KeptPage page, ReportLook look, IReadOnlyList<string> folders, DateOnly? today, DateOnly day)
    {
        var lines = page.Panels.Where(panel => panel.Plan.Show == PanelShow.Line && panel.Report is not null).ToList();
        if (lines.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{page.Name} has no panel with a line, which is what is shown of several books.",
                "Give a panel show = \"line\", or take overview or summary.");
        }

        var panels = new Panel[folders.Count][];
        _ = Parallel.For(
            0, folders.Count, new ParallelOptions { MaxDegreeOfParallelism = Math.Clamp(Environment.ProcessorCount, 1, MostAtOnce) },
            place => panels[place] = LinesOf(folders[place], page.Name, lines, look, today));
        var books = (look.Language ?? Language.English).Say("{0} books", [folders.Count.ToString(CultureInfo.InvariantCulture)]);
        return new Page(page.Name, page.Title, books, day, [.. panels.SelectMany(known => known)]) { Look = look };
    }

    private static Panel[] LinesOf(string folder, string page, List<KeptPanel> lines, ReportLook look, DateOnly? today)
    {
        var command = $"vlei show {page} --book {OptionText.Quoted(folder)}";
        try
        {
            var desk = new ReportDesk(Book.Open(folder), today);
            using var ledger = LedgerReader.Open(desk.Book);
            var context = desk.ContextOf(ledger);
            return
            [
                .. lines.Select(line => PanelOf(desk, context, line, look with { Language = look.Language ?? context.Language }) with
                {
                    Title = lines.Count == 1 ? desk.Settings.Name : $"{desk.Settings.Name}: {line.Title}", Command = command,
                }),
            ];
        }
        catch (ProblemException problem)
        {
            return [new Panel(BookSet.NameOf(folder), command) { Problem = $"{problem.Message} {problem.Advice}".TrimEnd() }];
        }
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
