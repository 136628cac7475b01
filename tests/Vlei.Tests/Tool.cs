using System.Diagnostics;
using System.Text;

namespace Vlei.Tests;

/// <summary>What a run of the program came to.</summary>
public sealed record Outcome(int Status, string Output, string Messages)
{
    /// <summary>The run, if it went well; fails the test otherwise.</summary>
    public Outcome Done()
    {
        Assert.True(Status == 0, $"status {Status}\n{Messages}\n{Output}");
        return this;
    }
}

/// <summary>Runs the built program on files in a temporary folder, as a person would.</summary>
public sealed class Tool : IDisposable
{
    private static readonly Lazy<string> Demo = new(MakeDemo);

    /// <summary>The root of the checkout.</summary>
    public static string Root { get; } = FindRoot();

    /// <summary>The program: the published one, or the one that VLEI_BINARY names.</summary>
    public static string Binary { get; } = FindBinary();

    /// <summary>The folder that this test has to itself.</summary>
    public string Folder { get; } = Directory.CreateTempSubdirectory("vlei-test-").FullName;

    /// <summary>Runs the program in the folder and waits for it.</summary>
    public Outcome Run(params string[] arguments) => Run([], arguments);

    /// <summary>Runs the program with some variables set.</summary>
    public Outcome Run((string Name, string Value)[] variables, params string[] arguments)
    {
        using var process = Start(variables, arguments);
        var messages = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return new Outcome(process.ExitCode, output, messages.Result);
    }

    /// <summary>Runs a line of a shell in a folder of this one; <c>vlei</c> at its start is the program.</summary>
    public Outcome Shell(string line, string folder = "")
    {
        const string Named = "vlei ";
        var typed = line.StartsWith(Named, StringComparison.Ordinal) ? $"'{Binary}' {line[Named.Length..]}" : line;
        var start = new ProcessStartInfo("sh", ["-c", typed])
        {
            WorkingDirectory = PathOf(folder), RedirectStandardOutput = true, RedirectStandardError = true,
            StandardOutputEncoding = Encoding.UTF8, StandardErrorEncoding = Encoding.UTF8,
        };
        SetUp(start, Folder);
        using var process = Process.Start(start)!;
        var messages = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return new Outcome(process.ExitCode, output, messages.Result);
    }

    /// <summary>Starts the program and does not wait.</summary>
    public Process Start((string Name, string Value)[] variables, params string[] arguments)
    {
        var start = new ProcessStartInfo(Binary, arguments)
        {
            WorkingDirectory = Folder, RedirectStandardOutput = true, RedirectStandardError = true,
            StandardOutputEncoding = Encoding.UTF8, StandardErrorEncoding = Encoding.UTF8,
        };
        SetUp(start, Folder);
        foreach (var (name, value) in variables)
        {
            start.Environment[name] = value;
        }

        return Process.Start(start)!;
    }

    /// <summary>Lets a program see nothing of the person who runs the tests: <paramref name="home"/> is its home.</summary>
    public static void SetUp(ProcessStartInfo start, string home)
    {
        foreach (var name in new[] { "VLEI_BOOK", "VLEI_CLOCK", "COLUMNS", "NO_COLOR", "LC_ALL", "XDG_CONFIG_HOME", "XDG_STATE_HOME" })
        {
            start.Environment.Remove(name);
        }

        start.Environment["LANG"] = "C.UTF-8";
        start.Environment["HOME"] = home;
    }

    /// <summary>Writes a file in the folder.</summary>
    public string Write(string name, string text)
    {
        var path = Path.Combine(Folder, name);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        File.WriteAllText(path, text);
        return path;
    }

    /// <summary>The path of a file in the folder.</summary>
    public string PathOf(string name) => Path.Combine(Folder, name);

    /// <summary>
    /// Puts a copy of the demo book into the folder, as <c>reedwater</c>, with its clients where they are wanted; the demo is
    /// made once for all tests.
    /// </summary>
    public Tool WithDemo(bool withClients = false)
    {
        var (demo, own) = (Path.Combine(Demo.Value, "reedwater"), PathOf("reedwater"));
        Directory.CreateDirectory(own);
        foreach (var path in Directory.EnumerateFiles(demo))
        {
            File.Copy(path, Path.Combine(own, Path.GetFileName(path)), overwrite: true);
        }

        foreach (var folder in Directory.EnumerateDirectories(demo).Select(path => Path.GetFileName(path)!)
            .Where(folder => folder != "clients" || withClients))
        {
            Copy(Path.Combine(demo, folder), Path.Combine(own, folder));
        }

        return this;
    }

    /// <summary>What SQL gives on a book's records, through the sqlite3 program.</summary>
    public string Sql(string book, string sql)
    {
        using var process = Process.Start(new ProcessStartInfo(
            "sqlite3", [Path.Combine(PathOf(book), "records.db"), sql])
        {
            RedirectStandardOutput = true,
        })!;
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        Assert.Equal(0, process.ExitCode);
        return output.Trim();
    }

    public void Dispose() => Directory.Delete(Folder, recursive: true);

    public static void Copy(string from, string to)
    {
        foreach (var path in Directory.EnumerateFiles(from, "*", SearchOption.AllDirectories))
        {
            var target = Path.Combine(to, Path.GetRelativePath(from, path));
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            File.Copy(path, target, overwrite: true);
        }
    }

    private static string MakeDemo()
    {
        var tool = new Tool();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => tool.Dispose();
        tool.Run("demo").Done();
        return tool.Folder;
    }

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder!.FullName, "Vlei.slnx")))
        {
            folder = folder.Parent;
        }

        return folder.FullName;
    }

    private static string FindBinary()
    {
        var binary = Environment.GetEnvironmentVariable("VLEI_BINARY")
            ?? Path.Combine(FindRoot(), "artifacts", "publish", "Vlei", "release_linux-x64", "vlei");
        Assert.True(File.Exists(binary), $"{binary} is not there: publish the program first, as ./test.sh does");
        return binary;
    }
}
