using System.Globalization;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Sqlite;

/// <summary>The SQL of what is asked of the record tables, and of what is written to them.</summary>
internal static class SqliteText
{
    /// <summary>The parameter of a query with the first key that is asked for.</summary>
    public const int ParameterOfFirstKey = 1;

    /// <summary>The parameter with the last one.</summary>
    public const int ParameterOfLastKey = 2;

    /// <summary>The parameter with the value that a field must have.</summary>
    public const int ParameterOfValue = 3;

    /// <summary>The query: its columns, then the key.</summary>
    public static string Select(RecordQuery query)
    {
        // A document and its lines are one: what adds or replaces it is said once, there.
        var table = query.Table;
        var isLines = table == RecordTables.Lines;
        var (history, key) = isLines ? ("d", "d.key") : ("r", "r.key");
        var columns = string.Concat(query.Columns.Select(column => $"{ColumnOf(table, column)}, "));
        var from = isLines ? "documents d JOIN lines r ON r.document = d.key AND r.added = d.added" : $"{table.Name} r";
        var ids = table.Id is { } id && (query.Columns.Contains(id) || query.Where?.Column == id)
            ? $" JOIN {table.Name}_keys k ON k.key = r.key" : "";
        var standing = query.AllVersions ? "" : $" AND {Stands(query.Standing, history)}";
        var where = query.Where is { } value ? $" AND {ColumnOf(table, value.Column)} = ?{ParameterOfValue}" : "";
        var order = isLines ? "d.key, d.added, r.line" : table.Id is null ? "r.key" : "r.key, r.added";
        return $"SELECT {columns}{key} FROM {from}{ids} "
            + $"WHERE {key} BETWEEN ?{ParameterOfFirstKey} AND ?{ParameterOfLastKey}{standing}{where} ORDER BY {order}";
    }

    /// <summary>
    /// How some rows are added to a table; those whose first column is empty are none. Where one cannot be, the others may stay, and
    /// the transaction must be given up: SQLite need not note how to take them back.
    /// </summary>
    public static string Insert(string table, IReadOnlyList<string> columns, int rows)
    {
        var row = $"({string.Join(", ", columns.Select(_ => "?"))})";
        return $"INSERT OR FAIL INTO {table}({string.Join(", ", columns.Select(Quoted))}) "
            + $"SELECT * FROM (VALUES {string.Join(", ", Enumerable.Repeat(row, rows))}) WHERE column1 IS NOT NULL";
    }

    private static string ColumnOf(RecordTable table, string column) => column == table.Id ? "k.id" : $"r.{Quoted(column)}";

    private static string Stands(Standing standing, string alias) => standing.Revision is not { } revision
        ? $"{alias}.replaced IS NULL"
        : string.Create(
            CultureInfo.InvariantCulture,
            $"{alias}.added <= {revision} AND ({alias}.replaced IS NULL OR {alias}.replaced > {revision})");

    private static string Quoted(string name) => $"\"{name}\"";
}
