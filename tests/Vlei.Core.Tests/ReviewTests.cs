using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;
using Vlei.Core.Review;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>The review of random books, held against the slow one; and what marks do to it.</summary>
public class ReviewTests
{
    private static readonly DateRange Days = new(new DateOnly(2025, 1, 1), new DateOnly(2025, 12, 31));

    // The documents of a book several times over, so that contacts have habits and there is a past.
    private static readonly Gen<RandomBook> GenBook = Gen.Select(RandomBook.Gen1, Gen.Int[1, 6], Gen.Int[1, 60])
        .Select((book, times, step) => new RandomBook(
    [
        .. from time in Enumerable.Range(0, times)
           from document in book.Documents
           select document with { Key = document.Key + (time * 100), Date = document.Date.AddDays(time * step) },
    ],
    book.Settlements));

    private static List<Finding> Found(RandomBook book) =>
        [.. FindingsTable.Find(TableReport.ContextOf(FindingsTable.Definition, Statements.Context(book), new ReportRequest()), Days)];

    private static IEnumerable<string> Keys(IEnumerable<Finding> found, Func<string, bool> isMeant) =>
        found.Select(finding => finding.Key).Where(isMeant).Order(StringComparer.Ordinal);

    [Fact]
    public void What_is_found_is_what_the_guide_says() => GenBook.Sample(book =>
    {
        var found = Found(book);
        void Same(IEnumerable<string> expected, Func<string, bool> isMeant) =>
            Assert.Equal(expected.Order(StringComparer.Ordinal), Keys(found, isMeant));
        bool Is(string key, string kind, int parts) => key.StartsWith($"{kind}/", StringComparison.Ordinal)
            && key.Split('/').Length == parts;
        Same(SlowReview.Duplicates(book, Days.From, Days.To), key => Is(key, "duplicate", 2));
        Same(SlowReview.BelowZero(book, Days.From, Days.To), key => Is(key, "below-zero", 3));
        Same(SlowReview.LargeForContact(book, Days.From, Days.To), key => Is(key, "unusual-amount", 2));
        Same(SlowReview.LargeForAccount(book, Days.From, Days.To), key => Is(key, "unusual-amount", 3));
        Same(SlowReview.FirstUses(book, Days.From, Days.To), key => Is(key, "new-account", 3));
        Same(SlowReview.Unapplied(book, Days.To), key => Is(key, "unapplied", 3));
        Same(SlowReview.CreditBalances(book, Days.To), key => Is(key, "credit-balance", 3));
    }, iter: 150);

    [Fact]
    public void A_mark_counts_as_long_as_the_records_are_the_same() => Gen.Select(GenBook, Gen.Int[0, 100]).Sample((book, which) =>
    {
        var found = Found(book);
        if (found.Count == 0)
        {
            return;
        }

        var chosen = found[which % found.Count];
        var marked = book with { Marks = [new FindingMark(chosen.Key, chosen.Fingerprint, which % 2 == 0, "why", "me", Days.To)] };
        Assert.Equal(1, Marked(marked));
        Assert.Equal(0, Marked(book with { Marks = [marked.Marks[0] with { Fingerprint = chosen.Fingerprint + 1 }] }));

        // The order in which records came says nothing of what they are.
        Assert.Equal(
            found.Select(finding => (finding.Key, finding.Fingerprint)).Order(),
            Found(book with { Documents = [.. book.Documents.Reverse()] }).Select(finding => (finding.Key, finding.Fingerprint)).Order());

        int Marked(RandomBook of) => Statements.Build("findings", of, new ReportRequest
        {
            Period = new OpenPeriod(Days), Where = [$"finding = '{chosen.Key}' and status <> 'new' and note = 'why'"],
            Columns = [ColumnText.Parse("columns", "reason")],
        }).Rows.Count;
    }, iter: 100);
}
