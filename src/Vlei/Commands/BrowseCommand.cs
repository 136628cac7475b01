using System.CommandLine;
using System.ComponentModel;
using System.Diagnostics;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei browse</c>: walks through a report on the full screen, by a program of its own beside this one.</summary>
internal static class BrowseCommand
{
    private const string Program = "vlei-browse";

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("browse", "Walk through a report on the full screen: ? tells the keys")
        {
            Examples =
            [
                ("vlei browse", "the reports there are; Enter opens one"),
                ("vlei browse profit-loss --period last-month --compare prior-year", "Enter on a figure shows what is behind it"),
                ("vlei browse receivables-aging --sort -total", "who owes most, and with Enter for what"),
            ],
        };
        var arguments = new ReportArguments(command, ReportCount.ZeroOrOne);
        command.OfItsReport = arguments.Tell;
        command.SetAction(result => Start(result, arguments));
        return command;
    }

    private static int Start(ParseResult result, ReportArguments arguments)
    {
        var desk = BookOptions.OpenDesk(result);
        var order = arguments.OrdersOf(result) is [var first] ? first : null;
        if (order is not null && arguments.PageOf(result, desk) is not null)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{order.Name} is a page of panels, and browse walks through reports.",
                $"Look at it: vlei show {order.Name}.");
        }

        _ = order is null ? null : desk.Find(desk.Meant(order));
        if (Console.IsInputRedirected || Console.IsOutputRedirected)
        {
            throw new ProblemException(
                ProblemKind.Usage, "browse needs a terminal to walk on.", "vlei show writes a report to anything else.");
        }

        var look = Terminal.Look();
        return Run(new BrowseOrder(
            Environment.ProcessPath ?? "vlei", BookOptions.Named(result) ?? "",
            BookOptions.ClockTyped(result) is { } day ? PeriodText.Iso(day) : "", OptionsTyped(result), look.Ascii, look.Colour, order));
    }

    private static int Run(BrowseOrder order)
    {
        var path = Path.Combine(Path.GetDirectoryName(Environment.ProcessPath) ?? "", Program);
        try
        {
            using var viewer = Process.Start(new ProcessStartInfo(path, order.Words) { UseShellExecute = false })!;
            viewer.WaitForExit();
            return viewer.ExitCode;
        }
        catch (Win32Exception missing)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"The viewer cannot be started: {path} is not there.", "Install vlei again.", missing);
        }
    }

    // What commands that are shown need as well, to be the same from here.
    private static string OptionsTyped(ParseResult result) => string.Concat(new Option<string?>[] { BookOptions.Book, BookOptions.Clock }
        .Where(option => result.GetResult(option) is { Implicit: false })
        .Select(option => $" {option.Name} {OptionText.Quoted(result.GetValue(option) ?? "")}"));
}
