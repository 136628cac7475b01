using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>Writes records of one kind into its table.</summary>
internal sealed class RecordInsert : IDisposable
{
    private readonly Statement _statement;
    private readonly (int Field, bool IsNumber)[] _fields;

    /// <summary>Prepares the statement. The named columns come first, then the fields of the table, then the tags.</summary>
    public RecordInsert(Database database, RecordTable table, params string[] columns)
    {
        var fields = Schema.StoredFields(table).Where(field => !columns.Contains(field.Name)).ToList();
        _fields = [.. fields.Select(field => (table.IndexOf(field.Name), field.IsNumber))];
        string[] all = [.. columns, .. fields.Select(field => field.Name), "tags"];
        _statement = database.Prepare(
            $"INSERT INTO {table.Name}({string.Join(", ", all.Select(Schema.Quoted))}) "
            + $"VALUES ({string.Join(", ", all.Select(_ => "?"))})");
    }

    /// <summary>Writes one record.</summary>
    public void Insert(RecordRow row, params ReadOnlySpan<long> columns)
    {
        // Most fields of most records are empty: clearing all and binding the others is a third of the calls.
        _statement.Clear();
        for (var column = 0; column < columns.Length; column++)
        {
            _statement.Bind(column + 1, columns[column]);
        }

        for (var place = 0; place < _fields.Length; place++)
        {
            var (field, isNumber) = _fields[place];
            if (row.Has(field))
            {
                var parameter = columns.Length + place + 1;
                _ = isNumber ? _statement.Bind(parameter, row.Number(field)) : _statement.Bind(parameter, row.Text(field));
            }
        }

        if (!row.Tags.IsEmpty)
        {
            _statement.Bind(columns.Length + _fields.Length + 1, row.Tags);
        }

        _statement.Run();
    }

    /// <inheritdoc/>
    public void Dispose() => _statement.Dispose();
}
