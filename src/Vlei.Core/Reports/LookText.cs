using System.Globalization;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>Reads the options that say how a report looks.</summary>
public static class LookText
{
    private const double LeastFontSize = 5;
    private const double MostFontSize = 24;
    private const int MostDecimals = 6;
    private const int MostWidth = 250;
    private const int DigitsOfColour = 6;

    /// <summary>Reads them. Throws a <see cref="ProblemException"/> where a value makes no sense.</summary>
    /// <param name="options">The values, by the names of options.</param>
    public static ReportLook Read(IReadOnlyDictionary<string, IReadOnlyList<string>> options)
    {
        string? One(ReportOption option) => options.GetValueOrDefault(option.Name) is [.., var last] ? last : null;
        T? Chosen<T>(ChoiceOption<T> option)
            where T : struct => One(option) is { } word ? option.ValueOf(word) : null;
        string? Mark(ChoiceOption<string> option) => One(option) is { } word ? option.ValueOf(word) : null;
        HashSet<CsvStyle> csv =
            [.. (One(LookOptions.CsvStyle) ?? "").Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            .Select(LookOptions.CsvStyle.ValueOf)];
        return !options.Keys.Any(LookOptions.Has) ? new ReportLook() : new ReportLook
        {
            LanguageCode = One(LookOptions.Language),
            Negatives = Chosen(LookOptions.Negatives) ?? default,
            Nil = Chosen(LookOptions.Nil),
            Thousands = Mark(LookOptions.Thousands),
            DecimalMark = Mark(LookOptions.DecimalMark),
            ScaleDigits = Chosen(LookOptions.Scale) ?? 0,
            Decimals = One(LookOptions.Decimals) is { } decimals ? (int)NumberOf(LookOptions.Decimals, decimals, 0, MostDecimals) : null,
            Dates = One(LookOptions.Dates) is { } dates ? PatternOf(dates) : null,
            Paper = Chosen(LookOptions.Paper) ?? default,
            Turn = Chosen(LookOptions.Orientation),
            FontSize = One(LookOptions.FontSize) is { } size ? NumberOf(LookOptions.FontSize, size, LeastFontSize, MostFontSize) : null,
            Widths = Named(options, LookOptions.Widths, text => (int)NumberOf(LookOptions.Widths, text, 1, MostWidth)),
            Aligns = Named(
                options, LookOptions.Align, word => Enum.TryParse<ColumnAlign>(word, ignoreCase: true, out var align)
                    && !char.IsAsciiDigit(word[0]) ? align
                : throw Wrong(LookOptions.Align, word, "It takes left, center or right behind a column: memo=right.")),
            LogoFile = One(LookOptions.Logo),
            Subtitle = One(LookOptions.Subtitle),
            Footer = One(LookOptions.Footer),
            Accent = One(LookOptions.Accent) is { } colour ? ColourOf(colour) : null,
            Chart = One(LookOptions.Chart) is { } chart ? ChartText.Parse(LookOptions.Chart.Name, chart) : null,
            Details = Chosen(LookOptions.WithDetail) ?? default,
            TemplateFile = One(LookOptions.Template),
            CsvIsPlain = csv.Contains(CsvStyle.Plain),
            CsvHasHeadings = csv.Contains(CsvStyle.Headings),
            CsvIsSafe = csv.Contains(CsvStyle.Safe),
        };
    }

    private static Dictionary<string, T> Named<T>(
        IReadOnlyDictionary<string, IReadOnlyList<string>> options, ReportOption option, Func<string, T> read)
    {
        var named = new Dictionary<string, T>(StringComparer.OrdinalIgnoreCase);
        foreach (var pair in options.GetValueOrDefault(option.Name, [])
            .SelectMany(list => list.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)))
        {
            var at = pair.LastIndexOf('=');
            named[at > 0 ? pair[..at] : throw Wrong(option, pair, "Write columns and values: label=…,memo=….")] = at + 1 < pair.Length
                ? read(pair[(at + 1)..])
                : throw Wrong(option, pair, "Write columns and values: label=…,memo=….");
        }

        return named;
    }

    private static double NumberOf(ReportOption option, string text, double least, double most) =>
        double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) && number >= least
            && number <= most
            && (option == LookOptions.FontSize || number == Math.Floor(number)) ? number
            : throw Wrong(
                option, text,
                $"It takes a number from {least.ToString(CultureInfo.InvariantCulture)} to {most.ToString(CultureInfo.InvariantCulture)}.");

    // Days, months and years alone, each once, with marks between them.
    private static string? PatternOf(string text)
    {
        if (text == "iso")
        {
            return null;
        }

        var letters = text.Where(char.IsAsciiLetter).ToArray();
        var runs = string.Concat(text.Select(letter => char.IsAsciiLetter(letter) ? letter : ' '))
            .Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return runs.All(run => run is "d" or "dd" or "M" or "MM" or "MMM" or "MMMM" or "yy" or "yyyy")
            && runs.Select(run => run[0]).Distinct().Count() == 3 && runs.Length == 3
            && text.Length - letters.Length <= MostDecimals && text.All(letter => char.IsAsciiLetter(letter) || " ./-,".Contains(letter))
            ? text
            : throw Wrong(
                LookOptions.Dates, text,
                "It takes iso, or day, month and year with marks between them: dd.MM.yyyy, d MMM yyyy, MM/dd/yyyy.");
    }

    private static int ColourOf(string text) => text.StartsWith('#') && text.Length == DigitsOfColour + 1
        && int.TryParse(text.AsSpan(1), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var colour) ? colour
        : throw Wrong(LookOptions.Accent, text, "It takes a colour as #1f5f8b.");

    private static ProblemException Wrong(ReportOption option, string text, string advice) =>
        new(ProblemKind.Usage, $"--{option.Name} does not take \"{text}\".", advice);
}
