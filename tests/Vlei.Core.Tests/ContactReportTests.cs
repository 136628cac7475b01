using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>Every report of who owes and who is owed, on random books, against what the rules say of each document.</summary>
public class ContactReportTests
{
    private static readonly DateOnly Start = new(2024, 1, 1);

    private static readonly Gen<DateRange> GenRange =
        Gen.Select(Gen.Int[-20, 850], Gen.Int[0, 200]).Select(
            (first, days) => new DateRange(Start.AddDays(first), Start.AddDays(first + days)));

    /// <summary>Random books, with promises and disputes of what was open when they were noted.</summary>
    public static readonly Gen<RandomBook> GenPromised =
        from book in RandomBook.Gen1
        from drawn in Gen.Select(Gen.Int[0, 13], Gen.Int[0, 300], Gen.Int[0, 60], Gen.Int[1, 100], Gen.Bool, Gen.Int[0, 4]).Array[0, 8]
        select book with
        {
            Promised =
            [
                .. drawn.Where(d => d.Item1 < book.Documents.Length).Select((d, place) => MakePromise(book, place + 1, d))
                    .OfType<Promise>(),
            ],
        };

    [Fact]
    public void Every_figure_traces_to_its_documents() => Gen.Select(
        GenPromised, GenRange, Gen.Bool, Gen.Bool,
        Choose.One(
            "customer-balances", "supplier-balances", "customer-ledger", "supplier-ledger",
            "money-to-come", "bills-to-pay", "collection", "days-to-pay", "days-to-pay-suppliers", "statement-of-account"))
                .Sample((book, range, detail, said, key) =>
    {
        var request = Asked(range) with
        {
            Detail = detail,
            Items = new OpenItemRequest { Money = said ? new Amount(1_234_567) : null, AsUsual = detail },
            By = key == "money-to-come" ? Spread.Of(TimeUnit.Month) : null,
        };
        foreach (var report in Built(key, book, request))
        {
            Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
            for (var row = 0; row < report.Rows.Count; row++)
            {
                for (var column = 0; column < report.Columns.Count; column++)
                {
                    var (described, cell) = (report.Rows[row], report.Rows[row].Cells[column]);
                    if (cell.Units is null || described.KindIn(report.Columns[column]) != ColumnKind.Money)
                    {
                        continue;
                    }

                    var trace = Trace.Of(
                        report with { Rows = [described], OriginOf = (_, place) => report.OriginOf(row, place) }, book, described.Key,
                        report.Columns[column].Key, all: true);
                    Assert.True(trace.Checks.Single().Ok, $"{key} {described.Key} {report.Columns[column].Key}");
                    Assert.True(
                        said || trace.Checks.Single().Expected == new Amount(cell.Units.Value),
                        $"{key} {described.Key} {report.Columns[column].Key}");
                }
            }
        }
    }, iter: 300);

    [Fact]
    public void Open_items_are_what_is_left_of_each_document() =>
        Gen.Select(RandomBook.Gen1, GenRange, Gen.Bool).Sample((book, range, payable) =>
    {
        var report = Statements.Build("open-items", book, Asked(range) with
        {
            Choices = [Fields.FieldChoice.Parse(payable ? "side=payable" : "side=receivable", false)],
            Sort = SortOrder.Parse("due"),
        });
        Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
        var expected = SlowOpenItems.At(book, payable, range.To).Where(item => item.Open != 0).ToList();
        Assert.Equal(
            expected.Select(
                item =>
                    (Key: $"D{item.Document.Key}", item.Total, Settled: item.Total - item.Open, item.Open,
                        Math.Max(0, item.DaysLate(range.To)))).Order(),
            report.Rows.SkipLast(1).Select(
                row =>
                    (row.Key.Split('/')[0], Units(report, row, "total"), Units(report, row, "settled"), Units(report, row, "open"),
                        (int)Units(report, row, "days-late"))).Order());
        Assert.Equal(expected.Sum(item => item.Open), Units(report, report.Rows[^1], "open"));
        var dues = report.Rows.SkipLast(1).Select(row => Units(report, row, "due")).ToList();
        Assert.Equal(dues.Order(), dues);
    });

