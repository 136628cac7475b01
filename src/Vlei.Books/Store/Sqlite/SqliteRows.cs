namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// The rows that a query asks for. Keys that stand close together are read in one go: whoever reads a month's documents
/// reads nearly all of a stretch of the table.
/// </summary>
internal sealed class SqliteRows : IRows
{
    private const int NearEnough = 8;

    private readonly Statement _statement;
    private readonly IReadOnlyList<int>? _keys;
    private readonly int _keyColumn;
    private readonly Action<Statement> _release;
    private HashSet<int> _wanted = [];
    private int _nextKey;
    private int _left;
    private bool _isRunning;

    /// <summary>Begins to read.</summary>
    /// <param name="statement">The statement of the query.</param>
    /// <param name="query">What is asked for.</param>
    /// <param name="release">Takes the statement back.</param>
    public SqliteRows(Statement statement, RecordQuery query, Action<Statement> release)
    {
        (_statement, _keys, _keyColumn, _release) = (statement, query.Keys, query.Columns.Count, release);
        _left = query.Most ?? int.MaxValue;
        if (query.Where is { } where)
        {
            _statement.Bind(SqliteText.ParameterOfValue, where.Value);
        }
    }

    /// <inheritdoc/>
    public bool Next()
    {
        while (_left > 0 && (_isRunning || BeginStretch()))
        {
            while (_isRunning = _statement.Next())
            {
                if (_keys is null || _wanted.Contains((int)_statement.Number(_keyColumn)))
                {
                    _left--;
                    return true;
                }
            }
        }

        return false;
    }

    /// <inheritdoc/>
    public bool IsNull(int column) => _statement.IsNull(column);

    /// <inheritdoc/>
    public long Number(int column) => _statement.Number(column);

    /// <inheritdoc/>
    public string Text(int column) => _statement.Text(column);

    /// <inheritdoc/>
    public ReadOnlySpan<byte> Bytes(int column) => _statement.Bytes(column);

    /// <inheritdoc/>
    public void Dispose() => _release(_statement);

    // A stretch of keys without wide gaps; all keys where none are named. False where none is left.
    private bool BeginStretch()
    {
        if (_keys is null)
        {
            _statement.Bind(SqliteText.ParameterOfFirstKey, 0).Bind(SqliteText.ParameterOfLastKey, int.MaxValue);
            return _nextKey++ == 0;
        }

        if (_nextKey >= _keys.Count)
        {
            return false;
        }

        var start = _nextKey++;
        while (_nextKey < _keys.Count && _keys[_nextKey] - _keys[_nextKey - 1] <= NearEnough)
        {
            _nextKey++;
        }

        _wanted = [.. _keys.Skip(start).Take(_nextKey - start)];
        _statement.Bind(SqliteText.ParameterOfFirstKey, _keys[start]).Bind(SqliteText.ParameterOfLastKey, _keys[_nextKey - 1]);
        return true;
    }
}
