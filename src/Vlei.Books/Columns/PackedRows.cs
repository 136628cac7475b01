using System.Runtime.InteropServices;
using Vlei.Core.Calendar;

namespace Vlei.Books.Columns;

/// <summary>Rows of a month that wait for others of it, in a few bytes each.</summary>
/// <param name="rows">The rows.</param>
/// <param name="shape">How they are kept.</param>
internal sealed class PackedRows<T>(List<T> rows, DerivedColumns<T> shape)
{
    private readonly int _count = rows.Count;
    private readonly List<byte[]> _columns = shape.Pack(CollectionsMarshal.AsSpan(rows));

    /// <summary>How many bytes they are.</summary>
    public int Size => _columns.Sum(column => column.Length);

    /// <summary>Adds them to others, in their order.</summary>
    public void AddTo(List<T> others, YearMonth month) => shape.Unpack(others, month, _count, (column, numbers) =>
    {
        if (!PackedNumbers.TryUnpack(_columns[column], numbers))
        {
            throw new InvalidOperationException("What was packed cannot be unpacked.");
        }
    });
}
