namespace Vlei.Books.Store.Sqlite;

/// <summary>The rows of a statement, with something that is done when they are let go of.</summary>
internal sealed class HeldRows(Statement statement, Action release) : IRows
{
    /// <inheritdoc/>
    public bool Next() => statement.Next();

    /// <inheritdoc/>
    public bool IsNull(int column) => statement.IsNull(column);

    /// <inheritdoc/>
    public long Number(int column) => statement.Number(column);

    /// <inheritdoc/>
    public string Text(int column) => statement.Text(column);

    /// <inheritdoc/>
    public ReadOnlySpan<byte> Bytes(int column) => statement.Bytes(column);

    /// <inheritdoc/>
    public void Dispose()
    {
        statement.Dispose();
        release();
    }
}
