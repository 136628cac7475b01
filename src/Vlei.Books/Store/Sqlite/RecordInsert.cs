using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Sqlite;

/// <summary>Writes records of one kind into its table.</summary>
internal sealed class RecordInsert
{
    private readonly (int Field, bool IsNumber, References.KeyRange? Target)[] _fields;

    /// <summary>Prepares the statement.</summary>
    public RecordInsert(Database database, RecordTable table, References references)
    {
        string[] columns = table == RecordTables.Lines
            ? ["document", RecordQuery.Added, "line"] : [RecordQuery.Key, RecordQuery.Added, RecordQuery.Hash];
        var fields = table.Fields.Where(field => field.Name != table.Id && !columns.Contains(field.Name)).ToList();
        _fields =
            [.. fields.Select(field => (
                table.IndexOf(field.Name), field.IsNumber, field.Target is { } target ? references.To(target) : null))];
        Rows = new RowsInsert(database, table.Name, [.. columns, .. fields.Select(field => field.Name), RecordQuery.Tags]);
    }

    /// <summary>The rows that it writes.</summary>
    public RowsInsert Rows { get; }

    /// <summary>Writes one version.</summary>
    /// <param name="row">Its fields and its tags.</param>
    /// <param name="key">Its key; of a line, that of its document.</param>
    /// <param name="revision">The import that adds it.</param>
    /// <param name="hashOrPlace">Its hash; of a line, its place.</param>
    public void Insert(RecordRow row, long key, long revision, long hashOrPlace)
    {
        const int Known = 3;
        Rows.Begin(key);
        Rows.Bind(1, revision);
        Rows.Bind(2, hashOrPlace);
        for (var place = 0; place < _fields.Length; place++)
        {
            var (field, isNumber, target) = _fields[place];
            if (!row.Has(field))
            {
                continue;
            }

            if (isNumber)
            {
                target?.Note(row.Number(field));
                Rows.Bind(Known + place, row.Number(field));
            }
            else
            {
                Rows.Bind(Known + place, row.Text(field));
            }
        }

        if (!row.Tags.IsEmpty)
        {
            Rows.Bind(Known + _fields.Length, row.Tags);
        }

        Rows.End();
    }
}