    [Fact]
    public void Balances_and_ledgers_are_the_control_accounts_contact_by_contact() =>
        Gen.Select(RandomBook.Gen1, GenRange, Gen.Bool).Sample((book, range, payable) =>
    {
        var balances = Statements.Build(payable ? "supplier-balances" : "customer-balances", book, Asked(range));
        var ledger = Statements.Build(payable ? "supplier-ledger" : "customer-ledger", book, Asked(range));
        var (sign, seen) = (payable ? -1 : 1, 0);
        foreach (var contact in Enumerable.Range(0, 4))
        {
            var items = SlowOpenItems.At(book, payable, range.To).Where(item => item.Contact == contact && item.Total != 0).ToList();
            var before = items.Where(item => item.Document.Date < range.From).Sum(item => item.Total);
            var (up, down) = (items.Where(item => item.Document.Date >= range.From && item.Total > 0).Sum(item => item.Total),
                -items.Where(item => item.Document.Date >= range.From && item.Total < 0).Sum(item => item.Total));
            var expected = (before, sign > 0 ? up : down, sign > 0 ? down : up, before + up - down);
            var id = SlowOpenItems.IdOf(contact);
            var row = balances.Rows.SingleOrDefault(known => known.Key == id);
            Assert.Equal(expected, row is null ? (0, 0, 0, 0) : (
                Units(balances, row, "opening"), Units(balances, row, "debit"), Units(balances, row, "credit"),
                Units(balances, row, "closing")));
            Assert.Equal(expected != (0, 0, 0, 0), row is not null);
            if (ledger.Rows.SingleOrDefault(known => known.Key == $"closing({id})") is { } closing)
            {
                seen++;
                Assert.Equal((before, up, down, before + up - down), (
                    Units(ledger, ledger.Rows.Single(known => known.Key == $"opening({id})"), "balance"), Units(ledger, closing, "charged"),
                    Units(ledger, closing, "settled"), Units(ledger, closing, "balance")));
                Assert.Equal(
                    items.Where(item => item.Document.Date >= range.From).Select(item => $"{id}/D{item.Document.Key}").Order(),
                    ledger.Rows.Where(known => known.Level == 1 && known.Key.StartsWith($"{id}/", StringComparison.Ordinal))
                        .Select(known => known.Key).Order());
            }
        }

        Assert.Equal(seen, ledger.Rows.Count(row => row.Kind == RowKind.Heading));

        // What was set against a document, wherever it is shown, is what its settlements say, with the document's own sign.
        foreach (var document in ledger.Rows.Where(row => row.Level == 1 && row.Key.Contains('/', StringComparison.Ordinal)))
        {
            var key = int.Parse(document.Key.Split("/D")[1]);
            var item = SlowOpenItems.At(book, payable, range.To).Where(known => known.Document.Key == key).ToList();
            Assert.Equal(item.Sum(known => known.Total - known.Open), ledger.Rows
                .Where(row => row.Level == 2 && row.Key.StartsWith($"{document.Key}@", StringComparison.Ordinal))
                .Sum(row => Units(ledger, row, "applied")));
        }
    });

    [Fact]
    public void A_statement_of_account_ends_with_what_is_open_class_by_class() =>
        Gen.Select(RandomBook.Gen1, GenRange).Sample((book, range) =>
    {
        var each = Built("statement-of-account", book, Asked(range)).ToList();
        var items = SlowOpenItems.At(book, payable: false, range.To).Where(item => item.Contact > 0).GroupBy(item => item.Contact)
            .Where(group => group.Any(item => item.Open != 0) || group.Any(item => item.Document.Date >= range.From && item.Total != 0))
            .OrderBy(group => group.Key).ToList();
        Assert.Equal(items.Select(group => RandomBook.Named[group.Key - 1].Name), each.Select(report => report.AddressedTo[0]));
        foreach (var (report, group) in each.Zip(items))
        {
            var rows = report.Rows.ToList();
            var foot = rows.FindIndex(row => row.Kind == RowKind.Heading);
            Assert.Equal(group.Sum(item => item.Open), Units(report, rows[foot - 1], "balance"));
            Assert.Equal(
                new[] { "current", "1-30", "31-60", "61-90", "over-90" }.Select(bucket => group
                    .Where(item => SlowOpenItems.BucketOf(item.DaysLate(range.To), [30, 60, 90]) == bucket).Sum(item => item.Open)),
                rows.Skip(foot + 1).Select(row => Units(report, row, "balance")));
        }
    });

