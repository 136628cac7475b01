namespace Vlei.Records.Cells;

/// <summary>What stands in a cell of a sheet: as it is kept, not as it is shown.</summary>
/// <param name="Text">A text; a number with a point; a day, or a moment, as ISO 8601; <c>true</c> or <c>false</c>.</param>
/// <param name="IsDay">Whether the sheet says that it is a day.</param>
internal readonly record struct SheetCell(string Text, bool IsDay);

/// <summary>The rows of a sheet, one after the other, as each kind of spreadsheet keeps them.</summary>
internal interface ISheetRows : IDisposable
{
    /// <summary>Where the row at hand stands, from 1.</summary>
    long Row { get; }

    /// <summary>The cells of the row at hand, from the first column on; those at its end that hold nothing may be missing.</summary>
    IReadOnlyList<SheetCell> Cells { get; }

    /// <summary>Goes to the next row; rows that hold nothing may be passed over. False at the end.</summary>
    bool Read();
}
