using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Finding;

/// <summary>What the values of a column look like.</summary>
internal sealed class ColumnProfile(int column, string heading)
{
    private static readonly DateOrder[] Orders = [DateOrder.YearMonthDay, DateOrder.DayMonthYear, DateOrder.MonthDayYear];

    private readonly HashSet<string> _values = [];
    private int _days;
    private int _numbers;

    /// <summary>Which column it is, from 0.</summary>
    public int Column => column;

    /// <summary>Its heading.</summary>
    public string Heading => heading;

    /// <summary>How many values there are.</summary>
    public int Count { get; private set; }

    /// <summary>A value.</summary>
    public string Example { get; private set; } = "";

    /// <summary>How many different values there are.</summary>
    public int Distinct => _values.Count;

    /// <summary>The different values.</summary>
    public IReadOnlyCollection<string> Values => _values;

    /// <summary>Whether nearly all values are days.</summary>
    public bool IsDays => Mostly(_days);

    /// <summary>Whether nearly all values are numbers.</summary>
    public bool IsNumbers => Mostly(_numbers);

    /// <summary>Takes a value.</summary>
    public void Add(FileCell cell, MapWords words)
    {
        var text = cell.Text.Trim();
        if (text.Length == 0)
        {
            return;
        }

        Count++;
        _values.Add(text);
        Example = Example.Length == 0 ? text : Example;
        if (cell.IsDay || (!cell.IsNumber && Array.Exists(Orders, order => SourceDates.TryRead(text, order, words, out _))))
        {
            _days++;
        }
        else if (SourceNumbers.TryRead(text, '.', out _) || SourceNumbers.TryRead(text, ',', out _))
        {
            _numbers++;
        }
    }

    /// <summary>Whether its values are what a role asks for; a column without any may be anything.</summary>
    public bool Suits(ColumnRole role) => Count == 0 || role.Content switch
    {
        RoleContent.Day => IsDays || (IsNumbers && Values.All(IsSerial)),
        RoleContent.Number => IsNumbers,
        _ => true,
    };

    private static bool IsSerial(string text) => text.All(char.IsAsciiDigit) && text.Length == 5;

    private bool Mostly(int count) => Count > 0 && count >= 0.6 * Count;
}
