using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Tests;

/// <summary>A version of a record, or a line of a version of a document: its columns by name, each nothing, a number or a text.</summary>
internal sealed record MemoryRow(int Key, long Added, long Place, IReadOnlyDictionary<string, object?> Columns);

/// <summary>All that a store holds.</summary>
internal sealed class MemoryRecords
{
    public Dictionary<string, List<MemoryRow>> Tables { get; private init; } = RecordTables.All.ToDictionary(
        table => table.Name, _ => new List<MemoryRow>());

    public Dictionary<string, SortedDictionary<int, string>> Ids { get; private init; } = RecordTables.All.ToDictionary(
        table => table.Name, _ => new SortedDictionary<int, string>());

    public SortedDictionary<int, string> TagSets { get; private init; } = [];

    public List<StoredImport> Imports { get; private init; } = [];

    public SortedDictionary<(DateOnly From, DateOnly To), ClosedPeriod> Closed { get; private init; } = [];

    public SortedDictionary<(DerivedKind Kind, int Month), (MonthHead Head, IReadOnlyList<MonthColumn> Columns)> Months
    {
        get; private init;
    } = [];

    public MadeHow Made { get; set; }

    public MemoryRecords Copy() => new()
    {
        Tables = Tables.ToDictionary(table => table.Key, table => table.Value.ToList()),
        Ids = Ids.ToDictionary(table => table.Key, table => new SortedDictionary<int, string>(table.Value)),
        TagSets = new(TagSets), Imports = [.. Imports], Closed = new(Closed), Months = new(Months), Made = Made,
    };

    /// <summary>Puts another row in the place of one.</summary>
    public void Change(RecordTable table, Predicate<MemoryRow> which, string column, object value)
    {
        var rows = Tables[table.Name];
        if (rows.FindIndex(which) is >= 0 and var place)
        {
            rows[place] = rows[place] with { Columns = new Dictionary<string, object?>(rows[place].Columns) { [column] = value } };
        }
    }
}
