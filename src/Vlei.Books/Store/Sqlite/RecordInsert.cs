using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Sqlite;

/// <summary>Writes records of one kind into its table.</summary>
internal sealed class RecordInsert : IDisposable
{
    private readonly Statement _statement;
    private readonly (int Field, bool IsNumber, References.KeyRange? Target)[] _fields;

    /// <summary>
    /// Prepares the statement. What is known of a version beside its fields comes first: its key, its import and its hash; of a
    /// line its document, its import and its place.
    /// </summary>
    public RecordInsert(Database database, RecordTable table, References references)
    {
        string[] columns = table == RecordTables.Lines
            ? ["document", RecordQuery.Added, "line"] : [RecordQuery.Key, RecordQuery.Added, RecordQuery.Hash];
        var fields = table.Fields.Where(field => field.Name != table.Id && !columns.Contains(field.Name)).ToList();
        _fields =
            [.. fields.Select(field => (
                table.IndexOf(field.Name), field.IsNumber, field.Target is { } target ? references.To(target) : null))];
        _statement = database.Prepare(SqliteText.Insert(table, columns, fields));
    }

    /// <summary>Writes one version.</summary>
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
            var (field, isNumber, target) = _fields[place];
            if (row.Has(field))
            {
                target?.Note(row.Number(field));
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
