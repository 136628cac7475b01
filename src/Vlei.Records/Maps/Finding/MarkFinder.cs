using Vlei.Core.Problems;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Finding;

/// <summary>
/// Finds how a file writes days and numbers, from every value of the columns that have them: what fits them all is taken, and what more
/// than one way fits is asked.
/// </summary>
internal sealed class MarkFinder
{
    private readonly List<MapFinding> _findings = [];
    private readonly List<OpenQuestion> _questions = [];

    /// <summary>Reads the whole file.</summary>
    public MarkFinder(
        SourceFile file, FileSample sample, IReadOnlyList<ColumnProfile> days, IReadOnlyList<ColumnProfile> numbers, MapWords words)
    {
        var (dates, marks) = (new DayEvidence(words), new MarkEvidence());
        using var rows = file.Rows();
        while (rows.Read())
        {
            if (rows.Row <= sample.HeadingLine)
            {
                continue;
            }

            foreach (var column in days)
            {
                if (TryCell(rows, column, out var cell))
                {
                    dates.Add(cell, rows.Row, column == days[0]);
                }
            }

            foreach (var column in numbers)
            {
                if (TryCell(rows, column, out var cell))
                {
                    marks.Add(cell, rows.Row);
                }
            }
        }

        Dates = dates.Decide(_findings, _questions);
        DecimalMark = marks.Decide(file, _findings, _questions);
    }

    /// <summary>The order of the parts of a day; nothing where it is not decided.</summary>
    public DateOrder? Dates { get; }

    /// <summary>The decimal mark; nothing where it is not decided.</summary>
    public char? DecimalMark { get; }

    /// <summary>What was found.</summary>
    public IReadOnlyList<MapFinding> Findings => _findings;

    /// <summary>What is not decided.</summary>
    public IReadOnlyList<OpenQuestion> Questions => _questions;

    private static bool TryCell(IFileRows rows, ColumnProfile column, out FileCell cell)
    {
        cell = column.Column < rows.Cells.Count ? rows.Cells[column.Column] : default;
        cell = cell.Text is null ? default : cell with { Text = cell.Text.Trim() };
        return cell.Text is { Length: > 0 } && cell.Text != column.Heading;
    }

    private sealed class DayEvidence(MapWords words)
    {
        private static readonly DateOrder[] Orders = [DateOrder.YearMonthDay, DateOrder.DayMonthYear, DateOrder.MonthDayYear];

        private readonly Dictionary<string, DateOnly?[]> _known = [];
        private readonly int[] _fits = new int[3];
        private readonly DateOnly[] _last = new DateOnly[3];
        private readonly int[] _backwards = new int[3];
        private readonly int[] _forwards = new int[3];
        private int _count;
        private int _unmistakable;
        private int _sheet;
        private int _serial;
        private string _example = "";
        private (string Text, long Line)[] _against = new (string, long)[3];

        public void Add(FileCell cell, long line, bool isFirst)
        {
            if (cell.IsDay)
            {
                _sheet++;
                return;
            }

            if (!_known.TryGetValue(cell.Text, out var fits))
            {
                _known[cell.Text] = fits = [.. Orders.Select(order =>
                    SourceDates.TryRead(cell.Text, order, words, out var day) ? (DateOnly?)day : null)];
            }

            if (Array.TrueForAll(fits, day => day is null))
            {
                _serial += SourceDates.TryRead(cell.Text, DateOrder.Serial, words, out _) ? 1 : 0;
                return;
            }

            _count++;
            _example = _example.Length == 0 ? cell.Text : _example;
            _unmistakable += _count - 1 == _unmistakable && SourceDates.IsUnmistakable(cell.Text) ? 1 : 0;
            for (var order = 0; order < fits.Length; order++)
            {
                if (fits[order] is not { } day)
                {
                    _against[order] = _against[order].Text is null ? (cell.Text, line) : _against[order];
                    continue;
                }

                _fits[order]++;
                if (isFirst)
                {
                    _forwards[order] += day > _last[order] && _last[order] != default ? 1 : 0;
                    _backwards[order] += day < _last[order] ? 1 : 0;
                    _last[order] = day;
                }
            }
        }

