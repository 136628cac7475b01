using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>The control items of some documents: of any number of them a few bytes each.</summary>
/// <param name="keys">One more than the highest key of a document.</param>
internal sealed class ItemsOfDocuments(int keys)
{
    private readonly ManyValues<ControlItem> _all = new();
    private readonly (int First, int Count)[] _of = new (int, int)[keys];

    /// <summary>Takes those of a document; it has none otherwise.</summary>
    public void Add(DocumentKey document, List<ControlItem> items)
    {
        // The first place stands for none.
        _of[document.Value] = (_all.Count + 1, items.Count);
        foreach (var item in items)
        {
            _all.Add(in item);
        }
    }

    /// <summary>Those of a document; nothing where it was not taken.</summary>
    public IReadOnlyList<ControlItem>? Of(DocumentKey document)
    {
        if (document.Value >= _of.Length || _of[document.Value] is not { First: > 0 } found)
        {
            return null;
        }

        var items = new ControlItem[found.Count];
        for (var item = 0; item < items.Length; item++)
        {
            items[item] = _all[found.First - 1 + item];
        }

        return items;
    }
}
