using System.Runtime.InteropServices;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// Rows that wait to be written: what is not empty of their columns, as a number or as text, in the order in which it is bound.
/// </summary>
/// <param name="statement">Writes some rows, as many as it has parameters for.</param>
internal sealed class RowBatch(Statement statement)
{
    // A length that no text has: what is bound is a number.
    private const int IsNumber = -1;

    // A parameter that there is none of: what was bound is written.
    private const int Ends = 0;

    private readonly List<(long NumberOrPlace, int Parameter, int Length)> _bound = [];
    private byte[] _text = new byte[1 << 14];
    private int _textLength;

    /// <summary>About how much memory it takes.</summary>
    public long Bytes => _text.Length + (_bound.Capacity * 2L * sizeof(long));

    /// <summary>Binds a number to a parameter, which count from 1.</summary>
    public void Bind(int parameter, long number) => _bound.Add((number, parameter, IsNumber));

    /// <summary>Binds UTF-8 text to a parameter.</summary>
    public void Bind(int parameter, ReadOnlySpan<byte> text)
    {
        if (_textLength + text.Length > _text.Length)
        {
            Array.Resize(ref _text, Math.Max(2 * _text.Length, _textLength + text.Length));
        }

        text.CopyTo(_text.AsSpan(_textLength));
        _bound.Add((_textLength, parameter, text.Length));
        _textLength += text.Length;
    }

    /// <summary>Ends what is written in one go.</summary>
    public void End() => _bound.Add((0, Ends, 0));

    /// <summary>Writes the rows; then it is empty, whether they could be or not.</summary>
    public void Write()
    {
        try
        {
            // Where texts stand does not change while they are bound, so SQLite need not copy them first.
            unsafe
            {
                fixed (byte* text = _text)
                {
                    Write((nint)text);
                }
            }
        }
        finally
        {
            _bound.Clear();
            _textLength = 0;
        }
    }

    private void Write(nint text)
    {
        foreach (var (numberOrPlace, parameter, length) in CollectionsMarshal.AsSpan(_bound))
        {
            if (length == IsNumber)
            {
                statement.Bind(parameter, numberOrPlace);
            }
            else if (parameter != Ends)
            {
                statement.Bind(parameter, text + (nint)numberOrPlace, length);
            }
            else
            {
                statement.Run();

                // Most fields of most records are empty: clearing all and binding the others is a third of the calls.
                statement.Clear();
            }
        }
    }
}
