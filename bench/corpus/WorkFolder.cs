namespace Corpus;

/// <summary>A folder in memory that goes with the program.</summary>
internal sealed class WorkFolder : IDisposable
{
    public WorkFolder() => Directory.CreateDirectory(Path);

    public string Path { get; } = $"/dev/shm/vlei-corpus-{Environment.ProcessId:D8}";

    public void Dispose() => Directory.Delete(Path, recursive: true);
}
