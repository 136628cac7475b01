using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>Writes records of one kind into its table.</summary>
internal sealed class RecordInsert : IDisposable
{
    private readonly Statement _statement;
    private readonly int[] _fields;
    private readonly int _fixed;

    /// <summary>Prepares the statement. The named columns come first, then the fields of the table, then the tags.</summary>
    public RecordInsert(Database database, RecordTable table, params string[] columns)
    {
        var fields = Schema.StoredFields(table).Where(field => !columns.Contains(field.Name)).ToList();
        _fields = [.. fields.Select(field => table.IndexOf(field.Name))];
        _fixed = columns.Length;
        string[] all = [.. columns, .. fields.Select(field => field.Name), "tags"];
        _statement = database.Prepare(
            $"INSERT INTO {table.Name}({string.Join(", ", all.Select(Schema.Quoted))}) "
            + $"VALUES ({string.Join(", ", all.Select(_ => "?"))})");
    }

    /// <summary>Writes one record.</summary>
    public void Insert(RecordRow row, params ReadOnlySpan<long?> columns)
    {
        for (var column = 0; column < columns.Length; column++)
        {
            Bind(column + 1, columns[column]);
        }

        var parameter = _fixed + 1;
        foreach (var field in _fields)
        {
            if (!row.Has(field))
            {
                _statement.BindNull(parameter++);
            }
            else if (row.Table.Fields[field].IsNumber)
            {
                _statement.Bind(parameter++, row.Number(field));
            }
            else
            {
                _statement.Bind(parameter++, row.Text(field));
            }
        }

        _ = row.Tags.IsEmpty ? _statement.BindNull(parameter) : _statement.Bind(parameter, row.Tags);
        _statement.Run();
    }

    /// <inheritdoc/>
    public void Dispose() => _statement.Dispose();

    private void Bind(int parameter, long? number) =>
        _ = number is { } value ? _statement.Bind(parameter, value) : _statement.BindNull(parameter);
}
