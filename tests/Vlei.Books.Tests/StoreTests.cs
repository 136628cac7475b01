using Vlei.Books.Store;
using Vlei.Books.Store.Postgres;
using Vlei.Books.Store.Sqlite;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Tests;

/// <summary>The store that tests use instead of a file.</summary>
public sealed class MemoryStoreTests : StoreContract
{
    private protected override IBookStore NewStore() => new MemoryStore();
}

/// <summary>The store of a book that is a folder.</summary>
public sealed class SqliteStoreTests : StoreContract
{
    private protected override IBookStore NewStore()
    {
        var path = Path.Combine(Folder, $"{Guid.NewGuid():N}.db");
        SqliteStore.Create(path, _ => { });
        return new SqliteStore(path);
    }

    [Fact]
    public void Nothing_is_kept_that_refers_to_nothing()
    {
        var store = NewStore();
        Action<IStoreWriting>[] dangling =
        [
            writing => writing.Add(Document(contact: 2), 1, 1, 0),
            writing => writing.Add(Document(contact: 0), 1, 1, 0),
            writing => writing.Add(Document(contact: 1), 2, 1, 0),
            writing => writing.Add(Document(contact: 1), 1, 2, 0),
            writing => writing.AddLine(Line(account: 1), 1, 1, 1),
            writing => AddBoth(writing, Line(account: 2), 1),
            writing => AddBoth(writing, Line(account: 1), 2),
            writing => writing.Close(RecordTables.Documents, 1, 3),
        ];
        Assert.All(dangling, add =>
        {
            using var writing = store.Write();
            Begin(writing);
            add(writing);
            Assert.Contains("refers to", Assert.Throws<ProblemException>(writing.Commit).Message, StringComparison.Ordinal);
        });
        using (var writing = store.Write())
        {
            Assert.Equal(0, writing.State.Revision);
            Begin(writing);
            AddBoth(writing, Line(account: 1), 1);
            writing.Commit();
        }

        using var reading = store.Read();
        Assert.Equal(1, reading.State.Revision);
        Assert.Empty(reading.Faults(1));

        static void Begin(IStoreWriting writing)
        {
            writing.AddImport(1, DateTimeOffset.UnixEpoch, "anna", complete: false);
            writing.AddId(RecordTables.Accounts, 1, "1000"u8);
            writing.AddId(RecordTables.Contacts, 1, "C1"u8);
            writing.AddId(RecordTables.Documents, 1, "D1"u8);
        }

        static void AddBoth(IStoreWriting writing, RecordRow line, long revision)
        {
            writing.AddLine(line, 1, revision, 1);
            writing.Add(Document(contact: 1), 1, 1, 0);
        }
    }

    private static RecordRow Document(int contact)
    {
        var row = new RecordRow(RecordTables.Documents);
        row.Set(RecordTables.Documents.IndexOf("kind"), "journal"u8);
        row.Set(RecordTables.Documents.IndexOf("date"), "2026-01-31"u8);
        row.Set(RecordTables.Documents.IndexOf("contact"), contact);
        return row;
    }

    private static RecordRow Line(int account)
    {
        var row = new RecordRow(RecordTables.Lines);
        row.Set(RecordTables.Lines.IndexOf("account"), account);
        row.Set(RecordTables.Lines.IndexOf("amount"), 0);
        return row;
    }
}

/// <summary>The store of a book on a firm's server, for a login that may write to it and does not own it.</summary>
public sealed class PostgresStoreTests(TestFirm server) : StoreContract, IClassFixture<TestFirm>
{
    private protected override IBookStore NewStore()
    {
        var name = $"book-{Guid.NewGuid():N}";
        PostgresServer.Add(server.Address("owner", name), "");
        PostgresServer.Grant(server.Address("owner", name), "anna", BookRight.Write);
        return new PostgresStore(server.Address("anna", name));
    }
}
