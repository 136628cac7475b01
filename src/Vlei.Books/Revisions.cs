using System.Globalization;
using System.Text;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>The imports of a book.</summary>
public static class Revisions
{
    /// <summary>
    /// The revision that a person means: its number, or the last one of a day or before it. Throws a
    /// <see cref="ProblemException"/> where it is neither a number nor a day.
    /// </summary>
    public static long Find(Book book, string text)
    {
        if (long.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
        {
            return number;
        }

        if (!IsoText.TryDay(Encoding.UTF8.GetBytes(text), out var day))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" is no revision.",
                "Write the number of an import, as 3, or a day, as 2026-03-31.");
        }

        using var database = Database.OpenToRead(book.RecordsPath);
        using var statement = database.Prepare("SELECT revision, at FROM imports ORDER BY revision DESC");
        while (statement.Step())
        {
            if (DateOnly.FromDateTime(AtOf(statement.Text(1)).LocalDateTime) <= day)
            {
                return statement.Number(0);
            }
        }

        return 0;
    }

    private static DateTimeOffset AtOf(string text) =>
        DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at)
            ? at
            : throw StoreProblem.Damaged($"\"{text}\" is no moment");
}
