using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Pages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk.Keeping;
using Vlei.Output;

namespace Vlei.Desk.Runs;

/// <summary>A report of a group, as a run made it.</summary>
/// <param name="Member">What the group says of it.</param>
/// <param name="Asked">What was asked.</param>
/// <param name="Report">The report; nothing where it could not be made.</param>
/// <param name="Moved">The figures that are not what they were when it was last produced for these days; nothing where it was not.</param>
/// <param name="IsAskedAnew">Whether something else is asked of it than was then.</param>
public sealed record ProducedReport(GroupMember Member, RunMember Asked, Report? Report, Report? Moved, bool IsAskedAnew)
{
    /// <summary>The date that it is always of, whatever the period; nothing where it moves on.</summary>
    public string? FixedDate { get; init; }

    /// <summary>What it is called: its own title, else its name.</summary>
    public string Title => Report?.Title ?? Member.Name;
}

/// <summary>What a run of a group came to.</summary>
/// <param name="Group">The group.</param>
/// <param name="Run">The book and the days.</param>
/// <param name="Reports">Its reports, in their order.</param>
/// <param name="Folder">Where its files are.</param>
public sealed record ProducedGroup(ReportGroup Group, RunContext Run, IReadOnlyList<ProducedReport> Reports, string Folder)
{
    /// <summary>The run that was there before, for the same days.</summary>
    public RunRecord? Before { get; init; }

    /// <summary>Earlier periods that have moved.</summary>
    public IReadOnlyList<EarlierRun> Earlier { get; init; } = [];

    /// <summary>How many files there are.</summary>
    public int Files { get; init; }

    /// <summary>What has changed in the records since the run before; nothing where that is not known.</summary>
    public IReadOnlyList<RecordChange>? Changes { get; init; }

    /// <summary>That the records may not be whole yet: they end well before the period does. Nothing where they do not.</summary>
    public string? Incomplete
    {
        get
        {
            const int QuietDays = 7;
            var end = Run.Days.To < Run.Desk.Today.Date ? Run.Days.To : Run.Desk.Today.Date;
            return Run.Ledger.Extent is not { } records ? "There are no records."
                : Run.Days.From > Run.Desk.Today.Date ? "The period has not begun yet."
                : records.From > Run.Days.To ? $"The records start on {PeriodText.Iso(records.From)}, after the period."
                : records.To < end.AddDays(-QuietDays) ? $"The records end on {PeriodText.Iso(records.To)}, before the period does."
                : null;
        }
    }

    /// <summary>How many checks of its reports failed.</summary>
    public int FailedChecks => Reports.Sum(report => report.Report?.Checks.Count(check => !check.Ok) ?? 0);

    /// <summary>The exit status that it leads to.</summary>
    public int Status => Reports.Any(report => report.Report is null) ? (int)ProblemKind.BadData : FailedChecks > 0
        ? ExitStatus.CheckFailed : ExitStatus.Done;
}

/// <summary>Produces a group of reports for a period, and keeps what the next run needs to say what has moved.</summary>
public static class GroupRun
{
    /// <summary>
    /// Produces it, and hands over what it came to while the records are open. A report that cannot be made does not stop the
    /// others; where none can, nothing is written. Throws a <see cref="ProblemException"/> where the period makes no sense, or
    /// nothing can be written.
    /// </summary>
    /// <param name="desk">The book.</param>
    /// <param name="name">The group.</param>
    /// <param name="period">The period; nothing for the group's own.</param>
    /// <param name="formats">The formats; none for the group's own.</param>
    /// <param name="say">Tells the person what is not in the outcome.</param>
    /// <param name="use">What is done with the outcome.</param>
    public static T Produce<T>(
        ReportDesk desk, string name, string? period, IReadOnlyList<ReportFormat> formats, Action<string> say, Func<ProducedGroup, T> use)
    {
        var file = desk.Library.Named(KeptKind.Group, name);
        var group = GroupFile.Whole(file, desk.Library);
        var chosen = formats.Count > 0 ? formats : group.Formats.Count == 0 ? [ReportFormat.All[0]]
            : ReportFormat.Named(file.Path, group.Formats);
        return Produce(desk, group, period, chosen, say, use);
    }

