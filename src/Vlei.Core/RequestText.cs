using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core;

/// <summary>
/// What is asked of a report, as texts by the names of its options: what a definition says, and what a person types. The
/// one place where the values of options are read.
/// </summary>
public static class RequestText
{
    private static readonly ReportOption[] OfLists =
        [ReportOptions.Columns, ReportOptions.Total, ReportOptions.Summary, ReportOptions.Detail];

    private static readonly ReportOption[] OfCrossTables = [ReportOptions.By, ReportOptions.Measure];

    // What goes along with options that are put together; no options of these names can be typed.
    private const string UsualColumns = "usual columns";
    private const string TypedColumns = "typed columns";
    private const string TypedSort = "typed sort";

    private static readonly ReportOption[] OfFields = [ReportOptions.Only, ReportOptions.Except];

    private static readonly ReportOption[] Adding = [ReportOptions.Where, ReportOptions.Having, ReportOptions.Select];

    /// <summary>
    /// What is asked when a person types some options of a report that says others itself. What is typed wins; choices of
    /// other fields, predicates, and columns that are only added or left out, are put to what the report says.
    /// </summary>
    /// <param name="own">What the report says, by the names of options.</param>
    /// <param name="typed">What is typed.</param>
    /// <param name="isList">Whether it is of a list, which is a list of columns or a cross-table.</param>
    public static Dictionary<string, IReadOnlyList<string>> Merged(
        IReadOnlyDictionary<string, IReadOnlyList<string>> own, IReadOnlyDictionary<string, IReadOnlyList<string>> typed, bool isList)
    {
        var merged = own.ToDictionary(pair => pair.Key, pair => pair.Value);
        var isCross = isList && OfCrossTables.Any(option => typed.ContainsKey(option.Name) && !IsNone(typed[option.Name]));
        NoteWhatIsUsual(own, typed, merged);
        foreach (var option in isCross ? OfLists : isList && OfLists.Any(option => typed.ContainsKey(option.Name)) ? OfCrossTables : [])
        {
            _ = merged.Remove(option.Name);
        }

        // An order is of columns; with other ones it is another.
        if (isCross || !Texts(typed, ReportOptions.Columns).All(IsChangeOfColumns))
        {
            _ = merged.Remove(ReportOptions.Sort.Name);
        }

        // A report that shows some levels of its groups has the others for who wants detail; else there are the records.
        var isDetailed = typed.ContainsKey(ReportOptions.Detail.Name) && own.ContainsKey(ReportOptions.Summary.Name);
        var goesDeeper = isDetailed && merged.Remove(ReportOptions.Depth.Name);
        if (isDetailed && !goesDeeper)
        {
            _ = merged.Remove(ReportOptions.Summary.Name);
        }

        // Both say when, so that either takes the place of the other.
        foreach (var (said, other) in new[] { (ReportOptions.Period, ReportOptions.AsOf), (ReportOptions.AsOf, ReportOptions.Period) })
        {
            _ = typed.ContainsKey(said.Name) && merged.Remove(other.Name);
        }

        var chosen = Texts(typed, ReportOptions.Only).Concat(Texts(typed, ReportOptions.Except)).Select(FieldOf)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var option in OfFields)
        {
            merged[option.Name] = Behind(
                [.. Texts(own, option).Where(text => !chosen.Contains(FieldOf(text))), .. Texts(typed, option)], option);
        }

        foreach (var option in Adding)
        {
            merged[option.Name] = Behind([.. Texts(own, option), .. Texts(typed, option)], option);
        }

        foreach (var (name, values) in typed.Where(
            pair => !IsPutTogether(pair.Key) && (!goesDeeper || pair.Key != ReportOptions.Detail.Name)))
        {
            merged[name] = name == ReportOptions.Columns.Name && values.All(IsChangeOfColumns)
                ? [.. Texts(merged, ReportOptions.Columns), .. values] : values;
        }

