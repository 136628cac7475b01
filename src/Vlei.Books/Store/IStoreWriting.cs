using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>
/// Writes to a book, and reads what it has written. Nothing of it is there for anybody else before <see cref="Commit"/>, and
/// nothing of it at all where it is given up before. Rows may stand before those that they refer to.
/// </summary>
internal interface IStoreWriting : IStoreReading, IWritableMonths
{
    /// <summary>Begins an import, which what is added and closed from here on belongs to.</summary>
    void AddImport(long revision, DateTimeOffset at, string by, bool complete);

    /// <summary>Says what an import was made of and what it did.</summary>
    void DescribeImport(long revision, IReadOnlyList<RecordFile> files, IReadOnlyList<StoredCounts> counts);

    /// <summary>Gives a number to a new id, before anything refers to it.</summary>
    void AddId(RecordTable table, int key, ReadOnlySpan<byte> id);

    /// <summary>Adds a version of a record.</summary>
    void Add(RecordRow row, int key, long revision, ulong hash);

    /// <summary>Adds a line to the version of its document that the import added.</summary>
    void AddLine(RecordRow row, int document, long revision, long place);

    /// <summary>Closes the version of a record that stands, if any: from that import on it is replaced.</summary>
    void Close(RecordTable table, int key, long revision);

    /// <summary>Says anew by what a version of a record is known to be the same.</summary>
    void SetHash(RecordTable table, int key, long revision, ulong hash);

    /// <summary>Gives a number to a set of tags.</summary>
    void AddTagSet(int key, string tags);

    /// <summary>Marks a period as reported, in the place of an earlier mark.</summary>
    void SetClosed(ClosedPeriod period);

    /// <summary>Takes the mark of a period away; false where it has none.</summary>
    bool RemoveClosed(DateRange days);

    /// <summary>Says how what is derived was made.</summary>
    void SetMade(MadeHow made);

    /// <summary>Makes everything that was written stay.</summary>
    void Commit();
}
