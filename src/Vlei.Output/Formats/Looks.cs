using Vlei.Core.Reports;

namespace Vlei.Output.Formats;

/// <summary>Looks that several formats have.</summary>
internal static class Looks
{
    /// <summary>Words and days.</summary>
    public static readonly ReportOption[] Words = [LookOptions.Language, LookOptions.Dates];

    /// <summary>Those and numbers.</summary>
    public static readonly ReportOption[] Numbers =
    [
        .. Words, LookOptions.Negatives, LookOptions.Nil, LookOptions.Thousands, LookOptions.DecimalMark, LookOptions.Scale,
        LookOptions.Decimals,
    ];

    /// <summary>Lines above and below.</summary>
    public static readonly ReportOption[] Lines = [LookOptions.Subtitle, LookOptions.Footer, ReportOptions.Explain];

    /// <summary>What can be said of columns.</summary>
    public static readonly ReportOption[] Columns = [LookOptions.Widths, LookOptions.Align];

    /// <summary>All that a document has.</summary>
    public static readonly ReportOption[] Document =
    [
        LookOptions.Chart, LookOptions.WithDetail, .. Numbers, .. Columns, .. Lines, LookOptions.Paper, LookOptions.Orientation,
        LookOptions.FontSize,
        LookOptions.Logo, LookOptions.Accent,
    ];
}
