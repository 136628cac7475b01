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
