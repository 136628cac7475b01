using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>
/// Nothing of a report stays English in another language: in a language in which every letter of every phrase is another one, all
/// that is left in Latin letters is what the records say, and what is typed.
/// </summary>
public sealed partial class WholeLanguageTests : IDisposable
{
    private const char Letter = 'ж';

    private static readonly string[] Months = [.. Enumerable.Range(0, 12).Select(month => $"{Letter}{month}")];

    // Names of files and of findings, commands, and what a book says itself.
    private static readonly HashSet<string> AsTyped =
        ["vlei", "show", "ZAR", "finding", "demo", "xx", "svg", "Plex", "Sans", "IBM"];

    private static readonly string[][] Asked =
    [
        ["profit-loss", "--compare", "prior-year", "--change", "--explain", "--share", "income"],
        ["profit-loss", "--basis", "both", "--change"],
        ["profit-loss", "--by", "fiscal-quarter", "--period", "fy2026"], ["profit-loss", "--by", "week", "--period", "2026-05"],
        [
            "profit-loss", "--by", "department", "--only", "account=4000/4999", "--only", "kind=invoice,cash-sale", "--except",
            "contact=none",
        ],
        ["profit-loss", "--compare", "budget", "--change", "--period", "2026-05"], ["profit-loss", "--scale", "thousands"],
        ["profit-loss", "--period", "2030-01"], ["profit-loss", "--summary", "--top", "2"],
        ["balance-sheet", "--compare", "prior-year:2", "--explain", "--share", "assets"],
        ["balance-sheet", "--by", "quarter", "--period", "2026"], ["cash-flow", "--method", "direct"],
        ["trial-balance", "--by", "month", "--period", "2026-Q1"], ["trial-balance", "--by", "quarter", "--period", "2025"],
        ["receivables-aging", "--compare", "prior-year", "--explain"], ["receivables-aging", "--detail", "--unapplied"],
        ["payables-aging", "--age-by", "document", "--limits", "15,30"], ["money-to-come", "--as-usual", "--money", "5"],
        ["sales-by-customer", "--compare", "prior-year", "--change", "--explain", "--top", "3"],
        ["sales-by-item", "--by", "month", "--period", "2026-Q1", "--measure", "count"],
        ["lines", "--period", "2026-05", "--only", "amount=>=100,<5"], ["documents", "--only", "date=2026-05,2026-06"],
        ["documents", "--except", "kind=invoice,bill", "--period", "2026-05"], ["statement-of-account", "--only", "contact=C0055"],
        ["stock-changes"], ["tax-return"], ["open-invoices"], ["promises"], ["review"], ["questions"],
    ];

    private readonly Tool _tool = new Tool().WithDemo();

    public WholeLanguageTests()
    {
        var german = File.ReadAllText(Path.Combine(Tool.Root, "src", "Vlei.Core", "Languages", "de.po"));
        static string Said(string phrase) =>
            Letters().Replace(phrase, match => match.Groups[1].Success ? match.Value : Letter.ToString());
        var phrases = Phrase().Matches(german).Select(match => match.Groups[1].Value).Distinct()
            .Select(phrase => $"msgid \"{phrase}\"\nmsgstr \"{Said(phrase)}\"\n");
        _tool.Write(
            "reedwater/languages/xx.po",
            $"msgid \"\"\nmsgstr \"\"\n\"X-Months: {string.Join(',', Months)}\\n\"\n\"X-Months-Short: {string.Join(',', Months)}\\n\"\n"
            + $"\"X-Date-Words: d MMMM yyyy\\n\"\n\n{string.Join('\n', phrases)}");
    }

    [Fact]
    public void All_languages_have_the_same_phrases()
    {
        HashSet<string> PhrasesOf(string language) => [.. Phrase().Matches(
            File.ReadAllText(Path.Combine(Tool.Root, "src", "Vlei.Core", "Languages", $"{language}.po")))
            .Where(match => match.Groups[2].Value.Length > 0).Select(match => match.Groups[1].Value)];
        var german = PhrasesOf("de");

        // How sums are called differs: where one language has a phrase of its own, another may build it from its words.
        foreach (var other in new[] { "fr", "af" }.Select(PhrasesOf))
        {
            Assert.All(german.Except(other), phrase => Assert.StartsWith("Total ", phrase));
        }
    }