        public DateOrder? Decide(List<MapFinding> findings, List<OpenQuestion> questions)
        {
            var fitting = Orders.Where(order => _count > 0 && _fits[(int)order] == _count).ToList();
            if (_count == 0 && _serial > 0)
            {
                Say(DateOrder.Serial, "they are numbers, which count days as sheets do");
                return DateOrder.Serial;
            }

            if (_count == 0)
            {
                if (_sheet > 0)
                {
                    Say(DateOrder.YearMonthDay, "the sheet keeps them as days");
                }

                return DateOrder.YearMonthDay;
            }

            if (fitting.Count == 0)
            {
                // Most of them say it; those that do not are errors of the file, and are told with their lines.
                var most = Orders.MaxBy(order => _fits[(int)order]);
                Say(most, $"all but {_count - _fits[(int)most]} fit, such as \"{_example}\"");
                return most;
            }

            if (fitting is [var only])
            {
                var other = Orders.Where(order => order != only).MaxBy(order => _fits[(int)order]);
                Say(only, $"\"{_against[(int)other].Text}\" in line {_against[(int)other].Line} fits no other");
                return only;
            }

            if (_unmistakable == _count && fitting.Contains(DateOrder.DayMonthYear))
            {
                Say(DateOrder.DayMonthYear, $"days with dots or names of months have the day first, such as \"{_example}\"");
                return DateOrder.DayMonthYear;
            }

            // A list in the order of its days is in order one way only.
            var inOrder = fitting.Where(order => (_backwards[(int)order] == 0 || _forwards[(int)order] == 0)
                && _backwards[(int)order] + _forwards[(int)order] > 1).ToList();
            if (inOrder is [var sorted])
            {
                Say(sorted, "only so the rows are in the order of their days");
                return sorted;
            }

            questions.Add(new OpenQuestion(
                "dates", $"\"{_example}\" and all others may be read in {fitting.Count} ways: which part is the day?",
                [.. fitting.Select(SourceDates.NameOf)]));
            return null;

            void Say(DateOrder order, string because) => findings.Add(new MapFinding("dates", SourceDates.NameOf(order), because));
        }
    }

    private sealed class MarkEvidence
    {
        private (int Count, string Text, long Line) _point;
        private (int Count, string Text, long Line) _comma;
        private (int Count, string Text, long Line) _either;
        private int _sheet;

        public void Add(FileCell cell, long line)
        {
            if (cell.IsNumber)
            {
                _sheet++;
                return;
            }

            // Once the marks are known, only another one tells more.
            if (SourceNumbers.MarkOf(cell.Text) is not { } mark
                || (mark == '.' ? _point.Count : mark == ',' ? _comma.Count : _either.Count) > 0
                || !(SourceNumbers.TryRead(cell.Text, '.', out _) || SourceNumbers.TryRead(cell.Text, ',', out _)))
            {
                return;
            }

            ref var counted = ref _either;
            if (mark == '.')
            {
                counted = ref _point;
            }
            else if (mark == ',')
            {
                counted = ref _comma;
            }

            counted = (1, cell.Text, line);
        }

        public char? Decide(SourceFile file, List<MapFinding> findings, List<OpenQuestion> questions)
        {
            if (_point.Count > 0 && _comma.Count > 0)
            {
                throw new ProblemException(
                    ProblemKind.BadData,
                    $"{file.Name} writes numbers in two ways: "
                        + $"\"{_point.Text}\" in line {_point.Line}, \"{_comma.Text}\" in line {_comma.Line}.",
                    "Write them in one way; or write decimal-mark into a map by hand.");
            }

            if (_point.Count + _comma.Count > 0)
            {
                var (mark, text, line) = _point.Count > 0 ? ('.', _point.Text, _point.Line) : (',', _comma.Text, _comma.Line);
                findings.Add(new MapFinding("decimal-mark", mark.ToString(), $"\"{text}\" in line {line} says so"));
                return mark;
            }

            if (_either.Count > 0)
            {
                questions.Add(new OpenQuestion(
                    "decimal-mark",
                    $"\"{_either.Text}\" in line {_either.Line} may be thousands, or one and a part: which is the decimal mark?",
                    [".", ","]));
                return null;
            }

            if (_sheet > 0)
            {
                findings.Add(new MapFinding("decimal-mark", ".", "the sheet keeps them as numbers"));
            }

            return '.';
        }
    }
}
