using Vlei.Books;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Review;
using Vlei.Core.Tables;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Browse;

/// <summary>The reports that a person has gone through, from the first to what is behind a figure of the last.</summary>
internal sealed class Walk : IDisposable
{
    private const string Document = "lines";

    private readonly BrowseOrder _order;
    private readonly ReportDesk _desk;
    private readonly Stack<Step> _steps = [];

    // What was asked of each step before, for undoing.
    private readonly Stack<Stack<ReportOrder>> _before = [];

    private Walk(BrowseOrder order)
    {
        var clock = DateOnly.TryParseExact(order.Clock, "yyyy-MM-dd", out var day) ? day : (DateOnly?)null;
        (_order, _desk) = (order, new ReportDesk(Book.Open(order.Book.Length == 0 ? null : order.Book), clock));
    }

    /// <summary>Where a person is.</summary>
    public Step Here => _steps.Peek();

    /// <summary>The program that has started it.</summary>
    public OtherProgram Vlei => new(_order);

    /// <summary>What every command has after it.</summary>
    public string TypedOptions => _order.Options;

    /// <summary>How many rows were last seen at once.</summary>
    public int RowsInSight { get; private set; } = 1;

    /// <summary>The words that were last looked for.</summary>
    public string Sought { get; set; } = "";

    /// <summary>What is asked here. Throws a <see cref="ProblemException"/> where nothing can be.</summary>
    public ReportOrder Asked => Here.Order ?? throw new ProblemException(
        ProblemKind.Usage, "This is what is behind a figure, and takes no options.", "Go back first: Esc.");

    /// <summary>What is said below; nothing where nothing is.</summary>
    public string? Said { get; set; }

    /// <summary>Opens the first report. Throws a <see cref="ProblemException"/> where it cannot be built.</summary>
    public static Walk Start(BrowseOrder order)
    {
        var walk = new Walk(order);
        walk.Push(order.Report is { } report ? walk.Opened(report) : walk.Reports());
        return walk;
    }

    /// <summary>Goes where the keys lead until a person leaves.</summary>
    public void Run(Screen screen)
    {
        while (true)
        {
            if (!screen.HasKey)
            {
                Draw(screen, Foot(Screen.Size.Columns));
            }

            if (screen.NextKey() is not { } key)
            {
                continue;
            }

            Said = null;
            if (KeyTable.Find(key) is { } found && !Try(() => found.Do(this, screen)))
            {
                return;
            }
        }
    }

    /// <summary>Shows a page, as it is on so many columns, in the place of the report until a key is typed.</summary>
    public static void Show(Screen screen, Func<int, IReadOnlyList<string>> page)
    {
        do
        {
            screen.Draw([.. page(Screen.Size.Columns).Take(Screen.Size.Lines)]);
        }
        while (screen.NextKey() is null);
    }

    /// <summary>What a person answers; nothing where that is given up.</summary>
    public string? Ask(Screen screen, string question, string text = "")
    {
        var line = new LineEditor(question, text);
        while (true)
        {
            Draw(screen, line.Drawn(Screen.Size.Columns));
            if (screen.NextKey() is { } key && line.Take(key) is (true, var isLeft))
            {
                return isLeft ? null : line.Text;
            }
        }
    }

    /// <summary>Opens what is behind the chosen cell.</summary>
    public void OpenBehind()
    {
        if (Here.Current is not { } row)
        {
            return;
        }

        if (Here.Open is null && Here.Order is null && _steps.Count == 1 && _order.Report is null)
        {
            Push(Opened(new ReportOrder(row.Key, new Dictionary<string, IReadOnlyList<string>>())));
        }
        else if (row.Label.StartsWith(FindingsTable.NamePrefix, StringComparison.Ordinal))
        {
            Push(Opened(new ReportOrder(row.Label, Here.Order!.Options.Where(
                option => option.Key is "period" or "as-of").DefaultIfEmpty(new("period", ["last-month"])).ToDictionary())));
        }
        else if (DocumentOf(row) is { } document)
        {
            Push(document);
        }
        else if (row.Kind == RowKind.Heading)
        {
            Here.Folds = Here.Folds.Toggled(Here.RowPlace);
        }
        else
        {
            Push(Traced(row));
        }
    }

    /// <summary>Goes back; says whether there was something to go back to.</summary>
    public bool GoBack()
    {
        if (_steps.Count == 1)
        {
            return false;
        }

        _steps.Pop().Dispose();
        _before.Pop();
        return true;
    }

