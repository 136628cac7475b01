using System.CommandLine;
using Vlei.Core.Tables;

namespace Vlei.Commands;

/// <summary><c>vlei trace</c>: the records behind one figure of a report.</summary>
internal static class TraceCommand
{
    private static readonly Option<string> Row = new("--row")
    {
        Description = "The row, by its key or its label", HelpName = "R", Required = true,
    };

    private static readonly Option<string?> Column = new("--column")
    {
        Description = "The column, by its key or its heading; needed where there are several", HelpName = "C",
    };

    private static readonly Option<bool> All = new("--all")
    {
        Description = "Start balances from the first record, rather than from the fiscal year's opening balance",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("trace", "List the records behind a figure; they add up to it")
        {
            Examples =
            [
                ("vlei trace profit-loss --period last-month --row 4010", "what makes up an account"),
                ("vlei trace profit-loss --period 2026-03 --compare prior-year --change --row \"Net profit\" --column Change",
                    "what changed it"),
                ("vlei trace balance-sheet --as-of 2026-03-31 --row 1000 --all", "a balance, from the first record on"),
            ],
        };
        var arguments = new ReportArguments(command);
        command.Options.Add(Row);
        command.Options.Add(Column);
        command.Options.Add(All);
        var destination = new ReportDestination(command);
        command.SetAction(result =>
        {
            var targets = destination.TargetsOf(result, arguments);
            using var open = arguments.Open(result, BookOptions.OpenDesk(result));
            return destination.Write(result, targets, Trace.Of(
                open.Build(), open.Context.Ledger, result.GetRequiredValue(Row), result.GetValue(Column), result.GetValue(All)));
        });
        return command;
    }
}
