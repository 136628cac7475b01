using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Core.Money;

/// <summary>Amounts as people type them.</summary>
public static class AmountText
{
    /// <summary>Reads the value of an option. Throws a <see cref="ProblemException"/> where it is no amount of the currency.</summary>
    public static Amount Read(string option, string text, Currency currency) =>
        DecimalText.Read(Encoding.UTF8.GetBytes(text), currency.Decimals, out var units) == DecimalTextResult.Read
            ? new Amount(units)
            : throw new ProblemException(
                ProblemKind.Usage, $"--{option} does not take \"{text}\".",
                $"Write an amount without thousands separators, with at most {currency.Decimals} decimals: 1250.00.");
}
