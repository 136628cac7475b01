using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// One pass over the rows of a table for each period that is asked for: which rows are taken, which group each is in, and
/// what every group comes to in each measure, column by column.
/// </summary>
internal sealed class TableScan
{
    private readonly string _title;
    private readonly TableDefinition _table;
    private readonly TableContext _context;
    private readonly TablePlan _plan;
    private readonly IReadOnlyList<TableSpan> _periods;
    private readonly Dictionary<long, int> _acrossPlaces = [];
    private readonly List<long> _acrossValues = [];
    private readonly MeasureSums[,] _totals;
    private readonly List<MeasureSums>[,] _slices;
    private readonly ScannedRows _records = new();
    private readonly SameValues[] _same;
    private readonly int[] _added;
    private readonly Dictionary<string, (FieldIndex Field, SameValues Values)> _within = [];
    private readonly List<int>?[] _whole;
    private readonly HashSet<int> _left = [];
    private readonly HashSet<int> _together = [];
    private int _lastRead;

    /// <summary>Reads the table. Throws a <see cref="ProblemException"/> where a sum does not fit.</summary>
    /// <param name="title">The title of the report, for messages.</param>
    /// <param name="table">The table.</param>
    /// <param name="context">The book.</param>
    /// <param name="plan">What is asked of it.</param>
    /// <param name="periods">The period that is asked for, and those that stand beside it.</param>
    public TableScan(string title, TableDefinition table, TableContext context, TablePlan plan, IReadOnlyList<TableSpan> periods)
    {
        (_title, _table, _context, _plan, _periods) = (title, table, context, plan, periods);
        Groups = new GroupTree(plan.Groups);
        IsOfTime = !table.IsOfMoment && plan.Across?.Bound.Field is { Unit: not null } unit
            && unit.Name.StartsWith($"{table.Date}.", StringComparison.Ordinal);
        _whole = new List<int>?[periods.Count];
        _totals = new MeasureSums[plan.Measures.Count, periods.Count];
        _slices = new List<MeasureSums>[plan.Measures.Count, periods.Count];
        _added = [.. Enumerable.Range(0, plan.Measures.Count).Where(plan.IsAdded)];
        _same = [.. plan.Columns.Select(_ => new SameValues())];
        foreach (var within in plan.Measures.Select(measure => measure.Within).OfType<string>().Distinct())
        {
            _within[within] = (new FieldIndex(plan.Fields.Named(within), context.Calendar), new SameValues());
        }

        for (var measure = 0; measure < plan.Measures.Count; measure++)
        {
            for (var period = 0; period < periods.Count; period++)
            {
                (_totals[measure, period], _slices[measure, period]) = (new MeasureSums(), []);
            }
        }

        for (var period = 0; period < periods.Count; period++)
        {
            _whole[period] = [];
            foreach (var (block, rows, groups) in Rows(period, NoteWhole))
            {
                IsEmpty = false;
                Add(period, block, rows, groups);
            }
        }

        RollUp();
        Across = IsOfTime ? [.. Enumerable.Range(0, periods[0].Pieces.Count)]
            : [.. Enumerable.Range(0, _acrossValues.Count).Order(
                Comparer<int>.Create((one, other) => plan.Across!.Compare(_acrossValues[one], _acrossValues[other])))];
    }

    /// <summary>The groups; the root is all rows.</summary>
    public GroupTree Groups { get; }

    /// <summary>
    /// The places of the blocks of a period that are taken, where each is taken whole or not at all; nothing where one is taken in
    /// part.
    /// </summary>
    public IReadOnlyList<int>? WholeBlocks(int period) => _whole[period];

    /// <summary>The taken rows of the period that is asked for, in the order of the table; none where groups alone are shown.</summary>
    public ScannedRows Records => _records;

    /// <summary>Whether no row is taken in any period.</summary>
    public bool IsEmpty { get; private set; } = true;

    /// <summary>Whether columns are pieces of time.</summary>
    public bool IsOfTime { get; }

    /// <summary>The places of the columns that measures are spread over, in order; none where they are not.</summary>
    public IReadOnlyList<int> Across { get; }

    /// <summary>The key and the heading of such a column.</summary>
    public (string Key, string Heading) AcrossAt(int place) => IsOfTime
        ? (PeriodText.Key(_periods[0].Pieces[place], _context.Calendar), PeriodText.Heading(_periods[0].Pieces[place], _context.Calendar))
        : (_plan.Across!.KeyOf(_acrossValues[place]), _plan.Across.LabelOf(_acrossValues[place]));

