using System.CommandLine;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei explain</c>: what made a figure of a report change.</summary>
internal static class ExplainCommand
{
    private const int UsualMost = 5;

    private static readonly Option<string> Row = new("--row")
    {
        Description = "The row, by its key or its label", HelpName = "R", Required = true,
    };

    private static readonly Option<string?> Against = new("--against")
    {
        Description = "Against which of the compared columns, by its key or its heading", HelpName = "C",
    };

    private static readonly Option<int> Most = new("--most")
    {
        Description = "How many reasons are named in each way, before the rest", HelpName = "N", DefaultValueFactory = _ => UsualMost,
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("explain", "Say what made a figure change; the reasons add up to the change")
        {
            Examples =
            [
                ("vlei explain profit-loss --period last-month --row net-profit", "against the month before"),
                ("vlei explain profit-loss --period last-month --compare prior-year --row 6400", "an account, against a year before"),
                ("vlei explain balance-sheet --as-of last-month --compare year-start --row total-receivable", "what is owed to us"),
            ],
        };
        var arguments = new ReportArguments(command);
        command.Options.Add(Row);
        command.Options.Add(Against);
        command.Options.Add(Most);
        var destination = new ReportDestination(command);
        command.SetAction(result =>
        {
            var targets = destination.TargetsOf(result, arguments);
            if (result.GetValue(Most) < 1)
            {
                throw new ProblemException(ProblemKind.Usage, "--most is at least 1.", $"Leave it out for {UsualMost}.");
            }

            using var open = arguments.Open(result, BookOptions.OpenDesk(result), Compared);
            var report = open.Build();
            return destination.Write(result, targets, Explanation.Of(
                report, report.MadeFrom ?? open.Context.Ledger, result.GetRequiredValue(Row), result.GetValue(Against),
                result.GetValue(Most)));
        });
        return command;
    }

    // Against the period before, where nothing else is said.
    private static ReportOrder Compared(ReportOrder order) => order with
    {
        Options = new Dictionary<string, IReadOnlyList<string>>(order.Options)
        {
            [ReportOptions.Compare.Name] = order.Options.GetValueOrDefault(ReportOptions.Compare.Name, ["prior-period"]),
            [ReportOptions.Change.Name] = ["true"],
        },
    };
}
