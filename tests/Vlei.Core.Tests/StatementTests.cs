using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>
/// Every statement, cell by cell, against the slow model: on random books, in both bases, narrowed to anything and spread
/// over anything; and every figure of them, traced.
/// </summary>
public class StatementTests
{
    private static readonly string[] Reports =
        ["profit-loss", "balance-sheet", "cash-flow", "cash-flow direct", "equity-movements", "working-capital", "trial-balance"];

    // What is typed, and what it means to somebody who has only read the guide.
    private static readonly (string Text, Func<SlowModel.Movement, bool> Holds)[] Choices =
    [
        ("account=4000/6005", e => e.Account is RandomBook.Sales or RandomBook.Cost or RandomBook.Rent),
        ("account=900,6000", e => e.Account is RandomBook.Fees or RandomBook.Rent or RandomBook.Fuel),
        ("account.type=income,expense", e => e.Account is RandomBook.Fees or RandomBook.Sales or RandomBook.Rent or RandomBook.Fuel),
        ("contact=A-1,none", e => e.Line.Contact.Value is 0 or 1),
        ("contact.name=B/c", e => e.Line.Contact.Value is 2 or 3),
        ("project=\"Birch and Co\"", e => e.Line.Project == 2),
        ("item=b-*", e => e.Line.Item is 2 or 3),
        ("item=>B-3", e => e.Line.Item == 2),
        ("department=none", e => e.Line.Department == 0),
        ("kind=invoice,receipt", e => e.Line.Kind is 1 or 3),
        ("tag.season=high", e => e.Line.Tags == 1),
        ("tag.place=none", e => PlaceOf(e) == "none"),
    ];

    private static readonly (string Field, Func<SlowModel.Movement, string> ValueOf)[] Spreads =
    [
        ("project", e => IdOf(e.Line.Project)), ("department", e => IdOf(e.Line.Department)), ("item", e => IdOf(e.Line.Item)),
        ("contact", e => IdOf(e.Line.Contact.Value)), ("tag.season", e => e.Line.Tags switch { 1 => "high", 2 => "low", _ => "none" }),
        ("tag.place", PlaceOf),
    ];

    private static readonly Gen<(string Report, ReportRequest Request, Func<SlowModel.Movement, bool> Holds)> GenAsked =
        from report in Choose.One(Reports)
        from start in Gen.Int[-40, 800]
        from days in Gen.Int[0, 400]
        from basis in Gen.Enum<AccountingBasis>()
        from spread in Gen.Int[-2, Spreads.Length - 1]
        from compare in Choose.One("", "", "prior-year", "prior-period")
        from chosen in Gen.Select(Gen.Int[0, Choices.Length - 1], Gen.Bool).Array[0, 2]
        let first = new DateOnly(2024, 1, 1).AddDays(start)
        let choices = chosen.DistinctBy(choice => Choices[choice.Item1].Text.Split('=')[0]).ToArray()
        select (
            report,
            new ReportRequest
            {
                Period = new OpenPeriod(first, first.AddDays(days)), Basis = basis,
                Statement = new StatementRequest { IsDirect = report == "cash-flow direct" },
                By = spread == -2 ? null : spread == -1 ? Spread.Of(TimeUnit.Quarter) : Spread.Of(Spreads[spread].Field),
                Compare = compare.Length == 0 ? [] : [Comparison.Parse(compare, first, Statements.March)],
                Change = compare == "prior-year",
                Choices = [.. choices.Select(choice => FieldChoice.Parse(Choices[choice.Item1].Text, choice.Item2))],
            },
            new Func<SlowModel.Movement, bool>(e => choices.All(choice => Choices[choice.Item1].Holds(e) != choice.Item2)));

