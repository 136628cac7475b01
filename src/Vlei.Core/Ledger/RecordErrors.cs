namespace Vlei.Core.Ledger;

/// <summary>Something in a record set that is not as it should be.</summary>
/// <param name="File">The file.</param>
/// <param name="Line">The line of the file, from 1.</param>
/// <param name="Column">The field of that line, from 1.</param>
/// <param name="Message">The value, and what was expected.</param>
public readonly record struct RecordError(string File, long Line, int Column, string Message)
{
    /// <summary>With its place first: <c>lines.csv:17:3: …</c>.</summary>
    public override string ToString() => $"{FilePlace.Text(File, Line, Column)}: {Message}";
}

/// <summary>
/// Gathers what is wrong with a record set: all of it is counted, the first of it kept, the whole written where a
/// place for it was given.
/// </summary>
/// <param name="all">Where all of it is written; nowhere where nothing is given.</param>
/// <param name="told">Is told each of it; nobody where nothing is given.</param>
public sealed class RecordErrors(TextWriter? all = null, Action<RecordError>? told = null)
{
    /// <summary>How many are kept to be shown.</summary>
    public const int Shown = 20;

    private readonly List<RecordError> _first = [];

    /// <summary>How many there are.</summary>
    public long Count { get; private set; }

    /// <summary>The first of them.</summary>
    public IReadOnlyList<RecordError> First => _first;

    /// <summary>Adds one.</summary>
    public void Add(string file, long line, int column, string message) => Add(new RecordError(file, line, column, message));

    /// <summary>Adds one.</summary>
    public void Add(RecordError error)
    {
        Count++;
        all?.WriteLine(error);
        told?.Invoke(error);
        if (_first.Count < Shown)
        {
            _first.Add(error);
        }
    }

    /// <summary>Adds one about a record, at its field's place in its file.</summary>
    public void Add(RecordRow row, int field, string message) =>
        Add(row.File, row.FileLine, row.FileColumn(field), message);
}
