using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>The control items of some documents: of any number of them a few bytes each.</summary>
/// <param name="keys">One more than the highest key of a document.</param>
internal sealed class ItemsOfDocuments(int keys)
{
    private readonly List<ControlItem> _all = [];
    private readonly (int First, int Count)[] _of = new (int, int)[keys];

    /// <summary>Takes those of a document; it has none otherwise.</summary>
    public void Add(DocumentKey document, List<ControlItem> items)
    {
        // The first place stands for none.
        _of[document.Value] = (_all.Count + 1, items.Count);
        _all.AddRange(items);
    }

    /// <summary>Those of a document; nothing where it was not taken.</summary>
    public IReadOnlyList<ControlItem>? Of(DocumentKey document) =>
        document.Value < _of.Length && _of[document.Value] is { First: > 0 } found ? _all.GetRange(found.First - 1, found.Count) : null;
}

/// <summary>Which settlements are of which documents; of documents that there are not, as in damaged records, none.</summary>
internal sealed class SettlementsOfDocuments
{
    private readonly int[] _firsts;
    private readonly int[] _places;

    /// <summary>Takes settlements.</summary>
    /// <param name="settlements">The settlements.</param>
    /// <param name="keys">One more than the highest key of a document.</param>
    public SettlementsOfDocuments(List<Settlement> settlements, int keys)
    {
        (_firsts, _places) = (new int[keys + 1], new int[2 * settlements.Count]);
        foreach (var settlement in settlements)
        {
            foreach (var document in DocumentsOf(settlement, keys))
            {
                _firsts[document + 1]++;
            }
        }

        for (var key = 1; key < _firsts.Length; key++)
        {
            _firsts[key] += _firsts[key - 1];
        }

        var next = _firsts.AsSpan(0, keys).ToArray();
        for (var place = 0; place < settlements.Count; place++)
        {
            foreach (var document in DocumentsOf(settlements[place], keys))
            {
                _places[next[document]++] = place;
            }
        }
    }

    /// <summary>The places of those of a document, in their order.</summary>
    public ReadOnlySpan<int> Of(DocumentKey document) => _places.AsSpan(_firsts[document.Value].._firsts[document.Value + 1]);

    private static IEnumerable<int> DocumentsOf(Settlement settlement, int keys) =>
        new[] { settlement.From.Value, settlement.To.Value }.Where(document => document < keys);
}
