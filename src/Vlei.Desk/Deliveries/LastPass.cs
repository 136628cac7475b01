namespace Vlei.Desk.Deliveries;

/// <summary>When a book's schedules were last looked at, whatever came of it.</summary>
public static class LastPass
{
    private const string FileName = "last-pass";

    /// <summary>Notes it.</summary>
    internal static void Note(string folder, DateTimeOffset now)
    {
        var path = Path.Combine(folder, FileName);
        using (File.Open(path, FileMode.OpenOrCreate))
        {
            // The time of the file is all that it says.
        }

        File.SetLastWriteTimeUtc(path, now.UtcDateTime);
    }

    /// <summary>When it was; nothing where it never was.</summary>
    public static DateTimeOffset? Of(DeliveryLog log) => Path.Combine(log.Folder, FileName) is var path && File.Exists(path)
        ? new DateTimeOffset(File.GetLastWriteTimeUtc(path), TimeSpan.Zero) : null;
}
