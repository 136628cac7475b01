using System.Diagnostics;

namespace Vlei.Commands;

/// <summary>
/// Standard output of a terminal: what fits on the screen is written there, and what does not goes through a pager, from its
/// first line on. Where none can be started, it is written as it is.
/// </summary>
/// <param name="terminal">The terminal.</param>
/// <param name="pager">The pager, as a shell takes it.</param>
/// <param name="lines">How many lines fit on the screen.</param>
internal sealed class PagedOutput(Stream terminal, string pager, int lines) : Stream
{
    private readonly MemoryStream _held = new();
    private Process? _pager;
    private int _linesHeld;
    private bool _isThrough;
    private bool _isLeft;

    /// <inheritdoc/>
    public override bool CanRead => false;

    /// <inheritdoc/>
    public override bool CanSeek => false;

    /// <inheritdoc/>
    public override bool CanWrite => true;

    /// <inheritdoc/>
    public override long Length => throw new NotSupportedException();

    /// <inheritdoc/>
    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    private Stream Target => _pager?.StandardInput.BaseStream ?? terminal;

    /// <inheritdoc/>
    public override void Write(ReadOnlySpan<byte> buffer)
    {
        if (!_isThrough)
        {
            _held.Write(buffer);
            _linesHeld += buffer.Count((byte)'\n');
            if (_linesHeld < lines)
            {
                return;
            }

            _pager = Started();
            buffer = default;
            PassOn();
        }

        Through(buffer);
    }

    /// <inheritdoc/>
    public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

    /// <inheritdoc/>
    public override void Flush()
    {
        // What is held is shown when it is known how much there is.
    }

    /// <inheritdoc/>
    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    /// <inheritdoc/>
    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    /// <inheritdoc/>
    public override void SetLength(long value) => throw new NotSupportedException();

    /// <inheritdoc/>
    protected override void Dispose(bool disposing)
    {
        if (disposing)
        {
            if (!_isThrough)
            {
                PassOn();
            }

            if (_pager is { } shown)
            {
                Quietly(shown.StandardInput.Close);
                shown.WaitForExit();
                shown.Dispose();
            }

            terminal.Dispose();
        }

        base.Dispose(disposing);
    }

    private void PassOn()
    {
        _isThrough = true;
        Through(_held.GetBuffer().AsSpan(0, (int)_held.Length));
        _held.SetLength(0);
    }

    // Who has seen enough leaves the pager, and that is no fault.
    private void Through(ReadOnlySpan<byte> bytes)
    {
        if (_isLeft)
        {
            return;
        }

        try
        {
            Target.Write(bytes);
            Target.Flush();
        }
        catch (IOException) when (_pager is not null)
        {
            _isLeft = true;
        }
    }

    private static void Quietly(Action close)
    {
        try
        {
            close();
        }
        catch (IOException)
        {
            // It was left before the end.
        }
    }

    private Process? Started()
    {
        try
        {
            return Process.Start(new ProcessStartInfo("/bin/sh", ["-c", pager]) { RedirectStandardInput = true, UseShellExecute = false });
        }
        catch (System.ComponentModel.Win32Exception)
        {
            return null;
        }
    }
}
