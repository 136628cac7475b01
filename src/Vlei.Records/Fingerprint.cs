using System.Globalization;
using System.Security.Cryptography;
using System.Text.Unicode;
using Vlei.Core.Ledger;

namespace Vlei.Records;

/// <summary>Reads a file once, as bytes: its hash, and whether all of it is UTF-8.</summary>
internal static class Fingerprint
{
    private const int BlockBytes = 1 << 20;
    private const int LongestSequence = 4;

    /// <summary>The file's hash and length; the first place that is not UTF-8 goes to the errors.</summary>
    public static RecordFile Of(string path, string name, RecordErrors errors)
    {
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read, 1);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var block = new byte[BlockBytes + LongestSequence];
        var (carried, line, column, total, broken) = (0, 1L, 1L, 0L, false);
        int read;
        while ((read = file.Read(block, carried, BlockBytes)) > 0)
        {
            hash.AppendData(block, carried, read);
            total += read;
            var bytes = block.AsSpan(0, carried + read);
            var whole = WholeSequences(bytes);
            if (!broken && !Utf8.IsValid(bytes[..whole]))
            {
                broken = true;
                AddError(bytes[..whole], name, line, column, errors);
            }

            Advance(bytes[..whole], ref line, ref column);
            carried = bytes.Length - whole;
            bytes[whole..].CopyTo(block);
        }

        if (carried > 0 && !broken)
        {
            AddError(block.AsSpan(0, carried), name, line, column, errors);
        }

        return new RecordFile(path, Convert.ToHexStringLower(hash.GetHashAndReset()), total);
    }

    // How far the bytes go without cutting a sequence that the next block may finish.
    private static int WholeSequences(ReadOnlySpan<byte> bytes)
    {
        for (var back = 1; back <= Math.Min(LongestSequence - 1, bytes.Length); back++)
        {
            var lead = bytes[^back];
            if (lead >= 0xC0)
            {
                var length = lead >= 0xF0 ? 4 : lead >= 0xE0 ? 3 : 2;
                return length > back ? bytes.Length - back : bytes.Length;
            }

            if (lead < 0x80)
            {
                break;
            }
        }

        return bytes.Length;
    }

    private static void AddError(
        ReadOnlySpan<byte> bytes, string name, long line, long column, RecordErrors errors)
    {
        var at = 0;
        while (at < bytes.Length
            && System.Text.Rune.DecodeFromUtf8(bytes[at..], out _, out var length) == System.Buffers.OperationStatus.Done)
        {
            at += length;
        }

        Advance(bytes[..at], ref line, ref column);
        var shown = at < bytes.Length ? bytes[at].ToString("X2", CultureInfo.InvariantCulture) : "";
        errors.Add(name, line, (int)column, $"byte 0x{shown} is not UTF-8; save the file as UTF-8.");
    }

    private static void Advance(ReadOnlySpan<byte> bytes, ref long line, ref long column)
    {
        var lines = bytes.Count((byte)'\n');
        line += lines;
        column = lines > 0 ? bytes.Length - bytes.LastIndexOf((byte)'\n') : column + bytes.Length;
    }
}
