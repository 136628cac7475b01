using Vlei.Books;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Statements;
using Vlei.Output;

namespace Vlei.Desk.Runs;

/// <summary>What the run of one book of many came to.</summary>
/// <param name="Folder">Its folder.</param>
/// <param name="Name">Whose book it is; its folder, where it cannot be read.</param>
/// <param name="Currency">Its currency; nothing where it cannot be read.</param>
/// <param name="Problem">Why it was not produced; nothing where it was.</param>
public sealed record BookOutcome(string Folder, string Name, Currency? Currency, string? Problem)
{
    /// <summary>The title of the group, its days in words, and the basis of its net profit.</summary>
    public (string Title, string Days, AccountingBasis Basis)? Of { get; init; }

    /// <summary>The net profit of the period.</summary>
    public Amount? NetProfit { get; init; }

    /// <summary>The money at its end.</summary>
    public Amount? Money { get; init; }

    /// <summary>What customers owe at its end and is due.</summary>
    public Amount? Overdue { get; init; }

    /// <summary>How many checks failed.</summary>
    public int FailedChecks { get; init; }

    /// <summary>How many figures are not what they were the last time.</summary>
    public int Moved { get; init; }

    /// <summary>The reports that could not be made, and what else is to be said.</summary>
    public string State { get; init; } = "";

    /// <summary>The exit status that it leads to.</summary>
    public int Status { get; init; }
}

/// <summary>Runs a group over many books, as many at once as there are processors. One that fails does not stop the others.</summary>
public static class ManyBooks
{
    private static readonly Lock Telling = new();

    /// <summary>Runs it, with a line of progress for each.</summary>
    public static IReadOnlyList<BookOutcome> Run(
        IReadOnlyList<string> folders, int atOnce, string group, string? period, IReadOnlyList<ReportFormat> formats, DateOnly? today,
        Action<string> say)
    {
        var outcomes = new BookOutcome[folders.Count];
        var done = 0;
        _ = Parallel.For(0, folders.Count, new ParallelOptions { MaxDegreeOfParallelism = atOnce }, place =>
        {
            outcomes[place] = One(folders[place], group, period, formats, today, say);
            lock (Telling)
            {
                done++;
                var width = $"{folders.Count}".Length;
                say(
                    $"{$"{done}".PadLeft(width)}/{folders.Count}  {BookSet.NameOf(folders[place])}: "
                    + (outcomes[place].Problem ?? outcomes[place].State));
            }
        });
        return outcomes;
    }

    /// <summary>The outcome as a table: a report for each currency.</summary>
    public static IReadOnlyList<Report> Summary(IReadOnlyList<BookOutcome> outcomes, string group)
    {
        var known = outcomes.FirstOrDefault(outcome => outcome.Currency is not null)?.Currency!.Code ?? "";
        var days = outcomes.Where(outcome => outcome.Of is not null).Select(outcome => (outcome.Of!.Value.Days, outcome.Of.Value.Basis))
            .Distinct().ToList();
        var (title, words) =
            (outcomes.Select(outcome => outcome.Of?.Title).FirstOrDefault(own => own is not null) ?? group, days.Count == 1 ? days[0].Days
            : string.Join("; ", days.Select(of => $"{of.Days}, {AccountingBases.NameOf(of.Basis)} basis")));
        return [.. outcomes.GroupBy(outcome => outcome.Currency?.Code ?? known)
            .Select(same => SummaryOf([.. same], title, words, days.Count == 1))];
    }

    private static BookOutcome One(
        string folder, string group, string? period, IReadOnlyList<ReportFormat> formats, DateOnly? today, Action<string> say)
    {
        var failed = new BookOutcome(BookSet.NameOf(folder), Path.GetFileName(BookSet.NameOf(folder)), null, null);
        try
        {
            var book = Book.Open(folder);
            failed = failed with { Name = book.Settings.Name, Currency = book.Settings.Currency };
            return GroupRun.Produce(new ReportDesk(book, today), group, period, formats, say, outcome => OutcomeOf(failed.Folder, outcome));
        }
        catch (ProblemException problem)
        {
            return failed with
            {
                Problem = $"{problem.Message} {problem.Advice}".TrimEnd().ReplaceLineEndings(" "),
                Status = (int)problem.Kind,
            };
        }
        catch (Exception bug) when (bug is not OutOfMemoryException)
        {
            return failed with { Problem = $"a bug of the program: {bug.Message}", Status = ExitStatus.Bug };
        }
    }

