using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>Reads some fields of some records.</summary>
internal static class RecordRows
{
    /// <summary>Fields of the records of a table that has ids.</summary>
    public static IEnumerable<(int Key, RecordValue[] Values)> Read(
        IStoreReading store, Standing standing, RecordTable table, IReadOnlyList<RecordField> fields)
    {
        using var rows = store.Rows(new RecordQuery(table, [RecordQuery.Key, .. fields.Select(field => field.Name)])
        {
            Standing = standing,
        });
        while (rows.Next())
        {
            yield return (rows.Int(0), ValuesOf(rows, fields, 1));
        }
    }

    /// <summary>
    /// The records of a table as they came in, each with its key, or, of lines, with that of its document; one row is filled again for
    /// each. Of tables without ids the key is 0.
    /// </summary>
    public static IEnumerable<(int Key, RecordRow Row)> Whole(IStoreReading store, Standing standing, RecordTable table)
    {
        var key = table == RecordTables.Lines ? "document" : RecordQuery.Key;
        using var rows = store.Rows(AllOf(table, key) with { AllVersions = false, Standing = standing });
        var row = new RecordRow(table);
        while (rows.Next())
        {
            Fill(row, rows, 1);
            yield return (rows.Int(0), row);
        }
    }

    /// <summary>
    /// Every version of every record of a table, with all that is known of it: some columns first, then fields, then tags.
    /// </summary>
    public static RecordQuery AllOf(RecordTable table, params ReadOnlySpan<string> known) =>
        new(table, [.. known, .. table.Fields.Select(field => field.Name), RecordQuery.Tags]) { AllVersions = true };

    /// <summary>Fills a row with the fields and the tags that stand behind some columns.</summary>
    public static void Fill(RecordRow row, IRows rows, int first)
    {
        row.Clear();
        var fields = row.Table.Fields;
        for (var field = 0; field < fields.Count; field++)
        {
            if (rows.IsNull(first + field))
            {
                continue;
            }

            if (fields[field].IsNumber)
            {
                row.Set(field, rows.Number(first + field));
            }
            else
            {
                row.Set(field, rows.Bytes(first + field));
            }
        }

        if (!rows.IsNull(first + fields.Count))
        {
            row.SetTags(rows.Bytes(first + fields.Count).ToArray());
        }
    }

    private static RecordValue[] ValuesOf(IRows rows, IReadOnlyList<RecordField> fields, int first)
    {
        var values = new RecordValue[fields.Count];
        for (var field = 0; field < values.Length; field++)
        {
            values[field] = rows.IsNull(first + field) ? default
                : fields[field].IsNumber ? new RecordValue(rows.Number(first + field))
                : new RecordValue(null, rows.Text(first + field));
        }

        return values;
    }
}
