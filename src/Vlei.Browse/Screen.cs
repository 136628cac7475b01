using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using System.Text;

namespace Vlei.Browse;

/// <summary>
/// The terminal while it is the viewer's: its other screen, which leaves what stood there before untouched, and its keys, which
/// are read all the time, so that none is echoed while something is built.
/// </summary>
internal sealed class Screen : IDisposable
{
    private const int MillisecondsBetweenLooks = 100;
    private const string OtherScreen = "\e[?1049h\e[?25l", OwnScreen = "\e[?25h\e[?1049l";

    private readonly Stream _output = Console.OpenStandardOutput();
    private readonly BlockingCollection<ConsoleKeyInfo> _keys = [];
    private readonly List<PosixSignalRegistration> _ends;

    /// <summary>Takes the terminal.</summary>
    public Screen()
    {
        Console.TreatControlCAsInput = true;
        Write(OtherScreen);
        _ends = [.. new[] { PosixSignal.SIGTERM, PosixSignal.SIGHUP, PosixSignal.SIGQUIT }
            .Select(signal => PosixSignalRegistration.Create(signal, _ => Write(OwnScreen)))];
        new Thread(ReadKeys) { IsBackground = true }.Start();
    }

    /// <summary>How many columns and lines there are.</summary>
    public static (int Columns, int Lines) Size => (Math.Max(20, Console.WindowWidth), Math.Max(8, Console.WindowHeight));

    /// <summary>The next key; nothing where the size has changed before.</summary>
    public ConsoleKeyInfo? NextKey()
    {
        var size = Size;
        while (size == Size)
        {
            if (_keys.TryTake(out var key, MillisecondsBetweenLooks))
            {
                return key;
            }
        }

        return null;
    }

    /// <summary>Whether a key is waiting, so that nothing need be drawn before it.</summary>
    public bool HasKey => _keys.Count > 0;

    /// <summary>Draws lines in the place of what stood there, all at once.</summary>
    public void Draw(IReadOnlyList<string> lines) => Write($"\e[H{string.Join("\e[K\r\n", lines)}\e[K\e[J");

    /// <summary>Puts a text where other programs paste from, as far as the terminal lets (OSC 52).</summary>
    public void Copy(string text) => Write($"\e]52;c;{Convert.ToBase64String(Encoding.UTF8.GetBytes(text))}\a");

    /// <summary>Gives the terminal back.</summary>
    public void Dispose()
    {
        Write(OwnScreen);
        _ends.ForEach(end => end.Dispose());
    }

    private void ReadKeys()
    {
        try
        {
            while (true)
            {
                _keys.Add(Console.ReadKey(intercept: true));
            }
        }
        catch (Exception gone) when (gone is InvalidOperationException or IOException)
        {
            // Nobody is there any more: as if they had left.
            _keys.Add(new ConsoleKeyInfo('q', ConsoleKey.Q, shift: false, alt: false, control: false));
        }
    }

    private void Write(string text)
    {
        try
        {
            _output.Write(Encoding.UTF8.GetBytes(text));
            _output.Flush();
        }
        catch (IOException)
        {
            // The terminal was closed; its keys end too, and with them the walk.
        }
    }
}
