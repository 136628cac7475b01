using System.Text;
using CsCheck;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Tests;

/// <summary>What every store must do; each is held against the one in memory.</summary>
public abstract class StoreContract : IDisposable
{
    private static readonly MadeHow Made = new(false, 1, 1);

    private readonly TestBooks _books = new();

    private protected string Folder => _books.Folder;

    [Theory]
    [InlineData(1, false)]
    [InlineData(2, true)]
    public void The_same_imports_give_the_same_of_every_report(int seed, bool oldestFirst)
    {
        var (model, other) = (_books.BookOn(new MemoryStore(), oldestFirst), _books.BookOn(NewStore(), oldestFirst));
        var set = _books.Set("set", (ulong)seed, 40);
        if (oldestFirst)
        {
            File.Delete(Path.Combine(set, "settlements.csv"));
            File.WriteAllText(Path.Combine(set, "settlements.csv"), "from,to,amount\n");
        }

        foreach (var (taken, complete) in new[]
        {
            (_books.Altered(set, "first", seed), false), (set, false), (_books.Altered(set, "third", seed + 1), true), (set, true),
        })
        {
            Assert.Equal(TestBooks.Take(model, taken, complete), TestBooks.Take(other, taken, complete));
        }

        Assert.StartsWith(": ", TestBooks.Take(other, set, true));
        foreach (var revision in oldestFirst ? [4] : new[] { 2, 4 })
        {
            Assert.Equal(TestBooks.Reports(model, revision), TestBooks.Reports(other, revision));
        }

        foreach (var book in new[] { model, other })
        {
            Assert.Equal([], BookCheck.Run(book, (_, _) => { }).SelectMany(result => result.Faults));
        }
    }

    [Fact]
    public void A_query_finds_what_a_slow_reading_finds()
    {
        var (model, store) = (new MemoryStore(), NewStore());
        var set = _books.Set("set", 3, 60);
        foreach (var book in new[] { _books.BookOn(model), _books.BookOn(store) })
        {
            TestBooks.Take(book, _books.Altered(set, "first", 5), false);
            TestBooks.Take(book, set, false);
            TestBooks.Take(book, _books.Altered(set, "third", 6), true);
        }

        using var slow = model.Read();
        using var reading = store.Read();
        var queries =
            from table in Gen.Int[0, RecordTables.All.Count - 1].Select(place => RecordTables.All[place])
            from columns in Gen.Shuffle(ColumnsOf(table), 1, 5)
            from standing in Gen.Int[-1, 4]
            from keys in Gen.Int[1, 90].Array[0, 30]
            from all in Gen.Int[0, 3]
            from most in Gen.Int[1, 9]
            select new RecordQuery(table, columns)
            {
                Standing = standing < 0 ? Standing.Now : new Standing(standing), AllVersions = all == 1,
                Keys = all == 2 ? null : [.. keys.Distinct().Order()], Most = all == 3 ? most : null,
                Where = all == 0 && table == RecordTables.Documents ? ("kind", "invoice")
                    : all == 0 && table == RecordTables.Accounts ? ("code", "1000") : null,
            };
        queries.Sample(query => Assert.Equal(Dump(slow.Rows(query), query), Dump(reading.Rows(query), query)), iter: 300, threads: 1);
        foreach (var table in RecordTables.All.Where(table => table.Id is not null))
        {
            var ids = new RecordQuery(table, RecordQuery.Key, table.Id!);
            Assert.Equal(Dump(slow.Ids(table), ids), Dump(reading.Ids(table), ids));
            Assert.Equal(slow.LastKey(table), reading.LastKey(table));
            Assert.Equal(slow.ChangedSince(table, 1).Order(), reading.ChangedSince(table, 1).Order());
        }

        Assert.Equal(slow.Imports().Select(Words), reading.Imports().Select(Words));
        Assert.Equal(slow.TagSets(), reading.TagSets());
    }

