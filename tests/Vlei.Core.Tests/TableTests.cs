using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

public sealed class TableTests
{
    private static readonly DateRange Days = new(new DateOnly(2024, 2, 1), new DateOnly(2026, 1, 31));

    private static readonly Gen<AccountingBasis> GenBasis = Choose.One(AccountingBasis.Accrual, AccountingBasis.Cash);

    private static readonly Gen<string> GenField = Choose.One(
        "account", "account.type", "contact", "contact.email", "item", "kind", "document", "document.contact", "memo", "tag.season",
        "month");

    // What is cut into nothing is posted by one of the models and not by the other; it is left out of both.
    private const string Posted = "amount <> 0";

    private static ReportRequest Asked(AccountingBasis basis) => new() { Period = new OpenPeriod(Days), Basis = basis, Where = [Posted] };

    private static List<IReadOnlyDictionary<string, object?>> Slow(RandomBook book, AccountingBasis basis, SlowPredicate? where = null) =>
        [.. SlowTable.Rows(book, basis == AccountingBasis.Cash, Days.From, Days.To)
            .Where(row => where?.Holds(row) != false && (where is null || where.Holds(row) == true))];

    private static decimal? Money(Report report, ReportRow row, string column) =>
        row.Cells[report.Columns.ToList().FindIndex(known => known.Key == column)].Units / 100m;

    private static decimal Sum(IEnumerable<IReadOnlyDictionary<string, object?>> rows, string field) =>
        rows.Sum(row => (decimal?)row[field] ?? 0);

    // A word that no record has is a slip, and is told; nothing is asked then.
    private static Report? Known(Func<Report> build)
    {
        try
        {
            return build();
        }
        catch (ProblemException slip) when (slip.Message.Contains(": no ", StringComparison.Ordinal))
        {
            return null;
        }
    }

    private static IReadOnlyList<ColumnText> Columns(string list) => ColumnText.Parse("columns", list);

    [Fact]
    public void A_predicate_takes_what_it_says() =>
        Gen.Select(RandomBook.Gen1, GenBasis, SlowTable.Predicate(3)).Sample((book, basis, where) =>
    {
        if (Known(() => Statements.Build(
            "postings", book,
            Asked(basis) with { Where = [where.Text, Posted], Columns = [Columns("+amount,+document")] })) is not { } report)
        {
            return;
        }

        var expected = Slow(book, basis, where);
        Assert.Equal(
            expected.Select(row => (((Word)row["document"]!).Id, (decimal)row["amount"]!)).Order(),
            report.Rows.SkipLast(1).Select(row => (row.Label, Money(report, row, "amount")!.Value)).Order());
        Assert.Equal(expected.Count == 0 ? null : Sum(expected, "amount"), Money(report, report.Rows[^1], "amount"));
    }, iter: 400);

    [Fact]
    public void Saved_selections_must_all_hold_and_alternatives_are_of_one_alone()
    {
        var genChoice = Gen.Select(
            Choose.One(
                "contact=A-1,B-3", "contact=B-3/B-20", "kind=invoice,bill", "kind=bill,journal", "account=4*",
                "account=1000,4000/6999", "amount=>0", "amount=/0", "item=none"), Gen.Bool);
        static SavedSelection Of(string name, (string Text, bool IsExcept)[] choices) => new(
            name, $"selection {name}", [.. choices.Where(choice => !choice.IsExcept).Select(choice => choice.Text)],
            [.. choices.Where(choice => choice.IsExcept).Select(choice => choice.Text)], []);
        Gen.Select(RandomBook.Gen1, GenBasis, genChoice.Array[1, 3], genChoice.Array[1, 3]).Sample((book, basis, one, other) =>
        {
            HashSet<string>? RowsOf(params string[] names)
            {
                var selections = new Dictionary<string, SavedSelection> { ["one"] = Of("one", one), ["other"] = Of("other", other) };
                try
                {
                    var asked = RequestText.Read(
                        new Dictionary<string, IReadOnlyList<string>> { ["select"] = names }, Days.To, Statements.March,
                        Statements.Context(book).Currency, name => selections[name]);
                    return [
                        .. Statements.Build(
                            "postings", book, asked with { Period = new OpenPeriod(Days), Basis = basis }).Rows.SkipLast(1)
                                .Select(row => row.Key)];
                }
                catch (ProblemException nothing)
                {
                    // A value that no record has is told with the selection that asks for it.
                    Assert.StartsWith("selection o", nothing.Message);
                    return null;
                }
            }

            if (RowsOf("one") is { } of && RowsOf("other") is { } others)
            {
                Assert.Equal(of.Intersect(others).Order(), RowsOf("one", "other")!.Order());
                Assert.Equal(others.Order(), RowsOf("one", "none,other")!.Order());
            }
        });
    }

