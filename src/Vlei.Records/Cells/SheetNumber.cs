using System.Globalization;

namespace Vlei.Records.Cells;

/// <summary>Numbers of sheets, which are kept in binary, as the decimal numbers that those who typed them meant.</summary>
internal static class SheetNumber
{
    // What spreadsheets show and calculate with: more digits are noise of the binary form.
    private const string Digits = "G15";

    /// <summary>The number with a point, and without an exponent where it is not beyond all amounts.</summary>
    public static string Text(double number) =>
        decimal.TryParse(
            number.ToString(Digits, CultureInfo.InvariantCulture), NumberStyles.Float, CultureInfo.InvariantCulture, out var exact)
            ? exact.ToString(CultureInfo.InvariantCulture) : number.ToString(CultureInfo.InvariantCulture);
}
