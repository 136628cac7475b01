using System.Collections.Concurrent;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;

namespace Vlei.Tests;

/// <summary>
/// Every report with every option: each does what it says, or is refused with what does it. Which options and which reports
/// there are is known from the catalogues alone, so that neither a new report nor a new option is left out.
/// </summary>
public sealed class EveryOptionTests : IDisposable
{
    private const string Month = "2026-05";

    // What a report needs to be asked at all.
    private static readonly Dictionary<string, string[]> Needed = new()
    {
        ["statement-of-account"] = ["--only", "contact=C0026"],
        ["journals-by-batch"] = ["--where", "document.batch is not null"],
    };

    private static readonly string[] WaysOut =
        ["--", "vlei ", "Did you mean", "take ", "There are ", "leave", "There is one basis", "Its order is", "Only statements", "It has "];

    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Each_option_does_in_each_report_what_it_says_or_names_what_does()
    {
        _tool.Write("reedwater/selections/by-kind.toml", "only = \"kind=invoice\"\n");
        _tool.Write("reedwater/selections/by-contact.toml", "only = \"contact=C0026\"\n");
        var (desk, wrong) = (new InProcess(_tool.PathOf("reedwater")), new ConcurrentBag<string>());
        var options = ReportOptions.All.Except(LookOptions.All).ToList();
        Assert.Empty(options.Select(option => option.Name).Except(Invariants.Keys));
        Parallel.ForEach(ReportCatalogue.Standard, definition =>
        {
            var asked = new Asked(desk, definition);
            foreach (var option in options)
            {
                try
                {
                    Invariants[option.Name](asked);
                }
                catch (ProblemException refused) when (refused.Kind is ProblemKind.Usage or ProblemKind.NotFound)
                {
                    // What is wanted is done by something else, is a slip, or cannot be.
                    if (refused.Advice is not { } advice || !WaysOut.Any(way => advice.Contains(way, StringComparison.OrdinalIgnoreCase)))
                    {
                        wrong.Add($"{definition.Key} --{option.Name}: refused without a way out: {refused.Message} {refused.Advice}");
                    }
                }
                catch (Exception broken)
                {
                    wrong.Add(
                        $"{definition.Key} --{option.Name}: {broken.Message.ReplaceLineEndings(" ")} {broken.StackTrace?.Split('\n')[0]}");
                }
            }
        });
        Assert.True(wrong.IsEmpty, string.Join('\n', wrong.Order()));
    }