    [Fact]
    public void Groups_come_to_what_their_rows_do_and_every_fold_to_the_same() => Gen.Select(
        RandomBook.Gen1, GenBasis, GenField.Array[1, 3], SlowTable.Predicate(1), Gen.Int[1, 3], Gen.Bool)
            .Sample((book, basis, fields, where, depth, isSummary) =>
    {
        var groups = fields.Distinct().ToArray();
        if (Known(() => Statements.Build("postings", book, Asked(basis) with
        {
            Where = [where.Text, Posted],
            Summary = isSummary,
            Depth = Math.Min(depth, groups.Length),
            Columns =
            [
                Columns(
                    "natural,count,average(amount),min(debit),max(credit),share(natural),group-share(natural),natural * 0.05:Rebate,"
                        + "natural / debit"),
            ],
            List = new ListRequest { GroupBy = groups },
        })) is not { } report)
        {
            return;
        }

        var rows = Slow(book, basis, where);
        var levels = Math.Min(depth, groups.Length);
        for (var level = 1; level <= levels; level++)
        {
            var expected = rows.GroupBy(row => string.Join('/', groups.Take(level).Select(field => SlowTable.KeyOf(row[field]))))
                .ToDictionary(group => group.Key, group => group.ToList());
            var shown = report.Rows.Where(
                row => row.Group?.Count == level && row.Kind is RowKind.Total or RowKind.Group
                    && (level == levels || row.Kind == RowKind.Total)).ToList();
            Assert.Equal(expected.Keys.Order(), shown.Select(row => string.Join('/', row.Group!)).Order());
            foreach (var row in shown)
            {
                var own = expected[string.Join('/', row.Group!)];
                var parent = level == 1 ? rows
                    : rows.Where(
                        other => groups.Take(level - 1)
                            .All(field => SlowTable.KeyOf(other[field]) == row.Group![Array.IndexOf(groups, field)])).ToList();
                Same(report, row, own, rows, parent);
            }
        }

        Same(report, report.Rows[^1], rows, rows, rows);
    }, iter: 300);

    private static void Same(
        Report report, ReportRow row, List<IReadOnlyDictionary<string, object?>> own, List<IReadOnlyDictionary<string, object?>> all,
        List<IReadOnlyDictionary<string, object?>> parent)
    {
        Assert.Equal(own.Count, row.Cells[1].Units ?? 0);
        if (own.Count == 0)
        {
            return;
        }

        var (natural, debits) = (Sum(own, "natural"), own.Where(r => r["debit"] is not null).ToList());
        Assert.Equal(natural, Money(report, row, "natural"));
        Assert.Equal(Math.Round(Sum(own, "amount") / own.Count, 2, MidpointRounding.ToEven), row.Cells[2].Units / 100m);
        Assert.Equal(debits.Min(r => (decimal?)r["debit"]), Money(report, row, "min(debit)"));
        Assert.Equal(own.Max(r => (decimal?)r["credit"]), Money(report, row, "max(credit)"));
        Assert.Equal(SlowModel.Percent((long)(natural * 100), (long)(Sum(all, "natural") * 100)), row.Cells[5].Units / 10_000m);
        Assert.Equal(SlowModel.Percent((long)(natural * 100), (long)(Sum(parent, "natural") * 100)), row.Cells[6].Units / 10_000m);
        Assert.Equal(own.Sum(r => Math.Round((decimal)r["natural"]! * 0.05m, 2, MidpointRounding.ToEven)), row.Cells[7].Units / 100m);
        var debit = Sum(debits, "debit");
        Assert.Equal(debit == 0 ? null : Math.Round(natural / debit, 6, MidpointRounding.ToEven), row.Cells[8].Units / 1_000_000m);
    }

