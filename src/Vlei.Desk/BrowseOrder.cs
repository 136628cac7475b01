namespace Vlei.Desk;

/// <summary>What the full-screen viewer is started with, in words, as programs hand it on.</summary>
/// <param name="Vlei">The program that has started it, by which it keeps and exports.</param>
/// <param name="Book">The book's folder or address; empty for the nearest one.</param>
/// <param name="Clock">The day that it is; empty where the book says so.</param>
/// <param name="Options">What a person has typed of those, as it is typed again, with a blank before it.</param>
/// <param name="IsAscii">Whether only ASCII can be shown.</param>
/// <param name="HasColour">Whether there is colour.</param>
/// <param name="Report">What is looked at first; nothing for the list of reports.</param>
public sealed record BrowseOrder(
    string Vlei, string Book, string Clock, string Options, bool IsAscii, bool HasColour, ReportOrder? Report)
{
    /// <summary>In words.</summary>
    public IReadOnlyList<string> Words =>
    [
        Vlei, Book, Clock, Options, IsAscii ? "ascii" : "", HasColour ? "colour" : "",
        Report?.Name ?? "", Report?.Revision ?? "", Report?.IsStandard == true ? "standard" : "",
        .. Report?.Options.SelectMany(option => option.Value.SelectMany(text => new[] { option.Key, text })) ?? [],
    ];

    /// <summary>Reads the words; nothing where they are no such order.</summary>
    public static BrowseOrder? Of(string[] words) => words is [var vlei, var book, var clock, var options, var ascii, var colour, var name,
        var revision, var standard, .. var asked] && asked.Length % 2 == 0
        ? new BrowseOrder(vlei, book, clock, options, ascii.Length > 0, colour.Length > 0, name.Length == 0 ? null : new ReportOrder(
            name, asked.Chunk(2).GroupBy(pair => pair[0], pair => pair[1])
                .ToDictionary(option => option.Key, option => (IReadOnlyList<string>)[.. option]))
        {
            Revision = revision.Length == 0 ? null : revision, IsStandard = standard.Length > 0,
        })
        : null;
}
