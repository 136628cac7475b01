using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using Vlei.Core.Calendar;

namespace Vlei.Books.Kept;

/// <summary>A report that was shown.</summary>
/// <param name="Book">The full path of its book.</param>
/// <param name="Day">The day, as the book has today.</param>
/// <param name="Name">The report.</param>
/// <param name="Options">What was typed, as texts by the names of options.</param>
/// <param name="Group">The group that it was run in; nothing where it was shown by itself.</param>
public sealed record RecentReport(
    string Book, DateOnly Day, string Name, IReadOnlyDictionary<string, IReadOnlyList<string>> Options, string? Group = null);

/// <summary>
/// What was shown lately: a line of JSON each, in the person's own state folder, for all books. What cannot be
/// read is passed over.
/// </summary>
public static class RecentReports
{
    private const int MostBytes = 1 << 18;
    private const int MostKept = 300;

    // The library's own encoder comes with another of all letters there are, which takes longer to make than the line to write.
    private static readonly JsonWriterOptions OfLines = new() { Encoder = JavaScriptEncoder.Create(UnicodeRanges.BasicLatin) };

    private static readonly StateFile Log = new("recent.jsonl", MostBytes, MostKept);

    /// <summary>What was shown of a book, the latest first.</summary>
    public static IReadOnlyList<RecentReport> Of(Book book)
    {
        var folder = Path.GetFullPath(book.Folder);
        return [.. Log.Lines().Select(Read).OfType<RecentReport>().Where(recent => recent.Book == folder).Reverse()];
    }

    /// <summary>Notes that a report was shown.</summary>
    public static void Note(Book book, DateOnly day, string name, IReadOnlyDictionary<string, IReadOnlyList<string>> options) =>
        Log.Append(Line(new RecentReport(Path.GetFullPath(book.Folder), day, name, options.ToDictionary(
            option => option.Key, option => LookFiles.IsOfFile(option.Key)
                ? [.. option.Value.Select(file => File.Exists(file) ? Path.GetFullPath(file) : file)] : option.Value))));

    /// <summary>Notes that reports were run in a group.</summary>
    public static void NoteRun(Book book, DateOnly day, string group, IEnumerable<string> names) => Log.Append(
        [.. names.Distinct().SelectMany(
            name => Line(
                new RecentReport(Path.GetFullPath(book.Folder), day, name, new Dictionary<string, IReadOnlyList<string>>(), group)))]);

    private static byte[] Line(RecentReport recent)
    {
        using var line = new MemoryStream();
        using (var json = new Utf8JsonWriter(line, OfLines))
        {
            json.WriteStartObject();
            json.WriteString("book", recent.Book);
            json.WriteString("day", PeriodText.Iso(recent.Day));
            json.WriteString("report", recent.Name);
            json.WriteString("group", recent.Group);
            OptionsJson.Write(json, recent.Options);
            json.WriteEndObject();
        }

        line.WriteByte((byte)'\n');
        return line.ToArray();
    }

    private static RecentReport? Read(string line)
    {
        try
        {
            using var json = JsonDocument.Parse(line);
            var root = json.RootElement;
            return new RecentReport(
                root.GetProperty("book").GetString()!,
                DateOnly.ParseExact(root.GetProperty("day").GetString()!, "yyyy-MM-dd", CultureInfo.InvariantCulture),
                root.GetProperty("report").GetString()!, OptionsJson.Read(root), root.GetProperty("group").GetString());
        }
        catch (Exception damaged) when (OptionsJson.IsDamage(damaged))
        {
            return null;
        }
    }
}
