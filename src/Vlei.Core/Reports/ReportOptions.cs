using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;

namespace Vlei.Core.Reports;

/// <summary>Every option that a report can have.</summary>
public static class ReportOptions
{
    /// <summary>The days that it covers.</summary>
    public static ReportOption Period { get; } = new("period", "P", "The days: 2026-Q1, last-month … (vlei help periods)")
    {
        More = "2026, 2026-Q1, 2026-03, 2026-W07, 2026-03-15, fy2026, fy2026-Q1, 2026-01-15/2026-02-14, 2026-01/P3M, /2026-03, "
            + "last-month, fiscal-year-to-date, last-30-days, last-3-months, 3-months-ago, all",
        Question = ReportQuestion.Days,
        Words = PeriodGrammar.Words,
    };

    /// <summary>The moment that it shows.</summary>
    public static ReportOption AsOf { get; } = new("as-of", "D", "The day to show, at its end: 2026-03-31, last-month …")
    {
        More = "The end of any period will do: 2026-03, fy2026, last-month",
        Question = ReportQuestion.Days,
        Words = PeriodGrammar.Words,
    };

    /// <summary>Accrual or cash.</summary>
    public static ChoiceOption<AccountingBasis?> Basis { get; } = new("basis", "BASIS", "What counts",
        ("accrual", AccountingBasis.Accrual), ("cash", AccountingBasis.Cash), ("both", null))
    {
        More = "What is invoiced, or what is paid (the book says which, if this does not); or both side by side",
        Question = ReportQuestion.Days,
        OnlyWords = true,
    };

    /// <summary>Columns of time, or of the values of a field.</summary>
    public static ReportOption By { get; } = new("by", "FIELD", "A column per month, quarter, year … or value of a field")
    {
        More = "week, month, quarter, year, fiscal-quarter, fiscal-year or any field, and a total; over a list, a cross-table of its "
            + "main figure; none takes a report's own away",
        Question = ReportQuestion.Beside,
        Words = [.. FiscalCalendar.UnitNames, .. FieldNames.Spreading],
    };

    /// <summary>Earlier periods.</summary>
    public static ReportOption Compare { get; } = new("compare", "X[:N]", "Beside it prior-period, prior-year, budget …; N of them")
    {
        More = "prior-period, prior-year, budget, year-start (a day) or year-to-date, or any period; N earlier ones; may be repeated",
        Question = ReportQuestion.Beside,
        Words = Comparison.Words, Repeatable = true,
    };

    /// <summary>The change against earlier periods.</summary>
    public static ReportOption Change { get; } = new("change", null, "With the change and the percent change")
    {
        More = "With --compare, or --basis both",
        Question = ReportQuestion.Beside,
    };

    /// <summary>What made the last total change.</summary>
    public static ReportOption Explain { get; } = new("explain", null, "Below it, the largest reasons of the change")
    {
        More = "The three largest, with --compare: what made the last total change; vlei explain says it of any row",
        Question = ReportQuestion.Beside,
    };

    /// <summary>Percentages.</summary>
    public static ChoiceOption<ShareOf> Share { get; } = new("share", "OF", "Percent of", ("income", ShareOf.Income),
        ("assets", ShareOf.Assets), ("column", ShareOf.Column), ("row", ShareOf.Row),
        ("group", ShareOf.Group), ("whole", ShareOf.Whole))
    {
        More = "Beside each figure, its percentage of total income, of total assets, of the column's grand total, of the row's total "
            + "across the columns, of its group, or of the whole table; may be repeated",
        Question = ReportQuestion.Beside,
        OnlyWords = true, Repeatable = true,
    };

    /// <summary>What is taken alone.</summary>
    public static ReportOption Only { get; } = new("only", "F=LIST", "Take only these: account=4000/4999, contact=C-12 …")
    {
        More = "account=4000/4999, contact=C-12, kind=invoice,cash-sale, project=none, item=Oar*, tag.season=summer; may be repeated, "
            + "and all must hold; none takes those of the report away",
        Question = ReportQuestion.Records,
        Words = [.. FieldNames.OfPostings.Select(field => $"{field}=")], Repeatable = true,
    };

