namespace Vlei.Core.Ledger;

/// <summary>
/// A list that may become long, in pieces: it grows without copying what it has, and takes hardly more memory than that.
/// </summary>
public sealed class ManyValues<T>
    where T : struct
{
    private const int Bits = 9;
    private const int Piece = 1 << Bits;

    private readonly List<T[]> _pieces = [];

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>The value at a place.</summary>
    public ref readonly T this[int place] => ref _pieces[place >> Bits][place & (Piece - 1)];

    /// <summary>Adds a value behind the others.</summary>
    public void Add(in T value)
    {
        if (Count == _pieces.Count << Bits)
        {
            _pieces.Add(new T[Piece]);
        }

        _pieces[^1][Count++ & (Piece - 1)] = value;
    }
}
