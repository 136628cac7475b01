using System.Globalization;
using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Languages;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>How numbers and days are written for people: by the looks of a report, else as its language has them.</summary>
internal sealed class NumberLook
{
    private readonly string _thousands;
    private readonly string _decimalMark;
    private readonly NegativeStyle _negatives;
    private readonly DateTimeFormatInfo? _months;
    private readonly string? _dates;

    /// <summary>Reads the looks.</summary>
    public NumberLook(ReportLook look, Language language)
    {
        _thousands = look.Thousands ?? (look.DecimalMark == language.Thousands ? language.DecimalMark : language.Thousands);
        _decimalMark = look.DecimalMark ?? (look.Thousands == language.DecimalMark ? language.Thousands : language.DecimalMark);
        _negatives = look.Negatives;
        _dates = look.Dates ?? language.DatePattern;
        if (_dates is not null)
        {
            _months = (DateTimeFormatInfo)CultureInfo.InvariantCulture.DateTimeFormat.Clone();
            _months.MonthNames = _months.MonthGenitiveNames = [.. language.Dates.Months, ""];
            _months.AbbreviatedMonthNames = _months.AbbreviatedMonthGenitiveNames = [.. language.Dates.ShortMonths, ""];
        }
    }

    /// <summary>What stands between thousands.</summary>
    public string ThousandsMark => _thousands;

    /// <summary>What stands before decimals.</summary>
    public string DecimalMark => _decimalMark;

    /// <summary>Whether every number and day is written as the program does by itself.</summary>
    public bool IsPlain => _dates is null && _thousands == "," && _decimalMark == "." && _negatives == NegativeStyle.Minus;

    /// <summary>A number with thousands apart.</summary>
    /// <param name="units">The number, in the smallest unit of its decimals.</param>
    /// <param name="decimals">How many decimals it has.</param>
    public string Number(long units, int decimals)
    {
        const int DigitsTogether = 3;
        var plain = DecimalText.Write(units, decimals).AsSpan();
        var digits = units < 0 ? plain[1..] : plain;
        var point = decimals == 0 ? digits.Length : digits.Length - decimals - 1;
        var number = new StringBuilder(digits.Length + (digits.Length / DigitsTogether) + 2);
        for (var place = 0; place < point; place++)
        {
            number.Append(place > 0 && (point - place) % DigitsTogether == 0 ? _thousands : "").Append(digits[place]);
        }

        if (decimals > 0)
        {
            number.Append(_decimalMark).Append(digits[(point + 1)..]);
        }

        return units < 0 ? Signed(number.ToString()) : number.ToString();
    }

    /// <summary>A number without the noughts at its end.</summary>
    public string Trimmed(long units, int decimals)
    {
        while (decimals > 0 && units % 10 == 0)
        {
            (units, decimals) = (units / 10, decimals - 1);
        }

        return Number(units, decimals);
    }

    /// <summary>A day.</summary>
    public string Day(DateOnly day) => _dates is null ? PeriodText.Iso(day) : day.ToString(_dates, _months);

    /// <summary>A text with the days in it (ISO 8601) as days are written here.</summary>
    public string WithDays(string text)
    {
        const int Length = 10;
        if (_dates is null || text.Length < Length)
        {
            return text;
        }

        var written = new StringBuilder(text.Length);
        for (var place = 0; place < text.Length;)
        {
            if (place + Length <= text.Length && (place == 0 || !char.IsAsciiLetterOrDigit(text[place - 1]))
                && DateOnly.TryParseExact(
                    text.AsSpan(place, Length), "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
            {
                written.Append(Day(day));
                place += Length;
            }
            else
            {
                written.Append(text[place++]);
            }
        }

        return written.ToString();
    }

    private string Signed(string number) => _negatives switch
    {
        NegativeStyle.Brackets => $"({number})",
        NegativeStyle.TrailingMinus => $"{number}-",
        _ => $"-{number}",
    };
}
