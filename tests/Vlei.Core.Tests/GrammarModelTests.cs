using System.Globalization;
using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>What the grammar asks of every report, held against the slow models, which share no code with the core.</summary>
public class GrammarModelTests
{
    private static readonly DateOnly First = new(2024, 1, 1);

    private static readonly Gen<DateRange> GenRange = Gen.Select(Gen.Int[0, 800], Gen.Int[0, 400])
        .Select(drawn => new DateRange(First.AddDays(drawn.Item1), First.AddDays(drawn.Item1 + drawn.Item2)));

    private static ReportRequest Asked(DateRange range) => new() { Period = new OpenPeriod(range.From, range.To) };

    private static Dictionary<string, ReportRow> ByKey(Report report) => report.Rows.ToDictionary(row => row.Key);

    private static long UnitsIn(Report report, ReportRow row, string column) =>
        row.Cells[report.Columns.Select(known => known.Key).ToList().IndexOf(column) is >= 0 and var place ? place
            : throw new InvalidOperationException($"{report.Key} has no column {column}.")].Units ?? 0;

    [Fact]
    public void A_list_on_both_bases_has_the_groups_whose_figures_are_asked_for() => Gen.Select(
        RandomBook.Gen1, GenRange, Choose.One("account", "contact", "kind", "account.type", "month"), Gen.Int[-3000, 3000])
        .Sample((book, range, field, least) =>
    {
        var report = Statements.Build("postings", book, Asked(range) with
        {
            HasBothBases = true,
            Change = true,
            Summary = true,
            Columns = [ColumnText.Parse("columns", "natural")],
            Having = [$"\"cash(natural)\" >= {least}.00"],
            List = new ListRequest { GroupBy = [field] },
        });
        var sums = new[] { false, true }.Select(cash => SlowTable.Rows(book, cash, range.From, range.To)
            .GroupBy(row => SlowTable.KeyOf(row[field]))
            .ToDictionary(group => group.Key, group => group.Sum(row => (long)(100 * (decimal)row["natural"]!)))).ToList();
        var shown = sums[1].Where(sum => sum.Value >= least * 100L).Select(sum => sum.Key).ToHashSet();
        // Lines of no amount are rows too, and come to 0; the model leaves them out.
        Assert.Equal(
            shown.Where(key => sums.Exists(sum => sum.GetValueOrDefault(key) != 0)).Order(),
            report.Rows.Where(row => row.Kind == RowKind.Group && row.Cells.Take(2).Any(cell => cell.Units is not (null or 0)))
                .Select(row => row.Key).Where(key => least > 0 || sums[1].ContainsKey(key)).Order());
        foreach (var row in report.Rows.Where(row => row.Kind == RowKind.Group))
        {
            var (accrual, cash) = (sums[0].GetValueOrDefault(row.Key), sums[1].GetValueOrDefault(row.Key));
            Assert.Equal(
                (accrual, cash, accrual - cash), (UnitsIn(report, row, "accrual(natural)"), UnitsIn(report, row, "cash(natural)"),
                    UnitsIn(report, row, "change(accrual(natural),cash(natural))")));
        }

        Assert.Equal(shown.Sum(key => sums[1][key]), UnitsIn(report, report.Rows[^1], "cash(natural)"));
    });

    [Fact]
    public void Documents_that_make_the_bases_differ_are_those_of_the_rules() => Gen.Select(RandomBook.Gen1, GenRange)
        .Sample((book, range) =>
    {
        var report = Statements.Build("differences", book, Asked(range));
        Dictionary<(int, int), long> Of(bool cash) => SlowModel.Events(book, cash)
            .Where(moved => moved.Day >= range.From && moved.Day <= range.To)
            .GroupBy(moved => (moved.Document.Key, moved.Account))
            .ToDictionary(group => group.Key, group => group.Sum(moved => moved.Amount));
        var (accrual, cash) = (Of(false), Of(true));
        var expected = accrual.Keys.Union(cash.Keys).Where(key => accrual.GetValueOrDefault(key) != cash.GetValueOrDefault(key))
            .Select(key => ($"D{key.Item1}/{RandomBook.CodeOf(key.Item2)}",
                Math.Abs(accrual.GetValueOrDefault(key) - cash.GetValueOrDefault(key))));
        Assert.Equal(
            expected.Order(), report.Rows.Where(row => row.Kind == RowKind.Record)
                .Select(row => (row.Key, Math.Abs(UnitsIn(report, row, "difference")))).Order());
    });