    [Fact]
    public void Money_to_come_is_what_is_open_less_what_is_disputed_and_in_credit() =>
        Gen.Select(GenPromised, Gen.Int[0, 850], Gen.Bool).Sample((book, after, asUsual) =>
    {
        var day = Start.AddDays(after);
        var report = Statements.Build(
            "money-to-come", book, Asked(new DateRange(day, day)) with { Items = new OpenItemRequest { AsUsual = asUsual } });
        var rows = report.Rows.ToList();
        var money = SlowModel.Sum(book, cash: false, RandomBook.Bank, DateOnly.MinValue, day);
        Assert.Equal(money, Units(report, rows[0], "balance"));
        foreach (var (column, payable) in new[] { ("receipts", false), ("payments", true) })
        {
            var open = SlowOpenItems.At(book, payable, day).Where(item => item.Open != 0).ToList();
            var disputed = open.Where(item => item.Open > 0).GroupBy(item => item.Document.Key)
                .ToDictionary(
                    group => group.Key, group => Math.Min(
                        group.First().Open, Standing(book, group.Key, day, isDispute: true).Sum(promise => promise.Amount.MinorUnits)));
            var expected = open.GroupBy(item => item.Contact).Sum(group => Math.Max(
                0, group.Where(item => item.Open > 0).Sum(item => item.Open - disputed[item.Document.Key])
                    + group.Where(item => item.Open < 0).Sum(item => item.Open)));
            Assert.Equal(expected, rows.Where(row => row.Key is "total" or "later").Sum(row => Units(report, row, column)));
        }

        // Balances follow from what comes and goes, and the lowest is marked.
        var periods = rows.TakeWhile(row => row.Key != "total").ToList();
        foreach (var row in periods.Skip(1))
        {
            money += Units(report, row, "receipts") - Units(report, row, "payments");
            Assert.Equal(money, Units(report, row, "balance"));
        }

        Assert.Equal(money, Units(report, rows.Single(row => row.Key == "total"), "balance"));
        Assert.Equal(
            periods.MinBy(row => Units(report, row, "balance")), rows.Single(row => row.Cells[^1].Words == "lowest"),
            (left, right) => left!.Key == right!.Key);

        // With nothing in credit, a promise comes on its day.
        foreach (var promise in book.Promised.Where(
            promise => !promise.IsDispute && !asUsual && promise.StandsAt(day) && promise.By >= day))
        {
            var state = Statements.Build("commitments", book, Asked(new DateRange(day, day))).Rows.Single(
                row => row.Key == $"{promise.Number}");
            Assert.Contains(state.Cells[7].Words, new[] { "pending", "kept" });
        }
    });

    [Fact]
    public void Money_is_expected_by_its_promise_else_when_due_or_as_late_as_usual() =>
        Gen.Select(GenPromised, Gen.Int[0, 850], Gen.Bool, Gen.Bool).Sample((book, after, asUsual, byMonth) =>
    {
        var day = Start.AddDays(after);
        var report = Statements.Build("money-to-come", book, Asked(new DateRange(day, day)) with
        {
            Items = new OpenItemRequest { AsUsual = asUsual },
            By = Spread.Of(byMonth ? TimeUnit.Month : TimeUnit.Week),
        });
        foreach (var (column, payable) in new[] { ("receipts", false), ("payments", true) })
        {
            var expected = Expected(book, payable, day, asUsual);
            foreach (var row in report.Rows.Where(row => row.Key is not ("opening" or "total" or "disputed")))
            {
                var (from, to) = row.Key switch
                {
                    "overdue" => (DateOnly.MinValue, day),
                    "later" => (day.AddMonths(3).AddDays(1), DateOnly.MaxValue),
                    _ => RangeOf(row.Key, day),
                };
                Assert.Equal(expected.Where(one => one.Day >= from && one.Day <= to).Sum(one => one.Amount), Units(report, row, column));
            }
        }
    });

