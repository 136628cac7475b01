using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Import;

/// <summary>
/// Imports settlements. They belong to their two documents: what the set says about a pair takes the place of what was
/// known about it, and what it no longer says is removed where the set has both documents. A settlement with a document
/// that the set does not have stays.
/// </summary>
/// <param name="session">The import.</param>
/// <param name="documents">The documents of the set.</param>
/// <param name="isTouched">Whether a document is not as it was by itself.</param>
internal sealed class SettlementImport(ImportSession session, KeyedImport documents, Predicate<int> isTouched)
{
    private static readonly RecordTable Table = RecordTables.Settlements;
    private static readonly int From = Table.IndexOf("from");
    private static readonly int To = Table.IndexOf("to");
    private static readonly int Amount = Table.IndexOf("amount");

    // What there is between two documents, and how much of what the set says of such a pair is new.
    private readonly Dictionary<(int, int), List<(ulong Hash, int Key)>> _known = [];
    private readonly Dictionary<(int, int), int> _added = [];

    /// <summary>The documents that are as they were, but whose settlements are not.</summary>
    public HashSet<int> Touched { get; } = [];

    /// <summary>Where each settlement that the set has stands, by its key.</summary>
    public Dictionary<int, RecordPlace> Places { get; } = [];

    /// <summary>Imports them.</summary>
    public void Run()
    {
        var counts = session.CountsOf(Table);
        var next = Load();
        var said = new HashSet<(int, int)>();
        foreach (var row in session.Records.Read(Table, session.Keys, session.Errors))
        {
            var (from, to) = ((int)row.Number(From), (int)row.Number(To));
            if (row.IsBroken || !IsSound(row, from, to))
            {
                continue;
            }

            var pair = (Math.Min(from, to), Math.Max(from, to));
            row.Set(From, pair.Item1);
            row.Set(To, pair.Item2);
            var hash = session.Hash.Of(row);
            var known = _known.GetValueOrDefault(pair);
            if (known is not null)
            {
                said.Add(pair);
            }

            var same = known?.FindIndex(settlement => settlement.Hash == hash) ?? -1;
            if (same >= 0)
            {
                Places.Add(known![same].Key, new RecordPlace(row.File, row.FileLine));
                known.RemoveAt(same);
                counts.Unchanged++;
                continue;
            }

            if (known is not null)
            {
                _added[pair] = _added.GetValueOrDefault(pair) + 1;
            }

            counts.Added++;
            Touch(from, to);
            if (session.CanWrite)
            {
                Places.Add(next, new RecordPlace(row.File, row.FileLine));
                session.Store.Add(row, next++, session.Revision, hash);
            }

            session.Tell("reading settlements.csv", counts.Added);
        }

        RemoveUnsaid(said, counts);
    }

    private bool IsSound(RecordRow row, int from, int to)
    {
        if (from == to)
        {
            session.Errors.Add(row, To, "a document cannot be set against itself.");
        }
        else if (row.Number(Amount) <= 0)
        {
            session.Errors.Add(row, Amount, "the amount of a settlement is positive; which document is which follows from their sides.");
        }
        else
        {
            return true;
        }

        return false;
    }

    private void Touch(params ReadOnlySpan<int> pair)
    {
        foreach (var document in pair)
        {
            if (!isTouched(document))
            {
                Touched.Add(document);
            }
        }
    }

    private int Load()
    {
        using var rows = session.Store.Rows(new RecordQuery(Table, RecordQuery.Key, "from", "to", RecordQuery.Hash));
        while (rows.Next())
        {
            var pair = (rows.Int(1), rows.Int(2));
            if (!_known.TryGetValue(pair, out var known))
            {
                _known.Add(pair, known = []);
            }

            known.Add(((ulong)rows.Number(3), rows.Int(0)));
        }

        return session.Store.LastKey(Table) + 1;
    }

    private void RemoveUnsaid(HashSet<(int, int)> said, RecordCounts counts)
    {
        foreach (var (pair, settlements) in _known)
        {
            var bothInSet = documents.IsInSet(pair.Item1) && documents.IsInSet(pair.Item2);
            var isGone = documents.Removed.Contains(pair.Item1) || documents.Removed.Contains(pair.Item2);
            if (!said.Contains(pair) && !bothInSet && !isGone && !session.Order.Complete)
            {
                continue;
            }

            foreach (var (_, key) in settlements)
            {
                session.Store.Close(Table, key, session.Revision);
                Touch(pair.Item1, pair.Item2);
                if (_added.GetValueOrDefault(pair) > 0)
                {
                    _added[pair]--;
                    counts.Added--;
                    counts.Changed++;
                }
                else
                {
                    counts.Removed++;
                }
            }
        }
    }
}
