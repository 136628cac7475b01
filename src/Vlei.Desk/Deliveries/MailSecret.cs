using System.Diagnostics;
using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>
/// Fetches a password from where a person says that it is. It is in no message: what it is read from is named, and never what was read.
/// </summary>
internal static class MailSecret
{
    private const UnixFileMode OfOthers = UnixFileMode.GroupRead | UnixFileMode.GroupWrite | UnixFileMode.GroupExecute
        | UnixFileMode.OtherRead | UnixFileMode.OtherWrite | UnixFileMode.OtherExecute;

    /// <summary>The password. Throws a <see cref="ProblemException"/> where it is not there, or where others could read it.</summary>
    public static string Read(MailSettings settings)
    {
        var (kind, place) = settings.Password!.IndexOf(':', StringComparison.Ordinal) is var colon
            ? (settings.Password[..colon], settings.Password[(colon + 1)..]) : default;
        return kind switch
        {
            "env" => Environment.GetEnvironmentVariable(place) is { Length: > 0 } said ? said : throw new ProblemException(
                ProblemKind.BadConfiguration, $"{settings.Path}: the password is to be in the variable {place}, which is not set.",
                $"Set {place} where vlei runs."),
            "file" => OfFile(settings, Path.Combine(Path.GetDirectoryName(settings.Path)!, place)),
            _ => OfCommand(settings, place),
        };
    }

    /// <summary>A text in which the password does not stand, in clear or as it goes to a server.</summary>
    public static string Without(string text, string? secret)
    {
        if (string.IsNullOrEmpty(secret))
        {
            return text;
        }

        var encoded = Convert.ToBase64String(System.Text.Encoding.UTF8.GetBytes(secret));
        return text.Replace(secret, "…", StringComparison.Ordinal).Replace(encoded, "…", StringComparison.Ordinal);
    }

    private static string OfFile(MailSettings settings, string path)
    {
        try
        {
            return (File.GetUnixFileMode(path) & OfOthers) != UnixFileMode.None
                ? throw new ProblemException(
                    ProblemKind.BadConfiguration, $"{settings.Path}: others may read {path}, which has the password.",
                    $"chmod 600 {path}")
                : File.ReadLines(path).FirstOrDefault() is { Length: > 0 } first ? first : throw new ProblemException(
                    ProblemKind.BadConfiguration, $"{settings.Path}: {path} has no password.", "Write it into the first line.");
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.BadConfiguration, $"{settings.Path}: the password cannot be read from {path}.",
                "Is the file there, and yours?", cannot);
        }
    }

    private static string OfCommand(MailSettings settings, string command)
    {
        using var process = Process.Start(
            new ProcessStartInfo("/bin/sh") { ArgumentList = { "-c", command }, RedirectStandardOutput = true, UseShellExecute = false })!;
        var said = process.StandardOutput.ReadToEnd().TrimEnd('\r', '\n');
        process.WaitForExit();
        return process.ExitCode == 0 && said.Length > 0 ? said : throw new ProblemException(
            ProblemKind.BadConfiguration, $"{settings.Path}: the command for the password gave none (exit status {process.ExitCode}).",
            "Try it by itself.");
    }
}
