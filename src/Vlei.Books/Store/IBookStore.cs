namespace Vlei.Books.Store;

/// <summary>
/// What holds a book's records, with their history and what is derived from them. All that is known of accounting stands above it;
/// it knows rows of the record tables, blobs of months, and nothing of what they mean.
/// </summary>
internal interface IBookStore
{
    /// <summary>
    /// Begins to read: one moment, whatever is written meanwhile. Throws a <see cref="Core.Problems.ProblemException"/> where the
    /// records are not there, are not ours, or cannot be read.
    /// </summary>
    IStoreReading Read();

    /// <summary>
    /// Begins to write, alone: another who writes to the same book is waited for a moment. Throws a
    /// <see cref="Core.Problems.ProblemException"/> to try again where that one goes on, and where nothing can be written.
    /// </summary>
    /// <param name="waiting">Is told that another is waited for, by a store where that may take long.</param>
    IStoreWriting Write(Action<string, long>? waiting = null);
}
