using Vlei.Core.Problems;

namespace Vlei.Books.Files;

/// <summary>
/// A turn at the files of a folder: what is read, checked and written within one is not changed by anybody else between, so that
/// of two that change a file at once neither is lost.
/// </summary>
public sealed class FileTurn : IDisposable
{
    private const string Name = ".lock";

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(10);

    private readonly FileStream _lock;

    private FileTurn(FileStream taken) => _lock = taken;

    /// <summary>
    /// Takes a turn, waiting for others. Throws a <see cref="ProblemException"/> where the folder cannot be written to, or where
    /// another does not come to an end.
    /// </summary>
    /// <param name="folder">The folder; it is made where it is not there.</param>
    /// <param name="patience">How long another is waited for; half a minute where nothing is said.</param>
    /// <param name="waiting">What is done when it is found that another must be waited for.</param>
    public static FileTurn Take(string folder, TimeSpan? patience = null, Action? waiting = null)
    {
        var path = Path.GetFullPath(Path.Combine(folder, Name));
        for (var waited = TimeSpan.Zero; ; waited += Pause)
        {
            try
            {
                _ = Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                return new FileTurn(new FileStream(path, new FileStreamOptions
                {
                    Mode = FileMode.OpenOrCreate, Access = FileAccess.ReadWrite, Share = FileShare.None,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.GroupRead | UnixFileMode.GroupWrite,
                }));
            }
            catch (IOException) when (File.Exists(path) && waited < (patience ?? Patience))
            {
                if (waited == TimeSpan.Zero)
                {
                    waiting?.Invoke();
                }

                Thread.Sleep(Pause);
            }
            catch (IOException busy) when (File.Exists(path))
            {
                throw new ProblemException(
                    ProblemKind.TryAgain, $"Somebody else is at work in {folder} and does not come to an end.", "Try again later.", busy);
            }
            catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
            {
                throw new ProblemException(
                    ProblemKind.CannotWrite, $"{folder} cannot be written: {cannot.Message}", "Choose a place that you may write to.",
                    cannot);
            }
        }
    }

    /// <summary>Gives the turn to the next.</summary>
    public void Dispose() => _lock.Dispose();
}