    /// <summary>What groups come to in a measure and a period: in one of the columns it is spread over, or in all.</summary>
    public MeasureSums SumsOf(int measure, int period, int? across) => across is not { } place ? _totals[measure, period]
        : place < _slices[measure, period].Count ? _slices[measure, period][place] : new MeasureSums();

    /// <summary>What all rows of a group say in a column of facts; nothing where they differ.</summary>
    public long? SameOf(int column, int group) => _same[column].Of(group);

    /// <summary>Whether a measure adds up over all rows of a group.</summary>
    public bool AddsUp(int measure, int group) => _plan.Measures[measure].Within is not { } within || _within[within].Values.IsOne(group);

    /// <summary>Some rows of a block, as a set to be read.</summary>
    public RowSet SetOf(int block, int[] places) => new(_records.BlockAt(block), places);

    /// <summary>Lets go of what was read of the block that was looked at last, where it is another one.</summary>
    public void ForgetAllBut(int block)
    {
        if (_lastRead != block)
        {
            _records.BlockAt(_lastRead).Forget();
            _lastRead = block;
        }
    }

    /// <summary>Takes groups of a level out of all that they lie in.</summary>
    /// <param name="level">The level.</param>
    /// <param name="kept">The groups of that level that stay.</param>
    public void Keep(int level, IReadOnlySet<int> kept)
    {
        _left.UnionWith(Enumerable.Range(1, Groups.Count - 1).Where(group => Groups.LevelOf(group) == level && !kept.Contains(group)));
        foreach (var sums in AllSums())
        {
            for (var group = 0; group < Groups.Count; group++)
            {
                if (Groups.LevelOf(group) < level)
                {
                    sums.Clear(group);
                }
            }

            for (var group = Groups.Count - 1; group > 0; group--)
            {
                if (Groups.LevelOf(group) < level || kept.Contains(group))
                {
                    sums.AddTo(group, Groups.ParentOf(group));
                }
            }
        }
    }

    /// <summary>Takes out of all rows together those that are not among these.</summary>
    public void Keep(IEnumerable<ScannedRow> rows)
    {
        foreach (var sums in AllSums())
        {
            sums.Clear(0);
        }

        AddTo(0, rows);
    }