    [Fact]
    public void Contacts_are_charged_and_settled_gross_month_by_month() => Gen.Select(RandomBook.Gen1, GenRange, Gen.Bool)
        .Sample((book, range, payable) =>
    {
        var report = Statements.Build(payable ? "supplier-balances" : "customer-balances", book, Asked(range) with
        {
            By = Spread.Of(TimeUnit.Month),
            List = new ListRequest { Measures = ColumnText.Parse("measure", "debit,credit,closing") },
        });
        var events = SlowModel.Events(book, cash: false).Where(moved => SlowOpenItems.Accounts(payable).Contains(moved.Account)).ToList();
        foreach (var row in report.Rows.SkipLast(1))
        {
            var own = events.Where(moved => SlowOpenItems.IdOf(moved.Line.Contact.Value) == row.Key).ToList();
            foreach (var (key, days) in Months(range).Append(("total", range)))
            {
                var within = own.Where(moved => moved.Day >= days.From && moved.Day <= days.To).ToList();
                var closing = own.Where(moved => moved.Day <= days.To).Sum(moved => moved.Amount);
                Assert.Equal(
                    (within.Sum(moved => Math.Max(0, moved.Amount)), -within.Sum(moved => Math.Min(0, moved.Amount)),
                        payable ? -closing : closing),
                    (UnitsIn(report, row, $"debit({key})"), UnitsIn(report, row, $"credit({key})"),
                        UnitsIn(report, row, $"closing({key})")));
            }
        }
    });

    [Fact]
    public void An_aging_is_grouped_and_spread_by_any_field() => Gen.Select(
        RandomBook.Gen1, GenRange, Gen.Bool, Choose.One<string[]>(["kind"], ["kind", "contact"], ["account", "kind"]),
        Choose.One("", "kind", "account", "date.month"), Gen.Bool).Sample((book, range, payable, groups, by, detail) =>
    {
        var report = Statements.Build(payable ? "payables-aging" : "receivables-aging", book, Asked(range) with
        {
            By = by.Length == 0 ? null : Spread.Of(by),
            Detail = detail,
            List = new ListRequest { GroupBy = groups },
        });
        Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
        var items = SlowOpenItems.At(book, payable, range.To).Where(item => item.Open != 0).ToList();
        var rows = ByKey(report);
        foreach (var own in items.GroupBy(item => string.Join('/', groups.Select(field => KeyOf(book, item, field)))))
        {
            var row = rows[detail ? $"total({own.Key})" : own.Key];
            Assert.Equal(own.Sum(item => item.Open), UnitsIn(report, row, "total"));
            foreach (var column in own.GroupBy(item => by.Length > 0 ? KeyOf(book, item, by)
                : SlowOpenItems.BucketOf(item.DaysLate(range.To), [30, 60, 90])))
            {
                Assert.Equal(column.Sum(item => item.Open), UnitsIn(report, row, column.Key));
            }
        }

        Assert.Equal(items.Sum(item => item.Open), UnitsIn(report, rows["total"], "total"));
        Assert.Equal(detail ? items.Count : 0, report.Rows.Count(row => row.Kind == RowKind.Record));
    });

    [Fact]
    public void What_is_open_at_the_end_of_each_month_stands_side_by_side() => Gen.Select(RandomBook.Gen1, GenRange, Gen.Bool)
        .Sample((book, range, payable) =>
    {
        var report = Statements.Build(
            payable ? "payables-aging" : "receivables-aging", book, Asked(range) with { By = Spread.Of(TimeUnit.Month) });
        Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
        foreach (var (_, month) in Months(range))
        {
            foreach (var own in SlowOpenItems.At(book, payable, month.To).GroupBy(item => item.ContactId)
                .Where(own => report.Rows.Any(row => row.Key == own.Key) || own.Any(item => item.Open != 0)))
            {
                Assert.Equal(
                    own.Sum(item => item.Open), UnitsIn(report, ByKey(report)[own.Key], month.To.ToString("yyyy-MM-dd", null)));
            }
        }
    });

