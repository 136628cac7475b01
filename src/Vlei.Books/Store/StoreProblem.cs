using System.Globalization;
using Vlei.Core.Problems;

namespace Vlei.Books.Store;

/// <summary>Problems that any store may have, and how stores write moments.</summary>
internal static class StoreProblem
{
    /// <summary>The store holds what this program never wrote.</summary>
    public static ProblemException Damaged(string message) => new(
        ProblemKind.BadData,
        $"The book's records are damaged: {message}.",
        "Put back a copy of them, or make the book anew and import its record sets again.");

    /// <summary>A moment as stores keep it.</summary>
    public static DateTimeOffset MomentOf(string text) =>
        DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at)
            ? at
            : throw Damaged($"\"{text}\" is no moment");

    /// <summary>A moment as a store writes it.</summary>
    public static string MomentText(DateTimeOffset at) =>
        at.UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);
}
