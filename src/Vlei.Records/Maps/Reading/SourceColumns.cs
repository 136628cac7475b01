using Vlei.Core.Problems;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Reading;

/// <summary>Where the columns of a map stand in a file, and what stands above them.</summary>
internal sealed class SourceColumns
{
    /// <summary>How many rows may stand above the headings.</summary>
    public const int MostTitleRows = 200;

    private readonly SourceMap _map;
    private readonly int[] _columns = [.. ColumnRole.All.Select(_ => -1)];
    private readonly List<(string Tag, int Column)> _tags = [];
    private readonly List<string> _titles = [];

    /// <summary>Reads up to the headings. Throws a problem where the file does not have those of the map.</summary>
    public SourceColumns(SourceFile file, IFileRows rows, SourceMap map)
    {
        _map = map;
        if (map.Columns.Values.All(heading => NumberIn(heading) is not null))
        {
            foreach (var (role, heading) in map.Columns)
            {
                _columns[role.Place] = NumberIn(heading)!.Value;
            }

            Headings = [.. Enumerable.Range(1, _columns.Max() + 1).Select(number => $"column {number}")];
        }
        else if (!IsFoundIn(rows))
        {
            throw new ProblemException(
                ProblemKind.BadData,
                $"{file.Name} has no row with the headings {Suggestion.Listed([.. map.Columns.Values.Select(Quoted)], "and")}.",
                $"{map.Path} is for files that do; vlei map {file.Path} makes a map of this one.");
        }

        Taken = [.. _columns.Where(column => column >= 0)];
    }

    /// <summary>The headings, from the first column on; their numbers where the file has none.</summary>
    public string[] Headings { get; private set; } = [];

    /// <summary>What stood above the headings.</summary>
    public IReadOnlyCollection<string> Titles => _titles;

    /// <summary>The columns that have what the map says, from 0.</summary>
    public IReadOnlyList<int> Taken { get; }

    /// <summary>The columns that have tags, from 0.</summary>
    public IReadOnlyList<(string Tag, int Column)> Tags => _tags;

    /// <summary>The column for something, from 0; below 0 where there is none.</summary>
    public int Of(ColumnRole role) => _columns[role.Place];

    private static string Quoted(string heading) => $"\"{heading}\"";

    private static int? NumberIn(string heading)
    {
        const string Word = "column ";
        return heading.StartsWith(Word, StringComparison.Ordinal) && int.TryParse(heading[Word.Length..], out var number) && number > 0
            ? number - 1 : null;
    }

    private bool IsFoundIn(IFileRows rows)
    {
        for (var row = 0; row < MostTitleRows && rows.Read(); row++)
        {
            if (IsFoundIn([.. rows.Cells.Select(cell => MapWords.Plain(cell.Text))]))
            {
                Headings = [.. rows.Cells.Select(cell => cell.Text)];
                return true;
            }

            _titles.AddRange(rows.Cells.Select(cell => cell.Text).Where(text => text.Length > 0));
        }

        return false;
    }

    // Whether a row has all the headings of the map.
    private bool IsFoundIn(List<string> row)
    {
        Array.Fill(_columns, -1);
        _tags.Clear();
        foreach (var (role, heading) in _map.Columns)
        {
            if (Find(row, heading) is not { } column)
            {
                return false;
            }

            _columns[role.Place] = column;
        }

        foreach (var (tag, heading) in _map.Tags)
        {
            if (Find(row, heading) is not { } column)
            {
                return false;
            }

            _tags.Add((tag, column));
        }

        return true;
    }

    // Of two columns of one heading each is taken once; a heading that is there once may serve for two things.
    private int? Find(List<string> row, string heading)
    {
        var wanted = MapWords.Plain(heading);
        var places = Enumerable.Range(0, row.Count).Where(column => row[column] == wanted).ToList();
        return places.Count == 1 ? places[0]
            : places.Where(column => !_columns.Contains(column)).Select(column => (int?)column).FirstOrDefault();
    }
}
