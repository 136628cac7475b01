using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>What a column of text needs.</summary>
/// <param name="Width">How wide it is where there is room.</param>
/// <param name="Least">How narrow it may become: no word and no figure is broken.</param>
/// <param name="IsText">Whether it holds words, which may be broken into lines.</param>
/// <param name="Tie">How closely it belongs to the one before.</param>
internal readonly record struct TextColumn(int Width, int Least, bool IsText, ColumnTie Tie);

/// <summary>
/// Where the columns of a report stand on lines of some width: in one block as long as headings, words and labels can give way,
/// else in several. A column stays with what it is about, and what is compared with a figure stands beside it.
/// </summary>
internal sealed class TextColumns
{
    /// <summary>The gap between columns.</summary>
    public const int Gap = 2;

    private const int LeastLabelWidth = 16;
    private const int MostLoneWidth = 40;

    private readonly IReadOnlyList<TextColumn> _columns;
    private readonly int _width;

    /// <summary>Places the columns.</summary>
    /// <param name="label">How wide the longest label is.</param>
    /// <param name="leastLabel">How wide the longest word of a label is, with what it is indented by.</param>
    /// <param name="columns">The columns, from the left.</param>
    /// <param name="width">How wide a line is; nothing where it has no end.</param>
    public TextColumns(int label, int leastLabel, IReadOnlyList<TextColumn> columns, int? width)
    {
        _columns = columns;
        Widths = [.. columns.Select(column => column.Width)];
        LabelWidth = label;
        if (width is not { } end || columns.Count == 0)
        {
            _width = int.MaxValue;
            Blocks = columns.Count == 0 ? [] : [[.. Enumerable.Range(0, columns.Count)]];
            return;
        }

        _width = end;
        var least = columns.Sum(column => Math.Min(column.Width, column.Least) + Gap);
        var narrowest = Math.Min(label, Math.Max(leastLabel, Math.Max(LeastLabelWidth, label / 2)));
        if (narrowest + least <= end)
        {
            LabelWidth = Math.Min(label, end - least);
            Narrow();
            Blocks = [[.. Enumerable.Range(0, columns.Count)]];
            return;
        }

        NarrowLoneWords();
        LabelWidth = Math.Min(label, Math.Max(LeastLabelWidth, end - Gap - Widths.Max()));
        Blocks = Balanced();

        // Headings give way where that saves a block.
        var natural = Widths;
        Widths = [.. natural.Select((own, place) => columns[place].IsText ? own : Math.Min(own, columns[place].Least))];
        if (Balanced() is var narrower && narrower.Count < Blocks.Count)
        {
            Blocks = narrower;
        }
        else
        {
            Widths = natural;
        }
    }

    /// <summary>How wide labels are.</summary>
    public int LabelWidth { get; }

    /// <summary>How wide each column is.</summary>
    public int[] Widths { get; }

    /// <summary>The columns of each block, from the left.</summary>
    public IReadOnlyList<int[]> Blocks { get; }

    // Headings first, the widest words then.
    private void Narrow()
    {
        bool IsTooWide() => LabelWidth + Widths.Sum(width => width + Gap) > _width;
        foreach (var place in Enumerable.Range(0, Widths.Length).Where(place => !_columns[place].IsText && IsTooWide()))
        {
            Widths[place] = Math.Min(Widths[place], _columns[place].Least);
        }

        while (IsTooWide())
        {
            Widths[Enumerable.Range(0, Widths.Length).Where(place => _columns[place].IsText)
                .MaxBy(place => Widths[place] - _columns[place].Least)]--;
        }
    }

    // It is broken into blocks anyway, so that only what would fill a line by itself gives way.
    private void NarrowLoneWords()
    {
        foreach (var (place, column) in _columns.Index().Where(indexed => indexed.Item.IsText))
        {
            Widths[place] = Math.Min(Widths[place], Math.Max(column.Least, Math.Min(MostLoneWidth, _width - LabelWidth - Gap)));
        }
    }

    // A last block of one column looks lost: as many blocks as are needed, with as many columns in each.
    private List<int[]> Balanced()
    {
        var units = Units();
        var greedy = Filled(units, units.Count);
        for (var most = (units.Count + greedy.Count - 1) / greedy.Count; most < units.Count; most++)
        {
            if (Filled(units, most) is var even && even.Count == greedy.Count)
            {
                return even;
            }
        }

        return greedy;
    }

    // Figures that stand for themselves, each with what it is compared with; and of those, each with what is said about it.
    private List<List<List<int>>> Units()
    {
        var units = new List<List<List<int>>>();
        for (var place = 0; place < _columns.Count; place++)
        {
            var tie = place == 0 ? ColumnTie.None : _columns[place].Tie;
            if (tie == ColumnTie.None)
            {
                units.Add([]);
            }

            if (tie != ColumnTie.About)
            {
                units[^1].Add([]);
            }

            units[^1][^1].Add(place);
        }

        return units;
    }

    private List<int[]> Filled(List<List<List<int>>> units, int most)
    {
        var filling = new Filling(this);
        foreach (var unit in units)
        {
            filling.Add(unit, most);
        }

        return filling.Done();
    }

    private bool Fits(List<int> block) => LabelWidth + block.Sum(place => Widths[place] + Gap) <= _width;

    // Blocks as they are filled, one after the other.
    private sealed class Filling(TextColumns columns)
    {
        private readonly List<int[]> _blocks = [];
        private List<int> _block = [];
        private int _units;

        public List<int[]> Done()
        {
            End();
            return _blocks;
        }

        public void Add(List<List<int>> unit, int most)
        {
            var whole = unit.SelectMany(pack => pack).ToList();
            if (_units == most || !columns.Fits([.. _block, .. whole]))
            {
                End();
            }

            _units++;
            if (columns.Fits([.. _block, .. whole]))
            {
                _block.AddRange(whole);
                return;
            }

            // What is compared stands beside what it is compared with, and what is said about a figure beside it, in each block anew.
            foreach (var pack in unit)
            {
                if (columns.Fits(pack))
                {
                    Place(pack, unit[0][0]);
                    continue;
                }

                foreach (var place in pack)
                {
                    Place([place], place == pack[0] ? unit[0][0] : pack[0]);
                }
            }
        }

        private void Place(List<int> pack, int besideWhat)
        {
            var wantsBeside = !pack.Contains(besideWhat) && columns.Fits([besideWhat, .. pack]);
            if (!columns.Fits([.. _block, .. pack]) || (wantsBeside && !_block.Contains(besideWhat)))
            {
                End();
                _block.AddRange(wantsBeside ? [besideWhat] : []);
            }

            _block.AddRange(pack);
        }

        private void End()
        {
            if (_block.Count > 0)
            {
                _blocks.Add([.. _block]);
            }

            (_block, _units) = ([], 0);
        }
    }
}