    // What holds of a report with an option, beside the report without.
    private static readonly Dictionary<string, Action<Asked>> Invariants = new()
    {
        ["period"] = asked => Assert.True(
            asked.With("--period", Month) is var of && (of.AsOf == new DateOnly(2026, 5, 31)
                || of.Period == new Core.Calendar.DateRange(new(2026, 5, 1), new(2026, 5, 31)) || asked.Definition.Key == "money-to-come")),
        ["as-of"] = asked => Assert.Equal(new DateOnly(2026, 4, 30), asked.With("--as-of", "2026-04").AsOf),
        ["basis"] = asked =>
        {
            Assert.Equal(Core.Ledger.AccountingBasis.Cash, asked.With("--basis", "cash").Basis);
            var both = Foots(asked.With(["--basis", "both", .. asked.AsSummary]));
            Assert.Contains(both.Columns, column => column.Heading.Contains(" cash", StringComparison.Ordinal));
            Assert.True(both.HasBothBases);
        },
        ["method"] = asked => Assert.All(asked.With("--method", "direct").Checks, check => Assert.True(check.Ok)),
        ["by"] = asked => ColumnsAddUp(Foots(asked.With("--by", asked.Definition.Options.Contains(ReportOptions.AsOf) ? "kind" : "month"))),
        ["measure"] = asked => Assert.All(
            asked.With("--group-by", "kind", "--measure", "count").Columns.Where(column => !column.IsChange),
            column => Assert.Equal(ColumnKind.Count, column.Kind)),
        ["compare"] = asked => Same(asked.Whole, asked.With(["--compare", "prior-year", .. asked.AsSummary])),
        ["change"] = asked => IsChange(asked.With(["--compare", "prior-year", "--change", .. asked.AsSummary])),
        ["explain"] = asked => Assert.True(
            asked.With(["--compare", "prior-year", "--explain", .. asked.AsSummary]).Explanation is { } explanation
                && explanation.Reasons.Aggregate(explanation.Others?.Change ?? Amount.Zero, (sum, reason) => sum + reason.Change)
                    == explanation.Change),
        ["share"] = asked => Assert.All(
            asked.With(["--share", "column", .. asked.AsSummary]) is var report
                ? report.Columns.Select((column, place) => (column, place)).Where(one => one.column.Working?.Whole == ShareOf.Column) : [],
            one => Assert.True(report.Rows[^1].Cells[one.place].Units is null or 1_000_000)),
        ["only"] = asked => Halves(asked, "--only", "--except"),
        ["except"] = asked => Halves(asked, "--except", "--only"),
        ["where"] = asked => Assert.Equal(
            Figures(asked.With("--only", $"{asked.Free}={asked.Value}")),
            Figures(asked.With("--where", $"{asked.Free} = '{asked.Value}'"))),
        ["select"] = asked => Assert.Equal(
            Figures(asked.With("--only", $"{asked.Free}={asked.Value}")), Figures(asked.With("--select", $"by-{asked.Free}"))),
        ["having"] = asked => Assert.All(
            asked.Largest.Kind is { } kind && asked.With(["--having", $"\"{asked.Largest.Key}\" > 100", .. asked.AsSummary]) is var report
                && ColumnNames.PlaceOf(asked.Largest.Key, report.Columns) is var place ? Rows(report) : [],
            row => Assert.True(row.Cells[place].Units > kind switch
            {
                ColumnKind.Money => 10_000,
                ColumnKind.Quantity => 100_000_000,
                _ => 100,
            })),
        ["columns"] = asked =>
        {
            var report = asked.With("--columns", $"\"{asked.Largest.Heading}\"".Trim('"'));
            Assert.Contains(report.Columns, column => column.Heading == asked.Largest.Heading);
            Assert.Single(report.Columns.DistinctBy(column => column.Key), column => column.IsAskedFor);
        },
        ["group-by"] = asked => Assert.Subset(
            Keys(asked.With("--group-by", asked.GroupedBy), RowKind.Heading, RowKind.Group, RowKind.Account),
            Keys(Foots(asked.With("--group-by", asked.GroupedBy, "--summary")), RowKind.Group, RowKind.Account)),
        ["total"] = asked => Assert.Contains(asked.With("--total", "count").Columns, column => column.Key == "count"),
        ["summary"] = asked => Assert.DoesNotContain(asked.With("--summary").Rows, row => row.Kind == RowKind.Record),
        ["detail"] = asked => Assert.True(asked.With("--detail").Rows.Count >= asked.Whole.Rows.Count),
        ["sort"] = asked => InOrder(asked.With($"--sort", $"-{asked.Largest.Key}"), asked.Largest.Place),
        ["top"] = asked => Assert.True(
            Foots(asked.With(["--top", "2", .. asked.AsSummary])) is var report && Rows(report).Count(row => row.Level == 0) <= 3),
        ["limits"] = asked => Same(asked.Whole, asked.With("--limits", "15,45"), "total"),
        ["age-by"] = asked => Same(asked.Whole, asked.With("--age-by", "document"), "total"),
        ["unapplied"] = asked => Same(asked.Whole, asked.With("--unapplied"), "total"),
        ["money"] = asked => Assert.NotEqual(Figures(asked.Whole), Figures(asked.With("--money", "1234567.89"))),
        ["as-usual"] = asked => Assert.NotEmpty(asked.With("--as-usual").Rows),
        ["layout"] = asked => Assert.NotEmpty(asked.With("--layout", asked.Definition.Key).Rows),
        ["zeros"] = asked => Assert.True(asked.With("--zeros").Rows.Count >= asked.Whole.Rows.Count),
        ["depth"] = asked => Assert.True(asked.With(["--depth", "1", .. asked.AsSummary]).Rows.Count > 0),
        ["title"] = asked => Assert.StartsWith("Mine", asked.With("--title", "Mine").Title),
    };

