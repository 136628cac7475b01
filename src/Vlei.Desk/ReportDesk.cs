using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.OpenItems;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Review;

namespace Vlei.Desk;

/// <summary>
/// A book, what is kept for it, and a day: where it is worked out what a report that is asked for is, and where it is built.
/// Nothing here knows of a terminal.
/// </summary>
public sealed class ReportDesk
{
    /// <summary>Sits down with a book.</summary>
    /// <param name="book">The book.</param>
    /// <param name="today">
    /// The day that words like <c>last-month</c> are worked out from; nothing for the book's own, else the clock's.
    /// </param>
    public ReportDesk(Book book, DateOnly? today)
        : this(book, Library.Of(book), DayOf(book.Settings, today))
    {
        IsPinned = (today ?? book.Settings.Clock) is not null;
        Now = (today ?? book.Settings.Clock) is { } pinned ? MomentOf(pinned) : DateTimeOffset.Now;
    }

    private ReportDesk(Book book, Library library, WorkingDay today) =>
        (Book, Library, Today, Catalogue, Known) = (book, library, today, new ReportCatalogue(library), today.Date);

    /// <summary>The book.</summary>
    public Book Book { get; }

    /// <summary>What the book says of itself.</summary>
    public BookSettings Settings => Book.Settings;

    /// <summary>What is kept for it.</summary>
    public Library Library { get; }

    /// <summary>The day that words are worked out from.</summary>
    public WorkingDay Today { get; }

    /// <summary>The moment that what is done here is dated by.</summary>
    public DateTimeOffset Now { get; private init; }

    /// <summary>What time it is at each moment: a day that is pinned stands still at its noon.</summary>
    public Func<DateTimeOffset> Clock => IsPinned ? () => Now : () => DateTimeOffset.Now;

    private bool IsPinned { get; init; }

    // The day on which reports are made, which is not always the one that they are made as of.
    private DateOnly Known { get; init; }

    /// <summary>Its reports.</summary>
    public ReportCatalogue Catalogue { get; }

    /// <summary>The day in a book: what is said, else what the book says, else the computer's.</summary>
    public static DateOnly DayOf(BookSettings settings, DateOnly? said) => said ?? settings.Clock ?? DateOnly.FromDateTime(DateTime.Now);

    /// <summary>The moment that what is done on a pinned day is dated by: its noon, which is on that day nearly everywhere.</summary>
    public static DateTimeOffset MomentOf(DateOnly day)
    {
        const int Noon = 12;
        return new DateTimeOffset(day.ToDateTime(new TimeOnly(Noon, 0), DateTimeKind.Local));
    }

    /// <summary>The same at the close of the last of some days, for a run: what is kept stays as it is while it lasts.</summary>
    public ReportDesk AtCloseOf(DateRange days) => new(Book, Library.Still(), WorkingDay.CloseOf(days, Today.Date))
    {
        // What was noted is known whatever day it is, so that the same records give the same files.
        Now = Now, Known = DateOnly.MaxValue,
    };

    /// <summary>
    /// Works out which report is meant. Throws a <see cref="ProblemException"/> where there is none, or where it does not take
    /// what is asked of it.
    /// </summary>
    public ReportDefinition Find(ReportOrder order)
    {
        var definition = order.IsStandard ? ReportCatalogue.FindStandard(order.Name) : Catalogue.Find(order.Name);
        RefuseWhatDoesNotApply(order.Options.Keys, definition);
        return definition;
    }

    /// <summary>The file that a standard report is shown as, where the book keeps it otherwise; nothing where it does not.</summary>
    public string? ShownAs(ReportOrder order) =>
        !order.IsStandard && Library.Find(KeptKind.Report, order.Name) is { } file && Library.Standard(order.Name) is not null
            ? file.Path : null;

    /// <summary>
    /// What is asked of a report, with what it says itself. Throws a <see cref="ProblemException"/> where it makes no sense.
    /// </summary>
    public ReportRequest RequestOf(ReportDefinition definition, IReadOnlyDictionary<string, IReadOnlyList<string>> asked) =>
        Read(definition, RequestText.Merged(definition, asked));

    /// <summary>
    /// What options ask of a report, and nothing else. Throws a <see cref="ProblemException"/> where a value makes no sense, or
    /// where a selection does not fit the report.
    /// </summary>
    public ReportRequest Read(ReportDefinition definition, IReadOnlyDictionary<string, IReadOnlyList<string>> options)
    {
        var request = RequestText.Read(RequestText.WithLook(options, Settings.Look), Today, Settings.Calendar, Settings.Currency, name =>
            Library.Selection(name) is var selection && (selection.Where.Count == 0 || definition.Options.Contains(ReportOptions.Where))
                ? selection
                : throw new ProblemException(
                    ProblemKind.Usage, $"{selection.Source} has a predicate, and {definition.Key} takes none.",
                    "Write it as only and except, or take a list."));
        return request with { Look = LookFiles.Of(request.Look, Library) };
    }

    /// <summary>
    /// What is asked, where that is the records behind a finding: the report that shows those. Throws a
    /// <see cref="ProblemException"/> where there is no such finding.
    /// </summary>
    public ReportOrder Meant(ReportOrder order) =>
        order.Name.StartsWith(FindingsTable.NamePrefix, StringComparison.Ordinal) ? FoundRecords.OrderOf(this, order) : order;

    /// <summary>
    /// Opens the records that a report is asked of. Throws a <see cref="ProblemException"/> where the order makes no sense.
    /// </summary>
    public OpenReport Open(ReportOrder order)
    {
        order = Meant(order);
        var definition = Find(order);
        var request = RequestOf(definition, order.Options);
        return new OpenReport(definition, request, ContextOf(order.Revision is { } revision
            ? LedgerReader.Open(Book, Revisions.Find(Book, revision)) : LedgerReader.Open(Book)));
    }

    /// <summary>What a report knows of the book, with some of its records.</summary>
    public ReportContext ContextOf(ILedger ledger) => new(
        Settings.Name, Settings.Currency, Settings.Calendar, Settings.Basis, Today, ledger, name => LayoutFile.Find(name, Library))
    {
        Remittance = Settings.Remittance,
        Known = Known,
        DaysOpenOn = DocumentTables.DaysOpen,
        Language = LookFiles.LanguageOf(Book),
        LanguageOf = code => LookFiles.Find(code, Library),
    };

    /// <summary>Refuses options that a report does not have. Throws a <see cref="ProblemException"/> that says which it has.</summary>
    public static void RefuseWhatDoesNotApply(IEnumerable<string> names, ReportDefinition definition)
    {
        if (names.FirstOrDefault(name => !definition.Takes(name)) is { } name)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                $"--{name} does not apply to {definition.Key}.",
                OptionAdvice.For(name, definition));
        }
    }
}
