using Vlei.Books.Store;
using Vlei.Core.Problems;

namespace Vlei.Books.Tests;

/// <summary>A store in memory, written as plainly as can be: what the others are held against.</summary>
internal sealed class MemoryStore : IBookStore
{
    private readonly Lock _turn = new();
    private MemoryRecords _records = new();
    private bool _isBeingWritten;

    public IStoreReading Read() => new MemoryReading(_records);

    public IStoreWriting Write(Action<string, long>? waiting = null)
    {
        lock (_turn)
        {
            _isBeingWritten = !_isBeingWritten ? true
                : throw new ProblemException(ProblemKind.TryAgain, "Another import is writing to this book.", "Try again when it is done.");
        }

        return new MemoryWriting(_records.Copy(), written => _records = written, () => _isBeingWritten = false);
    }
}
