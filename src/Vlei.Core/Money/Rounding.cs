namespace Vlei.Core.Money;

/// <summary>Exact quotients, rounded half to even: the one way in which the product rounds.</summary>
public static class Rounding
{
    /// <summary>
    /// <paramref name="numerator"/> / <paramref name="denominator"/>, rounded half to even.
    /// Throws <see cref="DivideByZeroException"/> for a zero denominator and <see cref="OverflowException"/> when the
    /// quotient does not fit in 64 bits.
    /// </summary>
    public static long Divide(Int128 numerator, Int128 denominator)
    {
        if (denominator < 0)
        {
            (numerator, denominator) = (-numerator, -denominator);
        }

        var (quotient, remainder) = Int128.DivRem(numerator, denominator);
        if (remainder < 0)
        {
            // The quotient is cut towards zero; take the floor, so that one comparison serves both signs.
            quotient -= 1;
            remainder += denominator;
        }

        var aboveHalf = (remainder * 2).CompareTo(denominator);
        if (aboveHalf > 0 || (aboveHalf == 0 && Int128.IsOddInteger(quotient)))
        {
            quotient += 1;
        }

        return checked((long)quotient);
    }
}
