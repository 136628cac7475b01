using Vlei.Core.Ledger;

namespace Vlei.Records;

/// <summary>Records that were read one after the other, to be looked at later, with what was found to be wrong with them.</summary>
/// <param name="table">Their kind.</param>
internal sealed class ReadRows(RecordTable table)
{
    private const int Most = 512;

    private readonly List<RecordRow> _rows = [];
    private readonly List<(int Row, RecordError Error)> _errors = [];
    private int _count;

    /// <summary>Whether there is no room for more.</summary>
    public bool IsFull => _count == Most;

    /// <summary>The row to be filled next, which is filled again and again.</summary>
    public RecordRow Next
    {
        get
        {
            if (_count == _rows.Count)
            {
                _rows.Add(new RecordRow(table));
            }

            return _rows[_count];
        }
    }

    /// <summary>Notes that something is wrong with the row that is filled, or behind the last.</summary>
    public void Note(RecordError error) => _errors.Add((_count, error));

    /// <summary>Takes the row that was filled.</summary>
    public void Take() => _count++;

    /// <summary>The rows in their order; what is wrong with each is told before it. Then it is empty.</summary>
    public IEnumerable<RecordRow> TakeOut(RecordErrors errors)
    {
        var told = 0;
        for (var row = 0; row <= _count; row++)
        {
            for (; told < _errors.Count && _errors[told].Row == row; told++)
            {
                errors.Add(_errors[told].Error);
            }

            if (row < _count)
            {
                yield return _rows[row];
            }
        }

        _errors.Clear();
        _count = 0;
    }
}
