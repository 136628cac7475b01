namespace Vlei.Books.Kept;

/// <summary>Files of reports, pages and layouts that are part of the program.</summary>
internal static class StandardFiles
{
    /// <summary>The names of those of a folder, which ends in a slash, in their order.</summary>
    public static string[] NamesIn(string folder)
    {
        var all = typeof(StandardFiles).Assembly.GetManifestResourceNames();
        var names = Array.ConvertAll(
            Array.FindAll(all, name => name.StartsWith(folder, StringComparison.Ordinal)), name => Path.GetFileNameWithoutExtension(name));
        Array.Sort(names, StringComparer.Ordinal);
        return names;
    }

    /// <summary>The text of one of them; nothing where there is none of that name.</summary>
    public static string? TextOf(string folder, string name)
    {
        using var standard = typeof(StandardFiles).Assembly.GetManifestResourceStream($"{folder}{name}{KeptFile.Ending}");
        if (standard is null)
        {
            return null;
        }

        using var reader = new StreamReader(standard);
        return reader.ReadToEnd();
    }
}
