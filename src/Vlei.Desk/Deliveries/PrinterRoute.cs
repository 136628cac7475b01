using System.ComponentModel;
using System.Diagnostics;
using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>Hands pages to the printer through <c>lp</c>, as POSIX has it.</summary>
public sealed class PrinterRoute : IRoute
{
    private const string Program = "lp";
    private const string PageEnding = ".pdf";

    /// <inheritdoc/>
    TryOutcome IRoute.Send(Delivery delivery, IReadOnlyList<Recipient> to, byte[] letter)
    {
        try
        {
            foreach (var (name, bytes) in LetterParts.Files(letter).Where(file => file.Name.EndsWith(PageEnding, StringComparison.Ordinal)))
            {
                Print(to[0].Place, name, bytes);
            }

            return TryOutcome.Sent;
        }
        catch (ProblemException cannot)
        {
            return new TryOutcome($"{cannot.Message} {cannot.Advice}".TrimEnd(), IsFinal: false);
        }
    }

    /// <summary>
    /// Prints pages. Throws a <see cref="ProblemException"/> where there is no program that prints, or it refuses.
    /// </summary>
    /// <param name="printer">The printer; empty for the usual one.</param>
    /// <param name="title">What the job is called.</param>
    /// <param name="pages">The pages, as PDF.</param>
    public static void Print(string printer, string title, byte[] pages)
    {
        var start = new ProcessStartInfo(Program)
        {
            RedirectStandardInput = true, RedirectStandardError = true, RedirectStandardOutput = true, UseShellExecute = false,
        };
        foreach (var word in (string[])[.. printer.Length > 0 ? new[] { "-d", printer } : [], "-t", title])
        {
            start.ArgumentList.Add(word);
        }

        try
        {
            using var process = Process.Start(start)!;
            var said = process.StandardError.ReadToEndAsync();
            var told = process.StandardOutput.ReadToEndAsync();
            var isWhole = IsWritten(process.StandardInput.BaseStream, pages);
            process.WaitForExit();
            _ = told.GetAwaiter().GetResult();
            if (process.ExitCode != 0 || !isWhole)
            {
                throw new ProblemException(
                    ProblemKind.TryAgain,
                    $"The printer did not take {title}: {said.GetAwaiter().GetResult().Trim().ReplaceLineEndings(" ")}",
                    "lpstat -p lists the printers, and how they are.");
            }
        }
        catch (Win32Exception none)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, "There is no program lp, which prints.", "Install CUPS, or name a file with --to.", none);
        }
    }

    // A program that refuses does not read to the end; why is in what it says.
    private static bool IsWritten(Stream input, byte[] pages)
    {
        try
        {
            using (input)
            {
                input.Write(pages);
            }

            return true;
        }
        catch (IOException)
        {
            return false;
        }
    }

    /// <inheritdoc/>
    void IDisposable.Dispose()
    {
    }
}