    [Fact]
    public void A_cross_table_has_every_row_once_in_each_total() => Gen.Select(
        RandomBook.Gen1, GenBasis, GenField, GenField, Gen.Bool).Where((_, _, rows, across, _) => rows != across)
            .Sample((book, basis, by, across, hasTwo) =>
    {
        var report = Statements.Build("postings", book, Asked(basis) with
        {
            By = Spread.Of(across),
            List = new ListRequest { GroupBy = [by], Measures = Columns(hasTwo ? "debit,count" : "debit") },
            Shares = [ShareOf.Row, ShareOf.Column, ShareOf.Whole],
        });
        var all = Slow(book, basis);
        var values = all.Select(row => SlowTable.KeyOf(row[across])).Distinct().ToList();
        if (across != "month")
        {
            Assert.Equal(
                values.Order(), report.Columns.Select(column => column.Key)
                    .Where(key => !key.Contains("share") && !key.StartsWith("count") && !key.Contains("total"))
                .Select(key => key.StartsWith("debit(") ? key[6..^1] : key).Order());
        }

        foreach (var row in report.Rows)
        {
            foreach (var value in values.Append("total"))
            {
                var (own, whole) = (Of(row.Key, value), Of("total", "total"));
                var (inRow, inColumn) = (Of(row.Key, "total"), Of("total", value));
                var key = hasTwo ? $"debit({value})" : value;
                Assert.Equal(own.Any(r => r["debit"] is not null) ? Sum(own, "debit") : null, Money(report, row, key));
                Assert.True(!hasTwo || (Money(report, row, $"count({value})") ?? 0) * 100 == own.Count);
                foreach (var (name, of) in new[] { ("row", inRow), ("column", inColumn), ("whole", whole) })
                {
                    Assert.Equal(
                        own.Any(r => r["debit"] is not null)
                            ? SlowModel.Percent((long)(Sum(own, "debit") * 100), (long)(Sum(of, "debit") * 100)) : null,
                        row.Cells[report.Columns.ToList().FindIndex(column => column.Key == $"share-of-{name}({key})")].Units / 10_000m);
                }
            }
        }

        List<IReadOnlyDictionary<string, object?>> Of(string row, string value) => [.. all.Where(r =>
            (row == "total" || SlowTable.KeyOf(r[by]) == row) && (value == "total" || SlowTable.KeyOf(r[across]) == value))];
    }, iter: 200);

