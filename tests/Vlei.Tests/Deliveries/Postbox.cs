using System.Diagnostics;
using MimeKit;

namespace Vlei.Tests.Deliveries;

/// <summary>The small mail server that ships with the program, and what it got.</summary>
internal sealed class Postbox : IDisposable
{
    private readonly Process _process;
    private readonly string _folder;

    /// <summary>Starts it, as the test wants it to be.</summary>
    public Postbox(string folder, params string[] options)
    {
        _folder = folder;
        _process = Process.Start(new ProcessStartInfo(Program, [folder, .. options]) { RedirectStandardOutput = true })!;
        var ready = _process.StandardOutput.ReadLine();
        Assert.StartsWith("ready ", ready, StringComparison.Ordinal);
        Port = int.Parse(ready![6..], CultureInfo.InvariantCulture);
    }

    /// <summary>The program: the one beside the published one, else the one that was built.</summary>
    public static string Program { get; } = FindProgram();

    /// <summary>Where it listens.</summary>
    public int Port { get; }

    /// <summary>The letters that it got, in their order.</summary>
    public IReadOnlyList<MimeMessage> Letters =>
        [.. Directory.EnumerateFiles(_folder, "*.eml").Order(StringComparer.Ordinal).Select(path => MimeMessage.Load(path))];

    /// <summary>What <c>mail.toml</c> says of it.</summary>
    public string Settings(string more = "") =>
        $"server = \"localhost\"\nport = {Port}\nsecurity = \"none\"\nfrom = \"Reedwater Books <books@reedwater.example>\"\n{more}";

    /// <summary>To whom a letter was handed over.</summary>
    public static IReadOnlyList<string> DeliveredTo(MimeMessage letter) =>
        [.. letter.Headers.Where(header => header.Field == "Delivered-To").Select(header => header.Value)];

    public void Dispose()
    {
        _process.Kill();
        _process.WaitForExit();
        _process.Dispose();
    }

    private static string FindProgram()
    {
        var beside = Path.Combine(Path.GetDirectoryName(Tool.Binary)!, "vlei-postbox");
        return File.Exists(beside) ? beside : Path.Combine(Tool.Root, "artifacts/bin/Vlei.Postbox/debug/vlei-postbox");
    }
}
