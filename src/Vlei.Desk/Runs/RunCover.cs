using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Desk.Runs;

/// <summary>
/// The cover of a group: what is in it, what to look at, what the client is asked, and which earlier periods have moved since
/// they were last produced.
/// </summary>
public static class RunCover
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
            Columns =
            [
                new("about", "About", ColumnKind.Text), new("note", "Note", ColumnKind.Text),
                new("before", "Before", ColumnKind.Money) { IsLeftOutWhenIdle = true },
                new("now", "Now", ColumnKind.Money) { IsLeftOutWhenIdle = true },
            ],
            Rows = [.. Contents(outcome), .. group.HasQuestions && run.Ledger.Marks.Any(mark => mark.IsQuestion) ? Asked(run) : [],
                .. Earlier(outcome)],
            Checks = [],
            Notes = group.Notes,
            OriginOf = (_, _) => null,
            Look = new ReportLook { Language = run.Reports.Language },
            Revision = run.Ledger.Revision,
        };
    }

    private static IEnumerable<ReportRow> Contents(ProducedGroup outcome) =>
        Headed("contents", "Contents", outcome.Reports.Select(report => Row(
        report.Member.Name, Caption.Ours(report.Title),
        report.Report is { } made
            ? $"{made.PeriodInWords}{(made.InWhat is null ? $", {AccountingBases.NameOf(made.Basis)} basis" : "")}" : "Not produced",
        string.Join(
            " ", new[] { report.Asked.Problem, FailedIn(report.Report), report.Member.Note }.Where(text => text is { Length: > 0 })))));

    private static string? FailedIn(Report? report) =>
        report?.Checks.Where(check => !check.Ok).Select(check => check.Name).Distinct().ToList() is { Count: > 0 } failed
            ? $"Check failed: {string.Join(", ", failed)}." : null;

    // What the review asks of the client about the period and is not answered.
    private static IEnumerable<ReportRow> Asked(RunContext run)
    {
        var definition = Library.Standard(Questions)!;
        var request = RequestText.Read(definition.Defaults, run.Desk.Today, run.Desk.Settings.Calendar, run.Desk.Settings.Currency);
        var report = OpenReport.Build(definition, request with { Period = new OpenPeriod(run.Days) }, run.Reports);
        string? WordsIn(ReportRow row, string column) =>
            row.Cells[report.Columns.Select(known => known.Key).ToList().IndexOf(column)].Words;
        return Headed("questions", "Questions", report.Rows.Where(row => row.Kind == RowKind.Record).Select(row => Row(
            row.Key, string.Join(' ', new[] { WordsIn(row, "document"), WordsIn(row, "contact") }.Where(words => words is not null)),
            WordsIn(row, "reason") ?? "", WordsIn(row, "note") ?? "")));
    }

    // The figure that says most of each period: a result or a total, as far as one has moved.
    private static IEnumerable<ReportRow> Earlier(ProducedGroup outcome) =>
        Headed("moved", "Earlier periods that have moved since they were produced",
        outcome.Earlier.Select(
            earlier =>
                (Earlier: earlier, Figure: earlier.Moved.SelectMany(report => MovedFigures.Of(report.Figures))
                    .OrderByDescending(figure => figure.IsOfAll).ThenByDescending(figure => Math.Abs(figure.After.MinorUnits)).First()))
                    .Select(moved => Row(
            PeriodText.Key(moved.Earlier.Days, outcome.Run.Book.Settings.Calendar),
            Caption.Ours(PeriodText.Words(moved.Earlier.Days, outcome.Run.Book.Settings.Calendar)),
            moved.Earlier.Names, string.Join(", ", new[] { moved.Figure.Row, moved.Figure.Column }.Where(words => words.Length > 0)),
            moved.Figure)));

    private static IEnumerable<ReportRow> Headed(string key, string heading, IEnumerable<ReportRow> rows)
    {
        var listed = rows.ToList();
        return listed.Count == 0 ? [] : listed.Prepend(
            new ReportRow(key, heading, RowKind.Heading, 0, [Cell.Empty, Cell.Empty, Cell.Empty, Cell.Empty]));
    }

    private static ReportRow Row(string key, Caption label, string about, string note, MovedFigure? moved = null) => new(
        key, label.English, RowKind.Record, 1,
        [Cell.Of(about), Cell.Of(note), moved is null ? Cell.Empty : Cell.Of(moved.Before), moved is null ? Cell.Empty
            : Cell.Of(moved.After)])
    {
        Caption = label,
    };
}
