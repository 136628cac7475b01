using System.Globalization;
using CsCheck;
using Vlei.Core.Languages;

namespace Vlei.Core.Tests;

/// <summary>Phrases in other languages: days in all their forms, phrases in phrases, and files that are no such files.</summary>
public class LanguageTests
{
    private const string Head =
        "msgid \"\"\nmsgstr \"\"\n\"X-Months: m1,m2,m3,m4,m5,m6,m7,m8,m9,m10,m11,m12\\n\"\n\"X-Months-Short: s1,s2,s3,s4,s5,s6,s7,s8,"
            + "s9,s10,s11,s12\\n\"\n\"X-Date-Words: d. MMMM yyyy\\n\"\n\"X-First-Of-Month: 1st\\n\"\n";

    private static readonly Language Made = Language.Read("xx", $"""
        {Head}
        msgid "Total {"{0}"}"
        msgstr "SUM({"{0}"})"

        msgid "{"{day0}"} to {"{day1}"}"
        msgstr "{"{day0}"}..{"{day1}"}"

        msgid "{"{0}"} {"{day0}"}"
        msgstr "{"{day0}"}: {"{0}"}"

        msgid "Sales"
        msgstr "VENTES"

        msgid "Quarter {"{0}"} of {"{1}"} ({"{2}"})"
        msgstr "{"{1}"}/{"{0}"} <{"{2}"}>"

        """, "xx.po");

    [Fact]
    public void Every_day_is_said_in_every_form() => Gen.Select(Gen.Int[0, 60_000], Gen.Bool).Sample((number, isShort) =>
    {
        var day = new DateOnly(1950, 1, 1).AddDays(number);
        var month = isShort ? $"s{day.Month}" : $"m{day.Month}";

        // May is as long as it is short.
        month = day.Month == 5 ? "s5" : month;
        var name = day.ToString(isShort ? "MMM" : "MMMM", CultureInfo.InvariantCulture);
        var first = day.Day == 1 ? "1st" : $"{day.Day}.";
        Assert.Equal($"{first} {month} {day.Year}", Made.Say($"{day.Day} {name} {day.Year}"));
        Assert.Equal($"{month} {day.Year}", Made.Say($"{name} {day.Year}"));
        Assert.Equal($"{first} {month}", Made.Say($"{day.Day} {name}"));
        Assert.Equal($"{first} {month}..{first} {month} {day.Year}", Made.Say($"{day.Day} {name} to {day.Day} {name} {day.Year}"));
        Assert.Equal(
            $"{day.Year}/2 <{first}..{first} {month} {day.Year}>",
            Made.Say($"Quarter 2 of {day.Year} ({day.Day} to {day.Day} {name} {day.Year})"));
        Assert.Equal($"{month} {day.Year}: VENTES", Made.Say($"Sales {name} {day.Year}"));
        Assert.Equal($"{day:yyyy-MM-dd}..{day:yyyy-MM-dd}", Made.Say($"{day:yyyy-MM-dd} to {day:yyyy-MM-dd}"));
    });

    [Fact]
    public void Phrases_are_said_in_phrases_and_what_is_not_known_stays() =>
        Gen.Select(Choose.One("Sales", "Hull 31", "a to b", "12", "May we?", "Q{0}"), Gen.Int[0, 4]).Sample((words, depth) =>
    {
        var (phrase, expected) = (words, words == "Sales" ? "VENTES" : words);
        for (var level = 0; level < depth; level++)
        {
            (phrase, expected) = ($"Total {phrase}", $"SUM({expected})");
        }

        Assert.Equal(expected, Made.Say(phrase));
        Assert.Equal(depth > 0 || words == "Sales", Made.Knows(phrase));
        Assert.Equal(phrase, Language.English.Say(phrase));
    });

    [Fact]
    public void Every_standard_language_reads_and_keeps_the_places_of_its_phrases()
    {
        Assert.Equal(["en", "af", "de", "fr"], Language.Standard);
        foreach (var code in Language.Standard)
        {
            var language = Language.Find(code)!;
            Assert.Equal(12, language.Dates.Months.Distinct().Count());
            Assert.NotEqual(language.Thousands, language.DecimalMark);
            Assert.Contains("7", language.Say("Page {0} of {1}", "7", "9"));
            Assert.Contains("9", language.Say("Page {0} of {1}", "7", "9"));
            Assert.DoesNotContain("{", language.Say("CHECK FAILED: {0}: expected {1}, came to {2}.", "a", "b", "c"));
        }

        Assert.Null(Language.Find("xx"));
    }

    [Fact]
    public void A_file_is_read_or_refused_with_its_line_whatever_is_in_it() =>
        Gen.Select(
            Choose.One("msgid", "msgstr", "msgid \"}{0\"\nmsgstr \"{0}\"\n", "\"", "{0", "}", "\\", "#", "x", "\"a\"", " "),
            Choose.One("\n", "", " ")).Array[0, 30].Sample(parts =>
    {
        try
        {
            _ = Language.Read("xx", Head + string.Concat(parts.Select(part => part.Item1 + part.Item2)), "xx.po").Say("Total Sales");
        }
        catch (Problems.ProblemException refused)
        {
            Assert.Matches(@"^xx\.po(:\d+: |: the header )", refused.Message);
        }
    });
}
