namespace Vlei.Core.Money;

/// <summary>A percentage with four decimals, computed from exact amounts and rounded half to even once.</summary>
/// <param name="TenThousandths">Ten-thousandths of one percent: 275000 is 27.5 %.</param>
public readonly record struct Percentage(long TenThousandths)
{
    /// <summary>How many decimals a percentage carries.</summary>
    public const int Decimals = 4;

    /// <summary>
    /// <paramref name="part"/> as a percentage of <paramref name="whole"/>, or nothing where the whole is zero.
    /// Throws <see cref="OverflowException"/> where it does not fit.
    /// </summary>
    public static Percentage? Of(Amount part, Amount whole) =>
        whole.IsZero ? null : new Percentage(Rounding.Divide((Int128)part.MinorUnits * 1_000_000, whole.MinorUnits));
}
