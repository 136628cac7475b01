using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Books.Kept;

namespace Vlei.Desk.Deliveries;

/// <summary>Puts what goes along into a folder, each file as a whole or not at all.</summary>
internal sealed class FolderRoute(Book book) : IRoute
{
    /// <inheritdoc/>
    public TryOutcome Send(Delivery delivery, IReadOnlyList<Recipient> to, byte[] letter)
    {
        var folder = book.PathOf(to[0].Place);
        try
        {
            _ = Directory.CreateDirectory(folder);
            foreach (var (name, bytes) in LetterParts.Files(letter))
            {
                var path = Path.Combine(folder, name);
                if (File.Exists(path) && !WrittenFiles.IsOurs(Path.GetFullPath(path))
                    && !File.ReadAllBytes(path).AsSpan().SequenceEqual(bytes))
                {
                    return new TryOutcome($"{path} is there already, and is not as Vlei wrote it.", IsFinal: true);
                }

                WholeFile.Write(path, stream => stream.Write(bytes));
                WrittenFiles.Note(Path.GetFullPath(path));
            }

            return TryOutcome.Sent;
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            return new TryOutcome($"{folder} cannot be written: {cannot.Message}", IsFinal: false);
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
    }
}
