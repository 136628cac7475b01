namespace Vlei.Core.Ledger;

/// <summary>
/// A list that may become long, in pieces: it grows without copying what it has, and takes hardly more memory than that.
/// </summary>
public sealed class ManyValues<T>
    where T : struct
{
    private const int Bits = 9;
    private const int Piece = 1 << Bits;
    private const int FirstPiece = 32;

    private readonly List<T[]> _pieces = [];
    private T[] _last = [];

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>The value at a place.</summary>
    public ref readonly T this[int place] => ref _pieces[place >> Bits][place & (Piece - 1)];

    /// <summary>Adds a value behind the others.</summary>
    public void Add(in T value)
    {
        var place = Count & (Piece - 1);
        if (place == 0 || place == _last.Length)
        {
            Grow();
        }

        _last[place] = value;
        Count++;
    }

    // The first piece begins small, and twice as large each time: most lists are a page of rows.
    private void Grow()
    {
        if (_last.Length is 0 or Piece)
        {
            _last = new T[_pieces.Count == 0 ? FirstPiece : Piece];
            _pieces.Add(_last);
        }
        else
        {
            Array.Resize(ref _last, 2 * _last.Length);
            _pieces[^1] = _last;
        }
    }
}