        return merged;
    }

    // What a report shows where it is another one goes along, and what was typed of it.
    private static void NoteWhatIsUsual(
        IReadOnlyDictionary<string, IReadOnlyList<string>> own, IReadOnlyDictionary<string, IReadOnlyList<string>> typed,
        Dictionary<string, IReadOnlyList<string>> merged)
    {
        if (own.TryGetValue(ReportOptions.Columns.Name, out var usual))
        {
            merged[UsualColumns] = [.. Texts(own, UsualColumns), .. usual];
        }

        if (typed.ContainsKey(ReportOptions.Sort.Name))
        {
            merged[TypedSort] = ["true"];
        }

        if (typed.TryGetValue(ReportOptions.Columns.Name, out var typedColumns))
        {
            merged[TypedColumns] = [.. Texts(own, TypedColumns), .. typedColumns];
        }
    }

    /// <summary>What can be typed of what was put together, and can be kept.</summary>
    public static Dictionary<string, IReadOnlyList<string>> Typeable(IReadOnlyDictionary<string, IReadOnlyList<string>> options) =>
        options.Where(pair => pair.Key is not (UsualColumns or TypedColumns or TypedSort)).ToDictionary();

    /// <summary>
    /// What a file asks of a report: as if it was typed, but that its order holds as far as there are its columns, and that columns
    /// of a standard report need not be shown where they say nothing.
    /// </summary>
    public static Dictionary<string, IReadOnlyList<string>> Kept(
        ReportDefinition definition, IReadOnlyDictionary<string, IReadOnlyList<string>> own, bool isStandard) =>
        Merged(definition, own).Where(pair => pair.Key != TypedSort && (!isStandard || pair.Key != TypedColumns)).ToDictionary();

    /// <summary>What is asked where a person types some options of a report.</summary>
    public static Dictionary<string, IReadOnlyList<string>> Merged(
        ReportDefinition definition, IReadOnlyDictionary<string, IReadOnlyList<string>> typed) =>
        Merged(definition.Defaults, typed, definition.Table is not null);

    /// <summary>What is asked, with looks that hold where it says nothing of them.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<string>> WithLook(
        IReadOnlyDictionary<string, IReadOnlyList<string>> options, IReadOnlyDictionary<string, IReadOnlyList<string>> look) =>
        look.Count == 0 ? options : look.Where(pair => !options.ContainsKey(pair.Key)).Concat(options)
            .ToDictionary(pair => pair.Key, pair => pair.Value);

    /// <summary>Reads them. Throws a <see cref="ProblemException"/> where a value makes no sense.</summary>
    /// <param name="options">The values, by the names of the options; a switch has the value <c>true</c>.</param>
    /// <param name="today">The day that period words are worked out from.</param>
    /// <param name="calendar">The book's calendar.</param>
    /// <param name="currency">The book's currency.</param>
    /// <param name="selections">The saved selections of those names; may throw for a name that there is none of.</param>
    public static ReportRequest Read(
        IReadOnlyDictionary<string, IReadOnlyList<string>> options, WorkingDay today, FiscalCalendar calendar, Currency currency,
        Func<string, SavedSelection>? selections = null)
    {
        var selected = SelectedIn(options).ConvertAll(name => selections?.Invoke(name)
            ?? throw new ProblemException(ProblemKind.NotFound, $"There is no selection {name}."));
        string? One(ReportOption option) => Texts(options, option) is [.., var last] ? last : null;
        bool Has(ReportOption option) => One(option) == "true";
        IReadOnlyList<ColumnText> Columns(ReportOption option) =>
            [.. Texts(options, option).SelectMany(list => ColumnText.Parse(option.Name, list))];
        List<ColumnText> Listed(string name) =>
            [.. Texts(options, name).SelectMany(list => ColumnText.Parse(ReportOptions.Columns.Name, list))];
        IReadOnlyList<string> Names(ReportOption option) =>
            One(option) == FieldNames.None ? [] : [.. Columns(option).Select(column => column.Text)];
        return new ReportRequest
        {
            Period = PeriodOf(One(ReportOptions.Period), One(ReportOptions.AsOf)) is { } period
                ? PeriodGrammar.Parse(period, today, calendar) : null,
            Basis = One(ReportOptions.Basis) is { } basis ? ReportOptions.Basis.ValueOf(basis) : null,
            HasBothBases = One(ReportOptions.Basis) is { } asked && ReportOptions.Basis.ValueOf(asked) is null,
            By = One(ReportOptions.By) is { } what && what != FieldNames.None ? SpreadOf(what) : null,
            Compare = [.. Texts(options, ReportOptions.Compare).Select(with => Comparison.Parse(with, today, calendar))],
            Change = Has(ReportOptions.Change),
            Explain = Has(ReportOptions.Explain),
            Shares = [.. Texts(options, ReportOptions.Share)
                .SelectMany(list => Array.ConvertAll(list.Split(','), ReportOptions.Share.ValueOf))],
            Choices = [.. ChoicesIn(options), .. selected.SelectMany(selection => selection.Choices)],
            Where = [.. Texts(options, ReportOptions.Where).Select(text => new PredicateText(text)),
                .. selected.SelectMany(selection => selection.Predicates)],
            Having = [.. Texts(options, ReportOptions.Having).Select(text => new PredicateText(text))],
            Columns = [.. Texts(options, ReportOptions.Columns).Select(list => ColumnText.Parse(ReportOptions.Columns.Name, list))],
            TypedColumns = Listed(TypedColumns).FindAll(column => column.Sign != '-').ConvertAll(column => column.Text),
            List = new ListRequest
            {
                GroupBy = Names(ReportOptions.GroupBy),
                IsUngrouped = One(ReportOptions.GroupBy) == FieldNames.None,
                Totals = Columns(ReportOptions.Total),
                Measures = Columns(ReportOptions.Measure),
                Usual = Listed(UsualColumns).ConvertAll(column => column with { Sign = null }),
            },
            Statement = new StatementRequest
            {
                IsDirect = One(ReportOptions.Method) is { } method && ReportOptions.Method.ValueOf(method),
                Layout = One(ReportOptions.Layout),
                Zeros = Has(ReportOptions.Zeros),
            },
            Items = new OpenItemRequest
            {
                Limits = One(ReportOptions.Limits) is { } limits ? AgingBuckets.Parse(limits) : null,
                AgesByDocument = One(ReportOptions.AgeBy) is { } age && ReportOptions.AgeBy.ValueOf(age),
                KeepsUnappliedApart = Has(ReportOptions.Unapplied),
                Money = One(ReportOptions.Money) is { } money ? AmountText.Read(ReportOptions.Money.Name, money, currency) : null,
                AsUsual = Has(ReportOptions.AsUsual),
            },
            Detail = Has(ReportOptions.Detail),
            Summary = Has(ReportOptions.Summary),
            Sort = One(ReportOptions.Sort) is { } sort ? SortOrder.Parse(sort) : [],
            IsSortTyped = options.ContainsKey(TypedSort),
            Top = One(ReportOptions.Top) is { } top ? NumberOf(ReportOptions.Top, top, 1, "1 or more") : null,
            Depth = One(ReportOptions.Depth) is { } depth ? NumberOf(ReportOptions.Depth, depth, 0, "0 for totals alone, 1, 2 …") : null,
            Title = One(ReportOptions.Title),
            Look = LookText.Read(options),
        };
    }

    // The names of the saved selections that are asked for; the word none takes away those before it.
    private static List<string> SelectedIn(IReadOnlyDictionary<string, IReadOnlyList<string>> options)
    {
        var names = Texts(options, ReportOptions.Select).SelectMany(list => list.Split(',', StringSplitOptions.TrimEntries)).ToList();
        names.RemoveRange(0, names.LastIndexOf(FieldNames.None) + 1);
        return names;
    }

    private static IEnumerable<FieldChoice> ChoicesIn(IReadOnlyDictionary<string, IReadOnlyList<string>> options) =>
    [
        .. Texts(options, ReportOptions.Only).Select(text => FieldChoice.Parse(text, isExcept: false)),
        .. Texts(options, ReportOptions.Except).Select(text => FieldChoice.Parse(text, isExcept: true)),
    ];

    // The word none takes away what was said before it; of selections, it stands where they are read.
    private static IReadOnlyList<string> Behind(IReadOnlyList<string> texts, ReportOption option) => option == ReportOptions.Select
        ? texts : [.. texts.Skip(texts.ToList().LastIndexOf(FieldNames.None) + 1)];

    private static bool IsPutTogether(string name) => OfFields.Concat(Adding).Any(option => option.Name == name);

    private static IReadOnlyList<string> Texts(IReadOnlyDictionary<string, IReadOnlyList<string>> options, ReportOption option) =>
        Texts(options, option.Name);

    private static IReadOnlyList<string> Texts(IReadOnlyDictionary<string, IReadOnlyList<string>> options, string name) =>
        options.GetValueOrDefault(name, []);

    private static bool IsChangeOfColumns(string list) =>
        ColumnText.Parse(ReportOptions.Columns.Name, list).All(column => column.Sign is not null || column.Heading is not null);

    private static bool IsNone(IReadOnlyList<string> values) => values is [FieldNames.None];

    private static string FieldOf(string choice) => choice.Split('=')[0].Trim();

    private static Spread SpreadOf(string what)
    {
        var unit = FiscalCalendar.UnitNames.ToList().FindIndex(name => name.Equals(what, StringComparison.OrdinalIgnoreCase));
        return unit >= 0 ? Spread.Of((TimeUnit)unit) : Spread.Of(what);
    }

    // One or the other: a moment is the end of a period.
    private static string? PeriodOf(string? period, string? moment) => period is not null && moment is not null
        ? throw new ProblemException(
            ProblemKind.Usage, "--period and --as-of both say when.", "Give one of them; with --by, --period.")
        : period ?? moment;

    private static int NumberOf(ReportOption option, string text, int least, string hint) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number >= least
            ? number
            : throw new ProblemException(
                ProblemKind.Usage, $"--{option.Name} does not take \"{text}\".", $"It takes a whole number: {hint}.");
}
