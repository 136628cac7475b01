using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>
/// The tables of <c>records.db</c>. What people brought in is in tables made from <see cref="RecordTables"/>; every row
/// carries the import that added it and the one that replaced it, so each earlier state can be read. What is derived is
/// in <c>derived_months</c> and <c>derived_columns</c>, and can be thrown away and made again.
/// </summary>
internal static class Schema
{
    /// <summary>Marks the file as ours: "VLEI".</summary>
    public const int ApplicationId = 0x564C4549;

    /// <summary>The columns of a table's rows behind its key and its history, in the order of its fields.</summary>
    public static IEnumerable<RecordField> StoredFields(RecordTable table) =>
        table.Fields.Where(field => field.Name != table.Id);

    /// <summary>A name as SQL takes it, whatever it is.</summary>
    public static string Quoted(string name) => $"\"{name}\"";

    /// <summary>The second step: tags of lines, and periods that are closed.</summary>
    public static void AddKindsTagsAndClosedPeriods(Database database) =>
        database.Execute("""
            CREATE TABLE tag_sets(key INTEGER PRIMARY KEY, tags TEXT NOT NULL UNIQUE) STRICT;
            CREATE TABLE closed_periods(
                first_day TEXT NOT NULL,
                last_day TEXT NOT NULL,
                revision INTEGER NOT NULL,
                at TEXT NOT NULL,
                by TEXT NOT NULL,
                PRIMARY KEY(first_day, last_day)) STRICT, WITHOUT ROWID;
            """);

    /// <summary>The third: what is derived are open items and what was set against them too; all of it is made anew.</summary>
    public static void AddOpenItems(Database database)
    {
        database.Execute("""
            DROP TABLE posting_months;
            DROP TABLE posting_columns;
            CREATE TABLE derived_months(
                kind INTEGER NOT NULL,
                month INTEGER NOT NULL,
                rows INTEGER NOT NULL,
                sums BLOB NOT NULL,
                checksum INTEGER NOT NULL,
                PRIMARY KEY(kind, month)) STRICT, WITHOUT ROWID;
            CREATE TABLE derived_columns(
                kind INTEGER NOT NULL,
                month INTEGER NOT NULL,
                name TEXT NOT NULL,
                data BLOB NOT NULL,
                checksum INTEGER NOT NULL,
                PRIMARY KEY(kind, month, name)) STRICT;
            CREATE TABLE derived_how(oldest_first INTEGER NOT NULL) STRICT;
            INSERT INTO derived_how VALUES (0);
            """);
    }

    /// <summary>The first step: the imports, and the tables of what they brought.</summary>
    public static void AddRecords(Database database)
    {
        var sql = new StringBuilder("""
            CREATE TABLE imports(
                revision INTEGER PRIMARY KEY,
                at TEXT NOT NULL,
                by TEXT NOT NULL,
                complete INTEGER NOT NULL) STRICT;
            CREATE TABLE import_files(
                revision INTEGER NOT NULL REFERENCES imports(revision),
                place INTEGER NOT NULL,
                path TEXT NOT NULL,
                sha256 TEXT NOT NULL,
                bytes INTEGER NOT NULL,
                PRIMARY KEY(revision, place)) STRICT, WITHOUT ROWID;
            CREATE TABLE import_counts(
                revision INTEGER NOT NULL REFERENCES imports(revision),
                kind TEXT NOT NULL,
                added INTEGER NOT NULL,
                changed INTEGER NOT NULL,
                unchanged INTEGER NOT NULL,
                removed INTEGER NOT NULL,
                PRIMARY KEY(revision, kind)) STRICT, WITHOUT ROWID;
            CREATE TABLE posting_months(
                basis INTEGER NOT NULL,
                month INTEGER NOT NULL,
                postings INTEGER NOT NULL,
                sums BLOB NOT NULL,
                checksum INTEGER NOT NULL,
                PRIMARY KEY(basis, month)) STRICT, WITHOUT ROWID;
            CREATE TABLE posting_columns(
                basis INTEGER NOT NULL,
                month INTEGER NOT NULL,
                name TEXT NOT NULL,
                data BLOB NOT NULL,
                checksum INTEGER NOT NULL,
                PRIMARY KEY(basis, month, name)) STRICT;

            """);
        foreach (var table in RecordTables.All)
        {
            sql.Append(Create(table));
        }

        database.Execute(sql.ToString());
    }

    private static string Create(RecordTable table)
    {
        var fields = string.Concat(StoredFields(table).Select(field => $",\n    {Column(table, field)}"));
        const string History =
            "added INTEGER NOT NULL REFERENCES imports(revision),\n    replaced INTEGER REFERENCES imports(revision)";
        if (table == RecordTables.Lines)
        {
            // A document and its lines are one: what adds or replaces it is said once, there.
            return $"""
                CREATE TABLE lines(
                    added INTEGER NOT NULL{fields},
                    tags TEXT,
                    PRIMARY KEY(document, added, line),
                    FOREIGN KEY(document, added) REFERENCES documents(key, added)) STRICT, WITHOUT ROWID;

                """;
        }

        return table.Id is null
            ? $"""
                CREATE TABLE {table.Name}(
                    key INTEGER PRIMARY KEY,
                    {History},
                    hash INTEGER NOT NULL{fields},
                    tags TEXT) STRICT;

                """
            : $"""
                CREATE TABLE {table.Name}_keys(key INTEGER PRIMARY KEY, id TEXT NOT NULL UNIQUE) STRICT;
                CREATE TABLE {table.Name}(
                    key INTEGER NOT NULL REFERENCES {table.Name}_keys(key),
                    {History},
                    hash INTEGER NOT NULL{fields},
                    tags TEXT,
                    PRIMARY KEY(key, added)) STRICT, WITHOUT ROWID;

                """;
    }

    private static string Column(RecordTable table, RecordField field)
    {
        // The lines are many, and the import has looked up what they refer to: only their document is checked again.
        var refers = field.Target is not null && table != RecordTables.Lines ? $" REFERENCES {field.Target}_keys(key)" : "";
        var needed = field.Required || (table == RecordTables.Lines && field.Name == "line") ? " NOT NULL" : "";
        return $"{Quoted(field.Name)} {(field.IsNumber ? "INTEGER" : "TEXT")}{needed}{refers}";
    }
}
