using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Books;

/// <summary>Finds what is not as it was at an earlier import.</summary>
internal static class RecordChanges
{
    /// <summary>The documents and settlements that differ between the records of then and those of now.</summary>
    public static List<RecordChange> Since(IStoreReading store, long revision)
    {
        var changed = store.ChangedSince(RecordTables.Documents, revision);
        return [.. Documents(store, revision, [.. changed.Order()]), .. Settlements(store, revision, changed)];
    }

    /// <summary>What the imports up to one did to documents, in their order.</summary>
    public static IEnumerable<DocumentVersion> VersionsUpTo(IStoreReading store, long revision)
    {
        var imports = store.Imports().ToDictionary(import => import.Revision);
        var debits = new DebitSums(store, null);
        var versions = new List<DocumentVersion>();
        using var rows = store.Rows(new RecordQuery(
            RecordTables.Documents, RecordQuery.Key, "id", "kind", "date", RecordQuery.Added, RecordQuery.Replaced)
        {
            AllVersions = true,
        });

        // A version that begins where another ends is a change; one that ends where none begins goes.
        var gone = default(DocumentVersion);
        while (rows.Next())
        {
            var (document, added) = (new DocumentKey(rows.Int(0)), rows.Number(4));
            var follows = gone is not null && gone.Document == document && gone.Revision == added;
            if (gone is not null && !follows)
            {
                versions.Add(gone);
            }

            DocumentVersion VersionOf(ChangeKind change, long at) => new(
                document, rows.Text(1), DocumentKinds.NumberOf(rows.Text(2)), DayIn(rows, 3)!.Value, debits.Of(document.Value, added),
                change, at, imports[at].At, imports[at].By);
            if (added <= revision)
            {
                versions.Add(VersionOf(follows ? ChangeKind.Changed : ChangeKind.Added, added));
            }

            gone = !rows.IsNull(5) && rows.Number(5) <= revision ? VersionOf(ChangeKind.Removed, rows.Number(5)) : null;
        }

        if (gone is not null)
        {
            versions.Add(gone);
        }

        return versions.OrderBy(version => version.Revision).ThenBy(version => version.Document);
    }

    private static IEnumerable<RecordChange> Documents(IStoreReading store, long revision, IReadOnlyList<int> changed)
    {
        var debits = new DebitSums(store, changed);
        var (before, now) = (
            Versions(store, new Standing(revision), changed).ToDictionary(version => version.Key),
            Versions(store, Standing.Now, changed).ToDictionary(version => version.Key));
        foreach (var key in changed)
        {
            var (was, isNow) = (before.GetValueOrDefault(key), now.GetValueOrDefault(key));
            if ((isNow ?? was) is not { } said || was?.Hash == isNow?.Hash)
            {
                continue;
            }

            yield return new RecordChange(
                was is null ? ChangeKind.Added : isNow is null ? ChangeKind.Removed : ChangeKind.Changed,
                said.Id, was?.Date, isNow?.Date, said.Kind, isNow?.Number ?? was?.Number ?? "", SumOf(was), SumOf(isNow));
        }

        Amount SumOf(Version? version) => version is null ? Amount.Zero : debits.Of(version.Key, version.Added);
    }

    private static IEnumerable<Version> Versions(IStoreReading store, Standing standing, IReadOnlyList<int> keys)
    {
        using var rows = store.Rows(new RecordQuery(
            RecordTables.Documents, RecordQuery.Key, RecordQuery.Added, RecordQuery.Hash, "id", "date", "kind", "number")
        {
            Standing = standing, Keys = keys,
        });
        while (rows.Next())
        {
            yield return new Version(
                rows.Int(0), rows.Number(1), rows.Number(2), rows.Text(3), DayIn(rows, 4)!.Value, rows.Text(5),
                rows.IsNull(6) ? null : rows.Text(6));
        }
    }

    // What was taken away and put back the same is no change.
    private static IEnumerable<RecordChange> Settlements(IStoreReading store, long revision, HashSet<int> documents)
    {
        var (before, now) = (
            Settled(store, new Standing(revision), revision, documents), Settled(store, Standing.Now, revision, documents));
        foreach (var (settlement, count) in now)
        {
            for (var more = count - before.GetValueOrDefault(settlement); more > 0; more--)
            {
                yield return new RecordChange(
                    ChangeKind.Settled, settlement.Id, null, settlement.Day, "", "", Amount.Zero, settlement.Amount);
            }
        }

        foreach (var (settlement, count) in before)
        {
            for (var more = count - now.GetValueOrDefault(settlement); more > 0; more--)
            {
                yield return new RecordChange(
                    ChangeKind.Unsettled, settlement.Id, settlement.Day, null, "", "", settlement.Amount, Amount.Zero);
            }
        }
    }

    // Only those that an import since has touched, or whose documents have moved: their day is the latest of all three.
    private static Dictionary<(string Id, DateOnly Day, Amount Amount), int> Settled(
        IStoreReading store, Standing standing, long revision, HashSet<int> documents)
    {
        var touched = store.ChangedSince(RecordTables.Settlements, revision);
        var found = new List<(int From, int To, DateOnly? Day, Amount Amount)>();
        using (var rows = store.Rows(new RecordQuery(RecordTables.Settlements, RecordQuery.Key, "from", "to", "date", "amount")
        {
            Standing = standing,
        }))
        {
            while (rows.Next())
            {
                var (from, to) = (rows.Int(1), rows.Int(2));
                if (touched.Contains(rows.Int(0)) || documents.Contains(from) || documents.Contains(to))
                {
                    found.Add((from, to, DayIn(rows, 3), new Amount(rows.Number(4))));
                }
            }
        }

        int[] keys = [.. found.SelectMany(settlement => new[] { settlement.From, settlement.To }).Distinct().Order()];
        var named = Versions(store, standing, keys).ToDictionary(version => version.Key);
        var settlements = new Dictionary<(string, DateOnly, Amount), int>();
        foreach (var (from, to, day, amount) in found.Where(one => named.ContainsKey(one.From) && named.ContainsKey(one.To)))
        {
            var (left, right) = (named[from], named[to]);
            var latest = new[] { day ?? left.Date, left.Date, right.Date }.Max();
            var key = ($"{left.Id} with {right.Id}", latest, amount);
            settlements[key] = settlements.GetValueOrDefault(key) + 1;
        }

        return settlements;
    }

    private static DateOnly? DayIn(IRows rows, int column) => IsoText.TryDay(rows.Bytes(column), out var day) ? day : null;

    private sealed record Version(int Key, long Added, long Hash, string Id, DateOnly Date, string Kind, string? Number);

    /// <summary>What every version of documents has on the debit side.</summary>
    private sealed class DebitSums
    {
        private readonly Dictionary<(int Document, long Added), Amount> _sums = [];

        public DebitSums(IStoreReading store, IReadOnlyList<int>? documents)
        {
            using var rows = store.Rows(new RecordQuery(RecordTables.Lines, "document", RecordQuery.Added, "amount")
            {
                AllVersions = true, Keys = documents,
            });
            while (rows.Next())
            {
                if (rows.Number(2) > 0)
                {
                    var version = (rows.Int(0), rows.Number(1));
                    _sums[version] = _sums.GetValueOrDefault(version) + new Amount(rows.Number(2));
                }
            }
        }

        public Amount Of(int document, long added) => _sums.GetValueOrDefault((document, added));
    }
}