    [Fact]
    public void Every_cell_is_what_the_rules_give() => Gen.Select(RandomBook.Gen1, GenAsked).Sample((book, asked) =>
    {
        var report = Statements.Build(asked.Report.Split(' ')[0], book, asked.Request);
        Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
        Assert.Equal(asked.Request.Choices.Count == 0, report.Narrowed.Count == 0);
        Assert.Equal(
            asked.Request.Choices.Count > 0 && asked.Report != "profit-loss", report.Title.EndsWith("(in part)", StringComparison.Ordinal));
        var events = (asked.Request.Statement.IsDirect
            ? SlowModel.MoneyEvents(book) : SlowModel.Events(book, asked.Request.Basis == AccountingBasis.Cash)).Where(asked.Holds)
                .ToList();
        for (var column = 0; column < report.Columns.Count; column++)
        {
            var (measure, slice, range) = Meaning(report.Columns[column], asked.Request);
            if (measure is "change" or "percent-change")
            {
                continue;
            }

            var of = slice is null ? events
                : events.Where(e => Spreads.Single(s => s.Field == asked.Request.By!.Field).ValueOf(e) == slice).ToList();

            // Earlier years' profits stand with retained earnings, which are shown where no accounts are chosen, or they are.
            var carries = !asked.Request.Choices.Any(choice => choice.Field.StartsWith("account", StringComparison.Ordinal));
            foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
            {
                Assert.Equal(
                    (row.Key, report.Columns[column].Key, Expected(asked.Report, row.Key, measure, range, of, carries)),
                    (row.Key, report.Columns[column].Key, row.Cells[column].Units));
            }
        }
    });

    [Fact]
    public void Every_figure_traces_to_its_own_sum() => Gen.Select(RandomBook.Gen1, GenAsked, Gen.Bool).Sample((book, asked, all) =>
    {
        var report = Statements.Build(asked.Report.Split(' ')[0], book, asked.Request);
        TraceAll(report, book, all);
    });

    [Fact]
    public void What_a_figure_follows_from_comes_to_it_and_every_total_and_change_follows_from_something() =>
        Gen.Select(RandomBook.Gen1, GenAsked).Sample((book, asked) =>
    {
        var report = Statements.Build(asked.Report.Split(' ')[0], book, asked.Request);
        var workings = ReportWorkings.Of(report);
        long At(CellPlace cell) => report.Rows[cell.Row].Cells[cell.Column].Units ?? 0;
        foreach (var (row, place) in report.Rows.Select((row, place) => (row, place)).Where(row => row.row.Kind != RowKind.Heading))
        {
            workings.Take(row, place);
            for (var column = 0; column < report.Columns.Count; column++)
            {
                switch (workings.Of(row, place, column))
                {
                    case Working.Sum sum:
                        Assert.Equal(
                            (row.Key, report.Columns[column].Key, row.Cells[column].Units),
                            (row.Key, report.Columns[column].Key, sum.Terms.Sum(term =>
                            term.Sign * Enumerable.Range(term.First.Row, term.Last.Row - term.First.Row + 1)
                                .Sum(
                                    line => Enumerable.Range(term.First.Column, term.Last.Column - term.First.Column + 1)
                                        .Sum(across => At(new CellPlace(line, across)))))));
                        break;
                    case Working.Share { IsChange: true } share:
                        Assert.Equal(
                            row.Cells[column].Units, Money.Percentage.Of(
                                new Money.Amount(At(share.Part) - At(share.Whole)),
                                new Money.Amount(Math.Abs(At(share.Whole))))?.TenThousandths);
                        break;
                    case null:
                        var isOfOthers = report.Columns[column].Working is not null
                            || row.Key is "gross-profit" or "total-income" or "total-expenses" or "total-assets";
                        Assert.False(isOfOthers && row.Cells[column].Units is not (null or 0), $"{row.Key}, {report.Columns[column].Key}");
                        break;
                }
            }
        }
    });

