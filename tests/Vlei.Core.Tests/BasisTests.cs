using CsCheck;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Tests;

/// <summary>What follows from the rules of the two bases, on random books.</summary>
public class BasisTests
{
    private static readonly DateOnly End = new(2030, 1, 1);

    private static bool IsProfit(int account) =>
        account is RandomBook.Sales or RandomBook.Fees or RandomBook.Cost or RandomBook.Rent or RandomBook.Fuel or RandomBook.Interest
            or RandomBook.Loss;

    [Fact]
    public void The_items_of_a_document_are_the_sums_of_its_lines_however_many_contacts_it_has() => Gen.Select(
        Gen.Int[1, 3], Gen.Int[0, 25], Gen.Long[-900, 900]).Array[0, 60].Sample(drawn =>
    {
        var lines = drawn.Select((line, place) => new Line(
            place + 1, new AccountKey(line.Item1), new Amount(line.Item3), new ContactKey(line.Item2))).ToList();
        var items = ControlItem.Of(lines, account => account.Value != 3, new ControlItem(new(7), default, default, Amount.Zero));
        Assert.Equal(
            lines.Where(line => line.Account.Value != 3).GroupBy(line => (line.Account, line.Contact))
                .Select(item => (item.Key.Account, item.Key.Contact, item.Sum(line => line.Amount.MinorUnits))),
            items.Select(item => (item.Account, item.Contact, item.Total.MinorUnits)));
        Assert.All(items, item => Assert.Equal(7, item.Document.Value));
    });

    [Fact]
    public void Debits_equal_credits_on_every_day_in_both_bases() => RandomBook.Gen1.Sample(book =>
        Enum.GetValues<AccountingBasis>().All(basis =>
            book.Postings(basis).GroupBy(p => (p.Day, p.Document)).All(day => day.Sum(p => p.Line.Amount.MinorUnits) == 0)));

    [Fact]
    public void Money_accounts_are_the_same_in_both_bases_on_every_day() => RandomBook.Gen1.Sample(book =>
        book.Postings(AccountingBasis.Accrual).Concat(book.Postings(AccountingBasis.Cash)).Select(p => p.Day).Distinct().All(day =>
            book.Balance(AccountingBasis.Accrual, day, a => a == RandomBook.Bank) == book.Balance(
                AccountingBasis.Cash, day, a => a == RandomBook.Bank)));

    [Fact]
    public void With_everything_settled_all_time_profit_is_the_same_in_both_bases() => RandomBook.Gen1.Sample(book =>
    {
        var settled = book.FullySettled();
        Assert.Equal(
            settled.Balance(AccountingBasis.Accrual, End, IsProfit),
            settled.Balance(AccountingBasis.Cash, End, IsProfit));
    });

    [Fact]
    public void A_fully_settled_document_gives_exactly_its_own_lines() => RandomBook.Gen1.Sample(book =>
    {
        var settled = book.FullySettled();
        var whole = settled.Documents.Where(d => RandomBook.ControlAccounts(d).Select(account => settled.Control(d, account))
            .All(control => Math.Abs(control.Total) == control.Settled));
        foreach (var document in whole)
        {
            var released = settled.Postings(AccountingBasis.Cash)
                .Where(p => p.Document.Value == document.Key
                    && !RandomBook.IsControl(p.Line.Account.Value))
                .GroupBy(p => p.Line.Number).ToDictionary(
                    line => line.Key, line => line.Sum(p => p.Line.Amount.MinorUnits));
            var others = document.Lines.Where(l => !RandomBook.IsControl(l.Account.Value));
            foreach (var line in others)
            {
                Assert.Equal(line.Amount.MinorUnits, released.GetValueOrDefault(line.Number));
            }
        }
    });

    [Fact]
    public void Nothing_of_a_document_counts_before_money_or_credit_is_set_against_it() =>
        RandomBook.Gen1.Sample(book =>
    {
        var bare = new RandomBook(book.Documents, []);
        foreach (var document in bare.Documents.Where(d => d.Lines.All(l => l.Account.Value != RandomBook.Bank)
            && d.Lines.Count(l => RandomBook.IsControl(l.Account.Value)) == 1
            && d.Lines.Where(l => RandomBook.IsControl(l.Account.Value)).Sum(l => l.Amount.MinorUnits) != 0))
        {
            Assert.DoesNotContain(bare.Postings(AccountingBasis.Cash), p => p.Document.Value == document.Key);
        }
    });

