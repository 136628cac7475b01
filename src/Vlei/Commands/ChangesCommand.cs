using System.CommandLine;
using System.Globalization;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Deliveries;
using Vlei.Output;

namespace Vlei.Commands;

/// <summary><c>vlei changes</c>: what later imports changed, in the records and in reports.</summary>
internal static class ChangesCommand
{
    private static readonly Option<string?> Since = new("--since")
    {
        Description = "Compare with the records after import N, or at the end of a day; or as they were sent last: sent, sent:GROUP, or "
            + "sent:12 for a number of the outbox",
        HelpName = "N|DATE|sent",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("changes", "Say what later imports changed, in records and in reports")
        {
            Examples =
            [
                ("vlei changes", "the imports of the book"),
                ("vlei changes --since 1", "the documents that are not as they were after the first import"),
                ("vlei changes --since 2026-05-31 profit-loss balance-sheet", "and how two reports moved, closed periods first"),
                ("vlei changes --since sent:month-end profit-loss --period 2026-05", "what has moved since it was sent?"),
            ],
        };
        command.Options.Add(Since);
        var arguments = new ReportArguments(command, ReportCount.Any);
        var destination = new ReportDestination(command);
        command.SetAction(result => Run(result, arguments, destination));
        return command;
    }

    private static int Run(ParseResult result, ReportArguments arguments, ReportDestination destination)
    {
        var targets = destination.TargetsOf(result);
        var desk = BookOptions.OpenDesk(result);
        var orders = arguments.OrdersOf(result);
        var definitions = orders.Select(desk.Find).ToList();
        if (result.GetValue(Since) is not { } named)
        {
            if (orders.Count > 0)
            {
                throw new ProblemException(
                    ProblemKind.Usage, "It is not said since when the report is to have moved.",
                    "Add --since and the number of an import, or a day; vlei changes lists the imports.");
            }

            return destination.Write(result, targets, ImportList.Of(desk));
        }

        using var since = RecordsSince.Open(desk, SentRevision(desk, named) ?? named);
        List<Report> reports = [since.Changes];
        foreach (var (definition, order) in definitions.Zip(orders))
        {
            reports.AddRange(since.Moved(definition, desk.RequestOf(definition, order.Options)));
        }

        return Write(result, targets, destination, reports);
    }

    // What was sent was made from some records; which delivery is meant is said.
    private static string? SentRevision(ReportDesk desk, string named)
    {
        const string Sent = "sent";
        if (named != Sent && !named.StartsWith($"{Sent}:", StringComparison.Ordinal))
        {
            return null;
        }

        var (log, which) = (new DeliveryLog(desk.Book), named.Length > Sent.Length ? named[(Sent.Length + 1)..] : "");
        var isNumber = int.TryParse(which, NumberStyles.None, CultureInfo.InvariantCulture, out var number);
        var delivery = log.All.LastOrDefault(known => known.Sent is not null && known.Revision > 0
            && (which.Length == 0 || known.What == which || (isNumber && known.Number == number))) ?? throw new ProblemException(
                ProblemKind.NotFound, which.Length == 0 ? "Nothing was sent yet." : $"Nothing was sent under {which}.",
                "vlei outbox --all lists what was.");
        Terminal.Say(
            $"Number {delivery.Number}, {delivery.What} for {delivery.Period}, went to {delivery.ToInWords} with the records of revision "
                + $"{delivery.Revision}.");
        return delivery.Revision.ToString(CultureInfo.InvariantCulture);
    }

    // Text is read one after the other; a table for tools is one table.
    private static int Write(ParseResult result, IReadOnlyList<ReportTarget> targets, ReportDestination destination, List<Report> reports)
    {
        if (targets.FirstOrDefault(target => target.Format != ReportFormat.All[0]) is not { Format: { } format })
        {
            return destination.Write(result, targets, reports);
        }

        return reports.Count <= 2 ? destination.Write(result, targets, reports[^1]) : throw new ProblemException(
            ProblemKind.Usage, $"{format.Name} has room for one table, and there are {reports.Count}.",
            "Name one report and no more; where it touches closed periods, name one of them with --period.");
    }
}
