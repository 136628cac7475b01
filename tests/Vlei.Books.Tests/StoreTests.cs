using Vlei.Books.Store;
using Vlei.Books.Store.Postgres;
using Vlei.Books.Store.Sqlite;

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
