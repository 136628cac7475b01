using System.Runtime.InteropServices;

namespace Vlei.Books.Files;

/// <summary>What the system says a path leads to, through links (statx of Linux).</summary>
/// <param name="IsRegular">Whether it is a regular file: no pipe, no device, no folder.</param>
/// <param name="IsFolder">Whether it is a folder.</param>
/// <param name="Mode">The permissions that go with it.</param>
public readonly partial record struct FileState(bool IsRegular, bool IsFolder, UnixFileMode Mode)
{
    private const int AtWorkingDirectory = -100;
    private const uint TypeAndMode = 3;
    private const int BytesOfAnswer = 256;
    private const int PlaceOfMode = 28;
    private const int TypeBits = 0xF000;
    private const int Regular = 0x8000;
    private const int Folder = 0x4000;
    private const int Permissions = 0xFFF;

    /// <summary>What a path leads to; nothing where it leads nowhere.</summary>
    public static FileState? Of(string path)
    {
        Span<byte> answer = stackalloc byte[BytesOfAnswer];
        if (Statx(AtWorkingDirectory, path, 0, TypeAndMode, ref MemoryMarshal.GetReference(answer)) != 0)
        {
            return null;
        }

        var mode = MemoryMarshal.Read<ushort>(answer[PlaceOfMode..]);
        return new FileState((mode & TypeBits) == Regular, (mode & TypeBits) == Folder, (UnixFileMode)(mode & Permissions));
    }

    [LibraryImport("libc", EntryPoint = "statx", StringMarshalling = StringMarshalling.Utf8)]
    private static partial int Statx(int folder, string path, int flags, uint mask, ref byte answer);
}
