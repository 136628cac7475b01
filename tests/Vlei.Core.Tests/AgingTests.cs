using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.OpenItems;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Tests;

/// <summary>Agings of random books on random days, cell by cell, against what the rules say of each document.</summary>
public class AgingTests
{
    private static readonly DateOnly Start = new(2024, 1, 1);

    private static readonly Gen<(bool Payable, ReportRequest Request, int? Contact, int Least, int LeastLate)> GenAsked =
        from payable in Gen.Bool
        from day in Gen.Int[-30, 900]
        from earlier in Gen.Int[-30, 900]
        from compared in Gen.Int[0, 3]
        from limits in Choose.One<int[]>(null!, [15, 30, 45, 60], [7], [1, 2])
        from switches in Gen.Bool.Array[4]
        from contact in Choose.One<int?>(null, null, 1, 3)
        from narrowed in Gen.Int[0, 3]
        from least in Gen.Int[-1000, 5000]
        from late in Gen.Int[0, 100]
        from percent in Choose.One<ShareOf[]>([], [ShareOf.Row], [ShareOf.Column, ShareOf.Row])
        let other = Start.AddDays(earlier)
        let onlyTotal = narrowed == 1 ? new[] { $"total >= {least / 100m:F2}" } : []
        let onlyLate = narrowed == 2 ? new[] { $"days-late=>{late}" } : []
        select (payable, new ReportRequest
        {
            Period = new OpenPeriod(Start.AddDays(day), Start.AddDays(day)),
            Items = new OpenItemRequest { Limits = limits, AgesByDocument = switches[0], KeepsUnappliedApart = switches[1] },
            Detail = switches[2], Summary = !switches[2] && switches[3], Shares = percent,
            Compare = compared == 3 ? [new Comparison(ComparisonKind.Named, 1, new OpenPeriod(other, other))]
                : compared == 2 ? [new Comparison(ComparisonKind.PriorYear, 1)] : [],
            Change = compared >= 2 && switches[3],
            Having = [.. onlyTotal.Select(text => new PredicateText(text))],
            Choices =
            [
                .. (contact is { } key ? onlyLate.Append($"contact={RandomBook.Named[key - 1].Id}") : onlyLate)
                    .Select(text => FieldChoice.Parse(text, isExcept: false)),
            ],
        }, contact, narrowed == 1 ? least : int.MinValue, narrowed == 2 ? late : -1);

    [Fact]
    public void Every_cell_is_what_is_open_of_the_documents_and_traces_to_them() =>
        Gen.Select(RandomBook.Gen1, GenAsked).Sample((book, asked) =>
    {
        var report = Statements.Build(asked.Payable ? "payables-aging" : "receivables-aging", book, asked.Request);
        Assert.All(report.Checks, check => Assert.True(check.Ok, check.Name));
        Assert.Equal(asked.Request.Choices.Count + asked.Request.Having.Count == 0, report.Checks.Count > 0);
        foreach (var row in report.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            for (var place = 0; place < report.Columns.Count; place++)
            {
                var key = report.Columns[place].Key;
                if (report.Columns[place].Kind is ColumnKind.Date or ColumnKind.Count)
                {
                    continue;
                }

                Assert.Equal(
                    (row.Key, key, Expected(book, asked, row, key)),
                    (row.Key, key, row.Cells[place].Units ?? (report.Columns[place].Kind == ColumnKind.Money ? 0 : null)));
                if (row.Cells[place].Units is not null)
                {
                    Assert.True(Trace.Of(report, book, row.Key, key, all: false).Checks.Single().Ok);
                }
            }
        }

        var taken = Taken(book, asked).ToList();
        var documents = report.Rows.Where(row => row.Kind == RowKind.Record).Select(row => row.Key.Split('/')[^1]).Order();
        Assert.True(!asked.Request.Detail || documents.SequenceEqual(taken.Select(item => $"D{item.Document.Key}").Order()));
        Assert.True(asked.Request.Detail || asked.Request.Summary
            || report.Rows.SkipLast(1).Select(row => row.Key).Order()
                .SequenceEqual(taken.Select(item => item.ContactId).Distinct().Order()));
    }, iter: 300);

