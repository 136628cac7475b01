using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Postgres;

/// <summary>The SQL of what is asked of the record tables of a server. The first parameter is always the number of the book.</summary>
internal static class PostgresText
{
    /// <summary>
    /// Before a query of many rows: a server that does not know yet how many rows there are, as after an import, would look each up.
    /// </summary>
    public const string PlanForMany = "SET LOCAL enable_nestloop = off";

    /// <summary>Behind it.</summary>
    public const string PlanForFew = "SET LOCAL enable_nestloop = on";

    private static readonly string[] OwnNumbers = [RecordQuery.Key, RecordQuery.Added, RecordQuery.Replaced, RecordQuery.Hash];

    /// <summary>The query, and its parameters behind the book.</summary>
    public static (string Sql, IReadOnlyList<object> Parameters) Select(RecordQuery query)
    {
        // A document and its lines are one: what adds or replaces it is said once, there.
        var table = query.Table;
        var isLines = table == RecordTables.Lines;
        var (history, key) = isLines ? ("d", "r.document") : ("r", "r.key");
        var parameters = new List<object>();
        string Parameter(object value)
        {
            parameters.Add(value);
            return $"${parameters.Count + 1}";
        }

        var joins = isLines && query.AllVersions ? "" : isLines
            ? " JOIN documents d ON d.book = r.book AND d.key = r.document AND d.added = r.added"
            : table.Id is { } id && (query.Columns.Contains(id) || query.Where?.Column == id)
                ? $" JOIN {table.Name}_keys k ON k.book = r.book AND k.key = r.key" : "";
        string[] conditions =
        [
            "r.book = $1",
            .. query.Keys is { } keys ? new[] { $"{key} = ANY ({Parameter(keys.ToArray())})" } : [],
            .. query.AllVersions ? Array.Empty<string>()
                : query.Standing.Revision is { } revision && Parameter(revision) is var at
                    ? [$"{history}.added <= {at} AND ({history}.replaced IS NULL OR {history}.replaced > {at})"]
                    : [$"{history}.replaced IS NULL"],
            .. query.Where is { } where ? new[] { $"{ColumnOf(table, where.Column)} = {Parameter(where.Value)}" } : [],
        ];
        var order = isLines ? "r.document, r.added, r.line" : table.Id is null ? "r.key" : "r.key, r.added";
        var sql = $"SELECT {string.Join(", ", query.Columns.Select(column => Asked(table, column)))} FROM {table.Name} r{joins} "
            + $"WHERE {string.Join(" AND ", conditions)} ORDER BY {order}"
            + (query.Most is { } most ? $" LIMIT {Parameter((long)most)}" : "");
        return (sql, parameters);
    }

    /// <summary>Whether the numbers of a column take four bytes, as keys do; others take eight.</summary>
    public static bool IsShort(RecordTable table, string column) => column is RecordQuery.Key or "document"
        || table.Fields.FirstOrDefault(field => field.Name == column)?.Type == FieldType.Reference;

    /// <summary>A name as SQL takes it, whatever it is.</summary>
    public static string Quoted(string name) => $"\"{name.Replace("\"", "\"\"")}\"";

    private static string Asked(RecordTable table, string column) => OwnNumbers.Contains(column)
        || table.Fields.FirstOrDefault(field => field.Name == column)?.IsNumber == true
            ? $"{ColumnOf(table, column)}::bigint" : ColumnOf(table, column);

    private static string ColumnOf(RecordTable table, string column) => column == table.Id ? "k.id" : $"r.{Quoted(column)}";
}
