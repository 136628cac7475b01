using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>That options mean the same wherever they are typed, held against what they would come to alone.</summary>
public class GrammarTests
{
    private static readonly OpenPeriod All = new(null, null);

    private static readonly string[] OfPostings = ["profit-loss", "trial-balance", "balance-sheet", "cash-flow", "equity-movements"];

    private static Report Build(RandomBook book, string report, ReportRequest request) =>
        Statements.Build(report, book, request with { Period = request.Period ?? All });

    private static Dictionary<(string Row, string Column), long?> Figures(Report report) => report.Rows
        .Where(row => row.Kind != RowKind.Heading)
        .SelectMany(row => report.Columns.Select((column, place) => ((row.Key, column.Key), row.Cells[place].Units)))
        .ToDictionary(pair => pair.Item1, pair => pair.Units);

    [Fact]
    public void A_predicate_takes_in_statements_what_a_choice_takes() => Gen.Select(
        RandomBook.Gen1, Choose.One([.. OfPostings, "general-ledger"]), Gen.Enum<AccountingBasis>(),
        Choose.One(
            ("kind=invoice", "kind = 'invoice'"), ("contact=A-1", "contact = 'A-1'"), ("account=4000", "account = '4000'"),
            ("kind=invoice,bill", "kind in ('invoice', 'bill')"), ("amount=/-1", "amount <= -1"))).Sample((book, name, basis, said) =>
        {
            var chosen = Build(book, name, new ReportRequest { Basis = basis, Choices = [FieldChoice.Parse(said.Item1, isExcept: false)] });
            var asked = Build(book, name, new ReportRequest { Basis = basis, Where = [said.Item2] });
            Assert.Equal(Figures(chosen), Figures(asked));
        });

    [Fact]
    public void Both_bases_are_each_as_it_is_alone_and_documents_make_the_difference() => Gen.Select(
        RandomBook.Gen1, Choose.One("profit-loss", "trial-balance", "balance-sheet"), Gen.Bool).Sample((book, name, byQuarter) =>
    {
        var request = new ReportRequest { By = byQuarter ? Spread.Of(TimeUnit.Quarter) : null };
        var both = Build(book, name, request with { HasBothBases = true });
        Assert.All(both.Checks, check => Assert.True(check.Ok, check.Name));
        foreach (var basis in Enum.GetValues<AccountingBasis>())
        {
            var word = AccountingBases.NameOf(basis);
            var alone = Figures(Build(book, name, request with { Basis = basis }));
            var accounts = both.Rows.Where(row => row.Kind == RowKind.Account).Select(row => row.Key).ToHashSet();
            foreach (var ((row, column), units) in Figures(both).Where(figure => accounts.Contains(figure.Key.Row)
                && figure.Key.Column.Contains($"{word}(") && figure.Value != 0))
            {
                var key = column.Replace($"{word}(", "", StringComparison.Ordinal);
                key = key[..^(key.Length - key.TrimEnd(')').Length > key.Count(letter => letter == '(') ? 1 : 0)];
                Assert.Equal(
                    units, alone.GetValueOrDefault((row, key)) ?? alone.FirstOrDefault(known => known.Key.Row == row
                    && key.StartsWith($"{known.Key.Column}(", StringComparison.Ordinal)).Value);
            }
        }

        if (name == "profit-loss" && !byQuarter)
        {
            var rows = Build(book, "differences", new ReportRequest { Summary = true, List = new ListRequest { GroupBy = ["account"] } });
            foreach (var row in both.Rows.Where(row => row.Kind == RowKind.Account && row.Key != RandomBook.CodeOf(RandomBook.Rent)))
            {
                var made = rows.Rows.FirstOrDefault(known => known.Key == row.Key)?.Cells[^1].Units ?? 0;
                Assert.Equal((row.Key, row.Cells[0].Units - row.Cells[1].Units), (row.Key, made));
            }
        }
    });

    [Fact]
    public void Columns_by_any_field_add_up() => Gen.Select(
        RandomBook.Gen1, Choose.One("profit-loss", "balance-sheet"),
        Choose.One("kind", "account.type", "contact", "document.contact", "date.quarter", "document.date.month", "tag.place"))
        .Sample((book, name, field) =>
    {
        var whole = Figures(Build(book, name, new ReportRequest()));
        var spread = Build(book, name, new ReportRequest { By = Spread.Of(field) });
        Assert.All(spread.Checks, check => Assert.True(check.Ok, check.Name));
        foreach (var row in spread.Rows.Where(row => row.Kind != RowKind.Heading && row.InsteadOfMoney is null))
        {
            Assert.Equal(row.Cells[^1].Units, row.Cells.SkipLast(1).Sum(cell => cell.Units ?? 0));
            Assert.Equal(whole.First(figure => figure.Key.Row == row.Key).Value, row.Cells[^1].Units);
        }
    });