    /// <summary>What is left out.</summary>
    public static ReportOption Except { get; } = new("except", "F=LIST", "Leave these out, written as in --only")
    {
        More = "May be repeated; none takes those of the report away",
        Question = ReportQuestion.Records,
        Words = [.. FieldNames.OfPostings.Select(field => $"{field}=")], Repeatable = true,
    };

    /// <summary>Saved selections.</summary>
    public static ReportOption Select { get; } = new("select", "NAME", "Take what a kept selection takes")
    {
        More = "selections/NAME.toml; may be repeated, and all must hold; none takes those of the report away",
        Question = ReportQuestion.Records,
        Repeatable = true,
    };

    /// <summary>A predicate.</summary>
    public static ReportOption Where { get; } = new("where", "EXPR", "Take what this holds for, as in SQL: \"amount > 1000\"")
    {
        More = "\"amount > 1000 and contact.kind = 'customer' and date in 'last-month'\"; may be repeated",
        Question = ReportQuestion.Records,
        Repeatable = true,
    };

    /// <summary>A predicate over figures.</summary>
    public static ReportOption Having { get; } = new("having", "EXPR", "Show rows whose figures this holds for: \"open > 1000\"")
    {
        More = "Once everything is added up: \"open > 1000\", \"quantity <> 0\"; may be repeated",
        Question = ReportQuestion.Rows,
        Repeatable = true,
    };

    /// <summary>The columns of a list.</summary>
    public static ReportOption Columns { get; } = new("columns", "LIST", "Which, in which order: date,amount; +x adds, -x drops")
    {
        More = "By key or heading: date,contact.name:Customer,amount; +x adds, -x leaves out, x:Heading renames where x stands; "
            + "formulas too: amount * 0.05:Rebate; in lists functions: running(amount), share(amount)",
        Question = ReportQuestion.Columns,
        Repeatable = true,
    };

    /// <summary>Groups of a list.</summary>
    public static ReportOption GroupBy { get; } = new("group-by", "LIST", "By fields, subgroups in order: contact,month; or none")
    {
        More = "none takes a report's own groups away",
        Question = ReportQuestion.Groups,
        Words = [.. FieldNames.Spreading, "account", .. FiscalCalendar.UnitNames],
    };

    /// <summary>What is made of columns.</summary>
    public static ReportOption Total { get; } = new("total", "LIST", "Per group: count, average(amount), max(amount) …")
    {
        More = "For each group and for all, besides sums: count, average(amount), min(amount), max(amount), share(amount)",
        Question = ReportQuestion.Columns,
        Words = ["count"],
    };

    /// <summary>The cells of a cross-table.</summary>
    public static ReportOption Measure { get; } = new("measure", "LIST", "What a cross-table adds up: amount, quantity, count …")
    {
        More = "In the place of its main figure: amount, quantity, count, average(amount)",
        Question = ReportQuestion.Columns,
        Words = ["amount", "count", "quantity"],
    };

    /// <summary>From net profit, or from the movements of money.</summary>
    public static ChoiceOption<bool> Method { get; } = new("method", "METHOD", "How it is found", ("indirect", false), ("direct", true))
    {
        More = "From net profit and the changes of balances, or from the movements of money themselves",
        Question = ReportQuestion.Days,
        OnlyWords = true,
    };

    /// <summary>The limits of an aging.</summary>
    public static ReportOption Limits { get; } = new("limits", "DAYS", "The limits of the columns, in days: 15,30,60")
    {
        More = "Growing: 15,30,45,60",
        Question = ReportQuestion.Beside,
    };

