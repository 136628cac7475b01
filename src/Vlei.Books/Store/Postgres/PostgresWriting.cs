using System.Data;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Postgres;

/// <summary>
/// Writes to a book of a server within one transaction. Rows wait until there are many, or until something is read; months wait
/// until all is kept.
/// </summary>
internal sealed class PostgresWriting : IStoreWriting
{
    private readonly PostgresSession _session;
    private readonly PostgresReading _reading;
    private readonly MonthOverlay _months;
    private readonly Dictionary<string, CopyBuffer> _rows = new(StringComparer.Ordinal);
    private readonly Dictionary<RecordTable, List<(int Key, long Revision)>> _closed = [];
    private readonly Dictionary<RecordTable, List<(int Key, long Revision, long Hash)>> _hashes = [];

    /// <summary>Begins to write through a connection that holds the lock of the book.</summary>
    public PostgresWriting(PostgresSession session)
    {
        _session = session;
        _reading = new PostgresReading(session, IsolationLevel.ReadCommitted);
        _months = new MonthOverlay(_reading);
    }

    /// <inheritdoc/>
    public StoreState State => _reading.State;

    private int Book => _reading.Book;

    /// <inheritdoc/>
    public IRows Rows(RecordQuery query) => Flushed().Rows(query);

    /// <inheritdoc/>
    public IRows Ids(RecordTable table) => Flushed().Ids(table);

    /// <inheritdoc/>
    public int LastKey(RecordTable table) => Flushed().LastKey(table);

    /// <inheritdoc/>
    public HashSet<int> ChangedSince(RecordTable table, long revision) => Flushed().ChangedSince(table, revision);

    /// <inheritdoc/>
    public IReadOnlyList<(int Key, string Tags)> TagSets() => Flushed().TagSets();

    /// <inheritdoc/>
    public IReadOnlyList<StoredImport> Imports() => Flushed().Imports();

    /// <inheritdoc/>
    public IReadOnlyList<ClosedPeriod> ClosedPeriods() => Flushed().ClosedPeriods();

    /// <inheritdoc/>
    public IReadOnlyList<string> Faults(int most) => Flushed().Faults(most);

    /// <inheritdoc/>
    public IReadOnlyList<(YearMonth Month, int Rows)> Months(DerivedKind kind) => _months.Months(kind);

    /// <inheritdoc/>
    public IReadOnlyList<MonthHead> Heads(DerivedKind kind, YearMonth first, YearMonth last) => _months.Heads(kind, first, last);

    /// <inheritdoc/>
    public IReadOnlyList<YearMonth> AllMonths(DerivedKind kind) => _months.AllMonths(kind);