    [Fact]
    public void The_records_that_go_along_add_up_to_every_figure() =>
        Gen.Select(RandomBook.Gen1, GenAsked, Gen.Bool).Sample((book, asked, withDocuments) =>
    {
        var report = Statements.Build(asked.Report.Split(' ')[0], book, asked.Request);
        Assert.Same(report, Details.AddTo(report, Statements.Context(book), StandardReports.Find("lines")!));
        var look = new ReportLook { Details = withDocuments ? DetailDepth.Documents : DetailDepth.Records };
        var records = Details.AddTo(report with { Look = look }, Statements.Context(book), StandardReports.Find("lines")!).Records!;
        var figures = records.Figures.OrderBy(figure => figure.Key).ToList();
        Assert.All(figures, figure => Assert.Equal(RowKind.Heading, records.List.Rows[figure.Key].Kind));
        var amount = records.List.Columns.ToList().FindIndex(column => column.Key == "amount");
        for (var place = 0; place < figures.Count; place++)
        {
            var (row, column) = figures[place].Value;
            var block = records.List.Rows.Skip(figures[place].Key + 1)
                .Take((place + 1 < figures.Count ? figures[place + 1].Key : records.List.Rows.Count) - figures[place].Key - 1).ToList();
            if (report.Columns[column].Kind == ColumnKind.Money && report.Rows[row].InsteadOfMoney is null)
            {
                Assert.Equal(
                    block.Where(line => line.Kind is RowKind.Record or RowKind.Group).Sum(line => line.Cells[amount].Units ?? 0),
                    block[^1].Cells[amount].Units);
                Assert.Equal(report.Rows[row].Cells[column].Units, block[^1].Cells[amount].Units);
            }
        }

        // What stands for a figure counts as much as that, with either sign, and leads to what is behind it.
        Assert.All(records.Parts, part =>
        {
            Assert.Equal(
                Math.Abs(report.Rows[part.Value.Row].Cells[part.Value.Column].Units ?? 0),
                Math.Abs(records.List.Rows[part.Key].Cells[amount].Units ?? 0));
            Assert.NotNull(records.HeadingBehind(part.Key));
        });
        if (report.Key == "profit-loss" && asked.Request.Compare.Count == 0 && !report.HasBothBases)
        {
            var period = asked.Request.Period!.Value;
            Assert.Equal(
                SlowModel.Events(book, asked.Request.Basis == AccountingBasis.Cash).Where(asked.Holds)
                    .Count(e => e.Day >= period.From && e.Day <= period.To && e.Amount != 0 && RandomBook.IsOfProfit(e.Account)),
                records.List.Rows.Count(line => line is { Kind: RowKind.Record, Document: not null }));
        }

        // Documents go along where they are asked for, each once, and no other.
        var wanted = records.List.Rows.Select(line => line.Document).OfType<string>().Distinct().Order().ToList();
        Assert.Equal(
            withDocuments ? wanted : [], records.Documents?.Rows.Select(line => line.Document).OfType<string>().Order()
                ?? Enumerable.Empty<string>());
    });

    [Fact]
    public void The_general_ledger_is_the_trial_balance_with_its_postings() =>
        Gen.Select(RandomBook.Gen1, GenAsked).Sample((book, asked) =>
    {
        var request = asked.Request with { By = null, Compare = [], Change = false, Statement = new StatementRequest() };
        var trial = Statements.Build("trial-balance", book, request);
        var ledger = Statements.Build("general-ledger", book, request);
        Assert.All(ledger.Checks, check => Assert.True(check.Ok, check.Name));
        var within = SlowModel.Events(book, request.Basis == AccountingBasis.Cash).Where(asked.Holds)
            .Where(e => e.Day >= request.Period!.Value.From && e.Day <= request.Period.Value.To && e.Amount != 0).ToList();
        foreach (var row in trial.Rows.Where(row => row.Key != "total"))
        {
            var rows = ledger.Rows.SkipWhile(other => other.Key != row.Key).TakeWhile(other => other.Key != $"closing({row.Key})").ToList();
            var closing = ledger.Rows.Single(other => other.Key == $"closing({row.Key})");
            Assert.Equal(row.Cells[0], rows[1].Cells[^1]);
            Assert.Equal([row.Cells[1], row.Cells[2], row.Cells[3]], closing.Cells.TakeLast(3));
            Assert.Equal(
                within.Where(e => row.Key != "retained-earnings" && RandomBook.CodeOf(e.Account) == row.Key).Select(e => e.Amount).Order(),
                rows.Skip(2).Select(other => (other.Cells[^3].Units ?? 0) - (other.Cells[^2].Units ?? 0)).Order());
        }

        TraceAll(ledger, book, all: true);
    });

    [Fact]
    public void A_budget_gives_any_days_of_a_month_their_share() => Gen.Select(RandomBook.Gen1, Gen.Int[0, 700], Gen.Int[0, 90], Gen.Bool)
        .Sample((book, start, days, narrowed) =>
    {
        var range = new DateRange(new DateOnly(2024, 1, 1).AddDays(start), new DateOnly(2024, 1, 1).AddDays(start + days));
        var report = Statements.Build("profit-loss", book, new ReportRequest
        {
            Period = new OpenPeriod(range), By = Spread.Of("project"), Statement = new StatementRequest { Zeros = true },
            Compare = [Comparison.Parse("budget", range.From, Statements.March)],
            Choices = narrowed ? [FieldChoice.Parse("department=A-1", isExcept: false)] : [],
        });
        foreach (var column in Enumerable.Range(0, report.Columns.Count)
            .Where(c => report.Columns[c].Key.StartsWith("budget", StringComparison.Ordinal)))
        {
            var slice = report.Columns[column].Key[7..^1];
            long Budget(int account) => book.Budgets
                .Where(
                    b => b.Account.Value == account && (slice == "total" || IdOf(b.Project) == slice) && (!narrowed || b.Department == 1))
                .Select(b => (b, Days: b.Month.Range.Intersect(range))).Where(b => !b.Days.IsEmpty)
                .Sum(b => SlowModel.Share(b.b.Amount.MinorUnits, b.Days.From.Day, b.Days.To.Day, b.b.Month.Range.Days));
            Assert.Equal(-Budget(RandomBook.Sales), report.Rows.Single(row => row.Key == "4000").Cells[column].Units);
            Assert.Equal(Budget(RandomBook.Rent), report.Rows.Single(row => row.Key == "6000").Cells[column].Units);
            Assert.Equal(
                -Budget(RandomBook.Sales) - Budget(RandomBook.Cost) - Budget(RandomBook.Rent), report.Rows[^1].Cells[column].Units);
        }

        TraceAll(report, book, all: false);
    });

