using System.Globalization;
using System.Security.Cryptography;
using System.Text.Unicode;
using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>A file that is looked at while somebody reads it: its hash, and whether all of it is UTF-8.</summary>
internal sealed class FingerprintStream : Stream
{
    private const int LongestSequence = 4;

    private readonly FileStream _file;
    private readonly IncrementalHash _hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
    private readonly string _path;
    private readonly string _name;
    private readonly RecordErrors _errors;
    private byte[] _block = [];
    private int _carried;
    private long _line = 1;
    private long _column = 1;
    private long _total;
    private bool _broken;

    /// <summary>Opens a file.</summary>
    /// <param name="path">Where it is.</param>
    /// <param name="name">What it is called in messages.</param>
    /// <param name="errors">Where the first place goes that is not UTF-8.</param>
    public FingerprintStream(string path, string name, RecordErrors errors)
    {
        (_path, _name, _errors) = (path, name, errors);
        _file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read, 1);
    }

    /// <inheritdoc/>
    public override bool CanRead => true;

    /// <inheritdoc/>
    public override bool CanSeek => false;

    /// <inheritdoc/>
    public override bool CanWrite => false;

    /// <inheritdoc/>
    public override long Length => throw new NotSupportedException();

    /// <inheritdoc/>
    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    /// <summary>Reads what nobody has read yet, and says what the file was.</summary>
    public RecordFile Finish()
    {
        CopyTo(Null);
        if (_carried > 0 && !_broken)
        {
            AddError(_block.AsSpan(0, _carried));
        }

        return new RecordFile(_path, Convert.ToHexStringLower(_hash.GetHashAndReset()), _total);
    }

    /// <inheritdoc/>
    public override int Read(Span<byte> buffer)
    {
        var read = _file.Read(buffer);
        Look(buffer[..read]);
        return read;
    }

    /// <inheritdoc/>
    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    /// <inheritdoc/>
    public override void Flush()
    {
    }

    /// <inheritdoc/>
    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    /// <inheritdoc/>
    public override void SetLength(long value) => throw new NotSupportedException();

    /// <inheritdoc/>
    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    /// <inheritdoc/>
    protected override void Dispose(bool disposing)
    {
        if (disposing)
        {
            _file.Dispose();
            _hash.Dispose();
        }

        base.Dispose(disposing);
    }

    private void Look(ReadOnlySpan<byte> read)
    {
        _hash.AppendData(read);
        _total += read.Length;
        if (_block.Length < _carried + read.Length)
        {
            Array.Resize(ref _block, read.Length + LongestSequence);
        }

        read.CopyTo(_block.AsSpan(_carried));
        var bytes = _block.AsSpan(0, _carried + read.Length);
        var whole = WholeSequences(bytes);
        if (!_broken && !Utf8.IsValid(bytes[..whole]))
        {
            _broken = true;
            AddError(bytes[..whole]);
        }

        Advance(bytes[..whole], ref _line, ref _column);
        _carried = bytes.Length - whole;
        bytes[whole..].CopyTo(_block);
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

    private void AddError(ReadOnlySpan<byte> bytes)
    {
        var (at, line, column) = (0, _line, _column);
        while (at < bytes.Length
            && System.Text.Rune.DecodeFromUtf8(bytes[at..], out _, out var length) == System.Buffers.OperationStatus.Done)
        {
            at += length;
        }

        Advance(bytes[..at], ref line, ref column);
        var shown = at < bytes.Length ? bytes[at].ToString("X2", CultureInfo.InvariantCulture) : "";
        _errors.Add(_name, line, (int)column, $"byte 0x{shown} is not UTF-8; save the file as UTF-8.");
    }

    private static void Advance(ReadOnlySpan<byte> bytes, ref long line, ref long column)
    {
        var lines = bytes.Count((byte)'\n');
        line += lines;
        column = lines > 0 ? bytes.Length - bytes.LastIndexOf((byte)'\n') : column + bytes.Length;
    }
}
