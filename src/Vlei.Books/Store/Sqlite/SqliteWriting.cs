using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Sqlite;

/// <summary>Writes to the file of a book within one transaction.</summary>
internal sealed class SqliteWriting(Database database) : SqliteReading(database), IStoreWriting
{
    private readonly Dictionary<string, Statement> _statements = new(StringComparer.Ordinal);
    private readonly Dictionary<RecordTable, RecordInsert> _inserts = [];
    private readonly Dictionary<RecordTable, RowsInsert> _ids = [];
    private readonly References _references = new(database);

    /// <inheritdoc/>
    public void AddImport(long revision, DateTimeOffset at, string by, bool complete) =>
        Prepared("INSERT INTO imports(revision, at, by, complete) VALUES (?, ?, ?, ?)")
            .Bind(1, revision).Bind(2, StoreProblem.MomentText(at)).Bind(3, by).Bind(4, complete ? 1 : 0).Run();

    /// <inheritdoc/>
    public void DescribeImport(long revision, IReadOnlyList<RecordFile> files, IReadOnlyList<StoredCounts> counts)
    {
        _references.NoteImport(revision);
        for (var place = 0; place < files.Count; place++)
        {
            Prepared("INSERT INTO import_files(revision, place, path, sha256, bytes) VALUES (?, ?, ?, ?, ?)")
                .Bind(1, revision).Bind(2, place + 1).Bind(3, files[place].Path).Bind(4, files[place].Sha256)
                .Bind(5, files[place].Bytes).Run();
        }

        foreach (var count in counts)
        {
            Prepared("INSERT INTO import_counts(revision, kind, added, changed, unchanged, removed) VALUES (?, ?, ?, ?, ?, ?)")
                .Bind(1, revision).Bind(2, count.Kind).Bind(3, count.Added).Bind(4, count.Changed).Bind(5, count.Unchanged)
                .Bind(6, count.Removed).Run();
        }
    }

    /// <inheritdoc/>
    public void AddId(RecordTable table, int key, ReadOnlySpan<byte> id)
    {
        EndColumn();
        if (!_ids.TryGetValue(table, out var ids))
        {
            _ids[table] = ids = new RowsInsert(Database, $"{table.Name}_keys", [RecordQuery.Key, "id"]);
        }

        ids.Begin(key);
        ids.Bind(1, id);
        ids.End();
    }

    /// <inheritdoc/>
    public void Add(RecordRow row, int key, long revision, ulong hash)
    {
        if (row.Table == RecordTables.Documents)
        {
            _references.NoteDocument(key, revision);
        }

        if (row.Table.Id is not null)
        {
            _references.To(row.Table.Name).Note(key);
        }

        _references.NoteImport(revision);
        EndColumn();
        InsertOf(row.Table).Insert(row, key, revision, (long)hash);
    }

    /// <inheritdoc/>
    public void AddLine(RecordRow row, int document, long revision, long place)
    {
        _references.NoteLine(document, revision);
        EndColumn();
        InsertOf(row.Table).Insert(row, document, revision, place);
    }

    /// <inheritdoc/>
    public void Close(RecordTable table, int key, long revision)
    {
        _references.NoteImport(revision);
        if (_inserts.TryGetValue(table, out var insert) && insert.Rows.Holds(key))
        {
            insert.Rows.Flush();
        }

        Prepared($"UPDATE {table.Name} SET replaced = ? WHERE key = ? AND replaced IS NULL").Bind(1, revision).Bind(2, key).Run();
    }

    /// <inheritdoc/>
    public void SetHash(RecordTable table, int key, long revision, ulong hash)
    {
        Flush();
        Prepared($"UPDATE {table.Name} SET hash = ? WHERE key = ? AND added = ?")
            .Bind(1, (long)hash).Bind(2, key).Bind(3, revision).Run();
    }

    /// <inheritdoc/>
    public void AddTagSet(int key, string tags) =>
        Prepared("INSERT INTO tag_sets(key, tags) VALUES (?, ?)").Bind(1, key).Bind(2, tags).Run();

