using System.Runtime.InteropServices;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// The calls of SQLite that an import makes by the million, of a statement by its address: the library's own count the users of a
/// handle and tell the collector at each, which takes longer than what is called. Whoever calls keeps the handle. Calls that may wait or
/// work for long tell the collector here too.
/// </summary>
internal static partial class SqliteCalls
{
    /// <summary>Told as who frees bytes that are bound: nobody, since they stay where they are until they are no longer bound.</summary>
    public const nint Stays = 0;

    /// <summary>By what name calls know SQLite.</summary>
    public const string Library = "e_sqlite3";

    [LibraryImport(Library, EntryPoint = "sqlite3_bind_int64")]
    [SuppressGCTransition]
    public static partial int BindNumber(nint statement, int parameter, long number);

    [LibraryImport(Library, EntryPoint = "sqlite3_bind_text")]
    [SuppressGCTransition]
    public static partial int BindText(nint statement, int parameter, nint text, int length, nint freedBy);

    [LibraryImport(Library, EntryPoint = "sqlite3_clear_bindings")]
    public static partial int ClearBindings(nint statement);

    [LibraryImport(Library, EntryPoint = "sqlite3_step")]
    public static partial int Step(nint statement);

    [LibraryImport(Library, EntryPoint = "sqlite3_reset")]
    public static partial int Reset(nint statement);

    [LibraryImport(Library, EntryPoint = "sqlite3_column_type")]
    [SuppressGCTransition]
    public static partial int ColumnType(nint statement, int column);

    [LibraryImport(Library, EntryPoint = "sqlite3_column_int64")]
    [SuppressGCTransition]
    public static partial long ColumnNumber(nint statement, int column);

    [LibraryImport(Library, EntryPoint = "sqlite3_column_blob")]
    public static partial nint ColumnBytes(nint statement, int column);

    [LibraryImport(Library, EntryPoint = "sqlite3_column_bytes")]
    [SuppressGCTransition]
    public static partial int ColumnLength(nint statement, int column);
}
