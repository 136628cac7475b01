using System.Buffers;
using System.Security.Cryptography;
using System.Text;
using System.Text.Unicode;
using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>How a text file keeps its rows: which bytes are which letters, and what stands between two values.</summary>
/// <param name="Encoding">The name of the encoding, as IANA has it.</param>
/// <param name="Separator">The separator.</param>
public sealed record TextDialect(string Encoding, char Separator)
{
    private const string Utf8Name = "utf-8";
    private const string WesternName = "windows-1252";
    private const int Looked = 1 << 16;
    private const int MostLines = 200;

    /// <summary>The encodings that can be told apart or named.</summary>
    public static IReadOnlyList<string> Encodings { get; } =
        [Utf8Name, "utf-16", "utf-16BE", WesternName, "iso-8859-1", "iso-8859-15", "windows-1250", "ibm850"];

    /// <summary>The separators that are looked for.</summary>
    public static IReadOnlyList<char> Separators { get; } = [';', '\t', ',', '|'];

    /// <summary>The encoding of that name, which is one of <see cref="Encodings"/>.</summary>
    internal static Encoding EncodingOf(string name)
    {
        System.Text.Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        return System.Text.Encoding.GetEncoding(name);
    }

    /// <summary>
    /// Looks at a whole file: a mark at its start, else whether all of it is UTF-8, says the encoding; the separator is the one that
    /// parts most lines into the same number of values.
    /// </summary>
    internal static (TextDialect Dialect, RecordFile File) Of(string path)
    {
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read, 1);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var (start, isUtf8, total, carried) = (Array.Empty<byte>(), true, 0L, 0);
        var block = new byte[Looked];
        for (int read; (read = file.Read(block, carried, block.Length - carried)) > 0;)
        {
            hash.AppendData(block, carried, read);
            var bytes = block.AsSpan(0, carried + read);
            start = total == 0 ? bytes.ToArray() : start;
            total += read;
            carried = isUtf8 ? Incomplete(bytes) : 0;
            isUtf8 = isUtf8 && Utf8.IsValid(bytes[..^carried]);
            carried = isUtf8 ? carried : 0;
            bytes[^carried..].CopyTo(block);
        }

        var encoding = Marked(start) ?? (isUtf8 && carried == 0 ? Utf8Name : WesternName);
        var text = EncodingOf(encoding).GetString(start).TrimStart('\ufeff');
        return (
            new TextDialect(encoding, SeparatorOf(text)), new RecordFile(path, Convert.ToHexStringLower(hash.GetHashAndReset()), total));
    }

    private static string? Marked(ReadOnlySpan<byte> start) =>
        start.StartsWith("\ufeff"u8) ? Utf8Name
        : start.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]) ? "utf-16"
        : start.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]) ? "utf-16BE"
        : start.Length > 3 && start[0] != 0 && start[1] == 0 && start[3] == 0 ? "utf-16"
        : start.Length > 3 && start[0] == 0 && start[1] != 0 && start[2] == 0 ? "utf-16BE" : null;

    // How many bytes at the end begin a letter that goes on in the next block.
    private static int Incomplete(ReadOnlySpan<byte> bytes)
    {
        for (var back = 1; back <= Math.Min(3, bytes.Length); back++)
        {
            if ((bytes[^back] & 0xC0) == 0xC0)
            {
                return Rune.DecodeFromUtf8(bytes[^back..], out _, out _) == OperationStatus.NeedMoreData ? back : 0;
            }
        }

        return 0;
    }

    private static char SeparatorOf(string text)
    {
        const string Said = "sep=";
        if (text.StartsWith(Said, StringComparison.OrdinalIgnoreCase) && text.Length > Said.Length)
        {
            return text[Said.Length];
        }

        var lines = text.Split('\n').Take(MostLines).ToList();
        return Separators.MaxBy(separator => Alike(lines, separator));
    }

    // How many values the lines have that have as many as most of them do.
    private static int Alike(List<string> lines, char separator)
    {
        var counts = lines.Select(line => Outside(line, separator)).Where(count => count > 0).CountBy(count => count).ToList();
        return counts.Count == 0 ? 0 : counts.Max(count => count.Key * count.Value);
    }

    private static int Outside(string line, char separator)
    {
        var (count, quoted) = (0, false);
        foreach (var letter in line)
        {
            quoted ^= letter == '"';
            count += letter == separator && !quoted ? 1 : 0;
        }

        return count;
    }
}
