namespace Vlei.Tests;

/// <summary>The CSV files of a record set as lines of text, to be changed in ways that keep them sound.</summary>
public sealed class RecordTexts
{
    private readonly Dictionary<string, List<string>> _files;

    public RecordTexts(string folder)
        : this(Directory.EnumerateFiles(folder, "*.csv").ToDictionary(
            path => Path.GetFileName(path)!, path => File.ReadAllLines(path).ToList()))
    {
    }

    private RecordTexts(Dictionary<string, List<string>> files) => _files = files;

    /// <summary>
    /// Some documents less, some on another day, some with another account, and all rows in another order.
    /// </summary>
    public RecordTexts Changed(Random random)
    {
        var gone = _files["documents.csv"].Skip(1).Select(IdOf).Where(_ => random.Next(12) == 0).ToHashSet();
        var files = new Dictionary<string, List<string>>(_files)
        {
            ["documents.csv"] = Shuffled(Without("documents.csv", gone).Select(line => Moved(line, random)), random),
            ["lines.csv"] = Shuffled(Without("lines.csv", gone).Select(line => Reposted(line, random)), random),
            ["settlements.csv"] = Shuffled(
                _files["settlements.csv"].Skip(1).Where(line => !line.Split(',').Take(2).Any(gone.Contains)), random),
        };
        return WithHeaders(files);
    }

    /// <summary>The documents of one year, with the settlements between them.</summary>
    public RecordTexts OfYear(string year)
    {
        var others = _files["documents.csv"].Skip(1).Where(
            line => !line.Split(',')[2].StartsWith(year, StringComparison.Ordinal))
            .Select(IdOf).ToHashSet();
        return WithHeaders(new Dictionary<string, List<string>>(_files)
        {
            ["documents.csv"] = Without("documents.csv", others),
            ["lines.csv"] = Without("lines.csv", others),
            ["settlements.csv"] =
                [.. _files["settlements.csv"].Skip(1).Where(line => !line.Split(',').Take(2).Any(others.Contains))],
        });
    }

    public void Write(string folder)
    {
        Directory.CreateDirectory(folder);
        foreach (var (name, lines) in _files)
        {
            File.WriteAllLines(Path.Combine(folder, name), lines);
        }
    }

    private static string IdOf(string line) => line[..line.IndexOf(',')];

    private List<string> Without(string file, HashSet<string> documents) =>
        [.. _files[file].Skip(1).Where(line => !documents.Contains(IdOf(line)))];

    private RecordTexts WithHeaders(Dictionary<string, List<string>> files)
    {
        foreach (var name in new[] { "documents.csv", "lines.csv", "settlements.csv" })
        {
            files[name] = [_files[name][0], .. files[name]];
        }

        return new RecordTexts(files);
    }

    private static string Moved(string document, Random random)
    {
        var values = document.Split(',');
        if (random.Next(10) == 0)
        {
            values[2] = $"{values[2][..8]}{random.Next(1, 29):D2}";
        }

        return string.Join(',', values);
    }

    // From one expense to another: what a document sums to stays.
    private static string Reposted(string line, Random random) =>
        random.Next(10) == 0 ? line.Replace(",6500,", ",6210,").Replace(",4020,", ",4030,") : line;

    private static List<string> Shuffled(IEnumerable<string> lines, Random random)
    {
        var shuffled = lines.ToArray();
        random.Shuffle(shuffled);
        return [.. shuffled];
    }
}