    [Fact]
    public void Bills_are_paid_in_the_order_in_which_they_are_due_while_money_lasts() =>
        Gen.Select(GenPromised, Gen.Int[0, 850], Gen.Long[0, 4_000_000]).Sample((book, after, money) =>
    {
        var day = Start.AddDays(after);
        var report = Statements.Build(
            "bills-to-pay", book, Asked(new DateRange(day, day)) with { Items = new OpenItemRequest { Money = new Amount(money) } });
        var items = SlowOpenItems.At(book, payable: true, day).Where(item => item.Open != 0).ToList();
        var bills = items.Where(item => item.Open > 0).OrderBy(item => item.AgedFrom).ThenBy(item => item.Document.Date)
            .ThenBy(item => item.Document.Key).ToList();
        var rows = report.Rows.Skip(1).SkipLast(1).ToList();
        Assert.Equal(bills.Select(bill => $"{bill.ContactId}/D{bill.Document.Key}"), rows.Select(row => row.Key));
        foreach (var (bill, row) in bills.Zip(rows))
        {
            var disputed = Math.Min(
                bill.Open, Standing(book, bill.Document.Key, day, isDispute: true).Sum(promise => promise.Amount.MinorUnits));
            Assert.Equal((bill.Open, disputed), (Units(report, row, "open"), Units(report, row, "disputed")));
            Assert.Equal(bill.Open, Units(report, row, "credit") + Units(report, row, "disputed") + Units(report, row, "to-pay"));
            var before = money;
            money -= Units(report, row, "to-pay");
            Assert.Equal(money, Units(report, row, "left"));
            Assert.Equal(
                Units(report, row, "to-pay") == 0 ? null : money >= 0 ? "yes" : before > 0 ? "in part" : "no", row.Cells[^1].Words);
        }

        // A supplier's bills take what is in credit there, and no more than there are bills.
        foreach (var contact in items.GroupBy(item => item.ContactId))
        {
            var credit = -contact.Where(item => item.Open < 0).Sum(item => item.Open);
            var own = rows.Where(row => row.Key.StartsWith($"{contact.Key}/", StringComparison.Ordinal)).ToList();
            Assert.Equal(
                Math.Min(credit, own.Sum(row => Units(report, row, "open") - Units(report, row, "disputed"))),
                own.Sum(row => Units(report, row, "credit")));
        }
    });

    [Fact]
    public void Lists_of_open_items_are_sorted_chosen_and_cut_as_asked() => Gen.Select(
        RandomBook.Gen1, Choose.One("contact", "-due", "open", "-days-late,total", "kind,-date"), Gen.Int[1, 5], Gen.Int[0, 60])
            .Sample((book, sort, top, late) =>
    {
        var day = new DateOnly(2026, 1, 15);
        var asked = Asked(new DateRange(day, day)) with
        {
            Sort = SortOrder.Parse(sort),
            Choices = [Fields.FieldChoice.Parse("side=receivable", false), Fields.FieldChoice.Parse($"days-late={late}/", false)],
        };
        var all = Statements.Build("open-items", book, asked);
        var cut = Statements.Build("open-items", book, asked with { Top = top });
        Assert.Equal(
            SlowOpenItems.At(book, payable: false, day).Where(item => item.Open != 0 && Math.Max(0, item.DaysLate(day)) >= late)
                .Select(item => $"D{item.Document.Key}").Order(),
            all.Rows.SkipLast(1).Select(row => row.Key.Split('/')[0]).Order());
        var rows = all.Rows.SkipLast(1).ToList();
        foreach (var (above, below) in rows.Zip(rows.Skip(1)))
        {
            var order = asked.Sort.Select(key => (key.Downwards ? -1 : 1) * Compare(CellOf(above, key.Name), CellOf(below, key.Name)))
                .FirstOrDefault(compared => compared != 0);
            Assert.True(order <= 0, $"{above.Key} before {below.Key} by {sort}");
        }

        Assert.Equal(rows.Take(top).Select(row => row.Key), cut.Rows.Select(row => row.Key).Where(key => key is not ("rest" or "total")));
        Assert.Equal(rows.Count > top, cut.Rows.Any(row => row.Key == "rest"));
        Assert.Equal(all.Rows[^1].Cells, cut.Rows[^1].Cells);

        Cell CellOf(ReportRow row, string column) => row.Cells[all.Columns.ToList().FindIndex(known => known.Key == column)];
        static int Compare(Cell one, Cell other) => one.Units != other.Units ? Nullable.Compare(one.Units, other.Units)
            : string.CompareOrdinal(one.Words?.ToUpperInvariant(), other.Words?.ToUpperInvariant());
    });

