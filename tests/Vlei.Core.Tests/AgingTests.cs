using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.OpenItems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>Agings of random books on random days, cell by cell, against what the rules say of each document.</summary>
public class AgingTests
{
    private static readonly Gen<(bool Payable, ReportRequest Request, int? Contact)> GenAsked =
        from payable in Gen.Bool
        from day in Gen.Int[-30, 900]
        from limits in Choose.One<int[]>(null!, [15, 30, 45, 60], [7], [1, 2])
        from byDocument in Gen.Bool
        from apart in Gen.Bool
        from detail in Gen.Bool
        from contact in Choose.One<int?>(null, null, 1, 3)
        let date = new DateOnly(2024, 1, 1).AddDays(day)
        select (payable, new ReportRequest
        {
            Period = new OpenPeriod(date, date), Limits = limits, AgesByDocument = byDocument, KeepsUnappliedApart = apart, Detail = detail,
            Choices = contact is { } key ? [FieldChoice.Parse($"contact={RandomBook.Named[key - 1].Id}", isExcept: false)] : [],
        }, contact);

    [Fact]
    public void Every_cell_is_what_is_open_of_the_documents_and_traces_to_them() =>
        Gen.Select(RandomBook.Gen1, GenAsked).Sample((book, asked) =>
    {
        var report = Statements.Build(asked.Payable ? "payables-aging" : "receivables-aging", book, asked.Request);
        Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
        Assert.Equal(asked.Contact is null ? 1 : 0, report.Checks.Count);
        var expected = Expected(book, asked).ToList();
        var columns = report.Columns.Select((column, place) => (column, place))
            .Where(c => c.column.Kind == ColumnKind.Money && c.column.Key != "original").ToList();
        foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            foreach (var (column, place) in columns)
            {
                var sum = expected.Where(e => IsOf(e, row) && (column.Key == "total" || e.Bucket == column.Key)).Sum(e => e.Open);
                Assert.Equal((row.Key, column.Key, sum), (row.Key, column.Key, row.Cells[place].Units ?? 0));
                if (row.Cells[place].Units is not null)
                {
                    Assert.True(Trace.Of(report, book, row.Key, column.Key, all: false).Checks.Single().Ok);
                }
            }
        }

        Assert.Equal(expected.Sum(e => e.Open), report.Rows[^1].Cells[^1].Units);
        var documents = report.Rows.Where(row => row.Kind == RowKind.Record).Select(row => row.Key.Split('/')[^1]).Order();
        Assert.True(!asked.Request.Detail || documents.SequenceEqual(expected.Select(e => $"D{e.Document}").Order()));
    });

    [Theory]
    [InlineData(null, -5, "current")]
    [InlineData(null, 0, "current")]
    [InlineData(null, 1, "1-30")]
    [InlineData(null, 30, "1-30")]
    [InlineData(null, 31, "31-60")]
    [InlineData(null, 90, "61-90")]
    [InlineData(null, 91, "over-90")]
    [InlineData("15, 45", 15, "1-15")]
    [InlineData("15, 45", 45, "16-45")]
    [InlineData("15, 45", 46, "over-45")]
    [InlineData("7", 8, "over-7")]
    public void A_day_late_falls_in(string? limits, int days, string key)
    {
        var buckets = limits is null ? AgingBuckets.Usual : AgingBuckets.Of(AgingBuckets.Parse(limits));
        Assert.Equal(key, buckets.Keys.ElementAt(buckets.PlaceOf(days)));
    }

    private static bool IsOf((int Document, int Contact, string Bucket, long Open) item, ReportRow row)
    {
        var contact = item.Contact == 0 ? "no-contact" : RandomBook.Named[item.Contact - 1].Id;
        return row.Key == "total" || row.Key == contact || row.Key == $"total({contact})" || row.Key == $"{contact}/D{item.Document}";
    }

    // In these books a document stands on a control account with one contact; what is on the other side of it is aged by
    // its own date.
    private static IEnumerable<(int Document, int Contact, string Bucket, long Open)> Expected(
        RandomBook book, (bool Payable, ReportRequest Request, int? Contact) asked)
    {
        var day = asked.Request.Period!.Value.To!.Value;
        var account = asked.Payable ? RandomBook.Payable : RandomBook.Receivable;
        foreach (var document in book.Documents.Where(d => d.Date <= day))
        {
            var lines = document.Lines.Where(line => line.Account == account).ToList();
            var total = lines.Sum(line => line.Amount.MinorUnits) * (asked.Payable ? -1 : 1);
            var settled = book.Settlements.Where(s => (s.From == document.Key || s.To == document.Key) && book.Effective(s) <= day)
                .Sum(s => s.Amount);
            var open = total - (Math.Sign(total) * settled);
            if (open == 0 || (asked.Contact is { } contact && lines[0].Contact != contact))
            {
                continue;
            }

            var from = total < 0 || asked.Request.AgesByDocument || !book.DueDays.TryGetValue(document.Key, out var due) ? document.Date : due;
            yield return (document.Key, lines[0].Contact, total < 0 && asked.Request.KeepsUnappliedApart ? "unapplied"
                : BucketOf(day.DayNumber - from.DayNumber, asked.Request.Limits ?? [30, 60, 90]), open);
        }
    }

    private static string BucketOf(int late, IReadOnlyList<int> limits)
    {
        if (late <= 0)
        {
            return "current";
        }

        var first = 1;
        foreach (var limit in limits)
        {
            if (late <= limit)
            {
                return $"{first}-{limit}";
            }

            first = limit + 1;
        }

        return $"over-{limits[^1]}";
    }
}
