using System.Text;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Tests;

/// <summary>Reads what a store in memory held at one moment.</summary>
internal class MemoryReading(MemoryRecords records) : IStoreReading
{
    public StoreState State => new(records.Imports.Count == 0 ? 0 : records.Imports.Max(import => import.Revision), records.Made);

    protected MemoryRecords Records => records;

    public IRows Rows(RecordQuery query)
    {
        var documents = new Lazy<Dictionary<(int, long), MemoryRow>>(() =>
            records.Tables["documents"].ToDictionary(document => (document.Key, document.Added)));
        MemoryRow HistoryOf(MemoryRow row) => query.Table == RecordTables.Lines ? documents.Value[(row.Key, row.Added)] : row;
        var keys = query.Keys?.ToHashSet();
        var rows = records.Tables[query.Table.Name]
            .Where(row => keys?.Contains(row.Key) != false)
            .Where(row => query.AllVersions || Stands(HistoryOf(row), query.Standing))
            .Where(row => query.Where is not { } where || Equals(ValueOf(query.Table, row, where.Column), where.Value))
            .OrderBy(row => row.Key).ThenBy(row => row.Added).ThenBy(row => row.Place)
            .Take(query.Most ?? int.MaxValue);
        return new MemoryRows([.. rows.Select(row => query.Columns.Select(column => ValueOf(query.Table, row, column)).ToArray())]);
    }

    public IRows Ids(RecordTable table) =>
        new MemoryRows([.. records.Ids[table.Name].Select(id => new object?[] { (long)id.Key, id.Value })]);

    public int LastKey(RecordTable table) => table.Id is null
        ? records.Tables[table.Name].Select(row => row.Key).DefaultIfEmpty().Max()
        : records.Ids[table.Name].Keys.DefaultIfEmpty().Max();

    public HashSet<int> ChangedSince(RecordTable table, long revision) =>
        [.. records.Tables[table.Name].Where(row => row.Added > revision || ReplacedIn(row) > revision).Select(row => row.Key)];

    public IReadOnlyList<(int Key, string Tags)> TagSets() => [.. records.TagSets.Select(set => (set.Key, set.Value))];

    public IReadOnlyList<StoredImport> Imports() => [.. records.Imports];

    public IReadOnlyList<ClosedPeriod> ClosedPeriods() => [.. records.Closed.Values];

    public IReadOnlyList<string> Faults(int most) => [];

    public IReadOnlyList<(YearMonth Month, int Rows)> Months(DerivedKind kind) =>
        [.. HeadsOf(kind).Select(head => (head.Month, head.Rows))];

    public IReadOnlyList<MonthHead> Heads(DerivedKind kind, YearMonth first, YearMonth last) =>
        [.. HeadsOf(kind).Where(head => head.Month.Index >= first.Index && head.Month.Index <= last.Index)];

    public IReadOnlyList<YearMonth> AllMonths(DerivedKind kind) => [.. HeadsOf(kind).Select(head => head.Month)];

    public bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum)
    {
        var column = Columns(kind, month).FirstOrDefault(column => column.Name == name);
        data = column.Data;
        checksum = column.Checksum;
        return column.Name is not null;
    }

    public IReadOnlyList<MonthColumn> Columns(DerivedKind kind, YearMonth month) =>
        records.Months.TryGetValue((kind, month.Index), out var found)
            ? [.. found.Columns.OrderBy(column => column.Name, StringComparer.Ordinal)] : [];

    public virtual void Dispose()
    {
    }

    private static long? ReplacedIn(MemoryRow row) => (long?)row.Columns[RecordQuery.Replaced];

    private static bool Stands(MemoryRow row, Standing standing) => standing.Revision is { } revision
        ? row.Added <= revision && !(ReplacedIn(row) <= revision) : ReplacedIn(row) is null;

    private object? ValueOf(RecordTable table, MemoryRow row, string column) =>
        column == table.Id ? records.Ids[table.Name][row.Key] : row.Columns[column];

    private IEnumerable<MonthHead> HeadsOf(DerivedKind kind) =>
        records.Months.Where(month => month.Key.Kind == kind).Select(month => month.Value.Head);

    private sealed class MemoryRows(List<object?[]> rows) : IRows
    {
        private int _at = -1;

        public bool Next() => ++_at < rows.Count;

        public bool IsNull(int column) => rows[_at][column] is null;

        public long Number(int column) => (long?)rows[_at][column] ?? 0;

        public string Text(int column) => (string?)rows[_at][column] ?? "";

        public ReadOnlySpan<byte> Bytes(int column) => Encoding.UTF8.GetBytes(Text(column));

        public void Dispose()
        {
        }
    }
}
