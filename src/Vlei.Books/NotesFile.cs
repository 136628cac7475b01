using System.Text;
using CsvHelper;
using Vlei.Books.Files;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>A row of a file of notes, with its line for messages.</summary>
/// <param name="File">The file.</param>
/// <param name="Line">The line, from 1.</param>
/// <param name="Fields">Its fields, one per column.</param>
internal sealed record NotesRow(NotesFile File, int Line, IReadOnlyList<string> Fields)
{
    /// <summary>The day in a column. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public DateOnly DayIn(int place) => IsoText.TryDay(Encoding.UTF8.GetBytes(Fields[place]), out var day)
        ? day
        : throw Wrong($"the {File.Columns[place]} \"{Fields[place]}\" is no day", "a day, as 2026-06-30");

    /// <summary>What is wrong with the row.</summary>
    public ProblemException Wrong(string what, string expected) => File.Wrong(Line, what, expected);
}

/// <summary>
/// A CSV file of a book that people write by way of the program, beside the records and never part of them, so that no import
/// changes it. Whatever is not understood is refused, with its place in the file.
/// </summary>
/// <param name="path">The path.</param>
/// <param name="columns">Its columns.</param>
internal sealed class NotesFile(string path, IReadOnlyList<string> columns)
{
    /// <summary>Its columns.</summary>
    public IReadOnlyList<string> Columns => columns;

    /// <summary>Its rows; none where there is no such file. Throws a <see cref="ProblemException"/> where it is damaged.</summary>
    public IEnumerable<NotesRow> Read()
    {
        if (!File.Exists(path))
        {
            if (Directory.Exists(path))
            {
                throw new ProblemException(ProblemKind.BadData, $"{path} is a folder, and no file of notes.", "Move it to another place.");
            }

            yield break;
        }

        using var csv = CsvReader.FromFile(path, new CsvReaderOptions { TrackLineNumbers = true });
        csv.ReadHeader();
        if (csv.Headers?.SequenceEqual(columns) != true)
        {
            throw Wrong(1, "the header is another one", string.Join(',', columns));
        }

        while (csv.Read())
        {
            yield return csv.FieldCount == columns.Count
                ? new NotesRow(
                    this, (int)csv.LineNumber,
                    [.. Enumerable.Range(0, columns.Count).Select(place => Encoding.UTF8.GetString(csv.GetSpan(place)))])
                : throw Wrong((int)csv.LineNumber, $"there are {csv.FieldCount} columns", $"{columns.Count}: {string.Join(',', columns)}");
        }
    }

    /// <summary>
    /// Puts other rows in the place of those that there are. Throws a <see cref="ProblemException"/> where it cannot; then the
    /// file is as it was.
    /// </summary>
    public void Write(IEnumerable<IReadOnlyList<string>> rows)
    {
        try
        {
            WholeFile.Write(path, stream => Write(stream, rows), isPrivate: true);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{path} cannot be written: {cannot.Message}", "Choose a book that you may write to.", cannot);
        }
    }

    private void Write(Stream stream, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var csv = CsvWriter.Create(stream, new CsvWriterOptions { NewLine = "\n" }, leaveOpen: true);
        csv.WriteHeader([.. columns]);
        foreach (var row in rows)
        {
            foreach (var field in row)
            {
                csv.WriteField(field);
            }

            csv.EndRecord();
        }
    }

    /// <summary>What is wrong at a line.</summary>
    public ProblemException Wrong(int line, string what, string expected) =>
        new(ProblemKind.BadData, $"{path}:{line}: {what}.", $"Expected {expected}.");
}
