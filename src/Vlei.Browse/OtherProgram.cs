using System.Diagnostics;
using Vlei.Core.Problems;
using Vlei.Desk;

namespace Vlei.Browse;

/// <summary>Does by <c>vlei</c> itself what that does: one way to keep and to write.</summary>
/// <param name="order">The program and the book.</param>
internal sealed class OtherProgram(BrowseOrder order)
{
    /// <summary>Runs a command, as it is shown, with more; what it says. Throws a <see cref="ProblemException"/> where it fails.</summary>
    public string Run(string command, params IReadOnlyList<string> more)
    {
        const string Named = "vlei ";
        var typed = $"{OptionText.Quoted(order.Vlei)} {command[Named.Length..]} {string.Join(' ', more.Select(OptionText.Quoted))}";
        using var program = Process.Start(new ProcessStartInfo("sh", ["-c", typed])
        {
            RedirectStandardInput = true, RedirectStandardOutput = true, RedirectStandardError = true,
            UseShellExecute = false,
        })!;
        program.StandardInput.Close();
        var messages = program.StandardError.ReadToEndAsync();
        var output = program.StandardOutput.ReadToEnd();
        program.WaitForExit();
        var said = string.Join(' ', $"{output} {messages.Result}".Split(['\n', ' '], StringSplitOptions.RemoveEmptyEntries));
        return program.ExitCode == 0 ? said : throw new ProblemException(ProblemKind.CannotWrite, said, null);
    }
}