    [Fact]
    public void Rows_stand_in_the_order_that_is_asked_for_and_the_rest_is_together() =>
        Gen.Select(RandomBook.Gen1, Choose.One("-total", "total", "name", "-name", "-1-30,name", "-oldest"), Gen.Int[1, 4])
            .Sample((book, sort, top) =>
    {
        var request = new ReportRequest { Sort = SortOrder.Parse(sort) };
        var all = Statements.Build("receivables-aging", book, request).Rows.ToList();
        var some = Statements.Build("receivables-aging", book, request with { Top = top }).Rows.ToList();
        var items = SlowOpenItems.At(book, payable: false, new DateOnly(2026, 6, 30)).Where(item => item.Open != 0)
            .ToLookup(item => item.ContactId);
        for (var place = 1; place < all.Count - 1; place++)
        {
            Assert.True(Compare(all[place - 1], all[place]) <= 0, $"{all[place - 1].Key} before {all[place].Key}");
        }

        Assert.Equal(
            all.Count - 1 > top ? [.. all.Take(top).Select(row => row.Key), "rest", "total"] : all.Select(row => row.Key),
            some.Select(row => row.Key));
        Assert.Equal(all[^1].Cells, some[^1].Cells);
        Assert.True(all.Count - 1 <= top || some[^2].Cells[^1].Units == all.SkipLast(1).Skip(top).Sum(row => row.Cells[^1].Units));

        int Compare(ReportRow one, ReportRow other) => sort switch
        {
            "-total" => -one.Cells[^1].Units!.Value.CompareTo(other.Cells[^1].Units!.Value),
            "total" => one.Cells[^1].Units!.Value.CompareTo(other.Cells[^1].Units!.Value),
            "name" => string.CompareOrdinal(one.Label, other.Label),
            "-name" => -string.CompareOrdinal(one.Label, other.Label),
            "-oldest" => -Oldest(one).CompareTo(Oldest(other)),
            _ => (-one.Cells[1].Units!.Value, one.Label).CompareTo((-other.Cells[1].Units!.Value, other.Label)),
        };
        int Oldest(ReportRow row) => items[row.Key].Where(item => item.Open > 0)
            .Select(item => item.DaysLate(new DateOnly(2026, 6, 30))).DefaultIfEmpty(int.MinValue).Max();
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

    [Theory]
    [InlineData("total=much", "total is a number")]
    [InlineData("days-late=>1.5", "days-late is a number")]
    [InlineData("opne=1", "Did you mean open?")]
    public void What_is_no_figure_is_refused(string only, string said) => Assert.Contains(said, Assert.Throws<ProblemException>(() =>
    {
        var book = new RandomBook(
            [new BookDocument(1, Start, [new(1, new(RandomBook.Receivable), new(5), new(1)), new(2, new(RandomBook.Sales), new(-5))])], []);
        return Statements.Build(
            "receivables-aging", book, new ReportRequest { Choices = [FieldChoice.Parse(only, isExcept: false)] }).Rows.Count;
    }) is var problem ? $"{problem.Message} {problem.Advice}" : "");

    private static IEnumerable<SlowOpenItems.Item> Taken(
        RandomBook book, (bool Payable, ReportRequest Request, int? Contact, int Least, int LeastLate) asked)
    {
        var days = Days(asked.Request).ToList();
        var last = days.Max();
        var open = days.SelectMany(day => SlowOpenItems.At(book, asked.Payable, day)).Where(item => item.Open != 0)
            .Select(item => (item.Document.Key, item.Account)).ToHashSet();
        return SlowOpenItems.At(book, asked.Payable, last, asked.Request.Items.AgesByDocument)
            .Where(item => open.Contains((item.Document.Key, item.Account)) && (asked.Contact is null || item.Contact == asked.Contact)
                && (asked.LeastLate < 0 || item.DaysLate(days[0]) > asked.LeastLate))
            .GroupBy(item => asked.Request.Summary ? RandomBook.CodeOf(item.Account) : item.ContactId)
            .Where(group => asked.Least == int.MinValue || group.Sum(item => OpenOn(book, asked.Payable, item, days[0])) >= asked.Least)
            .SelectMany(group => group);
    }

    private static IEnumerable<DateOnly> Days(ReportRequest request)
    {
        var day = request.Period!.Value.To!.Value;
        yield return day;
        foreach (var comparison in request.Compare)
        {
            yield return comparison.Kind == ComparisonKind.PriorYear ? day.AddMonths(-12) : comparison.Other!.Value.To!.Value;
        }
    }

    private static long OpenOn(RandomBook book, bool payable, SlowOpenItems.Item item, DateOnly day) =>
        SlowOpenItems.At(book, payable, day).Where(other => other.Document == item.Document && other.Account == item.Account)
            .Sum(other => other.Open);

    private static long? Expected(
        RandomBook book, (bool Payable, ReportRequest Request, int? Contact, int Least, int LeastLate) asked, ReportRow row, string key)
    {
        var parts = key.Split('(', ')', ',');
        return parts[0] switch
        {
            "original" => Taken(book, asked).Where(item => IsIn(item, row)).Sum(item => item.Total),
            "change" => Sum(parts[1], "") - Sum(parts[2], parts[3]),
            "percent-change" =>
                (long?)(SlowModel.Percent(Sum(parts[1], "") - Sum(parts[2], parts[3]), Math.Abs(Sum(parts[2], parts[3]))) * 10_000),
            "share-of-row" => (long?)(SlowModel.Percent(Sum(parts[1], ""), Sum("total", "")) * 10_000),
            "share-of-column" => (long?)(SlowModel.Percent(
                Sum(parts[1], ""), Cell(book, asked, Taken(book, asked), parts[1], Days(asked.Request).First())) * 10_000),
            _ => Sum(parts[0], parts.Length > 1 ? parts[1] : ""),
        };

        long Sum(string bucket, string day) => Cell(
            book, asked, Taken(book, asked).Where(item => IsIn(item, row)), bucket,
            day.Length == 0 ? Days(asked.Request).First() : DateOnly.Parse(day));
    }

    private static long Cell(
        RandomBook book, (bool Payable, ReportRequest Request, int? Contact, int Least, int LeastLate) asked,
        IEnumerable<SlowOpenItems.Item> items, string bucket, DateOnly day) => items
        .Where(item => bucket == "total" || bucket == (item.Total < 0 && asked.Request.Items.KeepsUnappliedApart ? "unapplied"
            : SlowOpenItems.BucketOf(item.DaysLate(day), asked.Request.Items.Limits ?? [30, 60, 90])))
        .Sum(item => OpenOn(book, asked.Payable, item, day));

    private static bool IsIn(SlowOpenItems.Item item, ReportRow row) => row.Key == "total" || row.Key == item.ContactId
        || row.Key == $"total({item.ContactId})" || row.Key == $"{item.ContactId}/D{item.Document.Key}"
        || row.Key == RandomBook.CodeOf(item.Account);
}
