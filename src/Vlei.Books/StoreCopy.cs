using System.Globalization;
using System.IO.Hashing;
using System.Text;
using Vlei.Books.Columns;
using Vlei.Books.Files;
using Vlei.Books.Store;
using Vlei.Books.Store.Postgres;
using Vlei.Books.Store.Sqlite;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>Takes a book with all its history from one store to another, and holds two against each other.</summary>
public static class StoreCopy
{
    private static readonly YearMonth Earliest = new(0);
    private static readonly YearMonth Latest = new(int.MaxValue / 100);

    /// <summary>
    /// Copies a book to a folder that is made, or to an address on a server where there is no such book yet. Throws a
    /// <see cref="ProblemException"/> where it cannot be; there is nothing of it then.
    /// </summary>
    public static void Run(Book book, string to, Action<string, long> progress)
    {
        using var reading = Upkeep.Read(book);
        if (PostgresAddress.IsOne(to))
        {
            ToServer(reading, PostgresAddress.Parse(to), book.SettingsText(), progress);
        }
        else
        {
            ToFolder(reading, to, book.SettingsText(), progress);
        }
    }

    /// <summary>In which kinds of records, or what else, two books differ in any version; in none where they are the same.</summary>
    public static IReadOnlyList<string> Differences(Book one, Book other)
    {
        using var left = Upkeep.Read(one);
        using var right = Upkeep.Read(other);
        return [.. Fingerprints(left).Zip(Fingerprints(right)).Where(pair => pair.First != pair.Second).Select(pair => pair.First.What)];
    }

    private static void ToServer(IStoreReading reading, PostgresAddress address, string settings, Action<string, long> progress)
    {
        PostgresServer.Add(address, settings);
        try
        {
            using var writing = new PostgresStore(address).Write(progress);
            Copy(reading, writing, progress);
            writing.Commit();
        }
        catch
        {
            PostgresServer.RemoveEmpty(address);
            throw;
        }
    }

    private static void ToFolder(IStoreReading reading, string folder, string settings, Action<string, long> progress) =>
        WholeFolder.Make(folder, unfinished =>
        {
            Book.MakeFolder(unfinished);
            SqliteStore.Create(Path.Combine(unfinished, Book.RecordsName), writing => Copy(reading, writing, progress));
            Book.WriteSettings(unfinished, settings);
        });

    private static void Copy(IStoreReading from, IStoreWriting to, Action<string, long> progress)
    {
        foreach (var import in from.Imports())
        {
            to.AddImport(import.Revision, import.At, import.By, import.Complete);
            to.DescribeImport(import.Revision, import.Files, import.Counts);
        }

        foreach (var table in RecordTables.All.Where(table => table.Id is not null))
        {
            using var ids = from.Ids(table);
            while (ids.Next())
            {
                to.AddId(table, ids.Int(0), ids.Bytes(1));
            }
        }

        foreach (var table in RecordTables.All)
        {
            CopyRows(from, to, table, progress);
        }

        foreach (var (key, tags) in from.TagSets())
        {
            to.AddTagSet(key, tags);
        }

        foreach (var period in from.ClosedPeriods())
        {
            to.SetClosed(period);
        }

        foreach (var kind in Enum.GetValues<DerivedKind>())
        {
            foreach (var head in from.Heads(kind, Earliest, Latest))
            {
                to.PutMonth(kind, head, from.Columns(kind, head.Month));
            }
        }

        to.SetMade(from.State.Made);
    }

    private static void CopyRows(IStoreReading from, IStoreWriting to, RecordTable table, Action<string, long> progress)
    {
        const int Often = 8192;
        var row = new RecordRow(table);
        var isLines = table == RecordTables.Lines;
        string[] known = isLines ? ["document", RecordQuery.Added, "line"]
            : [RecordQuery.Key, RecordQuery.Added, RecordQuery.Replaced, RecordQuery.Hash];
        using var rows = from.Rows(RecordRows.AllOf(table, known));
        for (var count = 1; rows.Next(); count++)
        {
            RecordRows.Fill(row, rows, known.Length);
            if (isLines)
            {
                to.AddLine(row, rows.Int(0), rows.Number(1), rows.Number(2));
            }
            else
            {
                to.Add(row, rows.Int(0), rows.Number(1), (ulong)rows.Number(3));
                if (!rows.IsNull(2))
                {
                    to.Close(table, rows.Int(0), rows.Number(2));
                }
            }

            if (count % Often == 0)
            {
                progress($"copying {table.Name}", count);
            }
        }
    }

    private static IEnumerable<(string What, string Hash)> Fingerprints(IStoreReading store)
    {
        yield return ("imports", HashOf(store.Imports().Select(import =>
            $"{import.Revision} {import.At:O} {import.By} {import.Complete} {string.Join(' ', import.Files)} "
                + string.Join(' ', import.Counts))));
        foreach (var table in RecordTables.All)
        {
            yield return (table.Name, HashOf(LinesOf(store, table)));
        }

        yield return ("sets of tags", HashOf(store.TagSets().Select(set => $"{set.Key} {set.Tags}")));
        yield return ("closed periods", HashOf(store.ClosedPeriods().Select(period => $"{period}")));
        foreach (var kind in Enum.GetValues<DerivedKind>())
        {
            yield return ($"derived months ({DerivedMonths.NameOf(kind)})", HashOf(
                new DerivedMonths(store).Fingerprints(kind).Select(month => $"{month.Month} {month.Fingerprint}")));
        }
    }

    private static IEnumerable<string> LinesOf(IStoreReading store, RecordTable table)
    {
        string[] known = table == RecordTables.Lines ? ["document", RecordQuery.Added]
            : [RecordQuery.Key, RecordQuery.Added, RecordQuery.Replaced, RecordQuery.Hash];
        var query = RecordRows.AllOf(table, known);
        using var rows = store.Rows(query);
        while (rows.Next())
        {
            yield return string.Join('|', query.Columns.Select((_, column) => rows.IsNull(column) ? "-"
                : rows.Text(column) is { Length: > 0 } text ? text : rows.Number(column).ToString(CultureInfo.InvariantCulture)));
        }
    }

    private static string HashOf(IEnumerable<string> lines)
    {
        var hash = new XxHash128();
        foreach (var line in lines)
        {
            hash.Append(Encoding.UTF8.GetBytes(line + "\n"));
        }

        return Convert.ToHexString(hash.GetCurrentHash());
    }
}