    /// <summary>The same, of a group that was read already; a report alone is a group of one that has its name.</summary>
    public static T Produce<T>(
        ReportDesk desk, ReportGroup group, string? period, IReadOnlyList<ReportFormat> chosen, Action<string> say,
        Func<ProducedGroup, T> use)
    {
        var (book, today, name) = (desk.Book, desk.Today.Date, group.Name);
        using var ledger = LedgerReader.Open(book);
        var records = ledger.Extent ?? new DateRange(today, today);
        var asked = Naming.Of(
            period is null ? group.Path : null, () => PeriodGrammar.Parse(period ?? group.Period, today, book.Settings.Calendar));
        var days = asked.Within(records).Range;
        var run = new RunContext(desk.AtCloseOf(days), ledger, days);
        using var folder = RunFolder.Take(
            book.PathOf("out"), name, PeriodText.Key(days, book.Settings.Calendar).Replace("/", "--", StringComparison.Ordinal), say);
        var before = RunRecord.Read(folder.Final, say);
        var reports = group.Members.Select(member => Made(run, group, member, asked, folder, before, chosen, say)).ToList();
        if (!group.IsPage && reports.TrueForAll(report => report.Report is null))
        {
            return use(new ProducedGroup(group, run, reports, folder.Final));
        }

        var outcome = new ProducedGroup(group, run, reports, folder.Final)
        {
            Before = before,
            Earlier = EarlierRuns.Moved(folder, run, today, say),
            Changes = before is null ? null : run.ChangesSince(before.Revision),
        };
        var files = Write(outcome, chosen, folder);
        folder.Commit(before);
        RecentReports.NoteRun(book, today, name, reports.Where(report => report.Report is not null).Select(report => report.Member.Report));
        return use(outcome with { Files = files });
    }

    private static ProducedReport Made(
        RunContext run, ReportGroup group, GroupMember member, OpenPeriod period, RunFolder folder, RunRecord? before,
        IReadOnlyList<ReportFormat> formats, Action<string> say)
    {
        var asked = new RunMember(member.Name, member.Report, member.Options, null, null);
        try
        {
            asked = Naming.Of(member.Place, () => run.Asked(group, member, period));
            var report = Naming.Of(member.Place, () => Fitting(run.Build(asked, formats), formats));
            var then = before?.Members.FirstOrDefault(old => old.Name == member.Name && old.Problem is null);
            return new ProducedReport(
                member, asked, report, then is null ? null
                    : run.MovedSince(Path.Combine(folder.Final, RunRecord.FiguresOf(member.Name)), report, say),
                then is not null && !IsSame(then, asked))
            {
                FixedDate = FixedDateOf(run, member),
            };
        }
        catch (ProblemException problem)
        {
            return new ProducedReport(member, asked with { Problem = $"{problem.Message} {problem.Advice}".TrimEnd() }, null, null, false);
        }
    }

    // A template that is gone, or that the report does not fit into, is a matter of its report, and keeps no other from being made.
    private static Report Fitting(Report report, IReadOnlyList<ReportFormat> formats)
    {
        foreach (var format in formats.Where(format => report.Look.Template is not null && format.Takes.Contains(LookOptions.Template)))
        {
            using var tried = new MemoryStream();
            format.Write(report, tried, Surface.OfFile(ChartProgram.Beside));
        }

        return report;
    }

    private static string? FixedDateOf(RunContext run, GroupMember member)
    {
        var kept = run.Desk.Library.Find(KeptKind.Report, member.Report) is { } file ? run.Desk.Library.Read(file).Own : member.Options;
        return new[] { member.Options, kept }.SelectMany(
            options => KeptFiles.FixedDates(options, run.Desk.Today.Date, run.Book.Settings.Calendar))
            .Select(option => option.Date).FirstOrDefault();
    }