    private static void TraceAll(Report report, RandomBook book, bool all)
    {
        for (var column = 0; column < report.Columns.Count; column++)
        {
            foreach (var row in report.Rows.Where(row => row.Cells[column].Units is not null))
            {
                if (report.Columns[column].Kind is ColumnKind.Date or ColumnKind.Text)
                {
                    continue;
                }

                var trace = Trace.Of(report, book, row.Key, report.Columns[column].Key, all);
                var amounts = trace.Rows.Where(r => r.Kind == RowKind.Record).Sum(r => r.Cells[^2].Units!.Value);
                var check = Assert.Single(trace.Checks);
                Assert.Equal(check.Expected.MinorUnits, amounts);
                Assert.True(check.Ok);
                if (report.Columns[column].Kind == ColumnKind.Money)
                {
                    Assert.Equal(row.Cells[column].Units, amounts);
                }

                Assert.True(!all || trace.Rows.All(r => r.Label != "Brought forward"));
            }
        }
    }

    // What a column says it shows: a measure of the trial balance, a value of the field, and its days.
    private static (string Measure, string? Slice, DateRange Range) Meaning(ReportColumn column, ReportRequest request)
    {
        var key = column.Key;
        var period = new DateRange(request.Period!.Value.From!.Value, request.Period.Value.To!.Value);
        var measure = new[] { "opening", "debit", "credit", "closing", "change", "percent-change" }
            .FirstOrDefault(name => key == name || key.StartsWith($"{name}(", StringComparison.Ordinal)) ?? "";
        var inner = measure.Length > 0 && key.Length > measure.Length ? key[(measure.Length + 1)..^1] : measure.Length > 0 ? "total" : key;
        var value = inner.Split('(')[0];
        return (measure, request.By?.Field is null || value == "total" ? null : value, column.Range ?? period);
    }

    private static long Expected(
        string report, string row, string measure, DateRange range, List<SlowModel.Movement> events, bool carries)
    {
        long Sum(int account, DateOnly from, DateOnly to) => SlowModel.Sum(events, account, from, to);
        return report switch
        {
            "profit-loss" => SlowStatements.ProfitAndLoss(row, range, Sum),
            "balance-sheet" => SlowStatements.BalanceSheet(row, range.To, Sum),
            "cash-flow" or "cash-flow direct" =>
                SlowStatements.CashFlow(row, range, Sum, report.EndsWith("direct", StringComparison.Ordinal)),
            "equity-movements" => SlowStatements.EquityMovements(row, range, Sum),
            "working-capital" => SlowStatements.WorkingCapital(row, range, Sum),
            _ when row != "total" => TrialBalance(row),
            _ => RandomBook.Codes.Concat(carries ? ["retained-earnings"] : []).Sum(TrialBalance),
        };

        long TrialBalance(string code)
        {
            var opening = SlowStatements.Opening(code, range, Sum);
            var (debit, credit) = code == "retained-earnings" ? (0, 0)
                : SlowModel.Turnover(events, RandomBook.KeyOf(code), range.From, range.To);
            return measure switch { "opening" => opening, "debit" => debit, "credit" => credit, _ => opening + debit - credit };
        }
    }

    private static string IdOf(int key) => key == 0 ? "none" : RandomBook.Named[key - 1].Id;

    private static string PlaceOf(SlowModel.Movement e) => e.Line.Tags == 2 ? "south"
        : e.Line.Item == 1 || e.Line.Project == 1 || e.Line.Department == 1 || e.Line.Contact.Value == 1 ? "north"
        : "none";
}
