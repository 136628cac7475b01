using System.Text.Json;

namespace Vlei.Tests;

/// <summary>What is kept is changed by commands: single filters, groups of groups, what a group is, and what runs leave.</summary>
public sealed class KeptByCommandTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void One_filter_is_taken_away_for_good_and_all_for_one_look()
    {
        Vlei("save", "mine", "--from", "sales-by-customer", "--only", "contact=C0026", "--only", "kind=invoice", "--where", "amount < -10");
        Vlei("save", "mine", "--only", "contact=C0001/C0050");
        Assert.Contains(
            "only = [\"kind=invoice\", \"contact=C0001/C0050\"]", File.ReadAllText(_tool.PathOf("reedwater/reports/mine.toml")));
        Vlei("save", "mine", "--unset", "only:kind");
        Assert.Contains("only = \"contact=C0001/C0050\"", File.ReadAllText(_tool.PathOf("reedwater/reports/mine.toml")));
        var whole = Vlei(
            "show", "postings", "--group-by", "contact", "--summary", "--columns", "natural", "--period", "2026-05", "--format", "csv");
        Assert.Equal(
            Labels(whole), Labels(Vlei("show", "mine", "--only", "none", "--where", "none", "--period", "2026-05", "--format", "csv")));
        Vlei("save", "mine", "--unset", "where:1");
        Assert.DoesNotContain("where", File.ReadAllText(_tool.PathOf("reedwater/reports/mine.toml")), StringComparison.Ordinal);
        Assert.Contains("has no only:item to take out", Run("save", "mine", "--unset", "only:item").Messages);

        Vlei("save", "--selection", "coast", "--only", "contact=C0001/C0020", "--question", "Who is at the coast?", "--favourite");
        Assert.Matches(@"(?m)^  \* coast +Who is at the coast\?$", Vlei("reports"));

        static List<string> Labels(string csv) =>
            [.. csv.Split('\n').Skip(1).Select(line => line.Split(',')[0]).Order(StringComparer.Ordinal)];
    }

    [Fact]
    public void A_group_has_groups_in_it_and_is_what_commands_say_of_it()
    {
        Vlei("group", "small", "--add", "trial-balance");
        Vlei("group", "large", "--add", "profit-loss");
        Vlei("group", "large", "--add", "small");
        Vlei("group", "large", "--title", "All of it", "--period", "last-quarter", "--formats", "csv,json");
        Vlei("group", "large", "--move", "small", "--before", "profit-loss");
        var run = Vlei("run", "large");
        Assert.True(run.IndexOf("trial-balance", StringComparison.Ordinal) < run.IndexOf("profit-loss", StringComparison.Ordinal), run);
        Assert.StartsWith("All of it", Vlei("group", "large"));
        var pack = JsonDocument.Parse(File.ReadAllText(Out("large.json"))).RootElement.GetProperty("reports");
        Assert.Equal(["trial-balance", "profit-loss"], pack.EnumerateObject().Select(report => report.Name));

        // What one run made in other formats is still there after the next, and what somebody changed is kept beside.
        var json = File.ReadAllBytes(Out("trial-balance.json"));
        File.AppendAllText(Out("profit-loss.json"), "\n");
        Vlei("run", "large", "--format", "csv");
        Assert.Equal(json, File.ReadAllBytes(Out("trial-balance.json")));
        Assert.EndsWith("\n\n", File.ReadAllText(Out("profit-loss.json")));

        foreach (var (message, arguments) in new (string, string[])[]
        {
            ("has itself in it: large > small", ["run", "large"]),
            ("--move says which report, and --before where it goes.", ["group", "large", "--before", "small"]),
            ("\"lst-month\" is not a period.", ["group", "large", "--period", "lst-month"]),
            ("does not take \"pfd\"", ["group", "large", "--formats", "pfd"]),
            ("--to names the file of one group of one book.", ["run", "small", "small", "--to", "x.pdf"]),
        })
        {
            File.WriteAllText(
                _tool.PathOf("reedwater/groups/small.toml"),
                "[[report]]\nreport = \"trial-balance\"\n\n[[report]]\ngroup = \"large\"\n");
            Assert.Contains(message, Run(arguments).Messages);
        }

        string Out(string name) => _tool.PathOf($"reedwater/out/large/2026-Q1/{name}");
    }

    [Fact]
    public void Groups_are_run_one_after_the_other_and_one_goes_to_a_file_of_its_own_name()
    {
        Vlei("group", "small", "--add", "trial-balance");
        var both = Vlei("run", "small", "month-end", "--summary", "both.csv");
        Assert.Contains("Month end", both[both.IndexOf("trial-balance", StringComparison.Ordinal)..], StringComparison.Ordinal);
        Assert.Equal(10, File.ReadAllLines(_tool.PathOf("both.csv")).Count(line => line.Contains("produced", StringComparison.Ordinal)));
        Vlei("run", "small", "--to", "may.html");
        Assert.Contains("Trial balance", File.ReadAllText(_tool.PathOf("may.html")), StringComparison.Ordinal);
    }

    [Fact]
    public void A_pinned_clock_dates_what_is_done()
    {
        Assert.Contains("2026-06-30", Vlei("changes"));
        var contacts = _tool.PathOf("reedwater/records/contacts.csv");
        File.WriteAllText(contacts, File.ReadAllText(contacts).Replace("Una Lovell", "Una Lovel", StringComparison.Ordinal));
        Vlei("import", "reedwater/records", "--clock", "2026-07-15");
        Assert.Contains("2026-07-15", Vlei("changes"));
        Assert.Equal(
            Vlei("show", "profit-loss", "--period", "2026-05"),
            Vlei("show", "profit-loss", "--period", "2026-05", "--revision", "2026-07-01"));
        Assert.Equal(66, Run("show", "profit-loss", "--revision", "2026-06-29").Status);

        // How long a document is open is known wherever a record leads to it, as of the end of the days that are asked for.
        string[] lines = ["show", "lines", "--columns", "document.days-open", "--only", "document=INV-00810", "--format", "csv"];
        Assert.All(Rows("2026-05"), row => Assert.EndsWith(",16", row));
        Assert.All(Rows("2026-05-01/2026-06-30"), row => Assert.EndsWith(",", row));

        List<string> Rows(string period) => [.. Vlei([.. lines, "--period", period]).Split('\n')
            .Where(row => row.StartsWith("INV-00810/", StringComparison.Ordinal))];
    }

    private string Vlei(params string[] arguments) => Run(arguments).Done().Output;

    private Outcome Run(params string[] arguments) => _tool.Run([("VLEI_BOOK", "reedwater")], arguments);
}
