using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>How a figure is written, as the format code of a workbook (ECMA-376, part 1, 18.8.31).</summary>
internal static class FormatCode
{
    /// <summary>The code.</summary>
    public static string Of(CellFormat format)
    {
        if (format.Days is { } days)
        {
            return DateFormat(days);
        }

        var number = $"{(format.HasThousands ? "#,##0" : "0")}{(format.Decimals == 0 ? "" : $".{new string('0', format.Decimals)}")}"
            + new string(',', format.ScaleDigits / 3);
        var nil = format.HasDash ? "\"–\"" : null;
        return format.Kind == CellKind.Percentage ? WithNil($"{number}%", $"\\-{number}%", nil)
            : format.IsPoints ? $"{number}\" pts\""
            : format.IsChange ? $"{number}\" ▲\";{Negative(format, number, "\" ▼\"")};{nil ?? number}\" =\""
            : format.Negatives switch
            {
                NegativeStyle.Minus => WithNil(number, $"\\-{number}", nil),
                NegativeStyle.Brackets => $"{number}_);({number}){(nil is null ? "" : $";{nil}_)")}",
                _ => $"{number}_-;{number}\\-{(nil is null ? "" : $";{nil}_-")}",
            };
    }

    private static string WithNil(string number, string negative, string? nil) => nil is null ? number : $"{number};{negative};{nil}";

    private static string Negative(CellFormat format, string number, string mark) => format.Negatives switch
    {
        NegativeStyle.Brackets => $"({number}){mark}",
        NegativeStyle.TrailingMinus => $"{number}\\-{mark}",
        _ => $"\\-{number}{mark}",
    };

    // Marks stand for themselves only behind a stroke.
    private static string DateFormat(string pattern) => string.Concat(pattern.Select(letter =>
        char.IsAsciiLetter(letter) ? char.ToLowerInvariant(letter).ToString() : $"\\{letter}"));
}
