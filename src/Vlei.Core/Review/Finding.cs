using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Review;

/// <summary>Something in the records that looks off, for a person to look at.</summary>
/// <param name="Kind">What kind of thing it is, as <c>duplicate</c>.</param>
/// <param name="Key">The name by which it is known, the same each time it is found: <c>duplicate/BILL-7</c>.</param>
/// <param name="Date">The day that it is about.</param>
/// <param name="Reason">What looks off, in words.</param>
/// <param name="Command">The arguments of vlei that show the records behind it.</param>
/// <param name="Fingerprint">What the records behind it are; where it differs, they have changed.</param>
public sealed record Finding(string Kind, string Key, DateOnly Date, string Reason, string Command, long Fingerprint)
{
    /// <summary>The key of the document that it is about, 0 for none.</summary>
    public DocumentKey Document { get; init; }

    /// <summary>The key of the contact, 0 for none.</summary>
    public ContactKey Contact { get; init; }

    /// <summary>The key of the account, 0 for none.</summary>
    public AccountKey Account { get; init; }

    /// <summary>The figure, with the sign that it has in words.</summary>
    public Amount? Amount { get; init; }

    /// <summary>Numbers as one that differs where any of them does: FNV-1a, 64 bits.</summary>
    public static long FingerprintOf(IEnumerable<long> numbers)
    {
        const ulong Offset = 14695981039346656037;
        const ulong Prime = 1099511628211;
        const int Byte = 8;
        var hash = Offset;
        foreach (var number in numbers)
        {
            for (var shift = 0; shift < sizeof(long) * Byte; shift += Byte)
            {
                hash = unchecked((hash ^ (byte)(number >> shift)) * Prime);
            }
        }

        return (long)hash;
    }
}
