namespace Vlei.Output;

/// <summary>A cell as text.</summary>
/// <param name="Text">What stands in it.</param>
/// <param name="Width">How many places that takes.</param>
/// <param name="IsBelow">Whether it is a figure below zero.</param>
internal readonly record struct TextCell(string Text, int Width, bool IsBelow)
{
    /// <summary>Words.</summary>
    public static TextCell Of(string words) => new(words, DisplayText.Width(words), IsBelow: false);

    /// <summary>The same, where the same did not stand in the column lately.</summary>
    public bool IsNew { get; init; }
}

/// <summary>A row of a report as text.</summary>
/// <param name="Look">What it is.</param>
/// <param name="Label">What stands before its figures, indented.</param>
/// <param name="Cells">What stands in each column, in an array that is used again for a row that comes later.</param>
internal readonly record struct TextRow(RowLook Look, TextCell Label, TextCell[] Cells);
