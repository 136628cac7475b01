using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Records;

/// <summary>Reads one value as what its field says it is; references are looked up elsewhere.</summary>
internal sealed class FieldReader(Currency currency)
{
    // Beyond this a number of days, or a line's place in a document, is a slip.
    private const int LargestInteger = 1_000_000;

    private static readonly string NoInteger = $"is not a whole number from 0 to {LargestInteger}.";

    private readonly Dictionary<RecordField, byte[][]> _choices = new(ReferenceEqualityComparer.Instance);

    /// <summary>
    /// Puts the value into the row; where it cannot be, says what was expected, so that the message reads
    /// "amount "12,5" is not a number …".
    /// </summary>
    public bool TryRead(RecordField field, ReadOnlySpan<byte> value, RecordRow row, int index, out string expected)
    {
        expected = "";
        switch (field.Type)
        {
            case FieldType.Text:
                if (value.IndexOf((byte)0) >= 0)
                {
                    expected = "has a NUL character in it.";
                    return false;
                }

                row.Set(index, value);
                return true;
            case FieldType.Money:
                return TryNumber(value, currency.Decimals, row, index, out expected);
            case FieldType.Decimal:
                return TryNumber(value, RecordField.DecimalPlaces, row, index, out expected);
            case FieldType.Integer:
                return TryInteger(value, row, index, out expected);
            case FieldType.Boolean:
                return TryBoolean(value, row, index, out expected);
            case FieldType.Choice:
                return TryChoice(field, value, row, index, out expected);
            case FieldType.Date when !IsoText.TryDay(value, out _):
                expected = $"is no day from {PeriodGrammar.FirstYear} to {PeriodGrammar.LastYear}; expected one as 2026-03-15.";
                return false;
            case FieldType.Month when !IsoText.TryMonth(value, out _):
                expected = "is no month; expected one as 2026-03.";
                return false;
            case FieldType.Moment when !IsoText.IsMoment(value):
                expected = "is no moment; expected one as 2026-03-15T09:30:00Z, or a day.";
                return false;
            default:
                row.Set(index, value);
                return true;
        }
    }

    private bool TryNumber(ReadOnlySpan<byte> value, int decimals, RecordRow row, int index, out string expected)
    {
        switch (DecimalText.Read(value, decimals, out var units))
        {
            case DecimalTextResult.Read:
                row.Set(index, units);
                expected = "";
                return true;
            case DecimalTextResult.TooManyDecimals:
                expected = decimals == currency.Decimals
                    ? $"has too many decimals; {currency.Code} has {decimals}."
                    : $"has too many decimals; at most {decimals} are kept.";
                return false;
            case DecimalTextResult.TooLarge:
                expected = "is too large.";
                return false;
            default:
                expected = "is not a number; expected one as -1234.50, with a point and without thousands separators.";
                return false;
        }
    }

    private static bool TryInteger(ReadOnlySpan<byte> value, RecordRow row, int index, out string expected)
    {
        expected = NoInteger;
        if (DecimalText.Read(value, 0, out var number) != DecimalTextResult.Read || number is < 0 or > LargestInteger)
        {
            return false;
        }

        row.Set(index, number);
        return true;
    }

    private static bool TryBoolean(ReadOnlySpan<byte> value, RecordRow row, int index, out string expected)
    {
        expected = "is neither true nor false.";
        var isTrue = value.SequenceEqual("true"u8);
        row.Set(index, isTrue ? 1 : 0);
        return isTrue || value.SequenceEqual("false"u8);
    }

    private bool TryChoice(RecordField field, ReadOnlySpan<byte> value, RecordRow row, int index, out string expected)
    {
        if (!_choices.TryGetValue(field, out var choices))
        {
            _choices[field] = choices = [.. field.Choices.Select(System.Text.Encoding.UTF8.GetBytes)];
        }

        foreach (var choice in choices)
        {
            if (value.SequenceEqual(choice))
            {
                row.Set(index, value);
                expected = "";
                return true;
            }
        }

        var text = System.Text.Encoding.UTF8.GetString(value);
        expected = Suggestion.DidYouMean(text, field.Choices) is { } nearest
            ? $"is unknown. {nearest}"
            : $"is none of {Suggestion.Listed(field.Choices, "or")}.";
        return false;
    }
}
