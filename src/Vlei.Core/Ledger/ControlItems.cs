using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>
/// The items of one document as its lines come, in the order of their first lines. Nearly every document has one or two; one that
/// has a line for each of many contacts is found by its account and contact.
/// </summary>
internal sealed class ControlItems
{
    private const int Few = 8;

    private Dictionary<(AccountKey Account, ContactKey Contact), int>? _places;

    /// <summary>The items.</summary>
    public List<ControlItem> All { get; } = new(1);

    /// <summary>
    /// Adds an item, or its total to that of the same account and contact. Throws <see cref="OverflowException"/> where a sum does not
    /// fit.
    /// </summary>
    public void Add(ControlItem item)
    {
        var place = PlaceOf(item.Account, item.Contact);
        if (place < 0)
        {
            All.Add(item);
            _ = _places?.TryAdd((item.Account, item.Contact), All.Count - 1);
        }
        else
        {
            All[place] = All[place] with { Total = All[place].Total + item.Total };
        }
    }

    /// <summary>What there is of an account and contact; zero where there is none.</summary>
    public Amount TotalOf(AccountKey account, ContactKey contact) =>
        PlaceOf(account, contact) is >= 0 and var place ? All[place].Total : Amount.Zero;

    private int PlaceOf(AccountKey account, ContactKey contact)
    {
        if (All.Count <= Few)
        {
            return All.FindIndex(item => item.Account == account && item.Contact == contact);
        }

        _places ??= Enumerable.Range(0, All.Count).ToDictionary(place => (All[place].Account, All[place].Contact));
        return _places.GetValueOrDefault((account, contact), -1);
    }
}