    /// <summary>What an aging counts from.</summary>
    public static ChoiceOption<bool> AgeBy { get; } = new("age-by", "DATE", "Count the days from", ("due", false), ("document", true))
    {
        More = "From the day that a document is due, or from its own",
        Question = ReportQuestion.Beside,
        OnlyWords = true,
    };

    /// <summary>Unapplied money apart.</summary>
    public static ReportOption Unapplied { get; } = new("unapplied", null, "Money that is not applied yet in a column of its own")
    {
        More = "Credits too",
        Question = ReportQuestion.Beside,
    };

    /// <summary>A row per document.</summary>
    public static ReportOption Detail { get; } = new("detail", null, "Down to every open document")
    {
        Question = ReportQuestion.Groups,
    };

    /// <summary>Totals alone.</summary>
    public static ReportOption Summary { get; } = new("summary", null, "Groups alone, or totals alone")
    {
        More = "A row for each group; for each control account, or for each total of a statement, where nothing is grouped",
        Question = ReportQuestion.Groups,
    };

    /// <summary>An order of rows.</summary>
    public static ReportOption Sort { get; } = new("sort", "LIST", "By columns: name, -total; - puts the largest first")
    {
        More = "By columns, by name or by oldest; - before one puts the largest first: -total,name",
        Question = ReportQuestion.Order,
        Words = ["name", "-total", "-oldest"],
    };

    /// <summary>The first few rows.</summary>
    public static ReportOption Top { get; } = new("top", "N", "The N largest alone, and the rest together")
    {
        More = "Or the first N of --sort; in statements, of each section",
        Question = ReportQuestion.Rows,
    };

    /// <summary>The money to start from.</summary>
    public static ReportOption Money { get; } = new("money", "A", "Start from this much money")
    {
        More = "Rather than from what the money accounts come to",
        Question = ReportQuestion.Beside,
    };

    /// <summary>As late as usual.</summary>
    public static ReportOption AsUsual { get; } = new("as-usual", null, "Expect contacts to be as late as they usually are")
    {
        More = "As late as each was on average, rather than on time",
        Question = ReportQuestion.Beside,
    };

    /// <summary>A layout of one's own.</summary>
    public static ReportOption Layout { get; } = new("layout", "NAME", "Order the accounts by a layout of your own")
    {
        More = "layouts/NAME.toml of the book, or a file (NAME.toml)",
        Question = ReportQuestion.Order,
    };

    /// <summary>Rows without figures.</summary>
    public static ReportOption Zeros { get; } = new("zeros", null, "Accounts without any figure too")
    {
        Question = ReportQuestion.Rows,
    };

    /// <summary>Levels of accounts.</summary>
    public static ReportOption Depth { get; } = new("depth", "N", "Levels of accounts: 1 without parts, 0 totals alone")
    {
        Question = ReportQuestion.Groups,
    };

    /// <summary>A title.</summary>
    public static ReportOption Title { get; } = new("title", "T", "A title of your own")
    {
        Question = ReportQuestion.Look,
    };

    /// <summary>What says which columns a statement has and which rows it shows; the period or the moment comes first.</summary>
    public static IReadOnlyList<ReportOption> OfStatements { get; } =
        [
            Basis, By, Compare, Change, Explain, Share, Only, Except, Where, Select, Having, Columns, Layout, Zeros, Depth, Summary, Sort,
            Top, Title,
        ];

    /// <summary>What a percentage is of, as people type it.</summary>
    public static string NameOf(ShareOf whole) => Share.WordOf(whole);

    /// <summary>All of them, in the order of help.</summary>
    public static IReadOnlyList<ReportOption> All { get; } =
        [Period, AsOf, Basis, Method, By, Compare, Change, Explain, Share, Only, Except, Select, Where, Having, Columns, GroupBy, Total,
            Measure, Layout, Limits, AgeBy, Unapplied, Summary, Detail, Sort, Top, Money, AsUsual, Zeros, Depth, Title, .. LookOptions.All];
}
