using System.Globalization;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books.Store.Sqlite;

/// <summary>Reads the file of a book within one transaction.</summary>
internal class SqliteReading : IStoreReading
{
    private readonly Lazy<Statement> _column;
    private readonly Dictionary<string, Statement> _idle = new(StringComparer.Ordinal);
    private bool _columnIsRead;

    /// <summary>Reads through an open file, which is closed with this.</summary>
    public SqliteReading(Database database)
    {
        Database = database;
        _column = new Lazy<Statement>(() => database.Prepare(
            "SELECT data, checksum FROM derived_columns WHERE kind = ? AND month = ? AND name = ?"));
        using var state = database.Prepare(
            "SELECT (SELECT coalesce(max(revision), 0) FROM imports), oldest_first, derived_format, hash_format FROM made_how");
        State = state.Next()
            ? new StoreState(state.Number(0), new MadeHow(state.Number(1) != 0, state.Int(2), state.Int(3)))
            : throw SqliteProblem.Damaged("it is not said how they were made");
    }

    /// <inheritdoc/>
    public StoreState State { get; }

    /// <summary>The open file.</summary>
    protected Database Database { get; }

    /// <inheritdoc/>
    public IRows Rows(RecordQuery query)
    {
        BeforeReading();

        // The same is asked for one document after the other: what was prepared for it once serves again.
        var sql = SqliteText.Select(query);
        return new SqliteRows(_idle.Remove(sql, out var idle) ? idle : Database.Prepare(sql), query, statement =>
        {
            statement.Reset();
            if (!_idle.TryAdd(sql, statement))
            {
                statement.Dispose();
            }
        });
    }

    /// <inheritdoc/>
    public IRows Ids(RecordTable table)
    {
        BeforeReading();
        return Database.Prepare($"SELECT key, id FROM {table.Name}_keys ORDER BY key");
    }

    /// <inheritdoc/>
    public int LastKey(RecordTable table)
    {
        BeforeReading();
        return (int)Database.Number($"SELECT max(key) FROM {(table.Id is null ? table.Name : $"{table.Name}_keys")}");
    }

    /// <inheritdoc/>
    public HashSet<int> ChangedSince(RecordTable table, long revision)
    {
        BeforeReading();
        var keys = new HashSet<int>();
        using var rows = Database.Prepare($"SELECT key FROM {table.Name} WHERE added > ?1 OR replaced > ?1").Bind(1, revision);
        while (rows.Next())
        {
            keys.Add(rows.Int(0));
        }

        return keys;
    }

    /// <inheritdoc/>
    public IReadOnlyList<(int Key, string Tags)> TagSets()
    {
        var sets = new List<(int, string)>();
        using var rows = Database.Prepare("SELECT key, tags FROM tag_sets ORDER BY key");
        while (rows.Next())
        {
            sets.Add((rows.Int(0), rows.Text(1)));
        }

        return sets;
    }

    /// <inheritdoc/>
    public IReadOnlyList<StoredImport> Imports()
    {
        var files = Grouped(
            "SELECT revision, path, sha256, bytes FROM import_files ORDER BY revision, place",
            row => new RecordFile(row.Text(1), row.Text(2), row.Number(3)));
        var counts = Grouped(
            "SELECT revision, kind, added, changed, unchanged, removed FROM import_counts ORDER BY revision, kind",
            row => new StoredCounts(row.Text(1), row.Number(2), row.Number(3), row.Number(4), row.Number(5)));
        var imports = new List<StoredImport>();
        using var rows = Database.Prepare("SELECT revision, at, by, complete FROM imports ORDER BY revision");
        while (rows.Next())
        {
            var revision = rows.Number(0);
            imports.Add(new StoredImport(
                revision, StoreProblem.MomentOf(rows.Text(1)), rows.Text(2), rows.Number(3) != 0,
                [.. files[revision]], [.. counts[revision]]));
        }

        return imports;
    }

    /// <inheritdoc/>
    public IReadOnlyList<ClosedPeriod> ClosedPeriods()
    {
        var closed = new List<ClosedPeriod>();
        using var rows = Database.Prepare(
            "SELECT first_day, last_day, revision, at, by FROM closed_periods ORDER BY first_day, last_day");
        while (rows.Next())
        {
            _ = IsoText.TryDay(rows.Bytes(0), out var from) & IsoText.TryDay(rows.Bytes(1), out var to);
            closed.Add(new ClosedPeriod(
                new DateRange(from, to), rows.Number(2), StoreProblem.MomentOf(rows.Text(3)), rows.Text(4)));
        }

        return closed;
    }