    [Fact]
    public void What_is_shown_has_the_figures_that_are_asked_for_and_adds_up_to_its_total() => Gen.Select(
        RandomBook.Gen1, Choose.One<string[]>(["account"], ["contact", "kind"], []), Gen.Int[-5000, 5000], Gen.Int[1, 4], Gen.Bool)
        .Sample((book, groups, least, top, hasTop) =>
    {
        var request = new ReportRequest
        {
            Columns = [ColumnText.Parse("columns", "natural,count")], Summary = groups.Length > 0,
            List = new ListRequest { GroupBy = groups },
        };
        var (all, some) = (Build(book, "postings", request), Build(book, "postings", request with
        {
            Having = [$"natural >= {least}.00"],
            Top = hasTop ? top : null,
        }));
        bool IsRow(ReportRow row) => row.Kind is RowKind.Group or RowKind.Record && (groups.Length == 0 || row.Level == groups.Length - 1);
        var expected = all.Rows.Where(row => IsRow(row) && row.Cells[0].Units >= least * 100).ToList();
        Assert.Equal(expected.Sum(row => row.Cells[0].Units), some.Rows[^1].Cells[0].Units ?? 0);
        if (!hasTop)
        {
            Assert.Equal(expected.Select(row => (row.Key, row.Cells[0])), some.Rows.Where(IsRow).Select(row => (row.Key, row.Cells[0])));
        }

        // What is put together, or taken out, is traced like anything else.
        foreach (var row in some.Rows.Where(row => row.Key is "total" or "rest" && row.Cells[0].Units is not null))
        {
            Assert.True(Trace.Of(some, book, row.Key, "natural", all: false).Checks.Single().Ok, row.Key);
        }
    });

    [Fact]
    public void Columns_are_chosen_named_and_put_in_order_without_a_change_of_their_figures() => Gen.Select(
        RandomBook.Gen1, Choose.One("receivables-aging", "trial-balance", "customer-balances", "days-to-pay"), Gen.Int[0, 1000],
        Gen.Bool).Sample((book, name, seed, isLeftOut) =>
    {
        var whole = Build(book, name, new ReportRequest());
        var (one, other) = (whole.Columns[seed % whole.Columns.Count], whole.Columns[seed / 7 % whole.Columns.Count]);
        var list = isLeftOut ? $"-{one.Key}" : one == other ? one.Heading : $"{other.Key}:Ours,{one.Heading.ToUpperInvariant()}";
        var request = new ReportRequest { Columns = [ColumnText.Parse("columns", list)], Period = All };
        var some = StandardReports.Find(name)!.Make(Statements.Context(book), request);
        Assert.Equal(
            isLeftOut ? whole.Columns.Select(column => column.Key).Where(key => key != one.Key)
                : one == other ? [one.Key] : [other.Key, one.Key], some.Columns.Select(column => column.Key));
        var figures = Figures(whole);
        Assert.All(Figures(some), figure => Assert.Equal(figures[figure.Key], figure.Value));
        Assert.True(isLeftOut || one == other || some.Columns[0].Heading == "Ours");
    });

    [Fact]
    public void Debits_and_credits_of_contacts_are_those_of_the_control_accounts() =>
        Gen.Select(RandomBook.Gen1, Gen.Int[0, 700], Gen.Int[0, 200]).Sample((book, start, days) =>
    {
        var from = new DateOnly(2024, 1, 1).AddDays(start);
        var request = new ReportRequest { Period = new OpenPeriod(from, from.AddDays(days)) };
        var (contacts, accounts) = (Build(book, "customer-balances", request), Build(book, "trial-balance", request));
        long? Sum(int column) => accounts.Rows.Where(row => row.Key is "1100" or "1150").Sum(row => row.Cells[column].Units);
        Assert.Equal((Sum(1), Sum(2)), (contacts.Rows[^1].Cells[1].Units, contacts.Rows[^1].Cells[2].Units));
    });

    [Theory]
    [InlineData("c-1", "c-1")]
    [InlineData("C-1", "C-1")]
    [InlineData("c-2", "C-2")]
    [InlineData("17/18", "17/18")]
    [InlineData("17/19", "17 18 17/18")]
    [InlineData("\"17/19\"", "")]
    [InlineData("\"a \"\"quoted\"\" one\"", "a \"quoted\" one")]
    public void What_is_there_in_these_letters_is_meant(string list, string expected)
    {
        FieldValue[] values =
            [new("none", "none"), .. new[] { "c-1", "C-1", "C-2", "17", "18", "17/18", "a \"quoted\" one" }.Select(
                id => new FieldValue(id, id))];
        var meant = ValueList.Parse(list).NamedOf("contact", values, mayNameNone: true);
        Assert.Equal(expected, string.Join(' ', values.Where((_, place) => meant[place]).Select(value => value.Id)));
    }

    [Fact]
    public void One_payment_keeps_one_of_two_promises() =>
        Gen.Select(RandomBook.Gen1, Gen.Int[0, 900], Gen.Int[1, 99]).Sample((book, after, part) =>
    {
        var day = new DateOnly(2024, 1, 1).AddDays(after);
        var history = ControlHistory.Of(book, AccountType.Receivable, day.AddDays(200));
        var (open, later) = (history.OpenAt(day), history.OpenAt(day.AddDays(100)));
        foreach (var item in Enumerable.Range(0, history.Count).Where(item => open[item].Sign > 0))
        {
            var amount = new Amount(Math.Max(1, open[item].MinorUnits * part / 100));
            Promise Of(int number, int days) => new(
                number, false, history[item].Document, amount, day.AddDays(days), open[item], day, null, "");
            var promised = new PromisedItems(book with { Promised = [Of(1, 50), Of(2, 100)] }, history, day.AddDays(100)).All
                .Where(known => known.Item == item).ToList();
            Assert.True(promised.Aggregate(Amount.Zero, (sum, one) => sum + one.Paid).MinorUnits
                <= (open[item] - later[item]).MinorUnits);
        }
    });
}