    private static List<ReportRow> Rows(Report report) =>
        [.. report.Rows.Where(row => row.Kind is RowKind.Account or RowKind.Group or RowKind.Record)];

    private static HashSet<string> Keys(Report report, params RowKind[] kinds) =>
        [.. report.Rows.Where(row => kinds.Contains(row.Kind)).Select(row => row.Key)];

    private static List<(string, long?)> Figures(Report report) =>
        [.. report.Rows.SelectMany(row => row.Cells.Select(cell => (row.Key, cell.Units)))];

    // Columns that say what they add up do.
    private static void ColumnsAddUp(Report report)
    {
        var keys = report.Columns.Select(column => column.Key).ToList();
        foreach (var (column, place) in report.Columns.Select((column, place) => (column, place))
            .Where(one => one.column.MadeOf is not null))
        {
            Assert.All(report.Rows.Where(row => row.Cells.Length > 0 && row.InsteadOfMoney is null), row => Assert.Equal(
                row.Cells[place].Units ?? 0, column.MadeOf!.Sum(part => part.Sign * (row.Cells[keys.IndexOf(part.Key)].Units ?? 0))));
        }
    }

    // What stands in a report without an option stands there with it too.
    private static void Same(Report whole, Report with, string? column = null)
    {
        foreach (var row in with.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            foreach (var (key, place) in whole.Columns.Select((known, place) => (known.Key, place))
                .Where(one => column is null || one.Key == column))
            {
                if (whole.Rows.FirstOrDefault(other => other.Key == row.Key && other.Kind == row.Kind) is { Cells.Length: > 0 } other
                    && with.Columns.Select(known => known.Key).ToList().IndexOf(key) is >= 0 and var found
                    && whole.Columns[place].AddsUp)
                {
                    Assert.Equal((row.Key, key, other.Cells[place].Units ?? 0), (row.Key, key, row.Cells[found].Units ?? 0));
                }
            }
        }
    }

    private static void IsChange(Report report)
    {
        var keys = report.Columns.Select(column => column.Key).ToList();
        Assert.Contains(report.Columns, column => column.IsChange);
        foreach (var (column, place) in report.Columns.Select((column, place) => (column, place))
            .Where(one => one.column is { IsChange: true, Kind: not ColumnKind.Percent }))
        {
            var (now, then) = (keys.IndexOf(column.Working!.Of), keys.IndexOf(column.Working.Earlier!));
            Assert.All(report.Rows.Where(row => row.Kind != RowKind.Heading && row.InsteadOfMoney is null), row => Assert.Equal(
                row.Cells[place].Units ?? 0, (row.Cells[now].Units ?? 0) - (row.Cells[then].Units ?? 0)));
        }
    }

    // What is taken and what is left out make the whole, where figures add up.
    private static void Halves(Asked asked, string option, string opposite)
    {
        var choice = $"{asked.Free}={asked.Value}";
        var (some, other) = (asked.With(option, choice), asked.With(opposite, choice));
        Assert.NotEmpty(some.Narrowed);
        var columns = asked.Whole.Columns.Select((column, place) => (column, place)).Where(known => known.column.AddsUp
            && known.column.Key is not ("running" or "promised" or "disputed")).ToList();
        long? In(Report report, string key) => report.Columns.Select(column => column.Key).ToList().IndexOf(key) is >= 0 and var place
            && report.Rows.Count > 0 ? report.Rows[^1].Cells[place].Units : null;
        bool IsLike(Report report) => report.Rows.Count == 0 || report.Rows[^1].Key == asked.Whole.Rows[^1].Key;
        foreach (var (column, place) in columns.Where(one => asked.Whole.Rows.Count > 0 && IsLike(some) && IsLike(other)
            && asked.Whole.Rows[^1].Cells[one.place].Units is not null && asked.Whole.Rows[^1].InsteadOfMoney is null))
        {
            Assert.Equal(
                (column.Key, asked.Whole.Rows[^1].Cells[place].Units ?? 0),
                (column.Key, (In(some, column.Key) ?? 0) + (In(other, column.Key) ?? 0)));
        }
    }