    /// <inheritdoc/>
    public IReadOnlyList<string> Faults(int most)
    {
        BeforeReading();
        var faults = new List<string>();
        try
        {
            using (var integrity = Database.Prepare(string.Create(CultureInfo.InvariantCulture, $"PRAGMA integrity_check({most})")))
            {
                while (integrity.Next())
                {
                    if (integrity.Text(0) != "ok")
                    {
                        faults.Add(integrity.Text(0));
                    }
                }
            }

            using var references = Database.Prepare("PRAGMA foreign_key_check");
            while (references.Next() && faults.Count < most)
            {
                faults.Add($"a row of {references.Text(0)} refers to one that is not in {references.Text(2)}");
            }
        }
        catch (ProblemException damaged)
        {
            faults.Add(damaged.Message);
        }

        return faults;
    }

    /// <inheritdoc/>
    public IReadOnlyList<(YearMonth Month, int Rows)> Months(DerivedKind kind)
    {
        var months = new List<(YearMonth, int)>();
        using var rows = Database.Prepare("SELECT month, rows FROM derived_months WHERE kind = ? ORDER BY month").Bind(1, (int)kind);
        while (rows.Next())
        {
            months.Add((YearMonth.FromNumber(rows.Int(0)), rows.Int(1)));
        }

        return months;
    }

    /// <inheritdoc/>
    public IReadOnlyList<MonthHead> Heads(DerivedKind kind, YearMonth first, YearMonth last)
    {
        var heads = new List<MonthHead>();
        using var rows = Database.Prepare(
            "SELECT month, rows, sums, checksum FROM derived_months WHERE kind = ? AND month BETWEEN ? AND ? ORDER BY month")
            .Bind(1, (int)kind).Bind(2, first.Number).Bind(3, last.Number);
        while (rows.Next())
        {
            heads.Add(new MonthHead(YearMonth.FromNumber(rows.Int(0)), rows.Int(1), rows.Bytes(2).ToArray(), rows.Number(3)));
        }

        return heads;
    }

    /// <inheritdoc/>
    public IReadOnlyList<YearMonth> AllMonths(DerivedKind kind)
    {
        var months = new List<YearMonth>();
        using var rows = Database.Prepare(
            "SELECT month FROM derived_months WHERE kind = ?1 UNION SELECT month FROM derived_columns WHERE kind = ?1 ORDER BY 1")
            .Bind(1, (int)kind);
        while (rows.Next())
        {
            months.Add(YearMonth.FromNumber(rows.Int(0)));
        }

        return months;
    }

    /// <inheritdoc/>
    public bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum)
    {
        EndColumn();
        _columnIsRead = _column.Value.Bind(1, (int)kind).Bind(2, month.Number).Bind(3, name).Next();
        data = _columnIsRead ? _column.Value.Bytes(0) : default;
        checksum = _columnIsRead ? _column.Value.Number(1) : 0;
        return _columnIsRead;
    }

    /// <inheritdoc/>
    public IReadOnlyList<MonthColumn> Columns(DerivedKind kind, YearMonth month)
    {
        var columns = new List<MonthColumn>();
        using var rows = Database.Prepare(
            "SELECT name, data, checksum FROM derived_columns WHERE kind = ? AND month = ? ORDER BY name")
            .Bind(1, (int)kind).Bind(2, month.Number);
        while (rows.Next())
        {
            columns.Add(new MonthColumn(rows.Text(0), rows.Bytes(1).ToArray(), rows.Number(2)));
        }

        return columns;
    }

    /// <inheritdoc/>
    public virtual void Dispose()
    {
        if (_column.IsValueCreated)
        {
            _column.Value.Dispose();
        }

        foreach (var statement in _idle.Values)
        {
            statement.Dispose();
        }

        Database.Dispose();
    }

    /// <summary>Is called before records are read.</summary>
    protected virtual void BeforeReading()
    {
    }

    /// <summary>
    /// Lets go of the column that was read last: while anything is read rows cannot be written behind whoever makes them, and the log
    /// cannot be folded into the file.
    /// </summary>
    protected void EndColumn()
    {
        if (_columnIsRead)
        {
            _column.Value.Reset();
            _columnIsRead = false;
        }
    }

    private ILookup<long, T> Grouped<T>(string sql, Func<IRows, T> read)
    {
        var found = new List<(long Revision, T Value)>();
        using var rows = Database.Prepare(sql);
        while (rows.Next())
        {
            found.Add((rows.Number(0), read(rows)));
        }

        return found.ToLookup(row => row.Revision, row => row.Value);
    }
}