    [Fact]
    public void A_reader_sees_one_moment_and_what_is_given_up_was_never_there()
    {
        var store = NewStore();
        Write(store, writing => writing.AddImport(1, DateTimeOffset.UnixEpoch, "Anna", true));
        using var before = store.Read();
        Assert.Equal(1, before.State.Revision);
        Write(store, writing =>
        {
            writing.AddImport(2, DateTimeOffset.UnixEpoch, "Ben", false);
            writing.SetMade(Made with { OldestFirst = true });
        });
        Assert.Equal(1, before.State.Revision);
        Assert.Equal(["Anna"], before.Imports().Select(import => import.By));
        using (var given = store.Write())
        {
            given.AddImport(3, DateTimeOffset.UnixEpoch, "Nobody", false);
            Assert.Equal(3, given.Imports().Count);
        }

        using var after = store.Read();
        Assert.Equal((2, true), (after.State.Revision, after.State.Made.OldestFirst));
        Assert.Equal(["Anna", "Ben"], after.Imports().Select(import => import.By));
    }

    [Theory]
    [InlineData(1)]
    [InlineData(31)]
    [InlineData(32)]
    [InlineData(100)]
    public void What_is_written_is_read_at_once_and_can_be_replaced_at_once(int contacts)
    {
        var query = new RecordQuery(
            RecordTables.Contacts, "id", "name", "terms_days", RecordQuery.Added, RecordQuery.Replaced, RecordQuery.Hash)
        {
            AllVersions = true,
        };
        var (model, store) = (new MemoryStore(), NewStore());
        Assert.Equal(Written(model), Written(store));
        using var slow = model.Read();
        using var reading = store.Read();
        Assert.Equal(Dump(slow.Rows(query), query), Dump(reading.Rows(query), query));

        List<string> Written(IBookStore store)
        {
            using var writing = store.Write();
            writing.AddImport(1, DateTimeOffset.UnixEpoch, "Anna", true);
            for (var key = 1; key <= contacts; key++)
            {
                writing.AddId(RecordTables.Contacts, key, Encoding.UTF8.GetBytes($"C{key}"));
                writing.Add(Contact($"Name {key}", key), key, 1, (ulong)key * 7919);
            }

            List<string> seen = [.. Dump(writing.Rows(query), query), $"{writing.LastKey(RecordTables.Contacts)}"];
            writing.AddImport(2, DateTimeOffset.UnixEpoch, "Ben", false);
            foreach (var key in Enumerable.Range(1, contacts).Where(key => key % 3 == 1))
            {
                writing.Close(RecordTables.Contacts, key, 2);
                writing.Add(Contact($"Other {key}", terms: 0), key, 2, 0);
            }

            writing.AddImport(3, DateTimeOffset.UnixEpoch, "Ben", false);
            writing.Close(RecordTables.Contacts, 1, 3);
            seen.AddRange(Dump(writing.Rows(query), query));
            writing.Commit();
            return seen;
        }

        static RecordRow Contact(string name, int terms)
        {
            var row = new RecordRow(RecordTables.Contacts);
            row.Set(RecordTables.Contacts.IndexOf("name"), Encoding.UTF8.GetBytes(name));
            row.Set(RecordTables.Contacts.IndexOf("kind"), "other"u8);
            if (terms % 2 == 1)
            {
                row.Set(RecordTables.Contacts.IndexOf("terms_days"), terms);
            }

            return row;
        }
    }

    [Fact]
    public void One_writes_at_a_time_and_the_other_is_told_to_try_again()
    {
        var store = NewStore();
        using (var writing = store.Write())
        {
            Assert.Equal(ProblemKind.TryAgain, Assert.Throws<ProblemException>(() => store.Write()).Kind);
            using var reading = store.Read();
            Assert.Equal(0, reading.State.Revision);
        }

        Write(store, writing => writing.AddTagSet(1, "{}"));
    }

