using System.Text;

namespace Vlei.Commands;

/// <summary>
/// What is said or listed, without what a terminal would obey: names and texts of records may hold its control characters (ECMA-48),
/// and are shown with a mark in their place. Lines end as they are.
/// </summary>
/// <param name="inner">Where it goes.</param>
internal sealed class CleanWriter(TextWriter inner) : TextWriter
{
    private const char Mark = '\uFFFD';

    /// <inheritdoc/>
    public override Encoding Encoding => inner.Encoding;

    /// <summary>A text that a terminal only shows.</summary>
    public static string Clean(string text) => text.AsSpan().IndexOfAnyInRange('\0', '\u009F') < 0 || text.All(IsShown) ? text
        : string.Create(text.Length, text, (letters, all) =>
        {
            for (var place = 0; place < letters.Length; place++)
            {
                letters[place] = IsShown(all[place]) ? all[place] : Mark;
            }
        });

    /// <inheritdoc/>
    public override void Write(char value) => inner.Write(IsShown(value) ? value : Mark);

    /// <inheritdoc/>
    public override void Write(string? value) => inner.Write(value is null ? null : Clean(value));

    /// <inheritdoc/>
    public override void Flush() => inner.Flush();

    /// <inheritdoc/>
    protected override void Dispose(bool disposing)
    {
        if (disposing)
        {
            inner.Dispose();
        }

        base.Dispose(disposing);
    }

    private static bool IsShown(char letter) => letter is '\n' or '\t' || !char.IsControl(letter);
}