    /// <inheritdoc/>
    public void SetClosed(ClosedPeriod period) =>
        Prepared("INSERT OR REPLACE INTO closed_periods(first_day, last_day, revision, at, by) VALUES (?, ?, ?, ?, ?)")
            .Bind(1, PeriodText.Iso(period.Days.From)).Bind(2, PeriodText.Iso(period.Days.To)).Bind(3, period.Revision)
            .Bind(4, StoreProblem.MomentText(period.At)).Bind(5, period.By).Run();

    /// <inheritdoc/>
    public bool RemoveClosed(DateRange days)
    {
        Prepared("DELETE FROM closed_periods WHERE first_day = ? AND last_day = ?")
            .Bind(1, PeriodText.Iso(days.From)).Bind(2, PeriodText.Iso(days.To)).Run();
        return Database.Number("SELECT changes()") > 0;
    }

    /// <inheritdoc/>
    public void SetMade(MadeHow made) =>
        Prepared("UPDATE made_how SET oldest_first = ?, derived_format = ?, hash_format = ?")
            .Bind(1, made.OldestFirst ? 1 : 0).Bind(2, made.DerivedFormat).Bind(3, made.HashFormat).Run();

    /// <inheritdoc/>
    public void PutMonth(DerivedKind kind, MonthHead head, IReadOnlyList<MonthColumn> columns)
    {
        EndColumn();
        Database.Behind.Write(() => Put(kind, head, columns), columns.Sum(column => (long)column.Data.Length));
    }

    /// <inheritdoc/>
    public void ClearMonths() => Database.Execute("DELETE FROM derived_columns; DELETE FROM derived_months");

    /// <inheritdoc/>
    public void Commit()
    {
        EndColumn();
        Flush();
        _references.Check();
        Database.Commit();
    }

    /// <inheritdoc/>
    public override void Dispose()
    {
        foreach (var rows in AllRows)
        {
            rows.Dispose();
        }

        foreach (var statement in _statements.Values)
        {
            statement.Dispose();
        }

        base.Dispose();
    }

    private IEnumerable<RowsInsert> AllRows => _ids.Values.Concat(_inserts.Values.Select(insert => insert.Rows));

    // What waits to be written is read with the rest.
    protected override void BeforeReading() => Flush();

    private void Flush()
    {
        foreach (var rows in AllRows)
        {
            rows.Flush();
        }
    }

    private void Put(DerivedKind kind, MonthHead head, IReadOnlyList<MonthColumn> columns)
    {
        Prepared("DELETE FROM derived_columns WHERE kind = ? AND month = ?").Bind(1, (int)kind).Bind(2, head.Month.Number).Run();
        Prepared("DELETE FROM derived_months WHERE kind = ? AND month = ?").Bind(1, (int)kind).Bind(2, head.Month.Number).Run();
        if (head.Rows == 0)
        {
            return;
        }

        foreach (var column in columns)
        {
            Prepared("INSERT INTO derived_columns(kind, month, name, data, checksum) VALUES (?, ?, ?, ?, ?)")
                .Bind(1, (int)kind).Bind(2, head.Month.Number).Bind(3, column.Name).BindBlob(4, column.Data).Bind(5, column.Checksum)
                .Run();
        }

        Prepared("INSERT INTO derived_months(kind, month, rows, sums, checksum) VALUES (?, ?, ?, ?, ?)")
            .Bind(1, (int)kind).Bind(2, head.Month.Number).Bind(3, head.Rows).BindBlob(4, head.Sums).Bind(5, head.Checksum).Run();
    }

    private Statement Prepared(string sql)
    {
        Database.Behind.Settle();
        if (!_statements.TryGetValue(sql, out var statement))
        {
            _statements[sql] = statement = Database.Prepare(sql);
        }

        return statement;
    }

    private RecordInsert InsertOf(RecordTable table)
    {
        if (!_inserts.TryGetValue(table, out var insert))
        {
            _inserts[table] = insert = new RecordInsert(Database, table, _references);
        }

        return insert;
    }
}
