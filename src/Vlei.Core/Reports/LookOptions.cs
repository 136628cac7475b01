namespace Vlei.Core.Reports;

/// <summary>The options that say how a report looks: every report has them, whatever it shows.</summary>
public static class LookOptions
{
    /// <summary>A chart.</summary>
    public static ReportOption Chart { get; } = new(
        "chart", "KIND[:ROWS]",
        "With a chart: auto, bars, stacked, lines, share or none, of rows that suit it or that are named: lines:total-income,net-profit")
    {
        Words = [.. ChartText.Words, "none"], WhenBare = "auto",
    };

    /// <summary>The records behind figures.</summary>
    public static ChoiceOption<DetailDepth> WithDetail { get; } = new(
        "with-detail", "DEPTH",
        "With the records behind each figure, in html, pdf, xlsx and ods: records, or documents for their documents too",
        ("none", DetailDepth.None), ("records", DetailDepth.Records), ("documents", DetailDepth.Documents))
    {
        OnlyWords = true, WhenBare = "records",
    };

    /// <summary>A workbook to fill.</summary>
    public static ReportOption Template { get; } = new(
        "template", "FILE", "Fill a workbook that was made from this report and given other looks, for xlsx");

    /// <summary>A language.</summary>
    public static ReportOption Language { get; } = new(
        "lang", "CODE", "The language of captions, months, numbers and dates: en, de, fr, af");

    /// <summary>Figures below zero.</summary>
    public static ChoiceOption<NegativeStyle> Negatives { get; } = new(
        "negatives", "STYLE", "Figures below zero",
        ("minus", NegativeStyle.Minus), ("brackets", NegativeStyle.Brackets), ("trailing-minus", NegativeStyle.TrailingMinus))
    {
        OnlyWords = true,
    };

    /// <summary>What stands between thousands.</summary>
    public static ChoiceOption<string> Thousands { get; } = new(
        "thousands", "MARK", "Between thousands",
        ("comma", ","), ("point", "."), ("space", "\u00a0"), ("apostrophe", "'"), ("none", ""))
    {
        OnlyWords = true,
    };

    /// <summary>What stands before decimals.</summary>
    public static ChoiceOption<string> DecimalMark { get; } = new(
        "decimal-mark", "MARK", "Before decimals",
        ("point", "."), ("comma", ","))
    {
        OnlyWords = true,
    };

    /// <summary>Money in thousands.</summary>
    public static ChoiceOption<int> Scale { get; } = new(
        "scale", "SCALE", "Money in",
        ("units", 0), ("thousands", 3), ("millions", 6))
    {
        OnlyWords = true,
    };

    /// <summary>Decimals of money.</summary>
    public static ReportOption Decimals { get; } = new(
        "decimals", "N", "The decimals of money, 0 to 6 (else those of the currency; none in thousands)");

    /// <summary>How days are written.</summary>
    public static ReportOption Dates { get; } = new(
        "dates", "PATTERN",
        "How days are written: iso, or a pattern as dd.MM.yyyy, d MMM yyyy, MM/dd/yyyy")
    {
        Words =
            ["iso", "dd.MM.yyyy", "dd/MM/yyyy", "MM/dd/yyyy", "d MMM yyyy"]
    };

    /// <summary>The paper.</summary>
    public static ChoiceOption<PaperSize> Paper { get; } = new(
        "paper", "SIZE", "The paper that it is printed on",
        ("a4", PaperSize.A4), ("letter", PaperSize.Letter))
    {
        OnlyWords = true,
    };

    /// <summary>How the paper lies.</summary>
    public static ChoiceOption<PaperTurn> Orientation { get; } = new(
        "orientation", "HOW", "How the paper lies (else as the columns need it)",
        ("portrait", PaperTurn.Portrait), ("landscape", PaperTurn.Landscape))
    {
        OnlyWords = true,
    };

    /// <summary>The size of text.</summary>
    public static ReportOption FontSize { get; } = new("font-size", "POINTS", "The size of text on paper, 5 to 24 points");

    /// <summary>Widths of columns.</summary>
    public static ReportOption Widths { get; } = new("widths", "LIST", "How wide columns are, in letters: label=30,memo=40")
    {
        Repeatable = true,
    };

    /// <summary>Where in their columns things stand.</summary>
    public static ReportOption Align { get; } = new("align", "LIST", "Where in columns things stand: memo=right,kind=center")
    {
        Repeatable = true,
    };

    /// <summary>A picture.</summary>
    public static ReportOption Logo { get; } = new("logo", "FILE", "A picture at the head, in html, pdf and xlsx: PNG or JPEG");

    /// <summary>A second title.</summary>
    public static ReportOption Subtitle { get; } = new("subtitle", "T", "A line below the title");

    /// <summary>A foot.</summary>
    public static ReportOption Footer { get; } = new("footer", "T", "A line at the foot, on every page");

    /// <summary>A colour.</summary>
    public static ReportOption Accent { get; } = new("accent", "COLOUR", "The colour of titles, headings and charts: #1f5f8b");

    /// <summary>How CSV is written.</summary>
    public static ChoiceOption<CsvStyle> CsvStyle { get; } = new(
        "csv-style", "LIST",
        "For csv: plain leaves out what rows are, headings takes headings for keys, safe marks text that a spreadsheet could take for a "
            + "formula",
        ("plain", Reports.CsvStyle.Plain), ("headings", Reports.CsvStyle.Headings), ("safe", Reports.CsvStyle.Safe));

    /// <summary>Whether an option says how a report looks.</summary>
    public static bool Has(string name) => All.Any(option => option.Name == name);

    /// <summary>All of them, in the order of help.</summary>
    public static IReadOnlyList<ReportOption> All { get; } =
    [
        Chart, WithDetail, Template, Language, Negatives, Thousands, DecimalMark, Scale, Decimals, Dates, Paper, Orientation, FontSize,
        Widths, Align, Logo,
        Subtitle, Footer, Accent, CsvStyle,
    ];
}
