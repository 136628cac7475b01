namespace Vlei.Sample;

/// <summary>What the demo's bookkeeper keeps: reports, selections and a group, as files beside the records.</summary>
public static class KeptFiles
{
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
