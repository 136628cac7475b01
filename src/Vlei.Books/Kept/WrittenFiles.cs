using System.Collections.Concurrent;
using System.IO.Hashing;
using System.Text.Json;

namespace Vlei.Books.Kept;

/// <summary>
/// Which files Vlei wrote, and as what: a file that it wrote and nobody changed since may be written again; any other is
/// somebody's work.
/// </summary>
public static class WrittenFiles
{
    private const int MostBytes = 1 << 24;
    private const int MostKept = 50_000;

    private static readonly StateFile Log = new("written.jsonl", MostBytes, MostKept);

    // Read once: thousands of files may be written, each asked for.
    private static readonly Lazy<ConcurrentDictionary<string, string>> Sums = new(() => new ConcurrentDictionary<string, string>(
        Log.Lines().Select(Read).OfType<(string Path, string Sum)>().GroupBy(written => written.Path)
            .Select(same => KeyValuePair.Create(same.Key, same.Last().Sum)), StringComparer.Ordinal));

    /// <summary>Notes that files were written as they are now.</summary>
    /// <param name="paths">The full paths.</param>
    public static void Note(params IReadOnlyList<string> paths)
    {
        using var lines = new MemoryStream();
        foreach (var path in paths)
        {
            var sum = SumOf(path);
            if (Sums.IsValueCreated)
            {
                Sums.Value[path] = sum;
            }

            using (var json = new Utf8JsonWriter(lines))
            {
                json.WriteStartObject();
                json.WriteString("file", path);
                json.WriteString("xxh128", sum);
                json.WriteEndObject();
            }

            lines.WriteByte((byte)'\n');
        }

        Log.Append(lines.ToArray());
    }

    /// <summary>Whether a file is as Vlei wrote it.</summary>
    /// <param name="path">The full path.</param>
    public static bool IsOurs(string path) => Sums.Value.TryGetValue(path, out var sum) && sum == SumOf(path);

    private static (string Path, string Sum)? Read(string line)
    {
        try
        {
            using var json = JsonDocument.Parse(line);
            return (json.RootElement.GetProperty("file").GetString()!, json.RootElement.GetProperty("xxh128").GetString()!);
        }
        catch (Exception damaged) when (OptionsJson.IsDamage(damaged))
        {
            return null;
        }
    }

    private static string SumOf(string path)
    {
        var hash = new XxHash128();
        using var file = File.OpenRead(path);
        hash.Append(file);
        return Convert.ToHexStringLower(hash.GetCurrentHash());
    }
}
