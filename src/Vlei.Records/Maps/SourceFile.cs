using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps;

/// <summary>A file that somebody else's program wrote, or one sheet of it, as rows of cells. It may be read again and again.</summary>
public sealed class SourceFile
{
    private readonly Func<IFileRows> _open;

    private SourceFile(string path, string? sheet, TextDialect? dialect, RecordFile file, Func<IFileRows> open)
    {
        (Path, Sheet, Dialect, File, _open) = (path, sheet, dialect, file, open);
        Name = sheet is null ? System.IO.Path.GetFileName(path) : FilePlace.Sheet(System.IO.Path.GetFileName(path), sheet);
    }

    /// <summary>Where it is.</summary>
    public string Path { get; }

    /// <summary>The sheet; nothing for a text.</summary>
    public string? Sheet { get; }

    /// <summary>How a text keeps its rows; nothing for a sheet.</summary>
    public TextDialect? Dialect { get; }

    /// <summary>What messages call it.</summary>
    public string Name { get; }

    /// <summary>The file itself.</summary>
    public RecordFile File { get; }

    /// <summary>
    /// A text, or each sheet of a workbook that holds anything. Throws a <see cref="ProblemException"/> where there is no such file, or
    /// where it cannot be read.
    /// </summary>
    public static IReadOnlyList<SourceFile> Open(string path)
    {
        if (!System.IO.File.Exists(path))
        {
            throw new ProblemException(
                ProblemKind.NotFound, Directory.Exists(path) ? $"{path} is a folder." : $"{path} is not there.",
                "Name a text with separators, or a workbook; vlei import takes a folder of records, too.");
        }

        if (!Spreadsheet.IsOne(path))
        {
            var (dialect, file) = TextDialect.Of(path);
            return [new SourceFile(path, null, dialect, file, () => new TextRows(path, dialect))];
        }

        var book = Spreadsheet.Open(path);
        return [.. book.Sheets.Select(sheet => new SourceFile(path, sheet, null, book.File, () => book.Rows(sheet))).Where(HasRows)];
    }

    /// <summary>Whether it has the headings of a map, on the sheet that the map names, if it names one.</summary>
    public bool Fits(SourceMap map)
    {
        if (map.Sheet is { } sheet && sheet != Sheet)
        {
            return false;
        }

        const int MostRows = 200;
        var wanted = map.Columns.Values.Select(MapWords.Plain).ToList();
        using var rows = As(map).Rows();
        for (var row = 0; row < MostRows && rows.Read(); row++)
        {
            var there = rows.Cells.Select(cell => MapWords.Plain(cell.Text)).ToHashSet();
            if (wanted.TrueForAll(there.Contains))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>The same file, read in the dialect that a map says, if it says one.</summary>
    internal SourceFile As(SourceMap map)
    {
        if (Dialect is not { } own || (map.Encoding is null && map.Separator is null))
        {
            return this;
        }

        var dialect = new TextDialect(map.Encoding ?? own.Encoding, map.Separator ?? own.Separator);
        return new SourceFile(Path, null, dialect, File, () => new TextRows(Path, dialect));
    }

    /// <summary>Begins at its first row.</summary>
    internal IFileRows Rows() => _open();

    private static bool HasRows(SourceFile sheet)
    {
        using var rows = sheet.Rows();
        while (rows.Read())
        {
            if (rows.Cells.Any(cell => cell.Text.Length > 0))
            {
                return true;
            }
        }

        return false;
    }
}
