namespace Vlei.Core.Reports;

/// <summary>The options that say how a report looks: every report has them, whatever it shows.</summary>
public static class LookOptions
{
    /// <summary>A chart.</summary>
    public static ReportOption Chart { get; } = new("chart", "KIND[:ROWS]", "With a chart: auto, bars, stacked, lines, share or none")
    {
        Question = ReportQuestion.Look,
        More = "Of rows that suit it, or of those that are named: lines:total-income,net-profit",
        Words = [.. ChartText.Words, "none"], WhenBare = "auto",
    };

    /// <summary>The records behind figures.</summary>
    public static ChoiceOption<DetailDepth> WithDetail { get; } = new(
        "with-detail", "DEPTH", "With what is behind figures",
        ("none", DetailDepth.None), ("records", DetailDepth.Records), ("documents", DetailDepth.Documents))
    {
        Question = ReportQuestion.Look,
        More = "In html, pdf, xlsx and ods; documents brings their documents too",
        OnlyWords = true, WhenBare = "records",
    };

    /// <summary>A workbook to fill.</summary>
    public static ReportOption Template { get; } = new("template", "FILE", "Fill a workbook that was made from this report")
    {
        Question = ReportQuestion.Look,
        More = "A workbook that was given other looks; for xlsx",
    };

    /// <summary>A language.</summary>
    public static ReportOption Language { get; } = new("lang", "CODE", "The language: en, de, fr, af")
    {
        Question = ReportQuestion.Look,
        More = "Of captions, months, numbers and dates",
    };

    /// <summary>Figures below zero.</summary>
    public static ChoiceOption<NegativeStyle> Negatives { get; } = new("negatives", "STYLE", "Below zero",
        ("minus", NegativeStyle.Minus), ("brackets", NegativeStyle.Brackets), ("trailing-minus", NegativeStyle.TrailingMinus))
    {
        Question = ReportQuestion.Look,
        OnlyWords = true,
    };

    /// <summary>Figures of nothing.</summary>
    public static ChoiceOption<NilStyle> Nil { get; } = new("nil", "STYLE", "Nothing", ("zero", NilStyle.Zero), ("dash", NilStyle.Dash))
    {
        Question = ReportQuestion.Look,
        More = "Agings have dashes, other reports zeros, where nothing is said",
        OnlyWords = true,
    };

    /// <summary>What stands between thousands.</summary>
    public static ChoiceOption<string> Thousands { get; } = new(
        "thousands", "MARK", "Thousands",
        ("comma", ","), ("point", "."), ("space", "\u00a0"), ("apostrophe", "'"), ("none", ""))
    {
        Question = ReportQuestion.Look,
        OnlyWords = true,
    };

    /// <summary>What stands before decimals.</summary>
    public static ChoiceOption<string> DecimalMark { get; } = new("decimal-mark", "MARK", "Decimals", ("point", "."), ("comma", ","))
    {
        Question = ReportQuestion.Look,
        OnlyWords = true,
    };

    /// <summary>Money in thousands.</summary>
    public static ChoiceOption<int> Scale { get; } = new("scale", "SCALE", "Money in", ("units", 0), ("thousands", 3), ("millions", 6))
    {
        Question = ReportQuestion.Look,
        OnlyWords = true,
    };

    /// <summary>Decimals of money.</summary>
    public static ReportOption Decimals { get; } = new("decimals", "N", "The decimals of money, 0 to 6")
    {
        Question = ReportQuestion.Look,
        More = "Else those of the currency; none in thousands",
    };

    /// <summary>How days are written.</summary>
    public static ReportOption Dates { get; } = new("dates", "PATTERN", "How days are written: iso, dd.MM.yyyy, d MMM yyyy …")
    {
        Question = ReportQuestion.Look,
        More = "iso, or a pattern as dd.MM.yyyy, d MMM yyyy, MM/dd/yyyy",
        Words = ["iso", "dd.MM.yyyy", "dd/MM/yyyy", "MM/dd/yyyy", "d MMM yyyy"],
    };

    /// <summary>The paper.</summary>
    public static ChoiceOption<PaperSize> Paper { get; } = new("paper", "SIZE", "The paper", ("a4", PaperSize.A4),
        ("letter", PaperSize.Letter))
    {
        Question = ReportQuestion.Look,
        OnlyWords = true,
    };

    /// <summary>How the paper lies.</summary>
    public static ChoiceOption<PaperTurn> Orientation { get; } = new("orientation", "HOW", "How the paper lies",
        ("portrait", PaperTurn.Portrait), ("landscape", PaperTurn.Landscape))
    {
        Question = ReportQuestion.Look,
        More = "Else as the columns need it",
        OnlyWords = true,
    };

    /// <summary>The size of text.</summary>
    public static ReportOption FontSize { get; } = new("font-size", "POINTS", "The size of text on paper, 5 to 24")
    {
        Question = ReportQuestion.Look,
        More = "In points",
    };

    /// <summary>Widths of columns.</summary>
    public static ReportOption Widths { get; } = new("widths", "LIST", "How wide columns are, in letters: label=30,memo=40")
    {
        Question = ReportQuestion.Look,
        Repeatable = true,
    };

    /// <summary>Where in their columns things stand.</summary>
    public static ReportOption Align { get; } = new("align", "LIST", "Where in columns things stand: memo=right")
    {
        Question = ReportQuestion.Look,
        More = "left, right or center: memo=right,kind=center",
        Repeatable = true,
    };

    /// <summary>A picture.</summary>
    public static ReportOption Logo { get; } = new("logo", "FILE", "A picture at the head: PNG or JPEG")
    {
        Question = ReportQuestion.Look,
        More = "In html, pdf and xlsx",
    };

    /// <summary>A second title.</summary>
    public static ReportOption Subtitle { get; } = new("subtitle", "T", "A line below the title")
    {
        Question = ReportQuestion.Look,
    };

    /// <summary>A foot.</summary>
    public static ReportOption Footer { get; } = new("footer", "T", "A line at the foot of every page")
    {
        Question = ReportQuestion.Look,
    };

    /// <summary>A colour.</summary>
    public static ReportOption Accent { get; } = new("accent", "COLOUR", "The colour of titles and charts: #1f5f8b")
    {
        Question = ReportQuestion.Look,
        More = "Of titles, headings and charts",
    };

    /// <summary>How CSV is written.</summary>
    public static ChoiceOption<CsvStyle> CsvStyle { get; } = new("csv-style", "LIST", "For csv: plain, headings, safe",
        ("plain", Reports.CsvStyle.Plain), ("headings", Reports.CsvStyle.Headings), ("safe", Reports.CsvStyle.Safe))
    {
        Question = ReportQuestion.Look,
        More = "plain leaves out what rows are, headings takes headings for keys, safe marks text that a spreadsheet could take for a "
            + "formula",
    };

    /// <summary>Whether an option says how a report looks.</summary>
    public static bool Has(string name) => All.Any(option => option.Name == name);

    /// <summary>All of them, in the order of help.</summary>
    public static IReadOnlyList<ReportOption> All { get; } =
    [
        Chart, WithDetail, Template, Language, Negatives, Nil, Thousands, DecimalMark, Scale, Decimals, Dates, Paper, Orientation, FontSize,
        Widths, Align, Logo,
        Subtitle, Footer, Accent, CsvStyle,
    ];
}
