using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>Definitions of reports as files, and what becomes of them when a person types options besides.</summary>
public class DefinitionTests
{
    private const string Sound = "from = \"postings\"\ntitle = \"T\"\n";

    private static readonly Currency Zar = Currency.TryFind("ZAR", out var zar) ? zar : throw new InvalidOperationException();

    private static Dictionary<string, IReadOnlyList<string>> Options(string text) => text.Split(';', StringSplitOptions.RemoveEmptyEntries)
        .Select(pair => pair.Trim().Split(' ', 2)).GroupBy(pair => pair[0])
        .ToDictionary(pairs => pairs.Key, pairs => (IReadOnlyList<string>)[.. pairs.Select(pair => pair.Length > 1 ? pair[1] : "true")]);

    private static string Text(IReadOnlyDictionary<string, IReadOnlyList<string>> options) => string.Join(
        "; ", options.Where(pair => pair.Value.Count > 0).OrderBy(pair => pair.Key, StringComparer.Ordinal)
            .Select(pair => $"{pair.Key} {string.Join(" & ", pair.Value)}"));

    [Theory]
    [InlineData("period 2025", "", "period 2025")]
    [InlineData("period 2025; by month", "as-of 2026-03", "as-of 2026-03; by month")]
    [InlineData("as-of 2025", "period 2026", "period 2026")]
    [InlineData("period 2025; top 10", "period 2026", "period 2026; top 10")]
    [InlineData("only account.type=income", "only contact=C1", "only account.type=income & contact=C1")]
    [InlineData("only account.type=income; only kind=invoice", "only Account.Type=expense", "only kind=invoice & Account.Type=expense")]
    [InlineData("only kind=invoice", "except kind=journal", "except kind=journal")]
    [InlineData("except status=seen", "only status=seen", "only status=seen")]
    [InlineData("where a > 1", "where b > 2", "where a > 1 & b > 2")]
    [InlineData("columns date,amount; sort -amount", "columns +memo,-date", "columns date,amount & +memo,-date; sort -amount")]
    [InlineData("columns date,amount; sort -amount", "columns kind", "columns kind")]
    [InlineData("columns date,amount; sort -amount", "columns kind; sort kind", "columns kind; sort kind")]
    [InlineData("group-by contact; summary; columns amount; sort -amount; top 3", "by month",
        "by month; group-by contact; top 3")]
    [InlineData("by month; group-by item; measure amount; period 2025", "columns kind", "columns kind; group-by item; period 2025")]
    [InlineData("by month; group-by item; depth 1", "group-by kind", "by month; depth 1; group-by kind")]
    [InlineData("group-by contact; summary", "detail", "detail true; group-by contact")]
    [InlineData("select a; where x", "select b", "select a & b; where x")]
    [InlineData("group-by contact; summary", "detail; group-by kind", "detail true; group-by kind")]
    public void What_is_typed_is_put_over_what_a_definition_says(string own, string typed, string merged) =>
        Assert.Equal(merged, Text(RequestText.Typeable(RequestText.Merged(Options(own), Options(typed), isList: true))));

    [Theory]
    [InlineData("title = \"T\"\n", "x.toml: the key from is missing.")]
    [InlineData("from = \"postngs\"\ntitle = \"T\"\n", "x.toml:1:1: there is no table and no report postngs.")]
    [InlineData(Sound + "perod = \"2025\"\n", "x.toml:3:1: there is no key perod.")]
    [InlineData(Sound + "period = 2025.5\n", "x.toml:3:10: period is not written as it should be.")]
    [InlineData(Sound + "summary = \"yes\"\n", "x.toml:3:11: summary is not written as it should be.")]
    [InlineData(Sound + "group-by = [\"a\", \"b\"]\n", "x.toml:3:12: group-by is not written as it should be.")]
    [InlineData(Sound + "method = \"direct\"\n", "x.toml:3:1: method does not apply to postings.")]
    [InlineData(Sound + "title = \"again\"\n", "x.toml:3:")]
    [InlineData(Sound + "[more]\nx = 1\n", "x.toml:3:1: there is no table more.")]
    [InlineData(Sound + "words = 1\n", "x.toml:3:9: words is no list of texts.")]
    [InlineData("from = \n", "x.toml:1:")]
    public void A_definition_that_is_not_one_is_refused_with_its_place(string text, string message)
    {
        var problem = Assert.Throws<ProblemException>(() => ReportFile.Read(text, "x", "x.toml", Library.Standard, () => ["postings"]));
        Assert.Equal(ProblemKind.BadData, problem.Kind);
        Assert.StartsWith(message, problem.Message);
    }

