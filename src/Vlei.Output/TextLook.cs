namespace Vlei.Output;

/// <summary>What the place that text goes to can show.</summary>
/// <param name="Width">How many characters fit in a line; nothing where there is no end to it.</param>
/// <param name="Ascii">Whether only ASCII can be shown.</param>
/// <param name="Bold">Whether titles, headings and totals may be bold.</param>
public sealed record TextLook(int? Width, bool Ascii, bool Bold);
