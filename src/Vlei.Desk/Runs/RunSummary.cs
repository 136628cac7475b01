using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Desk.Runs;

/// <summary>What a run came to, for who ran it: what was produced, which figures moved since the last time and why.</summary>
public static class RunSummary
{
    private const int MostFigures = 5;
    private const int MostChanges = 10;

    /// <summary>Makes the summary.</summary>
    public static Report Of(ProducedGroup outcome)
    {
        var (run, settings) = (outcome.Run, outcome.Run.Book.Settings);
        return new Report
        {
            Key = "run",
            Title = outcome.Group.Title,
            Book = settings.Name,
            Currency = settings.Currency,
            Basis = settings.Basis,
            InWhat = outcome.Files == 0 ? "Nothing was written" : $"{outcome.Files} files in {outcome.Folder}",
            Period = run.Days,
            AsOf = null,
            PeriodInWords = PeriodText.Words(run.Days, settings.Calendar),
            Columns =
            [
                new("state", "Outcome", ColumnKind.Text), new("before", "Before", ColumnKind.Money) { IsLeftOutWhenIdle = true },
                new("after", "Now", ColumnKind.Money) { IsLeftOutWhenIdle = true },
                new("change", "Change", ColumnKind.Money) { IsLeftOutWhenIdle = true, IsChange = true },
            ],
            Rows = [.. outcome.Reports.SelectMany(report => RowsOf(report, outcome.Before)), .. Why(outcome), .. Earlier(outcome)],
            Checks = [],
            Notes = outcome.Incomplete is { } note ? [note] : [],
            OriginOf = (_, _) => null,
            Revision = run.Ledger.Revision,
        };
    }

    private static IEnumerable<ReportRow> RowsOf(ProducedReport report, RunRecord? before)
    {
        yield return Row(report.Member.Name, $"{report.Member.Name}", 0, StateOf(report, before));
        var moved = report.Moved is { } movement ? MovedFigures.Of(movement) : [];
        foreach (var figure in moved.Take(MostFigures))
        {
            yield return Row(
                $"{report.Member.Name}/{figure.Row}/{figure.Column}", figure.Row, 1, figure.Column, figure.Before, figure.After);
        }

        if (moved.Count > MostFigures)
        {
            yield return Row($"{report.Member.Name}/more", $"and {moved.Count - MostFigures} more", 1, "");
        }
    }

    private static string StateOf(ProducedReport report, RunRecord? before) =>
        report.Asked.Problem is { } problem ? $"NOT PRODUCED: {problem}"
        : report.Report!.Checks.FirstOrDefault(check => !check.Ok) is { } failed ? $"CHECK FAILED: {failed.Name}"
        : report.IsAskedAnew ? "asked otherwise than the last time"
        : report.Moved is { Rows.Count: > 0 } ? $"moved since revision {before!.Revision}"
        : (report.Moved is not null ? "as the last time" : "produced") + (report.FixedDate is { } date ? $", always {date}" : "");

    // Figures move because records did, or because something else is asked; the report itself says the latter.
    private static IEnumerable<ReportRow> Why(ProducedGroup outcome)
    {
        if (outcome.Reports.All(report => report.Moved is not { Rows.Count: > 0 } || report.IsAskedAnew))
        {
            yield break;
        }

        yield return new ReportRow(
            "why", outcome.Changes is null ? "The records are not those that it was made from"
                : $"What changed in the records since revision {outcome.Before!.Revision}",
            RowKind.Heading, 0, [Cell.Empty, Cell.Empty, Cell.Empty, Cell.Empty]);
        var changes = outcome.Changes ?? [];
        foreach (var change in changes.OrderByDescending(change => change.Touches(outcome.Run.Days))
            .ThenBy(change => change.Is ?? change.Was).Take(MostChanges))
        {
            yield return Row(
                $"why/{change.Id}", change.Id, 1,
                $"{ChangeList.NameOf(change.Kind)}, {PeriodText.Iso((change.Is ?? change.Was)!.Value)}", change.Before, change.After);
        }

        if (changes.Count == 0 && outcome.Changes is not null)
        {
            yield return Row("why/names", "No document", 1, outcome.Run.HaveListsChangedSince(outcome.Before!.Revision)
                ? "accounts, contacts or other lists of records were changed"
                : "a selection, a layout or what a report is made from was changed");
        }
        else if (changes.Count > MostChanges)
        {
            yield return Row("why/more", $"and {changes.Count - MostChanges} more", 1, $"vlei changes --since {outcome.Before!.Revision}");
        }
    }

    private static IEnumerable<ReportRow> Earlier(ProducedGroup outcome) => outcome.Earlier.Select(earlier => Row(
        $"earlier/{PeriodText.Key(earlier.Days, outcome.Run.Book.Settings.Calendar)}",
        PeriodText.Words(earlier.Days, outcome.Run.Book.Settings.Calendar), 0,
        $"has moved since it was produced: {earlier.Names}"));

    private static ReportRow Row(string key, string label, int level, string state, Amount? before = null, Amount? after = null) => new(
        key, label, RowKind.Record, level,
        [
            Cell.Of(state), before is { } was ? Cell.Of(was) : Cell.Empty, after is { } now ? Cell.Of(now) : Cell.Empty,
            before is { } from && after is { } to ? Cell.Of(to - from) : Cell.Empty,
        ]);
}