    [Fact]
    public void A_control_account_holds_only_what_is_not_applied_and_what_immediate_documents_left_there() =>
        RandomBook.Gen1.Sample(book =>
    {
        // Whatever is deferred gives to its control account exactly what the other side of its settlements took.
        var unapplied = book.Documents.Where(d => !Deferred(d)).SelectMany(d => d.Lines)
            .Where(l => l.Account.Value == RandomBook.Receivable).Sum(l => l.Amount.MinorUnits);
        var applied = book.Settlements.Where(s => s.Account == RandomBook.Receivable)
            .Sum(s => Side(book, s.From, s.Amount) + Side(book, s.To, s.Amount));
        Assert.Equal(unapplied + applied, book.Balance(AccountingBasis.Cash, End, a => a == RandomBook.Receivable));
    });

    [Fact]
    public void Parts_add_up_to_the_share_whatever_was_cut_before() => Gen.Select(
        Gen.Long[-10_000_000, 10_000_000].Array[1, 20], Gen.Int[0, 1000].Array[1, 6]).Sample((parts, shares) =>
    {
        var whole = parts.Sum();
        if (whole == 0)
        {
            return;
        }

        var amounts = parts.Select(part => new Amount(part)).ToArray();
        var cut = new Amount[parts.Length];
        foreach (var share in shares.Select(thousandths => whole * thousandths / 1000))
        {
            Cutting.Cut(amounts, new Amount(share), new Amount(whole), cut);
            Assert.Equal(share, cut.Sum(part => part.MinorUnits));
        }

        Cutting.Cut(amounts, new Amount(whole), new Amount(whole), cut);
        Assert.Equal(amounts, cut);
    });

    [Fact]
    public void A_bad_debt_set_against_its_invoice_nets_to_no_profit()
    {
        var (invoice, writtenOff) = (new DateOnly(2026, 1, 5), new DateOnly(2026, 9, 1));
        var book = new RandomBook(
        [
            new BookDocument(
                1, invoice,
                [new Line(1, new(RandomBook.Receivable), new Amount(11_500), new(7)),
                    new Line(2, new(RandomBook.Sales), new Amount(-10_000)),
                    new Line(3, new(RandomBook.Tax), new Amount(-1_500))]),
            new BookDocument(
                2, writtenOff,
                [new Line(1, new(RandomBook.Loss), new Amount(10_000)), new Line(2, new(RandomBook.Tax), new Amount(1_500)),
                    new Line(3, new(RandomBook.Receivable), new Amount(-11_500), new(7))]),
        ],
        [new BookSettlement(1, 1, 2, RandomBook.Receivable, 11_500, null)]);

        Assert.All(book.Postings(AccountingBasis.Cash), posting => Assert.Equal(writtenOff, posting.Day));
        Assert.Equal(0, book.Balance(AccountingBasis.Cash, End, IsProfit));
        Assert.Equal(0, book.Balance(AccountingBasis.Cash, End, a => a == RandomBook.Tax));
    }

    private static bool Deferred(BookDocument document)
    {
        var control = document.Lines.Where(l => RandomBook.IsControl(l.Account.Value)).ToList();
        var money = document.Lines.Where(l => l.Account.Value == RandomBook.Bank).ToList();
        var (c, m) = (control.Sum(l => l.Amount.MinorUnits), money.Sum(l => l.Amount.MinorUnits));
        return control.Count == 1 && c != 0 && document.Lines.Length > control.Count + money.Count
            && (money.Count == 0 || Math.Sign(m) == Math.Sign(c));
    }

    private static long Side(RandomBook book, int key, long amount)
    {
        var document = book.Documents.First(d => d.Key == key);
        return Deferred(document) ? Math.Sign(book.Control(document, RandomBook.Receivable).Total) * amount : 0;
    }
}