    [Fact]
    public void Nothing_of_any_report_stays_in_the_letters_of_English()
    {
        var known = Known();
        var standard = Vlei.Desk.ReportCatalogue.Standard.Where(report => report.Asks is null)
            .Select(report => new[] { report.Key });
        var left = new List<string>();
        foreach (var report in standard.Concat(Asked))
        {
            var shown = _tool.Run([("VLEI_BOOK", "reedwater"), ("COLUMNS", "300")], ["show", .. report, "--lang", "xx"]);
            Assert.True(shown.Status is 0 or 1, $"{string.Join(' ', report)}: {shown.Messages}");
            left.AddRange(Left(shown.Output, known).Select(word => $"{string.Join(' ', report)}: {word}"));
        }

        Assert.True(left.Count == 0, string.Join('\n', left));
    }

    [Fact]
    public void Neither_does_anything_of_traces_reasons_groups_letters_charts_and_pages()
    {
        var known = Known();
        foreach (var command in new[]
        {
            "trace profit-loss --period 2026-05 --compare prior-year --change --row net-profit --column Change",
            "trace balance-sheet --as-of 2026-05 --row 1000", "trace receivables-aging --row C0055 --column total",
            "explain profit-loss --period 2026-05 --compare prior-year --row net-profit",
            "show summary --format html", "show statement-of-account --only contact=C0055 --format html",
        })
        {
            var said = _tool.Run([("VLEI_BOOK", "reedwater"), ("COLUMNS", "300")], [.. command.Split(' '), "--lang", "xx"]).Done().Output;
            var left = Left(Text(said), known).ToList();
            Assert.True(left.Count == 0, $"{command}: {string.Join(' ', left)}");
        }

        _tool.Run("show", "profit-loss", "--book", "reedwater", "--by", "month", "--lang", "xx", "--to", "chart.svg").Done();
        Assert.Empty(Left(Text(File.ReadAllText(_tool.PathOf("chart.svg"))), known));
    }

    public void Dispose() => _tool.Dispose();

    // What stands between the marks of a page or a picture.
    private static string Text(string page) => page.StartsWith('<')
        ? System.Net.WebUtility.HtmlDecode(Marks().Replace(Hidden().Replace(page, " "), " ")) : page;

    private HashSet<string> Known()
    {
        var records = Directory.EnumerateFiles(_tool.PathOf("reedwater/records"), "*.csv").SelectMany(File.ReadLines)
            .Skip(1).SelectMany(line => Words().Matches(line).Select(match => match.Value));
        var book = Words().Matches(
            File.ReadAllText(_tool.PathOf("reedwater/book.toml")).Replace("\\n", " ", StringComparison.Ordinal))
            .Select(match => match.Value);
        var promised = File.ReadLines(_tool.PathOf("reedwater/promises.csv")).Skip(1)
            .SelectMany(line => Words().Matches(line).Select(match => match.Value));
        return [.. AsTyped, .. records, .. book, .. promised];
    }

    // Commands are typed as they are in every language.
    private static IEnumerable<string> Left(string text, HashSet<string> known) =>
        Words().Matches(Commands().Replace(text, "")).Select(match => match.Value).Where(word => !known.Contains(word)).Distinct();

    [GeneratedRegex("msgid \"(.+)\"\\nmsgstr \"(.*)\"")]
    private static partial Regex Phrase();

    [GeneratedRegex(@"(\{[^}]*\}|\\.)|[A-Za-zÀ-ÿ]")]
    private static partial Regex Letters();

    [GeneratedRegex("[A-Za-z]{2,}")]
    private static partial Regex Words();

    [GeneratedRegex("vlei [a-z].*$", RegexOptions.Multiline)]
    private static partial Regex Commands();

    [GeneratedRegex("<[^>]*>")]
    private static partial Regex Marks();

    [GeneratedRegex("<(style|script|title|defs)[^>]*>.*?</\\1>", RegexOptions.Singleline)]
    private static partial Regex Hidden();
}
