using System.Buffers.Binary;

namespace Vlei.Books.Store.Sqlite;

/// <summary>
/// Whether a file is a store of records that this program made, by its first bytes, before anything is opened or written.
/// </summary>
internal static class StoreFile
{
    private const int HeadBytes = 100;
    private const int PlaceOfApplication = 68;

    private static ReadOnlySpan<byte> Mark => "SQLite format 3\0"u8;

    /// <summary>
    /// Refuses what this program did not make. Throws a <see cref="Core.Problems.ProblemException"/>; nothing is written then.
    /// </summary>
    public static void RefuseForeign(string path)
    {
        Span<byte> head = stackalloc byte[HeadBytes];
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete, 1);
        var read = file.ReadAtLeast(head, HeadBytes, throwOnEndOfStream: false);
        if (read == 0)
        {
            throw SqliteProblem.Damaged("it is empty");
        }

        if (read < HeadBytes || !head.StartsWith(Mark))
        {
            throw SqliteProblem.Damaged("it is no file of records");
        }

        if (BinaryPrimitives.ReadUInt32BigEndian(head[PlaceOfApplication..]) != SqliteSteps.ApplicationId)
        {
            throw SqliteProblem.Damaged("it is the file of another program");
        }
    }
}