    [Fact]
    public void Periods_tags_and_months_come_back_as_they_were_put()
    {
        var store = NewStore();
        var quarter = new DateRange(new DateOnly(2026, 1, 1), new DateOnly(2026, 3, 31));
        var (march, april) = (YearMonth.Of(quarter.To), YearMonth.Of(quarter.To).Next);
        var at = new DateTimeOffset(2026, 4, 2, 10, 30, 0, TimeSpan.FromHours(2));
        var columns = new[] { new MonthColumn("day", [0, 255, 1], 5), new MonthColumn("tags", [], -7) };
        Write(store, writing =>
        {
            writing.AddImport(1, at, "Zoë \"O'Neil\" 船", true);
            writing.DescribeImport(1, [new RecordFile("weird ' name\n.csv", "ab", 3)], [new StoredCounts("documents", 1, 2, 3, 4)]);
            writing.SetClosed(new ClosedPeriod(quarter, 1, at, "Anna"));
            writing.SetClosed(new ClosedPeriod(quarter, 1, at.AddDays(1), "Ben"));
            writing.AddTagSet(7, """{"season":"naïve 🛶"}""");
            writing.PutMonth(DerivedKind.Cash, new MonthHead(march, 3, [9, 8], long.MinValue), columns);
            writing.PutMonth(DerivedKind.Cash, new MonthHead(april, 2, [], 0), columns);
            writing.PutMonth(DerivedKind.Cash, new MonthHead(april, 0, [], 0), []);
        });
        using (var reading = store.Read())
        {
            Assert.Equal(
                "1 2026-04-02T08:30:00Z Zoë \"O'Neil\" 船 True weird ' name\n.csv ab 3 documents 1 2 3 4", Words(reading.Imports()[0]));
            Assert.Equal(("Ben", at.AddDays(1)), (reading.ClosedPeriods().Single().By, reading.ClosedPeriods().Single().At));
            Assert.Equal([(7, """{"season":"naïve 🛶"}""")], reading.TagSets());
            Assert.Equal([(march, 3)], reading.Months(DerivedKind.Cash));
            Assert.Empty(reading.Months(DerivedKind.Accrual));
            var head = Assert.Single(reading.Heads(DerivedKind.Cash, march, april));
            Assert.Equal((march, 3, long.MinValue), (head.Month, head.Rows, head.Checksum));
            Assert.Equal([9, 8], head.Sums);
            Assert.True(reading.TryColumn(DerivedKind.Cash, march, "day", out var data, out var checksum));
            Assert.Equal([0, 255, 1], data.ToArray());
            Assert.Equal(5, checksum);
            Assert.True(reading.TryColumn(DerivedKind.Cash, march, "tags", out data, out checksum));
            Assert.Equal((0, -7), (data.Length, checksum));
            Assert.False(reading.TryColumn(DerivedKind.Cash, march, "none", out _, out _));
            Assert.Equal(["day", "tags"], reading.Columns(DerivedKind.Cash, march).Select(column => column.Name));
            Assert.Equal([march], reading.AllMonths(DerivedKind.Cash));
        }

        Write(store, writing =>
        {
            Assert.True(writing.RemoveClosed(quarter));
            Assert.False(writing.RemoveClosed(quarter));
            writing.ClearMonths();
        });
        using var empty = store.Read();
        Assert.Empty(empty.ClosedPeriods());
        Assert.Empty(empty.AllMonths(DerivedKind.Cash));
    }

    public virtual void Dispose()
    {
        _books.Dispose();
        GC.SuppressFinalize(this);
    }

    private protected abstract IBookStore NewStore();

    private static void Write(IBookStore store, Action<IStoreWriting> write)
    {
        using var writing = store.Write();
        write(writing);
        writing.Commit();
    }

    private static string Words(StoredImport import) =>
        $"{import.Revision} {StoreProblem.MomentText(import.At)} {import.By} {import.Complete} "
        + string.Join(' ', import.Files.Select(file => $"{file.Path} {file.Sha256} {file.Bytes}")) + " "
        + string.Join(' ', import.Counts.Select(count =>
            $"{count.Kind} {count.Added} {count.Changed} {count.Unchanged} {count.Removed}"));

    private static string[] ColumnsOf(RecordTable table) =>
    [
        .. table.Fields.Select(field => field.Name), RecordQuery.Added, RecordQuery.Tags,
        .. table == RecordTables.Lines ? Array.Empty<string>() : [RecordQuery.Key, RecordQuery.Replaced, RecordQuery.Hash],
    ];

    private static List<string> Dump(IRows rows, RecordQuery query)
    {
        var lines = new List<string>();
        using (rows)
        {
            while (rows.Next())
            {
                lines.Add(string.Join('|', query.Columns.Select((name, column) => rows.IsNull(column) ? "-"
                    : IsNumber(query.Table, name) ? $"{rows.Number(column)}"
                    : $"'{rows.Text(column)}' {Convert.ToHexString(rows.Bytes(column))}")));
            }
        }

        return lines;
    }

    private static bool IsNumber(RecordTable table, string column) => column != RecordQuery.Tags
        && table.Fields.FirstOrDefault(field => field.Name == column)?.IsNumber != false;
}
