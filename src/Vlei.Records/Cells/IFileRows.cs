namespace Vlei.Records.Cells;

/// <summary>What stands in a cell of a sheet, or between two separators of a text: as it is kept, not as it is shown.</summary>
/// <param name="Text">A text; of a sheet also a number with a point, a day, or a moment, as ISO 8601, <c>true</c> or <c>false</c>.</param>
/// <param name="IsDay">Whether the sheet says that it is a day.</param>
/// <param name="IsNumber">Whether the sheet says that it is a number.</param>
internal readonly record struct FileCell(string Text, bool IsDay = false, bool IsNumber = false);

/// <summary>The rows of a sheet or a text, one after the other, as each kind of file keeps them.</summary>
internal interface IFileRows : IDisposable
{
    /// <summary>Where the row at hand stands, from 1.</summary>
    long Row { get; }

    /// <summary>The cells of the row at hand, from the first column on; those at its end that hold nothing may be missing.</summary>
    List<FileCell> Cells { get; }

    /// <summary>Goes to the next row; rows that hold nothing may be passed over. False at the end.</summary>
    bool Read();
}
