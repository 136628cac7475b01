using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Runs;

/// <summary>
/// The cover of a group: what is in it, what to look at, what the client is asked, and which earlier periods have moved since
/// they were last produced.
/// </summary>
internal static class RunCover
{
    private const string Questions = "questions";

    /// <summary>Makes the cover.</summary>
    public static Report Of(ProducedGroup outcome)
    {
        var (group, run) = (outcome.Group, outcome.Run);
        var settings = run.Book.Settings;
        return new Report
        {
            Key = group.Name,
            Title = group.Title,
            Book = settings.Name,
            Currency = settings.Currency,
            Basis = settings.Basis,
            InWhat = $"In {settings.Currency.Code}",
            Period = run.Days,
            AsOf = null,
            PeriodInWords = PeriodText.Words(run.Days, settings.Calendar),
            Columns = [new("about", "About", ColumnKind.Text), new("note", "Note", ColumnKind.Text)],
            Rows = [.. Contents(outcome), .. group.HasQuestions ? Asked(run) : [], .. Earlier(outcome)],
            Checks = [],
            Notes = group.Notes,
            OriginOf = (_, _) => null,
            Revision = run.Ledger.Revision,
        };
    }

    private static IEnumerable<ReportRow> Contents(ProducedGroup outcome) => Headed("contents", "Contents", outcome.Reports.Select(report => Row(
        report.Member.Name, report.Title,
        report.Report is { } made ? $"{made.PeriodInWords}{(made.InWhat is null ? $", {AccountingBases.NameOf(made.Basis)} basis" : "")}" : "Not produced",
        string.Join(" ", new[] { report.Asked.Problem, FailedIn(report.Report), report.Member.Note }.Where(text => text is { Length: > 0 })))));

    private static string? FailedIn(Report? report) =>
        report?.Checks.Where(check => !check.Ok).Select(check => check.Name).Distinct().ToList() is { Count: > 0 } failed ? $"Check failed: {string.Join(", ", failed)}." : null;

    // What the review asks of the client about the period and is not answered.
    private static IEnumerable<ReportRow> Asked(RunContext run)
    {
        var definition = Library.Standard(Questions)!;
        var request = RequestText.Read(definition.Defaults, run.Today, run.Book.Settings.Calendar, run.Book.Settings.Currency);
        var report = definition.Build(run.Reports, request with { Period = new OpenPeriod(run.Days) });
        string? WordsIn(ReportRow row, string column) => row.Cells[report.Columns.Select(known => known.Key).ToList().IndexOf(column)].Words;
        return Headed("questions", "Questions", report.Rows.Where(row => row.Kind == RowKind.Record).Select(row => Row(
            row.Key, string.Join(' ', new[] { WordsIn(row, "document"), WordsIn(row, "contact") }.Where(words => words is not null)),
            WordsIn(row, "reason") ?? "", WordsIn(row, "note") ?? "")));
    }

    private static IEnumerable<ReportRow> Earlier(ProducedGroup outcome)
    {
        return Headed("moved", "Earlier periods that have moved since they were produced",
        outcome.Earlier.Select(earlier => Row(
            PeriodText.Key(earlier.Days, outcome.Run.Book.Settings.Calendar), PeriodText.Words(earlier.Days, outcome.Run.Book.Settings.Calendar),
            string.Join(", ", earlier.Moved.Select(moved => moved.Key)),
            MovedFigures.Of(earlier.Moved[0])[0] is var figure ? $"{figure.What}: {Text(figure.Before)} before, {Text(figure.After)} now" : "")));

        string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, outcome.Run.Book.Settings.Currency.Decimals);
    }

    private static IEnumerable<ReportRow> Headed(string key, string heading, IEnumerable<ReportRow> rows)
    {
        var listed = rows.ToList();
        return listed.Count == 0 ? [] : listed.Prepend(new ReportRow(key, heading, RowKind.Heading, 0, [Cell.Empty, Cell.Empty]));
    }

    private static ReportRow Row(string key, string label, string about, string note) => new(key, label, RowKind.Record, 1, [Cell.Of(about), Cell.Of(note)]);
}
