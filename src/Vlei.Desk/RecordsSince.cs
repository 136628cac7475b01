using Vlei.Books;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Desk;

/// <summary>The records of a book as they are and as they were after an earlier import.</summary>
public sealed class RecordsSince : IDisposable
{
    private readonly LedgerReader _before;
    private readonly LedgerReader _after;
    private readonly ReportContext _context;
    private readonly IReadOnlyList<RecordChange> _changes;
    private readonly IReadOnlyList<ClosedPeriod> _closed;

    private RecordsSince(ReportDesk desk, long revision)
    {
        (_before, _after) = (LedgerReader.Open(desk.Book, revision), LedgerReader.Open(desk.Book));
        _context = desk.ContextOf(_after);
        (_changes, _closed) = (Revisions.ChangesSince(desk.Book, revision), Revisions.Closed(desk.Book));
        Changes = ChangeList.Of(_context, _changes, _closed, revision);
    }

    /// <summary>The documents that are not as they were.</summary>
    public Report Changes { get; }

    /// <summary>Opens both. Throws a <see cref="Core.Problems.ProblemException"/> where there was no such import.</summary>
    /// <param name="desk">The book.</param>
    /// <param name="named">The number of an import, or a day.</param>
    public static RecordsSince Open(ReportDesk desk, string named) => new(desk, Revisions.Find(desk.Book, named, mayBeNone: true));

    /// <summary>The same, of an import that is known by its number.</summary>
    public static RecordsSince Open(ReportDesk desk, long revision) => new(desk, revision);

    /// <summary>How a report moved: in closed periods that are touched first, then for what is asked.</summary>
    public IEnumerable<Report> Moved(ReportDefinition definition, ReportRequest request)
    {
        var asked = _context.PeriodOf(request).Range;
        return ChangeList.Touched(_changes, _closed).Select(period => period.Days).Where(days => days != asked)
            .Select(days => MovedIn(definition, request with { Period = new OpenPeriod(days) })).Append(MovedIn(definition, request));
    }

    /// <summary>How a report moved in the days that it is asked for.</summary>
    public Report MovedIn(ReportDefinition definition, ReportRequest request) => Movement.Between(
        OpenReport.Build(definition, request, _context with { Ledger = _before }), OpenReport.Build(definition, request, _context));

    /// <summary>Closes the records.</summary>
    public void Dispose()
    {
        _before.Dispose();
        _after.Dispose();
    }
}
