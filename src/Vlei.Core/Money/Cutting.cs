namespace Vlei.Core.Money;

/// <summary>
/// Cuts a share of a whole into the parts that make up that whole, so that the cut parts always add up to the share
/// and the full share gives back every part exactly.
/// </summary>
/// <remarks>
/// Part <em>l</em> gets <c>round(prefix(l) * S / C) - round(prefix(l-1) * S / C)</c>: the rounding of one part is
/// carried into the next, so no cent is lost or made. It does not depend on which shares were cut before.
/// </remarks>
public static class Cutting
{
    /// <summary>
    /// Writes into <paramref name="cut"/> what each part holds of the share <paramref name="reached"/> out of
    /// <paramref name="whole"/>. Throws <see cref="DivideByZeroException"/> when the whole is zero.
    /// </summary>
    /// <param name="parts">The parts, in the order of the document's lines; their signs may differ.</param>
    /// <param name="reached">How much of the whole is reached.</param>
    /// <param name="whole">The whole that <paramref name="reached"/> is measured against.</param>
    /// <param name="cut">As long as <paramref name="parts"/>.</param>
    public static void Cut(ReadOnlySpan<Amount> parts, Amount reached, Amount whole, Span<Amount> cut)
    {
        var prefix = (Int128)0;
        var before = 0L;
        for (var part = 0; part < parts.Length; part++)
        {
            prefix += parts[part].MinorUnits;
            var upTo = Rounding.Divide(prefix * reached.MinorUnits, whole.MinorUnits);
            cut[part] = new Amount(checked(upTo - before));
            before = upTo;
        }
    }
}
