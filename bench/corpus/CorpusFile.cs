namespace Corpus;

/// <summary>A corpus on the disk: a line per output, its hash, a tab, and what was asked.</summary>
internal static class CorpusFile
{
    private const int MostShown = 60;

    public static void Write(string path, IReadOnlyList<string> lines)
    {
        File.WriteAllLines(path, lines.Order(StringComparer.Ordinal));
        Console.Error.WriteLine($"{lines.Count} outputs");
    }

    /// <summary>Tells what differs among what both have; 1 where anything does.</summary>
    public static int Compare(string before, string after)
    {
        var (old, now) = (Read(before), Read(after));
        var both = old.Keys.Where(now.ContainsKey).ToList();
        var differ = both.Where(asked => old[asked] != now[asked]).Order(StringComparer.Ordinal).ToList();
        Console.WriteLine(
            $"{both.Count} outputs in both, {both.Count - differ.Count} the same, {differ.Count} not; "
            + $"{old.Count - both.Count} only before, {now.Count - both.Count} only after");
        differ.Take(MostShown).ToList().ForEach(Console.WriteLine);
        return differ.Count == 0 ? 0 : 1;
    }

    private static Dictionary<string, string> Read(string path) =>
        File.ReadLines(path).Select(line => line.Split('\t', 2)).DistinctBy(pair => pair[1]).ToDictionary(pair => pair[1], pair => pair[0]);
}
