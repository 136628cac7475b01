namespace Vlei.Books.Store.Postgres;

/// <summary>
/// The rows that a query asks for, brought here some at a time: few at first, so that little is asked for in one go, and many then.
/// </summary>
internal sealed class PostgresRows : IRows
{
    private const int First = 1_000;
    private const int More = 20_000;

    private readonly PostgresSession _session;
    private readonly string _cursor;
    private BufferedRows _rows;
    private int _asked = First;
    private bool _isOpen = true;

    /// <summary>Asks for the first of them.</summary>
    public PostgresRows(PostgresSession session, int number, string sql, object[] parameters)
    {
        (_session, _cursor) = (session, $"rows_{number}");
        _rows = session.Queries(
            (PostgresText.PlanForMany, []), ($"DECLARE {_cursor} NO SCROLL CURSOR FOR {sql}", parameters),
            (PostgresText.PlanForFew, []), ($"FETCH {First} FROM {_cursor}", []))[0];
        _session.OpenRows++;
    }

    /// <inheritdoc/>
    public bool Next()
    {
        while (!_rows.Next())
        {
            if (_rows.Count < _asked)
            {
                return false;
            }

            _asked = More;
            _rows = _session.Query($"FETCH {More} FROM {_cursor}");
        }

        return true;
    }

    /// <inheritdoc/>
    public bool IsNull(int column) => _rows.IsNull(column);

    /// <inheritdoc/>
    public long Number(int column) => _rows.Number(column);

    /// <inheritdoc/>
    public string Text(int column) => _rows.Text(column);

    /// <inheritdoc/>
    public ReadOnlySpan<byte> Bytes(int column) => _rows.Bytes(column);

    /// <inheritdoc/>
    /// <remarks>The server closes it with the transaction.</remarks>
    public void Dispose()
    {
        _session.OpenRows -= _isOpen ? 1 : 0;
        _isOpen = false;
    }
}