    [Fact]
    public void Every_standard_definition_reads_and_says_what_it_must()
    {
        Assert.InRange(ReportFile.StandardNames.Count, 30, 60);
        foreach (var definition in ReportFile.StandardNames.Select(name => ReportFile.Standard(name)!))
        {
            Assert.True(definition.Question.EndsWith('?'), definition.Key);
            Assert.NotEqual("Own reports", definition.Subject);
            Assert.NotEmpty(definition.Words);
            Assert.NotEmpty(definition.Examples);
            Assert.All(definition.Examples, example => Assert.True(example.Meaning.Length > 0, $"{definition.Key}: {example.Options}"));
            Assert.DoesNotContain(
                definition.Defaults, option => option.Key is "period" or "as-of" && option.Value.Any(text => char.IsAsciiDigit(text[0])));
            var request = RequestText.Read(
                RequestText.Merged(definition, Options("")), new DateOnly(2026, 6, 30), new FiscalCalendar(3), Zar);
            Assert.Equal(definition.Defaults.ContainsKey("summary"), request.Summary);
        }
    }

    [Fact]
    public void Every_report_is_found_by_its_name_its_title_and_its_question()
    {
        List<ReportDefinition> all = [.. StandardReports.All, .. ReportFile.StandardNames.Select(name => ReportFile.Standard(name)!)];
        IReadOnlyList<ReportDefinition> Found(string question) =>
            ReportSearch.Answering(all, question, report => report.Table?.Fields.Select(field => field.Name) ?? []);
        foreach (var report in all)
        {
            Assert.Equal(report.Key, Found(report.Key)[0].Key);
            Assert.Contains(report, Found(report.Title).Take(2));
            Assert.True(!report.Question.EndsWith('?') || Found(report.Question).Take(10).Contains(report), report.Key);
            Assert.Contains(report, Found(report.Title.ToUpperInvariant() + "?!").Take(2));
        }

        Assert.Empty(Found("xyzzy"));
        Assert.Empty(Found("how much is it"));
        Assert.Empty(Found(""));
    }

    [Fact]
    public void What_a_bookkeeper_asks_in_four_languages_finds_the_report_that_is_meant_first()
    {
        List<ReportDefinition> all = [.. StandardReports.All, .. ReportFile.StandardNames.Select(name => ReportFile.Standard(name)!)];
        using var reader = new StreamReader(typeof(DefinitionTests).Assembly.GetManifestResourceStream("questions.txt")!);


        var rows = reader.ReadToEnd().Split('\n').Where(line => line.Length > 0 && line[0] != '#')
            .Select(line => line.Split(" | ")).ToList();
        Assert.Equal(62, rows.Count);
        Assert.All(rows, row => Assert.Equal(5, row.Length));
        var wrong = from row in rows
                    from question in row[1..]
                    let found = ReportSearch.Answering(all, question, _ => [])
                    where found.Count == 0 || found[0].Key != row[0]
                    select $"{question}: {(found.Count == 0 ? "nothing" : found[0].Key)}, not {row[0]}";
        Assert.Empty(wrong);
    }

    [Theory]
    [InlineData("date,amount", "date amount")]
    [InlineData("+due , -memo", "+due -memo")]
    [InlineData("contact.name:Customer, amount * 0.05:Rebate 5 %", "contact.name|Customer amount * 0.05|Rebate 5 %")]
    [InlineData("average(amount),share( amount ):S", "average(amount) share( amount )|S")]
    [InlineData("\"tag.a,b\":X:Y", "\"tag.a,b\"|X:Y")]
    [InlineData("(amount + 1) * 2,kind", "(amount + 1) * 2 kind")]
    public void Columns_are_cut_where_a_person_means_it(string list, string expected) => Assert.Equal(
        expected,
        string.Join(
            ' ', ColumnText.Parse("columns", list)
                .Select(column => $"{column.Sign}{column.Text}{(column.Heading is { } heading ? $"|{heading}" : "")}")));
}
