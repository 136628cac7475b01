using System.Diagnostics.CodeAnalysis;

namespace Vlei.Core.Money;

/// <summary>
/// A currency as ISO 4217 lists it: its three-letter code and how many decimals an amount in it has.
/// </summary>
public sealed record Currency
{
    private const string WithoutDecimals =
        "BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF";

    private const string WithThreeDecimals = "BHD IQD JOD KWD LYD OMR TND";

    private const string WithTwoDecimals =
        "AED AFN ALL AMD AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY "
        + "COP CRC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR "
        + "ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK "
        + "MXN MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP "
        + "SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD UYU UZS VED VES WST XCD YER ZAR "
        + "ZMW ZWG";

    private Currency(string code, int decimals) => (Code, Decimals) = (code, decimals);

    /// <summary>Of what has no amounts: ISO 4217 has a code for that.</summary>
    public static Currency None { get; } = new("XXX", 2);

    /// <summary>The ISO 4217 code, in capitals: <c>ZAR</c>.</summary>
    public string Code { get; }

    /// <summary>How many decimals an amount has: 0, 2 or 3.</summary>
    public int Decimals { get; }

    /// <summary>Every code that is known, for suggestions.</summary>
    public static IEnumerable<string> Codes =>
        $"{WithTwoDecimals} {WithoutDecimals} {WithThreeDecimals}".Split(' ').Order(StringComparer.Ordinal);

    /// <summary>Finds a currency by its code; capitals do not matter.</summary>
    public static bool TryFind(string code, [NotNullWhen(true)] out Currency? currency)
    {
        var wanted = code.ToUpperInvariant();
        currency = WithTwoDecimals.Split(' ').Contains(wanted) ? new Currency(wanted, 2)
            : WithoutDecimals.Split(' ').Contains(wanted) ? new Currency(wanted, 0)
            : WithThreeDecimals.Split(' ').Contains(wanted) ? new Currency(wanted, 3)
            : null;
        return currency is not null;
    }
}
