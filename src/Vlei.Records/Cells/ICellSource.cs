using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>
/// A table of cells in somebody's own file: a row of headings, then rows of values. Whatever the file is, records are read from it in
/// one way, and messages name its places as whoever opens it sees them.
/// </summary>
public interface ICellSource
{
    /// <summary>What messages call it: the name of a file, or of a file and its sheet (<see cref="FilePlace"/>).</summary>
    string Name { get; }

    /// <summary>The file; known when the rows were read to their end.</summary>
    RecordFile File { get; }

    /// <summary>Begins behind the headings. It may be called again when the reader that it gave is done with.</summary>
    ICellReader Open();
}

/// <summary>The rows of a table of cells, one after the other. Nothing is kept of those that have passed.</summary>
public interface ICellReader : IDisposable
{
    /// <summary>The headings; none where there is no row, or where it cannot be read, which <see cref="Fault"/> says.</summary>
    IReadOnlyList<string> Headings { get; }

    /// <summary>Where the row at hand stands in the file, from 1.</summary>
    long Line { get; }

    /// <summary>Why the row at hand cannot be taken as it is, with the column of it, from 1; nothing where it can.</summary>
    (int Column, string Message)? Fault { get; }

    /// <summary>Goes to the next row, which may be one that cannot be taken; false at the end.</summary>
    bool Read();

    /// <summary>
    /// What stands in a column of the row at hand, from 0: UTF-8, numbers with a point and days as ISO 8601 where the file knows them as
    /// such. Empty where nothing does. Valid until the next row.
    /// </summary>
    ReadOnlySpan<byte> Cell(int column);

    /// <summary>In which column of the file a column of the row at hand stands, from 1.</summary>
    int PlaceOf(int column) => column + 1;

    /// <summary>Whether the file itself says that there is a day in a column, rather than a text that may be one.</summary>
    bool IsDay(int column);
}