    [Fact]
    public void Promises_are_kept_or_broken_by_what_was_settled_in_time() =>
        Gen.Select(GenPromised, Gen.Int[0, 1100]).Sample((book, after) =>
    {
        var day = Start.AddDays(after);
        var report = Statements.Build("commitments", book, Asked(new DateRange(day, day)));
        foreach (var promise in book.Promised.Where(promise => promise.Noted <= day))
        {
            var row = report.Rows.Single(known => known.Key == $"{promise.Number}");
            var last = promise.By < day ? promise.By!.Value : day;
            long OpenOn(DateOnly on) => new[] { false, true }.SelectMany(payable => SlowOpenItems.At(book, payable, on))
                .First(item => item.Document.Key == promise.Document.Value && item.Total > 0).Open;
            var paid = Math.Min(promise.Amount.MinorUnits, promise.Open.MinorUnits - OpenOn(last));
            var expected = promise.Withdrawn <= day ? "withdrawn"
                : promise.IsDispute ? (OpenOn(day) == 0 ? "settled" : "disputed")
                : paid == promise.Amount.MinorUnits ? "kept" : promise.By < day ? "broken" : "pending";
            Assert.Equal(expected, row.Cells[7].Words);
            Assert.Equal(
                expected is "pending" ? Math.Min(promise.Amount.MinorUnits - paid, OpenOn(day)) : expected is "disputed"
                    ? Math.Min(promise.Amount.MinorUnits, OpenOn(day)) : 0, Units(report, row, "standing"));
        }

        Assert.Equal(
            book.Promised.Count(promise => promise.Noted <= day), report.Rows.Count(row => row.Kind == RowKind.Record));
    });

    [Fact]
    public void Collection_measures_follow_from_documents_and_settlements() => Gen.Select(RandomBook.Gen1, GenRange).Sample((book, range) =>
    {
        var report = Statements.Build("collection", book, Asked(range));
        var items = SlowOpenItems.At(book, payable: false, range.To);
        var owed = items.Where(item => item.Total > 0).ToList();
        var applied = owed.SelectMany(item => book.Settlements
            .Where(s => (s.From == item.Document.Key || s.To == item.Document.Key) && s.Account == item.Account)
            .Select(s => (item, Day: book.Effective(s), s.Amount)).Where(s => s.Day >= range.From && s.Day <= range.To)).ToList();
        decimal settled = applied.Sum(s => s.Amount), charged = owed.Where(item => item.Document.Date >= range.From)
            .Sum(item => item.Total);
        decimal open = items.Sum(item => item.Open), overdue = owed.Where(item => item.AgedFrom < range.To).Sum(item => item.Open);
        long? Rounded(decimal? value) => value is { } number ? (long)Math.Round(number * 10_000, MidpointRounding.ToEven) : null;
        Assert.Equal(
            [
                (long)charged, (long)settled, (long)open, (long)overdue, Rounded(open == 0 ? null : 100 * overdue / open),
                Rounded(charged <= 0 ? null : open * range.Days / charged),
                Rounded(
                    settled == 0 ? null : applied.Sum(
                        s => (decimal)s.Amount * (s.Day.DayNumber - s.item.Document.Date.DayNumber)) / settled),
                Rounded(
                    settled == 0 ? null : applied.Sum(s => (decimal)s.Amount * (s.Day.DayNumber - s.item.AgedFrom.DayNumber)) / settled),
            ],
            report.Rows.Select(row => row.Cells[0].Units));
        var byContact = Statements.Build("days-to-pay", book, Asked(range));
        Assert.Equal(
            report.Rows.Take(4).Select(row => row.Cells[0].Units), byContact.Rows[^1].Cells.Take(4).Select(cell => cell.Units));
        Assert.Equal(report.Rows[6].Cells[0], byContact.Rows[^1].Cells[^2]);
    });