    /// <summary>Asks something else of the report. Throws a <see cref="ProblemException"/> where that makes no sense.</summary>
    public void Change(Func<ReportOrder, ReportOrder> changed)
    {
        var order = Asked;
        Replace(changed(order));
        _before.Peek().Push(order);
    }

    /// <summary>Takes the last change back.</summary>
    public void Undo()
    {
        if (!_before.Peek().TryPop(out var order))
        {
            throw new ProblemException(ProblemKind.Usage, "Nothing was changed here.", null);
        }

        Replace(order);
    }

    /// <summary>Closes everything.</summary>
    public void Dispose()
    {
        foreach (var step in _steps)
        {
            step.Dispose();
        }
    }

    private void Draw(Screen screen, string foot)
    {
        var (lines, rows) = StepDrawing.Of(Here, Screen.Size, _order.HasColour, foot);
        RowsInSight = rows;
        screen.Draw(lines);
    }

    private string Foot(int width) => DisplayText.Cut(
        Said ?? "Enter behind  Esc back  / find  p period  o only this  : option  ? keys  q leave", width);

    // What cannot be done is said, and everything stays as it was.
    private bool Try(Func<bool> work)
    {
        try
        {
            return work();
        }
        catch (ProblemException problem)
        {
            Said = DisplayText.Harmless($"{problem.Message} {problem.Advice}".Trim(), _order.IsAscii);
            return true;
        }
    }

    private void Push(Step step)
    {
        _steps.Push(step);
        _before.Push([]);
    }

    private void Replace(ReportOrder order)
    {
        var step = Opened(order);
        step.StandAs(Here);
        _steps.Pop().Dispose();
        _steps.Push(step);
    }

    private Step Opened(ReportOrder asked)
    {
        var order = _desk.Meant(asked);
        var open = _desk.Open(order);
        try
        {
            return new Step(new ScreenTable(open.Build(), _order.IsAscii), $"vlei show {OptionText.Of(order)}{TypedOptions}", order, open);
        }
        catch
        {
            open.Dispose();
            throw;
        }
    }

    private Step Reports()
    {
        var reports = new ReportsOverview(_desk);
        var list = reports.Inventory(reports.All);
        return new Step(new ScreenTable(list with
        {
            Columns = [.. list.Columns.Take(3)],
            Rows = [.. list.Rows.Select(row => row with { Cells = [.. row.Cells.Take(3)] })],
        }, _order.IsAscii), $"vlei reports{TypedOptions}");
    }

    // Records are of documents, and called by their ids, but where they are contacts, items and the like.
    private Step? DocumentOf(ReportRow row)
    {
        if (row.Document is null && row.Kind != RowKind.Record)
        {
            return null;
        }

        var order = new ReportOrder(Document, new Dictionary<string, IReadOnlyList<string>>
        {
            [ReportOptions.Period.Name] = ["all"],
            [ReportOptions.Only.Name] = [$"document={ValueList.Typed(row.Document ?? row.Label)}"],
        })
        { Revision = _steps.Select(step => step.Order?.Revision).FirstOrDefault(revision => revision is not null) };
        if (Here.Order is { } here && OptionText.Of(here) == OptionText.Of(order))
        {
            throw new ProblemException(ProblemKind.Usage, "This is the whole document.", null);
        }

        try
        {
            return Opened(order);
        }
        catch (ProblemException) when (row.Document is null)
        {
            return null;
        }
    }

    // A label stands for its first figure.
    private Step Traced(ReportRow row)
    {
        if (Here is not { Open: { } open, Order: { } order })
        {
            throw new ProblemException(ProblemKind.Usage, "This is a sum of the records above it.", null);
        }

        var report = Here.Table.Report;
        var column = Here.ColumnPlace ?? Enumerable.Range(0, report.Columns.Count)
            .FirstOrDefault(place => report.Columns[place].Kind is not (ColumnKind.Text or ColumnKind.Date));
        var records = Trace.At(report, open.Context.Ledger, new CellPlace(Here.RowPlace, column), all: false);
        return new Step(new ScreenTable(records, _order.IsAscii),
            $"vlei trace {OptionText.Of(order)} --row {OptionText.Quoted(row.Key)} --column {OptionText.Quoted(report.Columns[column].Key)}"
                + TypedOptions);
    }
}