    /// <summary>Whether a group counts in another, or in some that were added up to one of their own.</summary>
    public bool CountsIn(int group, int other)
    {
        for (var at = group; at >= 0; at = Groups.ParentOf(at))
        {
            if (_left.Contains(at))
            {
                return false;
            }

            if (at == other || (other >= Groups.Count && _together.Contains(at)))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>Adds rows to a group of their own, which lies in none.</summary>
    public void AddTo(int group, IEnumerable<ScannedRow> rows)
    {
        foreach (var ofBlock in rows.GroupBy(row => row.Block))
        {
            var set = SetOf(ofBlock.Key, [.. ofBlock.Select(row => row.Place).Order()]);
            foreach (var measure in _added)
            {
                foreach (var number in _plan.Measures[measure].Read(set))
                {
                    _totals[measure, 0].Add(group, number);
                }
            }
        }
    }

    /// <summary>Adds what some groups come to, to a group of their own, which lies in none.</summary>
    public void AddTo(int group, IEnumerable<int> groups)
    {
        foreach (var other in groups)
        {
            _ = _together.Add(other);
            foreach (var (_, values) in _within.Values)
            {
                values.AddTo(other, group);
            }

            foreach (var sums in AllSums())
            {
                sums.AddTo(other, group);
            }
        }
    }

    /// <summary>The taken rows of a period, block by block, with the group of each, and the column that it is spread to.</summary>
    public IEnumerable<(RowSet Rows, int[] Groups, int[]? Across)> RowsAgain(int period) =>
        Rows(period).Select(found => (found.Rows, found.Groups, AcrossOf(found.Rows, period)));

    private IEnumerable<(RowBlock Block, RowSet Rows, int[] Groups)> Rows(int period, Action<int, int, RowBlock, RowSet>? note = null)
    {
        var place = 0;
        foreach (var block in _table.Read(_periods[period].Context, _periods[period].Whole))
        {
            var rows = Fewer(_plan.Selection.Taken(block));
            note?.Invoke(period, place++, block, rows);
            if (rows.Count > 0)
            {
                yield return (block, rows, Groups.Of(rows));
            }
        }
    }

    // Where few rows of a block are taken, no more of it is read.
    private static RowSet Fewer(RowSet rows)
    {
        const int Few = 8;
        return rows is { Places: { } places, Block.Some: { } some } && places.Length < rows.Block.Count / Few
            ? new RowSet(some(places)) : rows;
    }

    // Of a block that has no rows it is not known whether they would be taken, but where all are.
    private void NoteWhole(int period, int place, RowBlock block, RowSet rows)
    {
        if (rows.Count > 0 && rows.Count < block.Count)
        {
            _whole[period] = null;
        }
        else if (rows.Count > 0 || _plan.Selection.IsEverything)
        {
            _whole[period]?.Add(place);
        }
    }

    private void Add(int period, RowBlock block, RowSet rows, int[] groups)
    {
        var across = AcrossOf(rows, period);
        foreach (var measure in _added)
        {
            Summing(measure, () => Add(period, measure, _plan.Measures[measure].Read(rows), groups, across));
        }

        foreach (var (field, values) in _within.Values)
        {
            values.Add(groups, field.NumbersOf(rows));
        }

        if (!_plan.HasRecords)
        {
            AddFacts(rows, groups);
        }
        else if (period == 0)
        {
            _records.Add(rows, _plan.Groups.Count > 0 ? groups : null);
            block.Forget();
        }
    }

    private void Add(int period, int measure, long[] numbers, int[] groups, int[]? across)
    {
        var (totals, slices) = (_totals[measure, period], _slices[measure, period]);
        for (var row = 0; row < numbers.Length; row++)
        {
            totals.Add(groups[row], numbers[row]);
        }

        for (var row = 0; row < across?.Length; row++)
        {
            while (slices.Count <= across[row])
            {
                slices.Add(new MeasureSums());
            }

            slices[across[row]].Add(groups[row], numbers[row]);
        }
    }

    // A sum that does not fit is told with its column.
    private void Summing(int measure, Action add)
    {
        try
        {
            add();
        }
        catch (OverflowException tooLarge)
        {
            var heading = _plan.Columns.FirstOrDefault(column => column.Fact is null && column.Measure == measure)?.Heading;
            throw SumTooLarge.In(_title, heading ?? _plan.Measures[measure].Heading, tooLarge);
        }
    }

    private void AddFacts(RowSet rows, int[] groups)
    {
        for (var column = 0; column < _same.Length; column++)
        {
            if (_plan.Columns[column].Fact is { } fact)
            {
                _same[column].Add(groups, fact.NumbersOf(rows));
            }
        }
    }

    private int[]? AcrossOf(RowSet rows, int period)
    {
        if (_plan.Across is not { } across)
        {
            return null;
        }

        if (IsOfTime)
        {
            var (days, pieces, place) = (rows.Column(_table.Date!), _periods[period].Pieces, 0);
            return [.. days.Select(day =>
            {
                place = pieces[place].From.DayNumber > day ? 0 : place;
                while (place < pieces.Count - 1 && pieces[place].To.DayNumber < day)
                {
                    place++;
                }

                return place;
            })];
        }

        return [.. across.NumbersOf(rows).Select(PlaceOf)];
    }

    private int PlaceOf(long value)
    {
        if (!_acrossPlaces.TryGetValue(value, out var place))
        {
            _acrossPlaces[value] = place = _acrossValues.Count;
            _acrossValues.Add(value);
            _plan.Across!.RefuseTooManyColumns(_acrossValues.Count);
        }

        return place;
    }

    private IEnumerable<MeasureSums> AllSums() => Enumerable.Range(0, _plan.Measures.Count).SelectMany(AllSumsOf);

    private IEnumerable<MeasureSums> AllSumsOf(int measure) =>
        Enumerable.Range(0, _periods.Count).SelectMany(period => _slices[measure, period].Prepend(_totals[measure, period]));

    // A group's number is larger than that of the group that it is in.
    private void RollUp()
    {
        for (var measure = 0; measure < _plan.Measures.Count; measure++)
        {
            foreach (var sums in AllSumsOf(measure))
            {
                Summing(measure, () => EachWithParent(sums.AddTo));
            }
        }

        foreach (var same in _same.Concat(_within.Values.Select(within => within.Values)))
        {
            EachWithParent(same.AddTo);
        }
    }

    private void EachWithParent(Action<int, int> take)
    {
        for (var group = Groups.Count - 1; group > 0; group--)
        {
            take(group, Groups.ParentOf(group));
        }
    }
}
