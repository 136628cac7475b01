using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Core.Review;

/// <summary>The records behind a finding, as a report of them.</summary>
/// <param name="Report">The report.</param>
/// <param name="When">The option that says of which days: period or as-of.</param>
/// <param name="Days">Those days, as they are typed.</param>
/// <param name="Only">What is taken alone, as it is typed.</param>
public sealed record FindingRecords(string Report, string When, string Days, string Only)
{
    /// <summary>The options of the report.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> Options => new Dictionary<string, IReadOnlyList<string>>
    {
        [When] = [Days], ["only"] = [Only],
    };

    /// <summary>The command that shows it.</summary>
    public string Command => $"vlei show {Report} --{When} {Days} --only \"{Only}\"";
}

/// <summary>Something in the records that looks off, for a person to look at.</summary>
/// <param name="Kind">What kind of thing it is, as <c>duplicate</c>.</param>
/// <param name="Key">The name by which it is known, the same each time it is found: <c>duplicate/BILL-7</c>.</param>
/// <param name="Date">The day that it is about.</param>
/// <param name="Reason">What looks off, in words.</param>
/// <param name="Records">The records behind it.</param>
/// <param name="Fingerprint">What the records behind it are; where it differs, they have changed.</param>
public sealed record Finding(string Kind, string Key, DateOnly Date, string Reason, FindingRecords Records, long Fingerprint)
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
