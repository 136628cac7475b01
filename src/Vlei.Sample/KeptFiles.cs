namespace Vlei.Sample;

/// <summary>
/// What the demo's bookkeeper keeps, as files beside the records: reports, selections, a group, and what a client,
/// <see cref="ForeignClient"/>,
/// sends from the programs that it uses.
/// </summary>
public static class KeptFiles
{
    /// <summary>The client whose files are in the folder <c>foreign</c>.</summary>
    public const string ForeignClient = "Hollow Creek Canoes";

    private const string Prefix = "kept/";

    /// <summary>Writes them into a book's folder.</summary>
    public static void Write(string folder)
    {
        var assembly = typeof(KeptFiles).Assembly;
        foreach (var name in assembly.GetManifestResourceNames().Where(name => name.StartsWith(Prefix, StringComparison.Ordinal)))
        {
            var path = Path.Combine(folder, name[Prefix.Length..]);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            using var from = assembly.GetManifestResourceStream(name)!;
            using var to = File.Create(path);
            from.CopyTo(to);
        }
    }
}