    [Fact]
    public void A_trial_balance_is_grouped_sorted_and_cut() => Gen.Select(
        RandomBook.Gen1, GenRange, Gen.Bool, Gen.Int[1, 4], Choose.One("-debit", "credit", "name")).Sample((book, range, cash, top, sort) =>
    {
        var asked = Asked(range) with
        {
            Basis = cash ? AccountingBasis.Cash : AccountingBasis.Accrual,
            List = new ListRequest { GroupBy = ["account.type"] },
            Sort = SortOrder.Parse(sort),
        };
        var (whole, cut) =
            (Statements.Build("trial-balance", book, asked), Statements.Build("trial-balance", book, asked with { Top = top }));
        var events = SlowModel.Events(book, cash).ToList();
        var types = book.Accounts.GroupBy(account => AccountTypes.NameOf(account.Type));
        foreach (var type in types.Where(type => whole.Rows.Any(row => row.Key == $"total({type.Key})")))
        {
            var turnover = type.Select(account => SlowModel.Turnover(events, account.Key.Value, range.From, range.To)).ToList();
            foreach (var report in new[] { whole, cut })
            {
                var total = ByKey(report)[$"total({type.Key})"];
                Assert.Equal(
                    (turnover.Sum(one => one.Debit), turnover.Sum(one => one.Credit)),
                    (UnitsIn(report, total, "debit"), UnitsIn(report, total, "credit")));
                var own = report.Rows.Where(row => row.CountsIn == total.Key).ToList();
                Assert.All(Enumerable.Range(0, 4), column => Assert.Equal(
                    total.Cells[column].Units, own.Sum(row => row.Cells[column].Units)));
                var listed = own.Where(row => row.Kind == RowKind.Account && !row.Key.StartsWith("rest", StringComparison.Ordinal))
                    .ToList();
                Assert.True(report == whole || own.Count <= top + 1);
                Assert.All(listed.Zip(listed.Skip(1)), pair => Assert.True(sort switch
                {
                    "name" => int.Parse(pair.First.Key, null) < int.Parse(pair.Second.Key, null),
                    "credit" => pair.First.Cells[2].Units <= pair.Second.Cells[2].Units,
                    _ => pair.First.Cells[1].Units >= pair.Second.Cells[1].Units,
                }));
            }
        }

        foreach (var row in cut.Rows.Select((row, place) => (row, place))
            .Where(one => one.row.Key.StartsWith("rest", StringComparison.Ordinal)))
        {
            Assert.True(Tables.Trace.Of(cut, book, row.row.Key, "debit", all: true).Checks.Single().Ok);
        }
    });

    [Fact]
    public void A_formula_over_columns_foots() => Gen.Select(
        RandomBook.Gen1, GenRange, Choose.One("profit-loss", "trial-balance", "customer-balances", "receivables-aging"), Gen.Int[1, 99])
        .Sample((book, range, name, percent) =>
    {
        var of = name switch { "profit-loss" => "sum", "receivables-aging" => "total", _ => "closing" };
        var whole = Statements.Build(name, book, Asked(range));
        var column = of == "sum" ? whole.Columns[0].Heading : of;
        var part = $"0.{percent:00}";
        var report = StandardReports.Find(name)!.Make(Statements.Context(book), Asked(range) with
        {
            Columns = [ColumnText.Parse("columns", $"\"{column}\" * {part}:Part,\"{column}\" - \"{column}\" * {part}:Rest")],
        });
        var keys = report.Rows.Select(row => row.Key).ToHashSet();
        foreach (var (row, own) in report.Rows.Zip(whole.Rows).Where(pair => pair.First.Kind != RowKind.Heading
            && pair.First.InsteadOfMoney is null))
        {
            var source = own.Cells[whole.Columns.Select(known => known.Key).ToList().IndexOf(of == "sum" ? whole.Columns[0].Key : of)];
            var parts = report.Rows.Where(other => other.CountsIn == row.Key).ToList();
            var cells = row.Cells.Select(cell => cell.Units ?? 0).ToList();
            if (parts.Count > 0)
            {
                Assert.Equal(cells, Enumerable.Range(0, 2).Select(place => parts.Sum(other => other.Cells[place].Units ?? 0)));
            }
            else if (row.MadeOf is null)
            {
                Assert.Equal((long)Math.Round((source.Units ?? 0) * percent / 100m, MidpointRounding.ToEven), cells[0]);
            }
        }
    });

    private static string KeyOf(RandomBook book, SlowOpenItems.Item item, string field) => field switch
    {
        "kind" => book.Document(new(item.Document.Key)).Kind,
        "contact" => item.Contact == 0 ? "none" : item.ContactId,
        "account" => RandomBook.CodeOf(item.Account),
        _ => item.Document.Date.ToString("yyyy-MM", null),
    };

    // The months of a range, cut at its ends, by the keys of their columns.
    private static IEnumerable<(string Key, DateRange Days)> Months(DateRange range)
    {
        for (var from = range.From; from <= range.To;)
        {
            var end = new DateOnly(from.Year, from.Month, DateTime.DaysInMonth(from.Year, from.Month));
            var to = end < range.To ? end : range.To;
            yield return (from.Day == 1 && to == end ? $"{from:yyyy-MM}" : PeriodKey(from, to), new DateRange(from, to));
            from = to.AddDays(1);
        }
    }

    // Seven days from a Monday on are a week (ISO 8601).
    private static string PeriodKey(DateOnly from, DateOnly to) => from == to ? $"{from:yyyy-MM-dd}"
        : from.DayOfWeek == DayOfWeek.Monday && to == from.AddDays(6) ? $"{ISOWeek.GetYear(from)}-W{ISOWeek.GetWeekOfYear(from):00}"
        : $"{from:yyyy-MM-dd}/{to:yyyy-MM-dd}";
}
