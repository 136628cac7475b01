using System.Collections.Concurrent;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// Writes rows into a table, some with each statement: SQLite begins and ends one and finds the place in the table once for all of
/// them, which is a third of what it does for a row alone. What is put in may be written only when it is flushed.
/// </summary>
internal sealed class RowsInsert : IDisposable
{
    private const int RowsOfStatement = 32, MostRows = 8 * RowsOfStatement;

    private readonly Database _database;
    private readonly Statement _statement;
    private readonly int _columns;
    private readonly long[] _keys = new long[MostRows];
    private readonly ConcurrentBag<RowBatch> _free = [];
    private RowBatch _batch;
    private int _rows;

    /// <summary>Prepares the statement.</summary>
    /// <param name="database">Where the table is.</param>
    /// <param name="table">The table.</param>
    /// <param name="columns">Its columns; the first is never empty.</param>
    public RowsInsert(Database database, string table, IReadOnlyList<string> columns)
    {
        (_database, _columns) = (database, columns.Count);
        _statement = database.Prepare(SqliteText.Insert(table, columns, RowsOfStatement));
        _batch = new RowBatch(_statement);
    }

    /// <summary>Whether a row with that in its first column waits to be written.</summary>
    public bool Holds(long key) => _keys.AsSpan(0, _rows).Contains(key);

    /// <summary>Begins a row with what is in its first column; what is not bound of the others is empty.</summary>
    public void Begin(long key)
    {
        _keys[_rows] = key;
        Bind(0, key);
    }

    /// <summary>Binds a number to a column of the row, which count from 0.</summary>
    public void Bind(int column, long number) => _batch.Bind(ParameterOf(column), number);

    /// <summary>Binds UTF-8 text to a column of the row.</summary>
    public void Bind(int column, ReadOnlySpan<byte> text) => _batch.Bind(ParameterOf(column), text);

    /// <summary>Ends the row.</summary>
    public void End()
    {
        if (++_rows % RowsOfStatement == 0)
        {
            _batch.End();
        }

        if (_rows == MostRows)
        {
            var full = _batch;
            _database.Behind.Write(
                () =>
                {
                    full.Write();
                    _free.Add(full);
                },
                full.Bytes);
            _batch = _free.TryTake(out var free) ? free : new RowBatch(_statement);
            _rows = 0;
        }
    }

    /// <summary>Writes what waits.</summary>
    public void Flush()
    {
        _database.Behind.Settle();
        if (_rows % RowsOfStatement > 0)
        {
            _batch.End();
        }

        _batch.Write();
        _rows = 0;
    }

    /// <inheritdoc/>
    public void Dispose() => _statement.Dispose();

    private int ParameterOf(int column) => (_rows % RowsOfStatement * _columns) + column + 1;
}