    /// <inheritdoc/>
    public bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum) =>
        _months.TryColumn(kind, month, name, out data, out checksum);

    /// <inheritdoc/>
    public IReadOnlyList<MonthColumn> Columns(DerivedKind kind, YearMonth month) => _months.Columns(kind, month);

    /// <inheritdoc/>
    public void PutMonth(DerivedKind kind, MonthHead head, IReadOnlyList<MonthColumn> columns) => _months.PutMonth(kind, head, columns);

    /// <inheritdoc/>
    public void ClearMonths() => _months.ClearMonths();

    /// <inheritdoc/>
    public void AddImport(long revision, DateTimeOffset at, string by, bool complete) => _session.Execute(
        "INSERT INTO imports(book, revision, at, by, complete) VALUES ($1, $2, $3, $4, $5)",
        Book, revision, StoreProblem.MomentText(at), by, complete);

    /// <inheritdoc/>
    public void DescribeImport(long revision, IReadOnlyList<RecordFile> files, IReadOnlyList<StoredCounts> counts)
    {
        for (var place = 0; place < files.Count; place++)
        {
            Buffer("import_files", "book", "revision", "place", "path", "sha256", "bytes").Row()
                .Short(Book).Number(revision).Number(place + 1).Text(files[place].Path).Text(files[place].Sha256)
                .Number(files[place].Bytes);
        }

        foreach (var count in counts)
        {
            Buffer("import_counts", "book", "revision", "kind", "added", "changed", "unchanged", "removed").Row()
                .Short(Book).Number(revision).Text(count.Kind).Number(count.Added).Number(count.Changed).Number(count.Unchanged)
                .Number(count.Removed);
        }
    }

    /// <inheritdoc/>
    public void AddId(RecordTable table, int key, ReadOnlySpan<byte> id)
    {
        var buffer = Buffer($"{table.Name}_keys", "book", RecordQuery.Key, "id");
        buffer.Row().Short(Book).Short(key).Bytes(id);
        SendIfFull(buffer);
    }

    /// <inheritdoc/>
    public void Add(RecordRow row, int key, long revision, ulong hash)
    {
        var buffer = BufferOf(row.Table, RecordQuery.Key, RecordQuery.Added, RecordQuery.Hash);
        buffer.Row().Short(Book).Short(key).Number(revision).Number((long)hash);
        AddFields(buffer, row);
    }

    /// <inheritdoc/>
    public void AddLine(RecordRow row, int document, long revision, long place)
    {
        var buffer = BufferOf(row.Table, "document", RecordQuery.Added, "line");
        buffer.Row().Short(Book).Short(document).Number(revision).Number(place);
        AddFields(buffer, row);
    }

    /// <inheritdoc/>
    public void Close(RecordTable table, int key, long revision)
    {
        if (!_closed.TryGetValue(table, out var closed))
        {
            _closed[table] = closed = [];
        }

        closed.Add((key, revision));
    }

    /// <inheritdoc/>
    public void SetHash(RecordTable table, int key, long revision, ulong hash)
    {
        if (!_hashes.TryGetValue(table, out var hashes))
        {
            _hashes[table] = hashes = [];
        }

        hashes.Add((key, revision, (long)hash));
    }

    /// <inheritdoc/>
    public void AddTagSet(int key, string tags) =>
        Buffer("tag_sets", "book", RecordQuery.Key, RecordQuery.Tags).Row().Short(Book).Short(key).Text(tags);

    /// <inheritdoc/>
    public void SetClosed(ClosedPeriod period) => _session.Execute(
        "INSERT INTO closed_periods(book, first_day, last_day, revision, at, by) VALUES ($1, $2, $3, $4, $5, $6) "
            + "ON CONFLICT (book, first_day, last_day) DO UPDATE SET revision = $4, at = $5, by = $6",
        Book, PeriodText.Iso(period.Days.From), PeriodText.Iso(period.Days.To), period.Revision, StoreProblem.MomentText(period.At),
        period.By);

    /// <inheritdoc/>
    public bool RemoveClosed(DateRange days) => _session.Execute(
        "DELETE FROM closed_periods WHERE book = $1 AND first_day = $2 AND last_day = $3",
        Book, PeriodText.Iso(days.From), PeriodText.Iso(days.To)) > 0;

    /// <inheritdoc/>
    public void SetMade(MadeHow made) => _session.Execute(
        "UPDATE books SET oldest_first = $2, derived_format = $3, hash_format = $4 WHERE book = $1",
        Book, made.OldestFirst, (long)made.DerivedFormat, (long)made.HashFormat);

    /// <inheritdoc/>
    public void Commit()
    {
        SendMonths();
        _ = Flushed();
        _session.Commit();
    }

    /// <inheritdoc/>
    public void Dispose() => _reading.Dispose();

    private static void AddFields(CopyBuffer buffer, RecordRow row, string field, int place)
    {
        if (!row.Has(place))
        {
            buffer.Null();
        }
        else if (!row.Table.Fields[place].IsNumber)
        {
            buffer.Bytes(row.Text(place));
        }
        else if (PostgresText.IsShort(row.Table, field))
        {
            buffer.Short((int)row.Number(place));
        }
        else
        {
            buffer.Number(row.Number(place));
        }
    }

    private static IEnumerable<(string Name, int Place)> FieldsOf(RecordTable table)
    {
        for (var place = 0; place < table.Fields.Count; place++)
        {
            var name = table.Fields[place].Name;
            if (name != table.Id && (table != RecordTables.Lines || name is not ("document" or "line")))
            {
                yield return (name, place);
            }
        }
    }

    private void AddFields(CopyBuffer buffer, RecordRow row)
    {
        foreach (var (name, place) in FieldsOf(row.Table))
        {
            AddFields(buffer, row, name, place);
        }

        _ = row.Tags.IsEmpty ? buffer.Null() : buffer.Bytes(row.Tags);
        SendIfFull(buffer);
    }

    private void SendIfFull(CopyBuffer buffer)
    {
        if (buffer.IsFull)
        {
            buffer.Flush(_session);
        }
    }

    private CopyBuffer BufferOf(RecordTable table, params ReadOnlySpan<string> known) => _rows.TryGetValue(table.Name, out var buffer)
        ? buffer : Buffer(table.Name, ["book", .. known, .. FieldsOf(table).Select(field => field.Name), RecordQuery.Tags]);

    private CopyBuffer Buffer(string table, params string[] columns)
    {
        if (!_rows.TryGetValue(table, out var buffer))
        {
            _rows[table] = buffer = new CopyBuffer(table, columns);
        }

        return buffer;
    }

    // What is read is what was written.
    private PostgresReading Flushed()
    {
        foreach (var buffer in _rows.Values)
        {
            buffer.Flush(_session);
        }

        foreach (var (table, closed) in _closed.Where(table => table.Value.Count > 0))
        {
            // A version is replaced by the first import that closed its record after it came in.
            _session.Execute(
                $"UPDATE {table.Name} t SET replaced = c.revision FROM (SELECT x.key, x.revision, "
                    + "lag(x.revision) OVER (PARTITION BY x.key ORDER BY x.revision) AS before FROM unnest($2, $3) AS x(key, revision)) c "
                    + "WHERE t.book = $1 AND t.key = c.key AND t.replaced IS NULL AND t.added < c.revision "
                    + "AND (c.before IS NULL OR t.added >= c.before)",
                Book, closed.Select(one => one.Key).ToArray(), closed.Select(one => one.Revision).ToArray());
            closed.Clear();
        }

        foreach (var (table, hashes) in _hashes.Where(table => table.Value.Count > 0))
        {
            _session.Execute(
                $"UPDATE {table.Name} t SET hash = c.hash FROM unnest($2, $3, $4) AS c(key, added, hash) "
                    + "WHERE t.book = $1 AND t.key = c.key AND t.added = c.added",
                Book, hashes.Select(one => one.Key).ToArray(), hashes.Select(one => one.Revision).ToArray(),
                hashes.Select(one => one.Hash).ToArray());
            hashes.Clear();
        }

        return _reading;
    }

    private void SendMonths()
    {
        if (_months.IsCleared)
        {
            _session.Execute("DELETE FROM derived_columns WHERE book = $1", Book);
            _session.Execute("DELETE FROM derived_months WHERE book = $1", Book);
        }

        foreach (var months in _months.All.GroupBy(month => month.Kind))
        {
            if (!_months.IsCleared)
            {
                var numbers = months.Select(month => month.Head.Month.Number).ToArray();
                _session.Execute(
                    "DELETE FROM derived_columns WHERE book = $1 AND kind = $2 AND month = ANY ($3)", Book, (int)months.Key, numbers);
                _session.Execute(
                    "DELETE FROM derived_months WHERE book = $1 AND kind = $2 AND month = ANY ($3)", Book, (int)months.Key, numbers);
            }

            foreach (var (kind, head, columns) in months.Where(month => month.Head.Rows > 0))
            {
                Buffer("derived_months", "book", "kind", "month", "rows", "sums", "checksum").Row()
                    .Short(Book).Short((int)kind).Short(head.Month.Number).Short(head.Rows).Bytes(head.Sums).Number(head.Checksum);
                var buffer = Buffer("derived_columns", "book", "kind", "month", "name", "data", "checksum");
                foreach (var column in columns)
                {
                    buffer.Row().Short(Book).Short((int)kind).Short(head.Month.Number).Text(column.Name).Bytes(column.Data)
                        .Number(column.Checksum);
                }

                SendIfFull(buffer);
            }
        }
    }
}
