using System.CommandLine;
using System.Text;
using Vlei.Books;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary>The options that every command shares: which book, and which day it is.</summary>
internal static class BookOptions
{
    /// <summary>Which book.</summary>
    public static Option<string?> Book { get; } = new("--book")
    {
        Description = "The book's folder (else VLEI_BOOK, else the nearest folder upwards that is a book)",
        HelpName = "DIR",
        Recursive = true,
    };

    /// <summary>Which day it is.</summary>
    public static Option<string?> Clock { get; } = new("--clock")
    {
        Description =
            "What day it is, for words like last-month and for dating what is done (else VLEI_CLOCK, else the book's clock, else the "
                + "computer's)",
        HelpName = "DATE",
        Recursive = true,
    };

    /// <summary>Opens the book that the command line means.</summary>
    public static Book OpenBook(ParseResult result) => Opened = Books.Book.Open(Named(result));

    /// <summary>The folder or the address of the book that the command line or the environment names; nothing where none does.</summary>
    public static string? Named(ParseResult result) => result.GetValue(Book) ?? FromEnvironment("VLEI_BOOK");

    /// <summary>The book that was opened last; nothing where none was.</summary>
    public static Book? Opened { get; private set; }

    /// <summary>The book that the command line means; nothing where it names none and there is none here.</summary>
    public static Book? BookIfAny(ParseResult result) =>
        Named(result) is not null || Books.Book.IsHere() ? OpenBook(result) : null;

    /// <summary>Opens the book that the command line means, on the day that it means.</summary>
    public static ReportDesk OpenDesk(ParseResult result) => new(OpenBook(result), ClockTyped(result));

    /// <summary>The same; nothing where no book is named and there is none here.</summary>
    public static ReportDesk? DeskIfAny(ParseResult result) =>
        BookIfAny(result) is { } book ? new ReportDesk(book, ClockTyped(result)) : null;

    /// <summary>What day it is, where the command line or the environment says so.</summary>
    public static DateOnly? ClockTyped(ParseResult result)
    {
        var (text, source) = result.GetValue(Clock) is { } given ? (given, "--clock") : (FromEnvironment("VLEI_CLOCK"), "VLEI_CLOCK");
        return text is null ? null
            : IsoText.TryDay(Encoding.UTF8.GetBytes(text), out var day) ? day
            : throw new ProblemException(
                ProblemKind.Usage, $"{source}: \"{text}\" is no day.", "Write a day as 2026-06-30.");
    }

    private static string? FromEnvironment(string name) =>
        Environment.GetEnvironmentVariable(name) is { Length: > 0 } value ? value : null;
}
