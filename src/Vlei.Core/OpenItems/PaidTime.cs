using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.OpenItems;

/// <summary>What was settled, and how long that took, weighed by the amounts.</summary>
internal struct PaidTime
{
    private const int TenThousandths = 10_000;

    private Int128 _toPay;
    private Int128 _late;

    /// <summary>What was settled; positive.</summary>
    public Amount Settled { get; private set; }

    /// <summary>Days from the document to its settlement, in ten-thousandths; nothing where nothing was settled.</summary>
    public readonly long? DaysToPay => Average(_toPay);

    /// <summary>Days from when it was due, in ten-thousandths, less than 0 for early; nothing where nothing was settled.</summary>
    public readonly long? DaysLate => Average(_late);

    /// <summary>Adds what was set against an item.</summary>
    public void Add(ItemAt item, AppliedItem applied)
    {
        Settled += applied.Amount;
        _toPay += (Int128)applied.Amount.MinorUnits * (applied.Day.DayNumber - item.Date.DayNumber);
        _late += (Int128)applied.Amount.MinorUnits * (applied.Day.DayNumber - item.Due.DayNumber);
    }

    private readonly long? Average(Int128 weighed) =>
        Settled.IsZero ? null : Rounding.Divide(weighed * TenThousandths, Settled.MinorUnits);
}
