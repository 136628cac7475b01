using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>
/// Reads some fields of some records. Keys that stand close together are read in one go: whoever reads a month's documents
/// reads nearly all of a stretch of the table.
/// </summary>
internal static class RecordRows
{
    private const int NearEnough = 8;

    /// <summary>Fields of the records of a table that has ids; of all of them where no keys are named.</summary>
    public static IEnumerable<(int Key, RecordValue[] Values)> Read(
        Database database, Standing standing, RecordTable table, IReadOnlyList<RecordField> fields, IReadOnlyList<int>? keys)
    {
        var columns = string.Concat(fields.Select(field => field.Name == table.Id ? ", k.id" : $", r.{Schema.Quoted(field.Name)}"));
        var ids = fields.Any(field => field.Name == table.Id) ? $"JOIN {table.Name}_keys k ON k.key = r.key " : "";
        using var statement = database.Prepare(
            $"SELECT r.key{columns} FROM {table.Name} r {ids}WHERE r.key BETWEEN ? AND ? AND {standing.Of("r")} ORDER BY r.key");
        foreach (var (first, last, wanted) in Stretches(keys))
        {
            statement.Bind(1, first).Bind(2, last);
            while (statement.Step())
            {
                if (wanted?.Contains(statement.Int(0)) != false)
                {
                    yield return (statement.Int(0), ValuesOf(statement, fields, 1));
                }
            }
        }
    }

    /// <summary>Fields of the lines of documents.</summary>
    public static IEnumerable<(DocumentKey Document, int Line, RecordValue[] Values)> ReadLines(
        Database database, Standing standing, IReadOnlyList<RecordField> fields, IReadOnlyList<DocumentKey> documents)
    {
        var columns = string.Concat(fields.Select(field => $", l.{Schema.Quoted(field.Name)}"));
        using var statement = database.Prepare(
            $"SELECT d.key, l.line{columns} FROM documents d JOIN lines l ON l.document = d.key AND l.added = d.added "
            + $"WHERE d.key BETWEEN ? AND ? AND {standing.Of("d")} ORDER BY d.key");
        foreach (var (first, last, wanted) in Stretches([.. documents.Select(document => document.Value)]))
        {
            statement.Bind(1, first).Bind(2, last);
            while (statement.Step())
            {
                if (wanted?.Contains(statement.Int(0)) != false)
                {
                    yield return (new DocumentKey(statement.Int(0)), statement.Int(1), ValuesOf(statement, fields, 2));
                }
            }
        }
    }

    private static RecordValue[] ValuesOf(Statement statement, IReadOnlyList<RecordField> fields, int first)
    {
        var values = new RecordValue[fields.Count];
        for (var field = 0; field < values.Length; field++)
        {
            values[field] = statement.IsNull(first + field) ? default
                : fields[field].IsNumber ? new RecordValue(statement.Number(first + field))
                : new RecordValue(null, statement.Text(first + field));
        }

        return values;
    }

    // Stretches of keys without wide gaps, each with those of them that are wanted; nothing where all are.
    private static IEnumerable<(int First, int Last, HashSet<int>? Wanted)> Stretches(IReadOnlyList<int>? keys)
    {
        if (keys is null)
        {
            yield return (0, int.MaxValue, null);
            yield break;
        }

        for (var start = 0; start < keys.Count;)
        {
            var end = start + 1;
            while (end < keys.Count && keys[end] - keys[end - 1] <= NearEnough)
            {
                end++;
            }

            yield return (keys[start], keys[end - 1], [.. keys.Skip(start).Take(end - start)]);
            start = end;
        }
    }
}
