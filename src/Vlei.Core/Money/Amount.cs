using System.Globalization;

namespace Vlei.Core.Money;

/// <summary>
/// A sum of money: a whole number of minor units of the book's currency. In records a debit is positive and a
/// credit negative. Arithmetic that does not fit in 64 bits throws <see cref="OverflowException"/>; it never wraps.
/// </summary>
/// <param name="MinorUnits">Cents, or whatever the smallest unit of the currency is.</param>
public readonly record struct Amount(long MinorUnits) : IComparable<Amount>
{
    /// <summary>No money.</summary>
    public static Amount Zero => default;

    /// <summary>Whether this is neither a debit nor a credit.</summary>
    public bool IsZero => MinorUnits == 0;

    /// <summary>-1 for a credit, 0 for nothing, 1 for a debit.</summary>
    public int Sign => Math.Sign(MinorUnits);

    /// <summary>The amount without its sign.</summary>
    public Amount Magnitude => Sign < 0 ? -this : this;

    /// <summary>The sum; throws <see cref="OverflowException"/> when it does not fit.</summary>
    public static Amount operator +(Amount left, Amount right) => new(checked(left.MinorUnits + right.MinorUnits));

    /// <summary>The difference; throws <see cref="OverflowException"/> when it does not fit.</summary>
    public static Amount operator -(Amount left, Amount right) => new(checked(left.MinorUnits - right.MinorUnits));

    /// <summary>The amount with the other sign; throws <see cref="OverflowException"/> when it does not fit.</summary>
    public static Amount operator -(Amount amount) => new(checked(-amount.MinorUnits));

    /// <summary>Whether the left amount is less.</summary>
    public static bool operator <(Amount left, Amount right) => left.MinorUnits < right.MinorUnits;

    /// <summary>Whether the left amount is more.</summary>
    public static bool operator >(Amount left, Amount right) => left.MinorUnits > right.MinorUnits;

    /// <summary>Whether the left amount is not more.</summary>
    public static bool operator <=(Amount left, Amount right) => left.MinorUnits <= right.MinorUnits;

    /// <summary>Whether the left amount is not less.</summary>
    public static bool operator >=(Amount left, Amount right) => left.MinorUnits >= right.MinorUnits;

    /// <summary>The minor units, for messages and logs; what people read is written by the outputs.</summary>
    public override string ToString() => MinorUnits.ToString(CultureInfo.InvariantCulture);

    /// <inheritdoc/>
    public int CompareTo(Amount other) => MinorUnits.CompareTo(other.MinorUnits);
}
