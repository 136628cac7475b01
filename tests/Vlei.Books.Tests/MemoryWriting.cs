using System.Text;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Tests;

/// <summary>Writes to a copy of what a store in memory holds, which takes its place in the end.</summary>
internal sealed class MemoryWriting(MemoryRecords records, Action<MemoryRecords> keep, Action end) : MemoryReading(records), IStoreWriting
{
    public void AddImport(long revision, DateTimeOffset at, string by, bool complete) =>
        Records.Imports.Add(new StoredImport(revision, StoreProblem.MomentOf(StoreProblem.MomentText(at)), by, complete, [], []));

    public void DescribeImport(long revision, IReadOnlyList<RecordFile> files, IReadOnlyList<StoredCounts> counts)
    {
        var place = Records.Imports.FindIndex(import => import.Revision == revision);
        Records.Imports[place] = Records.Imports[place] with
        {
            Files = [.. files],
            Counts = [.. counts.OrderBy(count => count.Kind, StringComparer.Ordinal)],
        };
    }

    public void AddId(RecordTable table, int key, ReadOnlySpan<byte> id) => Records.Ids[table.Name].Add(key, Encoding.UTF8.GetString(id));

    public void Add(RecordRow row, int key, long revision, ulong hash) => Records.Tables[row.Table.Name].Add(new MemoryRow(
        key, revision, 0, ColumnsOf(row, (RecordQuery.Key, (long)key), (RecordQuery.Added, revision), (RecordQuery.Hash, (long)hash))));

    public void AddLine(RecordRow row, int document, long revision, long place) => Records.Tables[row.Table.Name].Add(new MemoryRow(
        document, revision, place, ColumnsOf(row, ("document", (long)document), (RecordQuery.Added, revision), ("line", place))));

    public void Close(RecordTable table, int key, long revision) => Records.Change(
        table, row => row.Key == key && row.Columns[RecordQuery.Replaced] is null, RecordQuery.Replaced, revision);

    public void SetHash(RecordTable table, int key, long revision, ulong hash) =>
        Records.Change(table, row => row.Key == key && row.Added == revision, RecordQuery.Hash, (long)hash);

    public void AddTagSet(int key, string tags) => Records.TagSets.Add(key, tags);

    public void SetClosed(ClosedPeriod period) => Records.Closed[(period.Days.From, period.Days.To)] = period with
    {
        At = StoreProblem.MomentOf(StoreProblem.MomentText(period.At)),
    };

    public bool RemoveClosed(DateRange days) => Records.Closed.Remove((days.From, days.To));

    public void SetMade(MadeHow made) => Records.Made = made;

    public void PutMonth(DerivedKind kind, MonthHead head, IReadOnlyList<MonthColumn> columns)
    {
        Records.Months.Remove((kind, head.Month.Index));
        if (head.Rows > 0)
        {
            Records.Months.Add((kind, head.Month.Index), (head, [.. columns]));
        }
    }

    public void ClearMonths() => Records.Months.Clear();

    public void Commit() => keep(Records);

    public override void Dispose()
    {
        end();
        base.Dispose();
    }

    private static Dictionary<string, object?> ColumnsOf(RecordRow row, params ReadOnlySpan<(string Name, long Value)> known)
    {
        var columns = new Dictionary<string, object?>
        {
            [RecordQuery.Replaced] = null, [RecordQuery.Tags] = row.Tags.IsEmpty ? null : Encoding.UTF8.GetString(row.Tags),
        };
        for (var field = 0; field < row.Table.Fields.Count; field++)
        {
            columns[row.Table.Fields[field].Name] =
                !row.Has(field) ? null : row.Table.Fields[field].IsNumber ? row.Number(field) : row.String(field);
        }

        foreach (var (name, value) in known)
        {
            columns[name] = value;
        }

        return columns;
    }
}