    [Fact]
    public void Compared_groups_are_those_of_the_earlier_days() =>
        Gen.Select(RandomBook.Gen1, GenBasis, GenField, Gen.Bool).Sample((book, basis, by, isSpread) =>
    {
        var period = new DateRange(new DateOnly(2025, 4, 1), new DateOnly(2025, 9, 30));
        var report = Statements.Build("postings", book, new ReportRequest
        {
            Period = new OpenPeriod(period), Basis = basis, Where = [Posted],
            By = isSpread ? Spread.Of("quarter") : null, List = new ListRequest { GroupBy = [by], Measures = Columns("natural") },
            Compare = [new Comparison(ComparisonKind.PriorYear, 1)], Change = true,
        });
        var earlier = new DateRange(new DateOnly(2024, 4, 1), new DateOnly(2024, 9, 30));
        var rows = new[] { period, earlier }.Select(range => SlowTable.Rows(book, basis == AccountingBasis.Cash, range.From, range.To))
            .ToList();
        Assert.Equal(
            rows.SelectMany(own => own).Select(row => SlowTable.KeyOf(row[by])).Distinct().Order(),
            report.Rows.SkipLast(1).Select(row => row.Key).Order());
        foreach (var row in report.Rows)
        {
            var pairs = isSpread
                ? new[] { ("2025-Q2", 4, 6), ("2025-Q3", 7, 9), ("total", 1, 12) } : [("natural", 1, 12)];
            foreach (var (key, first, last) in pairs)
            {
                var sums = rows.Select(own => own.Where(r => (row.Key == "total" || SlowTable.KeyOf(r[by]) == row.Key)
                    && ((DateOnly)r["date"]!).Month >= first && ((DateOnly)r["date"]!).Month <= last).ToList()).ToList();
                decimal? Of(List<IReadOnlyDictionary<string, object?>> own) => own.Count == 0 ? null : Sum(own, "natural");
                var old = key + "(2024-04-01/2024-09-30)";
                Assert.Equal(Of(sums[0]), Money(report, row, key));
                Assert.Equal(Of(sums[1]), Money(report, row, old));
                Assert.Equal(
                    Of(sums[0]) is null && Of(sums[1]) is null ? null : (Of(sums[0]) ?? 0) - (Of(sums[1]) ?? 0),
                    Money(report, row, $"change({key},{old})"));
            }
        }
    }, iter: 150);

    [Fact]
    public void What_is_sorted_cut_and_run_up_is_the_whole() => Gen.Select(
        RandomBook.Gen1, GenBasis, Gen.Int[1, 6], Gen.Bool,
        Choose.One("-amount", "contact,-date", "document.number,amount", "-document.due,kind"))
            .Sample((book, basis, top, isGrouped, sort) =>
    {
        var request = Asked(basis) with
        {
            Sort = SortOrder.Parse(sort),
            Columns = [Columns("date,contact,document.number,document.due,kind,amount,debit,running(amount)")],
        };
        var all = Slow(book, basis);
        var whole = Statements.Build("postings", book, request);
        var running = 0m;
        foreach (var row in whole.Rows.SkipLast(1))
        {
            Assert.Equal(running += Money(whole, row, "amount")!.Value, Money(whole, row, "running(amount)"));
        }

        foreach (var (one, next) in whole.Rows.SkipLast(2).Zip(whole.Rows.Skip(1)))
        {
            Assert.True(
                SortOrder.Parse(sort).Select(key => Order(one, next, key)).FirstOrDefault(order => order != 0) <= 0,
                $"{one.Key} {next.Key} {sort}");
        }

        var cut = Statements.Build("postings", book, isGrouped
            ? Asked(
                basis) with
            {
                Top = top,
                Summary = true,
                Columns = [Columns("amount,debit,count")],
                List = new ListRequest { GroupBy = ["account"] }
            } : request with { Top = top });
        Assert.Equal(all.Count == 0 ? null : Sum(all, "amount"), Money(cut, cut.Rows[^1], "amount"));
        Assert.Equal(Sum(all, "debit"), cut.Rows.SkipLast(1).Sum(row => Money(cut, row, "debit") ?? 0));
        Assert.True(cut.Rows.Count <= top + 2);

        int Order(ReportRow one, ReportRow next, SortOrder key)
        {
            var place = whole.Columns.ToList().FindIndex(column => column.Key == key.Name);
            var (left, right) = (one.Cells[place], next.Cells[place]);
            var order = left == right ? 0 : left == Cell.Empty ? 1 : right == Cell.Empty ? -1
                : left.Words is { } words ? ValueList.Compare(words, right.Words!) : left.Units!.Value.CompareTo(right.Units);
            return key.Downwards ? -order : order;
        }
    }, iter: 200);

