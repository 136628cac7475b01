using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>What a value of a field has to do with the change of a figure: what it counted then, and what it counts now.</summary>
/// <param name="key">The key of the value, 0 for none.</param>
internal sealed class ChangeReason(long key)
{
    private readonly HashSet<DocumentKey> _documents = [];
    private bool _wasThere;
    private long _quantityBefore;
    private long _quantityNow;

    /// <summary>The key of the value, 0 for none.</summary>
    public long Key => key;

    /// <summary>What it counted in the earlier figure.</summary>
    public Amount Before { get; private set; } = Amount.Zero;

    /// <summary>What it counts in the figure.</summary>
    public Amount Now { get; private set; } = Amount.Zero;

    /// <summary>By how much it changes the figure.</summary>
    public Amount Change => Now - Before;

    /// <summary>Adds a posting.</summary>
    public void Add(PostingEntry entry, bool isNow)
    {
        if (isNow)
        {
            Now += entry.Amount;
            _quantityNow = checked(_quantityNow + entry.Quantity);
            _ = _documents.Add(entry.Place.Document);
        }
        else
        {
            Before += entry.Amount;
            _wasThere = true;
            _quantityBefore = checked(_quantityBefore + entry.Quantity);
        }
    }

    /// <summary>Adds what another value counts: the two are one then.</summary>
    public void Add(ChangeReason other) => (Before, Now) = (Before + other.Before, Now + other.Now);

    /// <summary>What else is to be said of it: whether it is new, gone, or one document alone.</summary>
    public string Remark => !_wasThere ? _documents.Count == 1 ? "new, one document" : "new"
        : _documents.Count == 0 ? "gone" : "";

    /// <summary>
    /// How much of the change is that of the quantity, at the price of before, rounded to a minor unit; the price has what is left.
    /// Nothing where there is a quantity in one of the figures at most.
    /// </summary>
    public Amount? ByQuantity
    {
        get
        {
            if (_quantityBefore == 0 || _quantityNow == 0 || Before.IsZero || Now.IsZero)
            {
                return null;
            }

            var atOldPrice = (Int128)Before.MinorUnits * (_quantityNow - _quantityBefore);
            var half = Int128.Abs(_quantityBefore) / 2;
            var rounded = (Int128.Abs(atOldPrice) + half) / Int128.Abs(_quantityBefore);
            return new Amount((long)(rounded * Int128.Sign(atOldPrice) * Math.Sign(_quantityBefore)));
        }
    }
}
