using System.Collections.Concurrent;
using System.Runtime.ExceptionServices;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store.Sqlite;

/// <summary>Something that is to be written: a record or an id, which are filled again for another, or anything else.</summary>
internal sealed class Write
{
    private readonly Dictionary<RecordTable, RecordRow> _rows = [];
    private byte[] _id = [];
    private int _idLength;

    /// <summary>What is to be done; nothing for a record or an id.</summary>
    public Action? Other { get; private set; }

    /// <summary>The record; nothing for an id.</summary>
    public RecordRow? Row { get; private set; }

    /// <summary>The table of an id.</summary>
    public RecordTable? Table { get; private set; }

    /// <summary>The id.</summary>
    public ReadOnlySpan<byte> Id => _id.AsSpan(0, _idLength);

    /// <summary>The key of the record or the id; of a line, that of its document.</summary>
    public int Key { get; private set; }

    /// <summary>The import that adds the record.</summary>
    public long Revision { get; private set; }

    /// <summary>The hash of the record; of a line, its place.</summary>
    public long Number { get; private set; }

    /// <summary>Makes it something else.</summary>
    public void Set(Action other) => (Other, Row, Table) = (other, null, null);

    /// <summary>Makes it an id.</summary>
    public void Set(RecordTable table, int key, ReadOnlySpan<byte> id)
    {
        (Other, Row, Table, Key, _idLength) = (null, null, table, key, id.Length);
        if (_id.Length < id.Length)
        {
            _id = new byte[Math.Max(2 * _id.Length, id.Length)];
        }

        id.CopyTo(_id);
    }

    /// <summary>Makes it a record.</summary>
    public void Set(RecordRow row, int key, long revision, long number)
    {
        if (!_rows.TryGetValue(row.Table, out var own))
        {
            _rows[row.Table] = own = new RecordRow(row.Table);
        }

        own.CopyFrom(row);
        (Other, Row, Table, Key, Revision, Number) = (null, own, null, key, revision, number);
    }
}

/// <summary>
/// Does what is to be written in its order on another thread, so that whoever imports goes on reading meanwhile. SQLite is used by one
/// thread at a time: whoever reads waits until all is done first.
/// </summary>
/// <param name="run">Does one.</param>
internal sealed class WriteQueue(Action<Write> run) : IDisposable
{
    private const int AtOnce = 256, MostWaiting = 4;

    private readonly ConcurrentBag<Write[]> _free = [];
    private BlockingCollection<(Write[] Writes, int Count)>? _waiting;
    private Task? _worker;
    private ExceptionDispatchInfo? _failure;
    private Write[] _open = Fresh();
    private int _count;
    private int _held;

    /// <summary>What is to be filled next.</summary>
    public Write Next()
    {
        if (_count == AtOnce)
        {
            Send();
        }

        return _open[_count++];
    }

    /// <summary>Does it now where somebody reads, and else some time before whoever reads next.</summary>
    public void Added()
    {
        if (_held > 0 || Environment.ProcessorCount < 2)
        {
            run(_open[--_count]);
        }
    }

    /// <summary>Waits until all is done. Throws what went wrong.</summary>
    public void Drain()
    {
        if (_worker is not null)
        {
            _waiting!.CompleteAdding();
            _worker.Wait();
            _worker = null;
            _waiting.Dispose();
        }

        _failure?.Throw();
        var count = _count;
        _count = 0;
        for (var place = 0; place < count; place++)
        {
            run(_open[place]);
        }
    }

    /// <summary>Keeps anything from being done on another thread until it is released as often as it was held.</summary>
    public void Hold()
    {
        Drain();
        _held++;
    }

    /// <summary>Releases it.</summary>
    public void Release() => _held--;

    /// <inheritdoc/>
    public void Dispose()
    {
        // What was given up is not done.
        _failure ??= ExceptionDispatchInfo.Capture(new OperationCanceledException());
        _count = 0;
        if (_worker is not null)
        {
            _waiting!.CompleteAdding();
            _worker.Wait();
            _waiting.Dispose();
            _worker = null;
        }
    }

    private static Write[] Fresh()
    {
        var writes = new Write[AtOnce];
        for (var place = 0; place < writes.Length; place++)
        {
            writes[place] = new Write();
        }

        return writes;
    }

    private void Send()
    {
        _failure?.Throw();
        if (_worker is null)
        {
            var waiting = _waiting = new BlockingCollection<(Write[], int)>(MostWaiting);
            _worker = Task.Factory.StartNew(
                () => Work(waiting), CancellationToken.None, TaskCreationOptions.LongRunning, TaskScheduler.Default);
        }

        _waiting!.Add((_open, _count));
        (_open, _count) = (_free.TryTake(out var writes) ? writes : Fresh(), 0);
    }

    // After the first that fails nothing more is done, and whoever comes next is told.
    private void Work(BlockingCollection<(Write[] Writes, int Count)> waiting)
    {
        foreach (var (writes, count) in waiting.GetConsumingEnumerable())
        {
            for (var place = 0; place < count && _failure is null; place++)
            {
                try
                {
                    run(writes[place]);
                }
                catch (Exception failure)
                {
                    _failure = ExceptionDispatchInfo.Capture(failure);
                }
            }

            _free.Add(writes);
        }
    }
}