    [Fact]
    public void Every_sum_is_traced_to_the_postings_that_make_it() =>
        Gen.Select(RandomBook.Gen1, GenBasis, GenField).Sample((book, basis, by) =>
    {
        foreach (var request in new[]
        {
            Asked(basis) with { Columns = [Columns("amount,debit,natural * 0.05:Rebate")], List = new ListRequest { GroupBy = [by] } },
            Asked(
                basis) with { By = Spread.Of("kind"), List = new ListRequest { GroupBy = [by], Measures = Columns("natural") },
                Compare = [new Comparison(ComparisonKind.PriorYear, 1)], Change = true },
        })
        {
            var report = Statements.Build("postings", book, request);
            for (var row = 0; row < report.Rows.Count; row++)
            {
                for (var column = 0; column < report.Columns.Count; column++)
                {
                    var origin = report.Columns[column].Kind == ColumnKind.Money ? report.OriginOf(row, column) : null;
                    if (origin is not null && report.Rows[row].Kind != RowKind.Heading)
                    {
                        Assert.Equal(origin.Figure.MinorUnits, origin.Postings.Sum(posting => posting.Amount.MinorUnits));
                        Assert.Equal(report.Rows[row].Cells[column].Units, origin.Figure.MinorUnits);
                    }
                }
            }
        }
    }, iter: 40);

    [Fact]
    public void Choices_take_what_predicates_take() => Gen.Select(
        RandomBook.Gen1, Choose.One(
            ("contact=A-1", "contact = 'A-1'"), ("contact.email=none", "contact.email is null"), ("amount=>=100", "amount >= 100"),
            ("amount=-5/5", "amount between -5 and 5"),
            ("date=2025", "date in '2025'"), ("date=2024-06/2025-03", "date between '2024-06' and '2025-03'"),
            ("document.due=none", "document.due is null"),
            ("document.number=N1,N3", "document.number in ('N1', 'N3')"), ("debit=none,<10", "debit is null or debit < 10"),
            ("account=6000", "account in ('6000', '6010')"))).Sample((book, pair) =>
    {
        var request = Asked(AccountingBasis.Accrual);
        try
        {
            var chosen = Statements.Build("postings", book, request with { Choices = [FieldChoice.Parse(pair.Item1, isExcept: false)] });
            var left = Statements.Build("postings", book, request with { Choices = [FieldChoice.Parse(pair.Item1, isExcept: true)] });
            var where = Statements.Build("postings", book, request with { Where = [pair.Item2, Posted] });
            Assert.Equal(where.Rows.Select(row => row.Key), chosen.Rows.Select(row => row.Key));
            Assert.Equal(Statements.Build("postings", book, request).Rows.Count + 1, chosen.Rows.Count + left.Rows.Count);
        }
        catch (ProblemException missing) when (missing.Kind == ProblemKind.NotFound)
        {
        }
    }, iter: 150);

    [Fact]
    public void On_the_cash_basis_a_quantity_comes_bit_by_bit_and_whole_in_the_end() => RandomBook.Gen1.Sample(book =>
    {
        var settled = book.FullySettled();
        var all = new OpenPeriod(null, null);
        Report Of(AccountingBasis basis) => Statements.Build("postings", settled, new ReportRequest
        {
            Period = all, Basis = basis, Where = [Posted], Summary = true,
            Columns = [Columns("quantity")], List = new ListRequest { GroupBy = ["document", "line"] },
        });
        var (accrual, cash) = (Of(AccountingBasis.Accrual), Of(AccountingBasis.Cash));
        var known = cash.Rows.ToDictionary(row => row.Key, row => row.Cells[0].Units);
        foreach (var row in accrual.Rows.Where(row => row.Group?.Count == 2 && known.ContainsKey(row.Key)))
        {
            Assert.Equal(row.Cells[0].Units, known[row.Key]);
        }
    }, iter: 100);

