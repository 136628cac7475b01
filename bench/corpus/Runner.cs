using System.Diagnostics;
using System.Security.Cryptography;
using System.Text;

namespace Corpus;

/// <summary>One command line, and which of its outputs count.</summary>
/// <param name="Arguments">What is typed.</param>
/// <param name="Formats">The endings of the files that it writes too.</param>
internal sealed record Question(IReadOnlyList<string> Arguments, params IReadOnlyList<string> Formats)
{
    /// <summary>The folder whose files are outputs too, and are gone afterwards; nothing for none.</summary>
    public string? Folder { get; init; }

    /// <summary>Whether it is one of every Nth.</summary>
    public bool IsTakenBy(int step) => ToString().Aggregate(2166136261u, (hash, letter) => (hash ^ letter) * 16777619u) % step == 0;

    public override string ToString() =>
        string.Join(' ', Arguments.Select(argument => argument.Contains(' ') ? $"'{argument}'" : argument));
}

/// <summary>Runs the program in a world of its own.</summary>
internal sealed class Runner(string vlei, string folder)
{
    private static readonly int Workers = Environment.ProcessorCount;

    public string Folder => folder;

    /// <summary>What the program writes to standard output; fails where its status is not 0.</summary>
    public string Output(params IReadOnlyList<string> arguments)
    {
        var (status, output, errors) = Run(arguments, 0);
        return status is 0 or 1 ? Encoding.UTF8.GetString(output)
            : throw new InvalidOperationException($"{string.Join(' ', arguments)}: {status} {Encoding.UTF8.GetString(errors)}");
    }

    /// <summary>The answers to all questions, a line each; questions with a folder come one after the other.</summary>
    public IReadOnlyList<string> Answers(IReadOnlyList<Question> questions)
    {
        var lines = new List<string>();
        var (together, alone) =
            (questions.Where(question => question.Folder is null).ToList(), questions.Where(question => question.Folder is not null));
        var (next, done) = (-1, 0);
        var threads = Enumerable.Range(0, Workers).Select(worker => new Thread(() =>
        {
            for (var place = Interlocked.Increment(ref next); place < together.Count; place = Interlocked.Increment(ref next))
            {
                var answer = Answer(together[place], worker);
                lock (lines)
                {
                    lines.AddRange(answer);
                    if (++done % 2000 == 0)
                    {
                        Console.Error.WriteLine($"{done} of {together.Count}");
                    }
                }
            }
        })).ToList();
        threads.ForEach(thread => thread.Start());
        threads.ForEach(thread => thread.Join());
        foreach (var question in alone)
        {
            lines.AddRange(Answer(question, 0));
        }

        return lines;
    }

    private List<string> Answer(Question question, int worker)
    {
        var files = Path.Combine(folder, $"files-{worker}");
        Directory.CreateDirectory(files);
        var (status, output, errors) = Run(
            [.. question.Arguments, .. question.Formats.SelectMany(
                ending => new[] { "--to", Path.Combine(files, $"report.{ending}") })], worker);
        var said = HashOf(Encoding.UTF8.GetBytes($"{status}\n"), WithoutPlaces(output, files), WithoutPlaces(errors, files));
        var lines = new List<string> { $"{said}\t{question}" };
        foreach (var root in question.Folder is { } own ? [files, Path.Combine(folder, own)] : new[] { files })
        {
            foreach (var path in Directory.Exists(root) ? Directory.EnumerateFiles(root, "*", SearchOption.AllDirectories) : [])
            {
                lines.Add($"{HashOf(File.ReadAllBytes(path))}\t{question} > {Path.GetRelativePath(root, path)}");
            }

            if (Directory.Exists(root))
            {
                Directory.Delete(root, recursive: true);
            }
        }

        return lines;
    }

    // Where it was asked makes no difference.
    private byte[] WithoutPlaces(byte[] text, string files) =>
        Encoding.Latin1.GetBytes(Encoding.Latin1.GetString(text).Replace(files, "FILES").Replace(folder, "HERE"));

    private (int Status, byte[] Output, byte[] Errors) Run(IReadOnlyList<string> arguments, int worker)
    {
        var start = new ProcessStartInfo(vlei, arguments)
        {
            WorkingDirectory = folder, RedirectStandardOutput = true, RedirectStandardError = true, RedirectStandardInput = true,
            UseShellExecute = false,
        };
        foreach (var name in new[] { "VLEI_BOOK", "VLEI_CLOCK", "COLUMNS", "NO_COLOR", "LC_ALL" })
        {
            start.Environment.Remove(name);
        }

        start.Environment["LANG"] = "C.UTF-8";
        start.Environment["HOME"] = folder;
        start.Environment["XDG_CONFIG_HOME"] = Path.Combine(folder, "config");
        start.Environment["XDG_STATE_HOME"] = Path.Combine(folder, $"state-{worker}");
        using var process = Process.Start(start)!;
        process.StandardInput.Close();
        using var output = new MemoryStream();
        using var errors = new MemoryStream();
        var reading = process.StandardError.BaseStream.CopyToAsync(errors);
        process.StandardOutput.BaseStream.CopyTo(output);
        reading.Wait();
        process.WaitForExit();
        return (process.ExitCode, output.ToArray(), errors.ToArray());
    }

    private static string HashOf(params IReadOnlyList<byte[]> parts) =>
        Convert.ToHexString(SHA256.HashData([.. parts.SelectMany(part => part)]))[..16];
}
