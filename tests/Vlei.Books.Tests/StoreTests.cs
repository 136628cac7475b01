using Vlei.Books.Store;
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