    private static BookOutcome OutcomeOf(string folder, ProducedGroup outcome)
    {
        var (run, settings) = (outcome.Run, outcome.Run.Book.Settings);
        var request = new ReportRequest { Period = new OpenPeriod(run.Days) };
        var profit = OpenReport.Build(ProfitLossReport.Definition, request, run.Reports);
        var money = OpenReport.Build(CashFlowReport.Definition, request, run.Reports);
        var owed = OpenReport.Build(
            StandardReports.Find("receivables-aging")!, request with { Items = new OpenItemRequest { KeepsUnappliedApart = true } },
            run.Reports);
        var moved = outcome.Reports.Sum(report => report.Moved is { } movement ? MovedFigures.Of(movement).Count : 0);
        var lost = outcome.Reports.Where(report => report.Report is null).Select(report => report.Member.Name).ToList();
        return new BookOutcome(folder, settings.Name, settings.Currency, null)
        {
            Of = (outcome.Group.Title, profit.PeriodInWords, profit.Basis),
            NetProfit = Figure(profit, "net-profit", 0),
            Money = Figure(money, "closing-money", 0),
            Overdue = owed.Columns.Select((column, place) => (column.Key, place))
                .Where(column => column.Key is not ("current" or "unapplied" or "total"))
                .Aggregate(Amount.Zero, (sum, column) => sum + (Figure(owed, "total", column.place) ?? Amount.Zero)),
            FailedChecks = outcome.FailedChecks,
            Moved = moved,
            State = lost.Count > 0 ? $"not produced: {string.Join(", ", lost)}"
                : string.Join(". ", new[] { $"{outcome.Files} files", outcome.Incomplete?.TrimEnd('.') }.Where(text => text is not null)),
            Status = outcome.Status,
        };
    }

    // A layout of the book's own may have no such row.
    private static Amount? Figure(Report report, string row, int column) =>
        report.Rows.FirstOrDefault(known => known.Key == row) is { } found ? new Amount(found.Cells[column].Units ?? 0) : null;

    private static Report SummaryOf(IReadOnlyList<BookOutcome> outcomes, string title, string words, bool canBeAddedUp)
    {
        // Where no book can be read there is no figure, so that it does not matter in which currency.
        var currency = outcomes.Select(outcome => outcome.Currency).FirstOrDefault(known => known is not null);
        _ = Currency.TryFind(Currency.Codes.First(), out var unknown);
        var rows = outcomes.Select(outcome => new ReportRow(
            outcome.Folder, outcome.Name, RowKind.Record, 0,
            [
                CellOf(outcome.NetProfit), CellOf(outcome.Money), CellOf(outcome.Overdue),
                outcome.Problem is null ? new Cell(outcome.FailedChecks) : Cell.Empty, outcome.Problem is null ? new Cell(outcome.Moved)
                    : Cell.Empty,
                Cell.Of(outcome.Problem is { } problem ? $"FAILED: {problem}" : outcome.State),
            ])).ToList();
        return new Report
        {
            Key = "books",
            Title = title,
            Book = $"{outcomes.Count} {(outcomes.Count == 1 ? "book" : "books")}",
            Currency = currency ?? unknown!,
            Basis = AccountingBasis.Accrual,
            InWhat = currency is null ? "Nothing was produced" : $"In {currency.Code}",
            Period = null,
            AsOf = null,
            PeriodInWords = words,
            Columns =
            [
                new("net-profit", "Net profit", ColumnKind.Money), new("money", "Money", ColumnKind.Money),
                new("overdue", "Overdue", ColumnKind.Money),
                new("failed-checks", "Checks failed", ColumnKind.Count), new("moved", "Figures moved", ColumnKind.Count),
                new("state", "Outcome", ColumnKind.Text),
            ],
            Rows = !canBeAddedUp || outcomes.Count(outcome => outcome.Problem is null) < 2 ? rows :
            [
                .. rows, new ReportRow("total", "Total", RowKind.GrandTotal, 0,
                [
                    .. Enumerable.Range(0, 5).Select(column => new Cell(rows.Sum(row => row.Cells[column].Units ?? 0))), Cell.Empty,
                ]),
            ],
            Checks = [],
            OriginOf = (_, _) => null,
            Revision = 0,
        };
    }

    private static Cell CellOf(Amount? amount) => amount is { } units ? Cell.Of(units) : Cell.Empty;
}