    // Within what they stand in, rows go downwards; the rest comes last.
    private static void InOrder(Report report, int place)
    {
        var last = new Dictionary<int, long?>();
        foreach (var row in report.Rows)
        {
            // What is computed has its place in the layout.
            var isRow = row.Kind is RowKind.Account or RowKind.Group or RowKind.Record
                && !row.Key.StartsWith("rest", StringComparison.Ordinal) && !row.Key.EndsWith("-earnings", StringComparison.Ordinal);
            Assert.True(
                !isRow || last.GetValueOrDefault(row.Level) is not { } above || row.Cells[place].Units is null
                || row.Cells[place].Units <= above, $"{row.Key} is out of order");
            foreach (var level in last.Keys.Where(level => level > row.Level || !isRow).ToList())
            {
                _ = last.Remove(level);
            }

            last[row.Level] = isRow ? row.Cells[place].Units : null;
        }
    }

    // A total is what counts in it, in every column that adds up.
    private static Report Foots(Report report)
    {
        foreach (var own in report.Rows.Where(row => row.CountsIn is not null && row.InsteadOfMoney is null).GroupBy(row => row.CountsIn))
        {
            foreach (var (column, place) in report.Columns.Select((column, place) => (column, place)).Where(one => one.column.AddsUp))
            {
                if (report.Rows.FirstOrDefault(row => row.Key == own.Key) is { } total && total.Cells[place].Units is { } units)
                {
                    Assert.Equal((own.Key, column.Key, units), (own.Key, column.Key, own.Sum(row => row.Cells[place].Units ?? 0)));
                }
            }
        }

        return report;
    }

    // A report that is asked with one option or another.
    private sealed class Asked
    {
        private readonly InProcess _desk;
        private readonly string[] _base;

        public Asked(InProcess desk, ReportDefinition definition)
        {
            (_desk, Definition) = (desk, definition);
            _base = Needed.GetValueOrDefault(definition.Key, []);
            Whole = With();
            var place = Whole.Columns.Select((column, at) => (column, at))
                .Where(one => one.column is { AddsUp: true, Working: null, IsChange: false, Tie: ColumnTie.None })
                .Select(one => one.at).LastOrDefault(0);
            Largest = (Whole.Columns[place].Key, Whole.Columns[place].Heading, Whole.Columns[place].Kind, place);
        }

        public ReportDefinition Definition { get; }

        public Report Whole { get; }

        public (string Key, string Heading, ColumnKind Kind, int Place) Largest { get; }

        /// <summary>What makes groups of records where only those can be asked.</summary>
        public string[] AsSummary => Definition.Table is null ? []
            : Definition.Defaults.ContainsKey("summary") || Definition.Defaults.ContainsKey("by") ? []
            : ["--group-by", Definition.Table.Key[0], "--summary"];

        /// <summary>What its rows can be grouped by.</summary>
        public string GroupedBy => Definition.Key == "trial-balance" ? "account.type" : "kind";

        /// <summary>A field that the report does not choose by itself: what is typed would take the place of that.</summary>
        public string Free => Chooses("contact") ? "kind" : "contact";

        /// <summary>A value of it.</summary>
        public string Value => Free == "kind" ? "invoice" : "C0026";

        private bool Chooses(string field) =>
            _base.Concat(new[] { "only", "except" }.SelectMany(option => Definition.Defaults.GetValueOrDefault(option, [])))
            .Any(text => text.StartsWith($"{field}=", StringComparison.Ordinal));

        public Report With(params string[] typed)
        {
            string[] days = typed.Contains("--period") || typed.Contains("--as-of") || Definition.Takes("period") is false ? []
                : Definition.Table is { Date: null } ? [] : ["--period", Month];
            using var open = _desk.Open(Definition.Key, [.. days, .. _base, .. typed]);
            var report = open.Build();
            report = report with { Rows = [.. report.Rows] };
            Assert.Empty(report.Rows.GroupBy(row => row.Key).Where(same => same.Count() > 1).Select(same => same.Key));
            Assert.Empty(report.Columns.GroupBy(column => column.Key).Where(same => same.Count() > 1).Select(same => same.Key));
            return report;
        }
    }
}
