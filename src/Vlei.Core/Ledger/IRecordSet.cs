namespace Vlei.Core.Ledger;

/// <summary>A file that records came from.</summary>
/// <param name="Path">Where it was.</param>
/// <param name="Sha256">The hash of what was in it, in hexadecimal.</param>
/// <param name="Bytes">How long it was.</param>
public sealed record RecordFile(string Path, string Sha256, long Bytes);

/// <summary>Ledger records on their way in. Each kind is read once.</summary>
public interface IRecordSet
{
    /// <summary>The files that it is made of; known when all kinds of records that it has were read.</summary>
    IReadOnlyList<RecordFile> Files { get; }

    /// <summary>Balances that its sources show, and that the book must have when it is in.</summary>
    IReadOnlyList<BalanceProof> Balances => [];

    /// <summary>
    /// Whether it is made of files of these names with just these bytes in them, in this order; false where that cannot be said before
    /// its records are read.
    /// </summary>
    bool IsMadeOf(IReadOnlyList<RecordFile> files) => false;

    /// <summary>Whether it says anything about records of that kind.</summary>
    bool Has(RecordTable table);

    /// <summary>
    /// Its records of one kind, in order. A row is filled again for others behind it; what is wrong with one is told to
    /// <paramref name="errors"/>, and the row is marked as broken.
    /// </summary>
    /// <remarks>
    /// Of kinds that documents refer to, the ids of all records are known to <paramref name="keys"/> before the first is given: one
    /// may refer to another that stands behind it.
    /// </remarks>
    /// <param name="table">The kind.</param>
    /// <param name="keys">What references may point to, by table.</param>
    /// <param name="errors">Where errors go.</param>
    IEnumerable<RecordRow> Read(RecordTable table, IReadOnlyDictionary<string, RecordKeys> keys, RecordErrors errors);
}
