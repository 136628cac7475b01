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
    private const int DigitsTogether = 3;
    private const int SignsAround = 2;
    private const int MostOnStack = 256;

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
        Span<char> room = stackalloc char[DecimalText.Longest];
        ReadOnlySpan<char> digits = room[..DecimalText.Write(units, decimals, room)].TrimStart('-');
        var point = decimals == 0 ? digits.Length : digits.Length - decimals - 1;
        var longest = DecimalText.Longest + (_thousands.Length * DecimalText.Longest / DigitsTogether) + _decimalMark.Length + SignsAround;
        var number = longest <= MostOnStack ? stackalloc char[longest] : new char[longest];
        var used = 0;
        if (units < 0 && _negatives != NegativeStyle.TrailingMinus)
        {
            number[used++] = _negatives == NegativeStyle.Brackets ? '(' : '-';
        }

        for (var place = 0; place < point; place++)
        {
            if (place > 0 && (point - place) % DigitsTogether == 0)
            {
                _thousands.CopyTo(number[used..]);
                used += _thousands.Length;
            }

            number[used++] = digits[place];
        }

        if (decimals > 0)
        {
            _decimalMark.CopyTo(number[used..]);
            used += _decimalMark.Length;
            digits[(point + 1)..].CopyTo(number[used..]);
            used += decimals;
        }

        if (units < 0 && _negatives != NegativeStyle.Minus)
        {
            number[used++] = _negatives == NegativeStyle.Brackets ? ')' : '-';
        }

        return number[..used].ToString();
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
}
