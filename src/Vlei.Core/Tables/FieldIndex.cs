using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// The values of a field over all rows of a table: the same value has the same number wherever it stands, has a name and a
/// key, and has its place in an order.
/// </summary>
/// <param name="bound">The field.</param>
/// <param name="calendar">The book's calendar, for units of time.</param>
internal sealed class FieldIndex(BoundField bound, FiscalCalendar calendar)
{
    private const string None = FieldNames.None;

    private readonly Dictionary<string, int> _known = new(StringComparer.Ordinal);
    private readonly List<string> _words = [""];
    private readonly Dictionary<long, (string Key, string Label)> _units = [];
    private WordPool? _shared;
    private bool _hasWords;
    private bool _isAlone;

    /// <summary>The field.</summary>
    public BoundField Bound => bound;

    /// <summary>One of the same field for some rows alone: what is only shown need not be known again elsewhere.</summary>
    public FieldIndex Alone() => new(bound, calendar) { _isAlone = true };

    /// <summary>
    /// Refuses columns for more values than can be read. Throws a <see cref="ProblemException"/> that says what to do.
    /// </summary>
    /// <param name="count">How many values there are.</param>
    /// <param name="advice">What to do.</param>
    public void RefuseTooManyColumns(int count, string advice = "Narrow it with --only, or take it as --group-by.")
    {
        const int Most = 400;
        if (count > Most)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--by {bound.Field.Name} would make more than {Most} columns.", advice);
        }
    }

    /// <summary>The number of each row's value.</summary>
    public long[] NumbersOf(RowSet rows)
    {
        var cells = bound.Read(rows);
        if (cells.Pool is not { } pool)
        {
            return cells.Numbers;
        }

        _hasWords = true;
        if (pool.IsShared || _isAlone)
        {
            _shared = pool;
            return cells.Numbers;
        }

        var numbers = new long[pool.Words.Count];
        for (var word = 1; word < numbers.Length; word++)
        {
            if (!_known.TryGetValue(pool.Words[word], out var number))
            {
                _known[pool.Words[word]] = number = _words.Count;
                _words.Add(pool.Words[word]);
            }

            numbers[word] = number;
        }

        return [.. cells.Numbers.Select(number => numbers[number])];
    }

    /// <summary>Whether a number stands for nothing.</summary>
    public bool IsNothing(long number) => _hasWords ? number == 0 : number == FieldCells.Nothing;

    /// <summary>The same, with what of it is ours: what has none, and units of time.</summary>
    public Caption CaptionOf(long number) =>
        IsNothing(number) || bound.Field.HasOurWords || (!_hasWords && bound.Field.Unit is not null) ? Caption.Ours(LabelOf(number))
            : Caption.Name(LabelOf(number));

    /// <summary>What a value is called.</summary>
    public string LabelOf(long number) => IsNothing(number) ? $"No {bound.Field.Heading.ToLowerInvariant()}"
        : _hasWords ? WordOf(number)
        : bound.Field.Unit is { } unit ? UnitAt(unit, number).Label
        : KeyOf(number);

    /// <summary>The key of a value.</summary>
    public string KeyOf(long number) => IsNothing(number) ? None
        : _hasWords ? _shared is { } pool ? pool.Ids[(int)number] : WordOf(number)
        : bound.Field.Unit is { } unit ? UnitAt(unit, number).Key
        : bound.Field.IsDay ? PeriodText.Iso(DayOf(number))
        : DecimalText.Write(number, bound.Decimals);

    /// <summary>A value as a cell of a list.</summary>
    public Cell CellOf(long number) => IsNothing(number) ? Cell.Empty
        : _hasWords ? Cell.Of(WordOf(number))
        : bound.Field.Unit is not null ? Cell.Of(KeyOf(number))
        : new Cell(number);

    /// <summary>The order of two values; nothing comes last.</summary>
    public int Compare(long one, long other) => one == other ? 0
        : IsNothing(one) ? 1
        : IsNothing(other) ? -1
        : _hasWords ? ValueList.Compare(WordOf(one), WordOf(other))
        : one.CompareTo(other);

    /// <summary>The place of each number in that order, equal ones together, so that many can be sorted without looking at words.</summary>
    public int[] RanksOf(long[] numbers)
    {
        if (_hasWords && _shared?.Places is { } known)
        {
            return Array.ConvertAll(numbers, number => IsNothing(number) ? int.MaxValue : known[(int)number]);
        }

        var distinct = numbers.Distinct().ToArray();
        if (!_hasWords)
        {
            Array.Sort(distinct);
            return Array.ConvertAll(numbers, number => IsNothing(number) ? distinct.Length : Array.BinarySearch(distinct, number));
        }

        var words = Array.FindAll(distinct, number => !IsNothing(number));
        var (places, ranks) = (NameRanks.Of(Array.ConvertAll(words, WordOf)), new int[words.Append(0).Max() + 1]);
        for (var place = 0; place < words.Length; place++)
        {
            ranks[words[place]] = places[place];
        }

        return Array.ConvertAll(numbers, number => IsNothing(number) ? words.Length : ranks[number]);
    }

    // There are few of them, and each is said for many groups.
    private (string Key, string Label) UnitAt(TimeUnit unit, long number)
    {
        if (!_units.TryGetValue(number, out var said))
        {
            var range = calendar.UnitOf(unit, DayOf(number));
            _units[number] = said = (PeriodText.Key(range, calendar), PeriodText.Heading(range, calendar));
        }

        return said;
    }

    private string WordOf(long number) => _shared is { } pool ? pool.Words[(int)number] : _words[(int)number];

    private static DateOnly DayOf(long number) => DateOnly.FromDayNumber((int)number);
}