    // What is open, cut into what is disputed, what is promised and the rest; then credits taken off what comes first.
    private static List<(DateOnly Day, long Amount)> Expected(RandomBook book, bool payable, DateOnly day, bool asUsual)
    {
        var items = SlowOpenItems.At(book, payable, day).Where(item => item.Open != 0).ToList();
        var (expected, place) = (new List<(int Contact, DateOnly Day, int Order, long Amount)>(), 0);
        var promised = new HashSet<int>();
        foreach (var item in items.Where(item => item.Open > 0).OrderBy(item => item.Document.Date).ThenBy(item => item.Document.Key))
        {
            var left = item.Open;
            var promises = promised.Add(item.Document.Key)
                ? book.Promised.Where(promise => promise.Document.Value == item.Document.Key && promise.StandsAt(day)).ToList() : [];
            left -= Math.Min(
                left, promises.Where(promise => promise.IsDispute).Sum(promise => Math.Min(promise.Amount.MinorUnits, item.Open)));
            foreach (var promise in promises.Where(promise => !promise.IsDispute && promise.By >= day))
            {
                var paid = Math.Min(promise.Amount.MinorUnits, promise.Open.MinorUnits - item.Open);
                var part = Math.Min(left, promise.Amount.MinorUnits - paid);
                expected.Add((item.Contact, promise.By!.Value, place, part));
                left -= part;
            }

            expected.Add((item.Contact, item.AgedFrom.AddDays(asUsual ? UsuallyLate(book, payable, item.Contact, day) : 0), place++, left));
        }

        var credits = items.Where(item => item.Open < 0).GroupBy(item => item.Contact)
            .ToDictionary(group => group.Key, group => -group.Sum(item => item.Open));
        var rest = new List<(DateOnly, long)>();
        foreach (var (contact, on, _, amount) in expected.OrderBy(one => one.Day).ThenBy(one => one.Order))
        {
            var used = Math.Min(amount, credits.GetValueOrDefault(contact));
            credits[contact] = credits.GetValueOrDefault(contact) - used;
            rest.Add((on, amount - used));
        }

        return rest;
    }

    private static int UsuallyLate(RandomBook book, bool payable, int contact, DateOnly day)
    {
        var settled = (from item in SlowOpenItems.At(book, payable, day)
                       where item.Total > 0 && item.Contact == contact
                       from s in book.Settlements
                       where (s.From == item.Document.Key || s.To == item.Document.Key) && s.Account == item.Account
                           && book.Effective(s) <= day
                       select (s.Amount, Late: book.Effective(s).DayNumber - item.AgedFrom.DayNumber)).ToList();
        return settled.Count == 0 ? 0 : Math.Max(0, (int)Math.Round(
            Math.Round(settled.Sum(s => (decimal)s.Amount * s.Late) * 10_000 / settled.Sum(s => s.Amount)) / 10_000,
            MidpointRounding.ToEven));
    }

    // The period that a key names, cut at the day and at its third month after.
    private static (DateOnly From, DateOnly To) RangeOf(string key, DateOnly day)
    {
        var range = PeriodGrammar.Parse(key, day, Statements.March).Within(new DateRange(day, day)).Range;
        var (first, last) = (day.AddDays(1), day.AddMonths(3));
        return (range.From < first ? first : range.From, range.To > last ? last : range.To);
    }

    private static IEnumerable<Promise> Standing(RandomBook book, int document, DateOnly day, bool isDispute) =>
        book.Promised.Where(promise => promise.Document.Value == document && promise.IsDispute == isDispute && promise.StandsAt(day));

    private static Promise? MakePromise(
        RandomBook book, int number, (int Document, int Noted, int Days, int Percent, bool IsDispute, int Withdrawn) drawn)
    {
        var document = book.Documents[drawn.Document];
        var noted = document.Date.AddDays(drawn.Noted);
        var open = new[] { false, true }.SelectMany(payable => SlowOpenItems.At(book, payable, noted))
            .Where(item => item.Document == document && item.Total > 0).Select(item => item.Open).FirstOrDefault();
        return open <= 0 ? null : new Promise(
            number, drawn.IsDispute, new(document.Key), new Amount(Math.Max(1, open * drawn.Percent / 100)),
            drawn.IsDispute ? null : noted.AddDays(drawn.Days), new Amount(open), noted,
            drawn.Withdrawn == 0 ? noted.AddDays(drawn.Days / 2) : null, "");
    }

    private static ReportRequest Asked(DateRange range) => new() { Period = new OpenPeriod(range.From, range.To) };

    private static IEnumerable<Report> Built(string key, RandomBook book, ReportRequest request)
    {
        var definition = StandardReports.Find(key)!;
        return definition.Each is { } each
            ? each(Statements.Context(book), request).Select(one => definition.Build(Statements.Context(book), one.Request))
            : [definition.Build(Statements.Context(book), request)];
    }

    private static long Units(Report report, ReportRow row, string column) =>
        row.Cells[report.Columns.ToList().FindIndex(known => known.Key == column)].Units ?? 0;
}
