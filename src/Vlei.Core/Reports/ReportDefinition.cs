using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Languages;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>What a report knows of the book that it is about.</summary>
/// <param name="Name">Whose book it is.</param>
/// <param name="Currency">The currency of its amounts.</param>
/// <param name="Calendar">Its fiscal calendar.</param>
/// <param name="Basis">The basis of reports that are not told another.</param>
/// <param name="Today">The day that period words are worked out from.</param>
/// <param name="Ledger">Its records.</param>
/// <param name="Layouts">
/// What the layout of a name says; throws a <see cref="Problems.ProblemException"/> where there is none, or where it is
/// not written as it should be.
/// </param>
public sealed record ReportContext(
    string Name, Currency Currency, FiscalCalendar Calendar, AccountingBasis Basis, WorkingDay Today, ILedger Ledger,
    Func<string, LayoutText> Layouts)
{
    /// <summary>How customers pay, in lines, as the book says it; empty where it does not.</summary>
    public string Remittance { get; init; } = "";

    /// <summary>
    /// How long documents, by their keys, are open at the end of a day; nothing where that is not to be known.
    /// </summary>
    public Func<ILedger, DateOnly, Func<long[], long[]>>? DaysOpenOn { get; init; }

    /// <summary>Up to which day what was noted about documents is known, though a report be of an earlier one.</summary>
    public DateOnly Known { get; init; } = Today.Date;

    /// <summary>The language of reports that are not told another; English where nothing is said.</summary>
    public Language? Language { get; init; }

    /// <summary>The language of a code; nothing where there is none.</summary>
    public Func<string, Language?> LanguageOf { get; init; } = Languages.Language.Find;

    /// <summary>The first and the last day of the records; today where there are none.</summary>
    public DateRange Records => Ledger.Extent ?? new DateRange(Today.Date, Today.Date);

    /// <summary>What readers are told of figures that rest on settlements; nothing where those are the records' own.</summary>
    public IReadOnlyList<string> NotesOnSettlements =>
        Ledger.HasComputedSettlements ? ["Settlements are computed, oldest first: the records have none."] : [];

    /// <summary>The period that is asked for; this fiscal year to date where none is.</summary>
    public Period PeriodOf(ReportRequest request) => (request.Period ?? new OpenPeriod(
        Calendar.UnitOf(TimeUnit.FiscalYear, Today.Date).From, Today.Date, TimeUnit.FiscalYear)).Within(Records);
}

/// <summary>A report that can be asked for.</summary>
public sealed record ReportDefinition
{
    /// <summary>The word by which it is asked for.</summary>
    public required string Key { get; init; }

    /// <summary>Its title.</summary>
    public required string Title { get; init; }

    /// <summary>The subject that it is listed under.</summary>
    public required string Subject { get; init; }

    /// <summary>The question that it answers.</summary>
    public required string Question { get; init; }

    /// <summary>Other words that people look for it by.</summary>
    public required IReadOnlyList<string> Words { get; init; }

    /// <summary>The options that apply to it.</summary>
    public required IReadOnlyList<ReportOption> Options { get; init; }

    /// <summary>Examples of its options, for help.</summary>
    public required IReadOnlyList<(string Options, string Meaning)> Examples { get; init; }

    /// <summary>
    /// Where it is of one contact: a request for each of those that are asked for, under the contact's id. Nothing for any
    /// other report.
    /// </summary>
    public Func<ReportContext, ReportRequest, IReadOnlyList<(string Name, ReportRequest Request)>>? Each { get; init; }

    /// <summary>What it asks by itself, as texts by the names of options; what a person types wins over it.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> Defaults { get; init; } = new Dictionary<string, IReadOnlyList<string>>();

    /// <summary>The field that a person must choose from, for the report to say anything; nothing where none has to be.</summary>
    public string? Asks { get; init; }

    /// <summary>The table that it is a list of; nothing where it is none.</summary>
    public TableDefinition? Table { get; init; }

    /// <summary>
    /// Whether it takes an option: one of its own, or one that says how it looks. The end of a period is a moment too.
    /// </summary>
    public bool Takes(string option) => Options.Concat(LookOptions.All).Any(known => known.Name == option)
        || (option == ReportOptions.Period.Name && Options.Contains(ReportOptions.AsOf));

    /// <summary>
    /// Builds it, with the looks that are asked for. Throws a <see cref="Problems.ProblemException"/> where the request does not
    /// make sense.
    /// </summary>
    public Report Make(ReportContext context, ReportRequest request)
    {
        var report = Build(context, request);
        report = Table is null ? ChosenColumns.Of(
            report, request, new TableContext(context.Ledger, context.Calendar, context.Currency, context.Today, context.Basis)) : report;
        return report with
        {
            Look = request.Look with
            {
                Language = request.Look.Language ?? report.Look.Language ?? context.Language,
                Nil = request.Look.Nil ?? report.Look.Nil,
            },
        };
    }

    /// <summary>Builds it, as it is. Throws a <see cref="Problems.ProblemException"/> where the request does not make sense.</summary>
    public required Func<ReportContext, ReportRequest, Report> Build { get; init; }
}