    private static bool IsSame(RunMember one, RunMember other) => one.Report == other.Report && one.Period == other.Period
        && one.OfFigures is var asked && asked.Count == other.OfFigures.Count
        && asked.All(option => other.Options.GetValueOrDefault(option.Key, []).SequenceEqual(option.Value));

    /// <summary>
    /// All reports of a group together, with its cover; where one could not be made there is a cover in any case, which says so.
    /// </summary>
    public static ReportPack PackOf(ProducedGroup outcome) => new(
        outcome.Group.Name, outcome.Group.Title,
        outcome.Group.HasCover || outcome.Reports.Any(report => report.Report is null) ? RunCover.Of(outcome) : null, MadeIn(outcome))
    {
        Front = outcome.Group.Front is { } front ? FrontOf(outcome, front) : null,
    };

    // It looks as the reports behind it do.
    private static Page FrontOf(ProducedGroup outcome, string name)
    {
        var library = outcome.Run.Desk.Library;
        var page = PageFile.Find(library, name) ?? throw new ProblemException(
            ProblemKind.BadData, $"{outcome.Group.Path}: there is no page {name}.",
            Suggestion.DidYouMean(name, PageFile.NamesIn(library)) ?? Suggestion.ThereAre([.. PageFile.NamesIn(library)]));
        var built = BookPage.Of(
            outcome.Run.Desk, page with { Panels = [.. page.Panels.Where(panel => panel.List is null)] },
            MadeIn(outcome).Select(named => named.Report.Look).FirstOrDefault() ?? new ReportLook(), outcome.Run.Ledger);

        // Who reads it has no book to ask.
        return built with { Panels = [.. built.Panels.Select(panel => panel with { Command = "" })] };
    }

    private static List<(string Name, Report Report)> MadeIn(ProducedGroup outcome) =>
        [.. outcome.Reports.Where(report => report.Report is not null).Select(report => (report.Member.Name, report.Report!))];

    private static int Write(ProducedGroup outcome, IReadOnlyList<ReportFormat> formats, RunFolder folder)
    {
        var look = Surface.OfFile(ChartProgram.Beside);
        var (made, pack) = (MadeIn(outcome), PackOf(outcome));
        var sums = new Dictionary<string, string>();
        try
        {
            _ = Directory.CreateDirectory(Path.Combine(folder.Staging, RunRecord.Folder));
            foreach (var format in formats)
            {
                made.ForEach(named => WriteOne($"{named.Name}.{format.Ending}", stream => format.Write(named.Report, stream, look)));
                if (!outcome.Group.IsAlone)
                {
                    WriteOne($"{outcome.Group.Name}.{format.Ending}", stream =>
                    {
                        if (outcome.Group.IsPage)
                        {
                            PageFormats.Write(pack.Front!, format, stream, look);
                        }
                        else
                        {
                            format.WritePack(pack, stream, look);
                        }
                    });
                }
            }

            made.ForEach(named => WriteFile(RunRecord.FiguresOf(named.Name), stream => JsonReport.Write(named.Report, stream)));
            var written = sums.Count;
            foreach (var (name, sum) in folder.Carried(outcome.Before, [.. formats.Select(format => format.Ending)]))
            {
                sums[name] = sum;
            }

            new RunRecord(outcome.Run.Days, outcome.Run.Ledger.Revision, [.. outcome.Reports.Select(report => report.Asked)], sums)
                .Write(folder.Staging);
            return written;
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder.Final} cannot be written: {cannot.Message}", "What was there is as it was.", cannot);
        }

        void WriteOne(string name, Action<Stream> write)
        {
            WriteFile(name, write);
            sums[name] = RunFolder.SumOf(Path.Combine(folder.Staging, name));
        }

        void WriteFile(string name, Action<Stream> write)
        {
            using var stream = new FileStream(
                Path.Combine(folder.Staging, name), FileMode.CreateNew, FileAccess.Write, FileShare.None, 1 << 14);
            write(stream);
        }
    }
}