    [Theory]
    [InlineData("", 1, "a condition is missing here.")]
    [InlineData("amount >", 9, "a field, a number or a text in single quotes is missing here.")]
    [InlineData("amount > 5 and", 15, "a condition is missing here.")]
    [InlineData("amount", 7, "a comparison is missing here")]
    [InlineData("(amount > 5", 12, "\")\" is missing here.")]
    [InlineData("amount > 5 kind = 'x'", 12, "\"and\" or \"or\" is missing here")]
    [InlineData("kind = 'x", 10, "the quote is not closed.")]
    [InlineData("amont > 5", 1, "postings have no field \"amont\".")]
    [InlineData("kind = 'invoice' and contact.emial is null", 22, "postings have no field \"contact.emial\".")]
    [InlineData("amount + kind > 5", 10, "kind is a word")]
    [InlineData("date > 5", 8, "\"5\" is not a period.")]
    [InlineData("date in 'last-moon'", 9, "\"last-moon\" is not a period.")]
    [InlineData("amount = 'much'", 10, "a number is expected here.")]
    [InlineData("amount like '5%'", 1, "like is for words")]
    [InlineData("5 > 3", 1, "neither side is a field.")]
    [InlineData("amount between 5", 17, "\"and\" is missing here")]
    [InlineData("kind not 'x'", 10, "between, in or like is missing here.")]
    [InlineData("kind is nil", 9, "\"null\" is missing here.")]
    public void A_mistake_in_a_predicate_is_pointed_at(string where, int place, string message)
    {
        var book = new RandomBook([new BookDocument(1, Days.From, [new Line(1, new(RandomBook.Bank), Amount.Zero, Kind: 1)])], []);
        var problem = Assert.Throws<ProblemException>(
            () => Statements.Build("postings", book, Asked(AccountingBasis.Accrual) with { Where = [where] }));
        Assert.Equal(
            (ProblemKind.Usage, $"--where, at character {place}: "),
            (problem.Kind, problem.Message[..(problem.Message.IndexOf(": ", StringComparison.Ordinal) + 2)]));
        Assert.Contains(message, problem.Message);
        Assert.Equal(Math.Min(place - 1, 40), problem.Advice!.Split('\n')[1].IndexOf('^'));
    }

    [Fact]
    [Trait("Speed", "slow")]
    public void No_predicate_crashes() => Gen.OneOf(
        Gen.String[Gen.Char["abcdeamount .'\"()=<>-+*/_%, 0123456789\n"], 0, 60],
        SlowTable.Predicate(3).Select(
            Gen.Int[0, 200], Gen.Int[0, 20],
            (where, at, count) => where.Text.Remove(
                Math.Min(at, where.Text.Length), Math.Min(count, where.Text.Length - Math.Min(at, where.Text.Length)))),
        Gen.Int[1, 20_000].Select(depth => new string('(', depth) + "amount > 1" + new string(')', depth)),
        Gen.Int[1, 20_000].Select(depth => string.Concat(Enumerable.Repeat("not ", depth)) + "amount > 1"),
        Gen.Int[1, 5_000].Select(count => string.Join(" or ", Enumerable.Repeat("amount + 1 > 1", count)))).Sample(text =>
    {
        try
        {
            _ = Predicate.Parse(text);
        }
        catch (ProblemException problem)
        {
            Assert.Equal(ProblemKind.Usage, problem.Kind);
        }
    }, iter: 3000);

    [Fact]
    public void Some_rows_of_a_month_read_alone_have_what_they_have_among_all() =>
        Gen.Select(RandomBook.Gen1, GenBasis, Gen.Int[0, 300], Gen.Int[0, 90], Gen.Int[2, 5]).Sample((book, basis, start, days, every) =>
        {
            var context = TableReport.ContextOf(
                PostingTables.Postings, Statements.Context(book), new ReportRequest { Basis = basis });
            var first = new DateOnly(2024, 1, 1).AddDays(start);
            foreach (var block in PostingTables.Postings.Read(context, new DateRange(first, first.AddDays(days))))
            {
                int[] places = [.. Enumerable.Range(0, block.Count).Where(place => place % every == 1)];
                var some = block.Some!(places);
                Assert.Equal(places.Length, some.Count);
                Assert.All(
                    PostingTables.Postings.Fields.Where(field => field.OfLine is null).Select(field => field.Name),
                    column => Assert.Equal(places.Select(place => block[column][place]), some[column]));
            }
        });
}
