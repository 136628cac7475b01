using Vlei.Core.Languages;

namespace Vlei.Core.Reports;

/// <summary>How a figure below zero is written.</summary>
public enum NegativeStyle
{
    /// <summary>With a minus sign before it.</summary>
    Minus,

    /// <summary>In brackets.</summary>
    Brackets,

    /// <summary>With a minus sign behind it.</summary>
    TrailingMinus,
}

/// <summary>How a figure of nothing is written.</summary>
public enum NilStyle
{
    /// <summary>As a number.</summary>
    Zero,

    /// <summary>As a dash, as statements in print have it.</summary>
    Dash,
}

/// <summary>A size of paper.</summary>
public enum PaperSize
{
    /// <summary>A4 (ISO 216).</summary>
    A4,

    /// <summary>Letter (ANSI A).</summary>
    Letter,
}

/// <summary>How a sheet of paper lies.</summary>
public enum PaperTurn
{
    /// <summary>Upright.</summary>
    Portrait,

    /// <summary>On its side.</summary>
    Landscape,
}

/// <summary>Where in its column something stands.</summary>
public enum ColumnAlign
{
    /// <summary>At the left.</summary>
    Left,

    /// <summary>In the middle.</summary>
    Center,

    /// <summary>At the right.</summary>
    Right,
}

/// <summary>How deep the records behind figures go along with a report.</summary>
public enum DetailDepth
{
    /// <summary>They do not.</summary>
    None,

    /// <summary>The records that a figure adds up.</summary>
    Records,

    /// <summary>Those, and the documents that they are of, with all their lines.</summary>
    Documents,
}

/// <summary>How CSV is written, where that is not the form for tools.</summary>
public enum CsvStyle
{
    /// <summary>Without what rows are.</summary>
    Plain,

    /// <summary>With headings for people in the place of keys.</summary>
    Headings,

    /// <summary>With a mark before text that a spreadsheet could take for a formula.</summary>
    Safe,
}

/// <summary>
/// How a report looks to people, where that is not left to the format: numbers and days, words and their language, paper. It
/// changes no figure, and nothing in the formats for tools but their words.
/// </summary>
public sealed record ReportLook
{
    /// <summary>The code of the language of its words, as it was named.</summary>
    public string? LanguageCode { get; init; }

    /// <summary>That language; English where nothing is said.</summary>
    public Language? Language { get; init; }

    /// <summary>How figures below zero are written.</summary>
    public NegativeStyle Negatives { get; init; }

    /// <summary>How a figure of nothing is written; as the report has it, else as a number, where nothing is said.</summary>
    public NilStyle? Nil { get; init; }

    /// <summary>What stands between thousands; that of the language where nothing is said.</summary>
    public string? Thousands { get; init; }

    /// <summary>What stands before decimals; that of the language where nothing is said.</summary>
    public string? DecimalMark { get; init; }

    /// <summary>How many digits of money are left out: 3 where it is in thousands.</summary>
    public int ScaleDigits { get; init; }

    /// <summary>How many decimals money has; those of its currency, or none where it is scaled, where nothing is said.</summary>
    public int? Decimals { get; init; }

    /// <summary>How days are written, as <c>dd.MM.yyyy</c>; as ISO 8601 has it where nothing is said.</summary>
    public string? Dates { get; init; }

    /// <summary>The paper that it is printed on.</summary>
    public PaperSize Paper { get; init; }

    /// <summary>How the paper lies; as the columns need it where nothing is said.</summary>
    public PaperTurn? Turn { get; init; }

    /// <summary>The size of its text in points; that of the format where nothing is said.</summary>
    public double? FontSize { get; init; }

    /// <summary>How wide columns are, in letters, by their keys or headings; <c>label</c> is what stands before the figures.</summary>
    public IReadOnlyDictionary<string, int> Widths { get; init; } = new Dictionary<string, int>();

    /// <summary>Where in their columns things stand, by the same names.</summary>
    public IReadOnlyDictionary<string, ColumnAlign> Aligns { get; init; } = new Dictionary<string, ColumnAlign>();

    /// <summary>The file of a picture that stands at its head (PNG or JPEG), as it was named.</summary>
    public string? LogoFile { get; init; }

    /// <summary>That picture.</summary>
    public ReportLogo? Logo { get; init; }

    /// <summary>What stands below its title.</summary>
    public string? Subtitle { get; init; }

    /// <summary>What stands at its foot, on every page.</summary>
    public string? Footer { get; init; }

    /// <summary>The colour of its title, rules and charts, as 0xRRGGBB; that of the format where nothing is said.</summary>
    public int? Accent { get; init; }

    /// <summary>The chart that goes with it; nothing for none.</summary>
    public ChartText? Chart { get; init; }

    /// <summary>How deep the records behind its figures go along.</summary>
    public DetailDepth Details { get; init; }

    /// <summary>The workbook whose looks it takes over, as it was named.</summary>
    public string? TemplateFile { get; init; }

    /// <summary>That workbook; nothing where no format that is written takes one.</summary>
    public ReportTemplate? Template { get; init; }

    /// <summary>Whether CSV leaves out what rows are: their keys, kinds and levels.</summary>
    public bool CsvIsPlain { get; init; }

    /// <summary>Whether CSV has headings for people in the place of keys.</summary>
    public bool CsvHasHeadings { get; init; }

    /// <summary>Whether CSV marks text that a spreadsheet could take for a formula.</summary>
    public bool CsvIsSafe { get; init; }

    /// <summary>What a column is given by the names that people know it by; nothing where it is given nothing.</summary>
    public static T? For<T>(IReadOnlyDictionary<string, T> given, ReportColumn column)
        where T : struct
    {
        foreach (var (name, value) in given)
        {
            if (ColumnNames.PlaceOf(name, [column]) == 0)
            {
                return value;
            }
        }

        return null;
    }
}

/// <summary>A workbook that a person has made from a report and given other looks.</summary>
/// <param name="Path">Where it is, for messages.</param>
/// <param name="Bytes">The file.</param>
public sealed record ReportTemplate(string Path, ReadOnlyMemory<byte> Bytes);

/// <summary>A picture at the head of a report.</summary>
/// <param name="Bytes">The file.</param>
/// <param name="IsPng">Whether it is PNG; JPEG otherwise.</param>
/// <param name="Width">How wide it is, in dots.</param>
/// <param name="Height">How high it is, in dots.</param>
public sealed record ReportLogo(ReadOnlyMemory<byte> Bytes, bool IsPng, int Width, int Height);
