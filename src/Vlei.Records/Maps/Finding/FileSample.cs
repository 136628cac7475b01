using Vlei.Records.Cells;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Maps.Finding;

/// <summary>The first rows of a file, its headings among them, and what its columns look like.</summary>
internal sealed class FileSample
{
    private const int MostRows = 2000;
    private const int FewestWords = 2;

    private readonly List<(long Line, FileCell[] Cells)> _rows = [];
    private readonly MapWords _words;

    /// <summary>Reads them.</summary>
    public FileSample(SourceFile file, MapWords words)
    {
        _words = words;
        using var rows = file.Rows();
        while (_rows.Count < MostRows && rows.Read())
        {
            var cells = rows.Cells.Select(cell => cell with { Text = cell.Text.Trim() }).ToArray();
            if (cells.Any(cell => cell.Text.Length > 0))
            {
                _rows.Add((rows.Row, cells));
            }
        }

        var at = FindHeadings();
        HeadingLine = at < 0 ? 0 : _rows[at].Line;
        Title = string.Join(" / ", _rows.Take(Math.Max(0, at)).SelectMany(row => row.Cells).Select(cell => cell.Text)
            .Where(text => text.Length > 0).Append(Path.GetFileNameWithoutExtension(file.Path)));
        var headings = at < 0
            ? [.. Enumerable.Range(1, _rows.Select(row => row.Cells.Length).DefaultIfEmpty(0).Max()).Select(number => $"column {number}")]
            : _rows[at].Cells.Select(cell => cell.Text).ToList();
        Columns = [.. headings.Select((heading, column) => new ColumnProfile(column, heading)).Where(column => column.Heading.Length > 0)];
        Body = [.. _rows.Skip(at + 1).Select(row => row.Cells).Where(cells => !IsSame(cells, headings))];
        foreach (var cells in Body.Where(cells => cells.Count(cell => cell.Text.Length > 0) > 1 && !IsNoise(cells)))
        {
            foreach (var column in Columns.Where(column => column.Column < cells.Length))
            {
                column.Add(cells[column.Column], words);
            }
        }
    }

    /// <summary>The line of the headings; 0 where there are none.</summary>
    public long HeadingLine { get; }

    /// <summary>What stands above them, and the name of the file.</summary>
    public string Title { get; }

    /// <summary>The columns that have a heading.</summary>
    public IReadOnlyList<ColumnProfile> Columns { get; }

    /// <summary>The rows behind the headings.</summary>
    public IReadOnlyList<FileCell[]> Body { get; }

    // The row with most words that columns are known by; titles have none, and rows of records days and numbers.
    private int FindHeadings()
    {
        var (best, most) = (-1, FewestWords - 1);
        for (var at = 0; at < Math.Min(_rows.Count, SourceColumns.MostTitleRows); at++)
        {
            var texts = _rows[at].Cells.Select(cell => cell.Text).Where(text => text.Length > 0).ToList();
            var score = texts.Exists(text => SourceNumbers.TryRead(text, '.', out _)) ? 0
                : texts.Select(_words.RoleOf).Where(role => role is not null).Sum(role => role!.Value.IsWhole ? 2 : 1);
            if (texts.Count > 1 && score > most)
            {
                (best, most) = (at, score);
            }
        }

        return best >= 0 ? best : Unknown();
    }

    // Texts alone, above a row that has a number or a day where they stand.
    private int Unknown()
    {
        for (var at = 0; at + 1 < Math.Min(_rows.Count, SourceColumns.MostTitleRows); at++)
        {
            var (cells, below) = (_rows[at].Cells, _rows[at + 1].Cells);
            var texts = cells.Count(cell => cell.Text.Any(char.IsLetter) && !cell.IsDay);
            if (texts > 2 && texts == cells.Count(cell => cell.Text.Length > 0)
                && below.Any(cell => cell.IsDay || SourceNumbers.TryRead(cell.Text, '.', out _)))
            {
                return at;
            }
        }

        return -1;
    }

    private bool IsNoise(FileCell[] cells) =>
        cells.First(cell => cell.Text.Length > 0).Text is var first && _words.RowOf(first) is not RowWord.None;

    private static bool IsSame(FileCell[] cells, List<string> headings) =>
        cells.Length >= headings.Count && headings.Select((heading, column) => cells[column].Text == heading).All(same => same);
}
