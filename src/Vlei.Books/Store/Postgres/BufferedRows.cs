using System.Text;
using Npgsql;

namespace Vlei.Books.Store.Postgres;

/// <summary>Rows that were all brought here: column by column, numbers apart from texts and bytes.</summary>
internal sealed class BufferedRows : IRows
{
    private readonly int _columns;
    private readonly List<long> _numbers = [];
    private readonly List<object?> _others = [];
    private int _at = -1;

    private BufferedRows(int columns) => _columns = columns;

    /// <summary>How many there are.</summary>
    public int Count => _columns == 0 ? 0 : _numbers.Count / _columns;

    /// <summary>Takes all rows of a result.</summary>
    public static BufferedRows Of(NpgsqlDataReader reader)
    {
        var rows = new BufferedRows(reader.FieldCount);
        var isNumber = new bool[reader.FieldCount];
        for (var column = 0; column < isNumber.Length; column++)
        {
            isNumber[column] = reader.GetFieldType(column) is var type && (type == typeof(long) || type == typeof(int));
        }

        while (reader.Read())
        {
            for (var column = 0; column < isNumber.Length; column++)
            {
                var isNull = reader.IsDBNull(column);
                rows._numbers.Add(isNull ? 0 : isNumber[column] ? reader.GetInt64(column) : 0);
                rows._others.Add(isNull ? null : isNumber[column] ? rows : reader.GetValue(column));
            }
        }

        return rows;
    }

    /// <inheritdoc/>
    public bool Next() => ++_at < Count;

    /// <inheritdoc/>
    public bool IsNull(int column) => Other(column) is null;

    /// <inheritdoc/>
    public long Number(int column) => Other(column) is bool truth ? truth ? 1 : 0 : _numbers[(_at * _columns) + column];

    /// <inheritdoc/>
    public string Text(int column) => Other(column) as string ?? "";

    /// <inheritdoc/>
    public ReadOnlySpan<byte> Bytes(int column) => Other(column) is byte[] bytes ? bytes : Encoding.UTF8.GetBytes(Text(column));

    /// <summary>The bytes in the column, to be kept.</summary>
    public byte[] Blob(int column) => Other(column) as byte[] ?? [];

    /// <inheritdoc/>
    public void Dispose()
    {
    }

    private object? Other(int column) => _others[(_at * _columns) + column];
}
