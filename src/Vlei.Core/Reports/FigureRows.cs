using Vlei.Core.Ledger;

namespace Vlei.Core.Reports;

/// <summary>
/// The rows of a report in their order. Rows of many records are made when they are looked at: of those nothing is kept but
/// where they begin.
/// </summary>
internal sealed class FigureRows<TRow>
    where TRow : struct
{
    private readonly ManyValues<Stretch> _stretches = new();
    private int _last;

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>The row at a place.</summary>
    public FigureRow<TRow> this[int place]
    {
        get
        {
            ref readonly var stretch = ref _stretches[StretchAt(place)];
            return stretch.Each is { } each ? each(place - stretch.First) : stretch.One;
        }
    }

    /// <summary>Adds a row.</summary>
    public void Add(FigureRow<TRow> row) => Add(new Stretch(Count, 1, row, null));

    /// <summary>Adds rows that are made when they are looked at.</summary>
    /// <param name="count">How many.</param>
    /// <param name="each">The row at a place among them.</param>
    public void AddMany(int count, Func<int, FigureRow<TRow>> each)
    {
        if (count > 0)
        {
            Add(new Stretch(Count, count, default, each));
        }
    }

    /// <summary>How many times rows were added.</summary>
    public int Additions => _stretches.Count;

    /// <summary>
    /// The number of the addition that the row at a place came with, from 0, where it came alone; nothing for one of many that are made
    /// when they are looked at.
    /// </summary>
    public int? AloneAt(int place) => StretchAt(place) is var stretch && _stretches[stretch].Each is null ? stretch : null;

    private void Add(Stretch stretch)
    {
        _stretches.Add(stretch);
        Count += stretch.Count;
    }

    // Rows are looked at one after the other.
    private int StretchAt(int place)
    {
        for (var near = _last; near < _stretches.Count && near <= _last + 1 && _stretches[near].First <= place; near++)
        {
            if (place < _stretches[near].First + _stretches[near].Count)
            {
                return _last = near;
            }
        }

        var (low, high) = (0, _stretches.Count - 1);
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            (low, high) = _stretches[middle].First <= place ? (middle, high) : (low, middle - 1);
        }

        return _last = low;
    }

    private readonly record struct Stretch(int First, int Count, FigureRow<TRow> One, Func<int, FigureRow<TRow>>? Each);
}
