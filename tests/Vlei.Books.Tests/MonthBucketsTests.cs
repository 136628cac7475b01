using CsCheck;
using Vlei.Books.Columns;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books.Tests;

/// <summary>Months come out the same, whatever order their rows come in, and however few of them are held at once.</summary>
public sealed class MonthBucketsTests
{
    private static readonly DateOnly Start = new(2024, 1, 1);

    [Fact]
    public void Rows_of_scattered_months_come_out_the_same_however_few_are_held() => Gen.Select(
        Gen.Int[0, 700].Array[0, 300], Gen.Int[1, 60], Gen.Int[1, 5]).Sample((days, most, imports) =>
    {
        List<ControlItem> rows = [.. days.Select((day, place) => new ControlItem(
            new DocumentKey(place + 1), new AccountKey(1 + (day % 3)), new ContactKey(day % 7), new Amount((day * 31) - place),
            Start.AddDays(day), Start.AddDays(day + (place % 60)), day % 5))];
        using var store = new MemoryStore().Write();
        var months = new WritableDerivedMonths(store);
        foreach (var some in rows.Chunk((rows.Count / imports) + 1))
        {
            var buckets = new MonthBuckets<ControlItem>(months, DerivedKind.Items, DerivedColumns.Items, stale: [], most);
            Array.ForEach(some, row => buckets.Add([row]));
            buckets.Complete();
        }

        var expected = rows.OrderBy(row => row.Date).ThenBy(row => row.Document).GroupBy(row => YearMonth.Of(row.Date)).ToList();
        Assert.Equal(expected.Select(month => month.Key), months.Months(DerivedKind.Items));
        Assert.All(expected, month => Assert.Equal(month, months.Read(DerivedKind.Items, month.Key, DerivedColumns.Items)));

        // Rows of some accounts are those of all that are on them, behind what there was.
        bool[] wanted = [false, true, false, true];
        Assert.All(expected, month =>
        {
            var some = new List<ControlItem> { rows[0] };
            months.Read(DerivedKind.Items, month.Key, DerivedColumns.Items, some, wanted);
            Assert.Equal(month.Where(row => wanted[row.Account.Value]).Prepend(rows[0]), some);
        });

        // As columns they are the same, of some accounts or of all, up to a day.
        var until = Start.AddDays(most * 12);
        foreach (var accounts in new[] { null, wanted })
        {
            var columns = new ItemMonths(
                months, [.. months.Months(DerivedKind.Items).Where(month => month.First <= until)], accounts).Until(until);
            Assert.Equal(
                expected.SelectMany(month => month).Where(row => row.Date <= until && accounts?[row.Account.Value] != false),
                columns.Select(item => new ControlItem(
                    item.Document, item.Account, item.Contact, item.Total, item.Date, item.Due, item.Kind)));
        }

        // What documents said before goes when they come again.
        var again = new MonthBuckets<ControlItem>(
            months, DerivedKind.Items, DerivedColumns.Items, [.. rows.Take(rows.Count / 2).Select(row => row.Document.Value)], most);
        again.Complete();
        Assert.Equal(
            rows.Skip(rows.Count / 2).OrderBy(row => row.Date).ThenBy(row => row.Document),
            months.Months(DerivedKind.Items).SelectMany(month => months.Read(DerivedKind.Items, month, DerivedColumns.Items)));
    });
}
