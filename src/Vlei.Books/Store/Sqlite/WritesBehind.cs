using System.Runtime.ExceptionServices;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// Writes on a thread of its own, behind whoever makes what is written. One thread alone uses a connection at any time: whoever asks
/// anything else of it waits first until that thread has nothing left to write.
/// </summary>
internal sealed class WritesBehind : IDisposable
{
    // Enough for the other thread to go on while many rows are made at once, or none.
    private const int MostBytes = 1 << 19;

    private readonly Queue<(Action Write, long Bytes)> _waiting = [];
    private Thread? _thread;
    private ExceptionDispatchInfo? _failure;
    private volatile int _pending;
    private long _bytes;
    private bool _isOver;

    /// <summary>How many statements are in the middle of their rows: what is written then is written at once.</summary>
    public int BeingRead { get; set; }

    /// <summary>Writes at once or later. Throws what went wrong with what was written before.</summary>
    /// <param name="write">Writes it, on any thread.</param>
    /// <param name="bytes">About how much memory it keeps until then.</param>
    public void Write(Action write, long bytes)
    {
        if (BeingRead > 0)
        {
            Settle();
            write();
            return;
        }

        lock (_waiting)
        {
            _failure?.Throw();
            if (_thread is null)
            {
                _thread = new Thread(WriteAll) { IsBackground = true, Name = "SQLite" };
                _thread.Start();
            }

            while (_pending > 0 && _bytes + bytes > MostBytes)
            {
                Monitor.Wait(_waiting);
            }

            _waiting.Enqueue((write, bytes));
            _pending++;
            _bytes += bytes;
            Monitor.PulseAll(_waiting);
        }
    }

    /// <summary>Waits until all is written, unless it is this that writes. Throws what went wrong with it.</summary>
    public void Settle()
    {
        Wait();
        _failure?.Throw();
    }

    /// <summary>The same, whatever became of it.</summary>
    public void Wait()
    {
        if (_pending == 0 || Thread.CurrentThread == _thread)
        {
            return;
        }

        lock (_waiting)
        {
            while (_pending > 0)
            {
                Monitor.Wait(_waiting);
            }
        }
    }

    /// <summary>Ends the thread, with what waits written or given up.</summary>
    public void Dispose()
    {
        lock (_waiting)
        {
            _isOver = true;
            Monitor.PulseAll(_waiting);
        }

        _thread?.Join();
    }

    private void WriteAll()
    {
        while (Next() is var (write, bytes))
        {
            try
            {
                // What comes behind what could not be written is given up with it.
                if (_failure is null)
                {
                    write();
                }
            }
            catch (Exception cannot)
            {
                _failure = ExceptionDispatchInfo.Capture(cannot);
            }

            lock (_waiting)
            {
                _pending--;
                _bytes -= bytes;
                Monitor.PulseAll(_waiting);
            }
        }
    }

    private (Action Write, long Bytes)? Next()
    {
        lock (_waiting)
        {
            while (_waiting.Count == 0 && !_isOver)
            {
                Monitor.Wait(_waiting);
            }

            return _waiting.TryDequeue(out var next) ? next : null;
        }
    }
}
