using System.Globalization;
using Vlei.Core.Problems;

namespace Vlei.Core.Languages;

/// <summary>How a language writes days, months and years in words.</summary>
public sealed class DateWords
{
    private const int MonthsInYear = 12;

    private static readonly string[] EnglishLong = CultureInfo.InvariantCulture.DateTimeFormat.MonthNames[..MonthsInYear];
    private static readonly string[] EnglishShort = CultureInfo.InvariantCulture.DateTimeFormat.AbbreviatedMonthNames[..MonthsInYear];

    private readonly string[] _long;
    private readonly string[] _short;
    private readonly string[] _order;
    private readonly string? _first;

    private DateWords(string[] longNames, string[] shortNames, string order, string? first) =>
        (_long, _short, _order, _first) = (longNames, shortNames, order.Split(' '), first);

    /// <summary>Those of English.</summary>
    public static DateWords English { get; } = new(EnglishLong, EnglishShort, "d MMMM yyyy", null);

    /// <summary>The names of the months.</summary>
    public IReadOnlyList<string> Months => _long;

    /// <summary>The names of the months, short.</summary>
    public IReadOnlyList<string> ShortMonths => _short;

    /// <summary>
    /// Reads them from the header of a file of phrases. Throws a <see cref="ProblemException"/> where it does not have twelve
    /// months.
    /// </summary>
    internal static DateWords Read(Func<string, string?> header, string path)
    {
        return new DateWords(
            Names("X-Months"), Names("X-Months-Short"), header("X-Date-Words") ?? "d MMMM yyyy", header("X-First-Of-Month"));

        string[] Names(string name) => header(name)?.Split(',', StringSplitOptions.TrimEntries) is { Length: MonthsInYear } names
            ? names : throw new ProblemException(
            ProblemKind.BadConfiguration, $"{path}: the header has no twelve months in {name}.",
            $"Write \"{name}: January,February,…\\n\" below the first msgstr.");
    }

    /// <summary>
    /// A day, a month, a year, or some of these, as the program writes them: <c>31 March 2026</c>, <c>Mar 2026</c>, <c>1
    /// March</c>; nothing for anything else.
    /// </summary>
    public string? Say(string english)
    {
        if (DateOnly.TryParseExact(english, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _))
        {
            return english;
        }

        var parts = english.Split(' ');
        var (at, day, month, year) = (0, "", "", "");
        if (at < parts.Length && parts[at] is { Length: 1 or 2 } number && IsNumber(number))
        {
            (day, at) = (number, at + 1);
        }

        if (at < parts.Length && MonthOf(parts[at]) is { } name)
        {
            (month, at) = (name, at + 1);
        }

        if (at < parts.Length && parts[at] is { Length: 4 } digits && IsNumber(digits))
        {
            (year, at) = (digits, at + 1);
        }

        return at < parts.Length || (month.Length == 0 && (day.Length == 0) == (year.Length == 0)) ? null : Written(day, month, year);
    }

    private static bool IsNumber(string text) => text.All(char.IsAsciiDigit);

    private string? MonthOf(string english) => Array.IndexOf(EnglishLong, english) is >= 0 and var place
        && english != EnglishShort[place] ? _long[place]
        : Array.IndexOf(EnglishShort, english) is >= 0 and var brief ? _short[brief] : null;

    // The parts that there are, in the order and with the marks of the language.
    private string Written(string day, string month, string year) => string.Join(' ', _order
        .Where(
            part =>
                (part.Contains('d', StringComparison.Ordinal) ? day : part.Contains('y', StringComparison.Ordinal) ? year
                    : month).Length > 0)
        .Select(
            part => part.Contains('d', StringComparison.Ordinal) ? day == "1" && _first is not null ? _first
                : part.Replace("d", day, StringComparison.Ordinal)
            : part.Contains('y', StringComparison.Ordinal) ? part.Replace("yyyy", year, StringComparison.Ordinal)
            : part.Replace("MMMM", month, StringComparison.Ordinal)))
        .TrimEnd(',');
}
