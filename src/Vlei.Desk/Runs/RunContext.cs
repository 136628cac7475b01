using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Output;

namespace Vlei.Desk.Runs;

/// <summary>
/// A book as one run sees it: its records, and the close of the last day of the period as the day that words are worked out from.
/// </summary>
/// <param name="Desk">The book, on that day.</param>
/// <param name="Ledger">Its records.</param>
/// <param name="Days">The days that the run is for.</param>
public sealed record RunContext(ReportDesk Desk, ILedger Ledger, DateRange Days)
{
    /// <summary>The book.</summary>
    public Book Book => Desk.Book;

    /// <summary>What its reports know of it.</summary>
    public ReportContext Reports { get; } = Desk.ContextOf(Ledger);

    /// <summary>The same for other days.</summary>
    public RunContext For(DateRange days, DateOnly today) => new(new ReportDesk(Book, today).AtCloseOf(days), Ledger, days);

    /// <summary>
    /// What a member of a group asks, for a period. It has the period of the group, unless it says another itself, or is a
    /// kept report that does.
    /// </summary>
    public RunMember Asked(ReportGroup group, GroupMember member, OpenPeriod period)
    {
        var (library, definition) = (Desk.Library, Desk.Find(new ReportOrder(member.Report, member.Options)));
        var options = RequestText.Merged(definition, member.Options).Where(option => option.Value.Count > 0).ToDictionary();
        if (group.Basis is { } basis && definition.Options.Contains(ReportOptions.Basis)
            && !member.Options.ContainsKey(ReportOptions.Basis.Name) && !library.Says(member.Report, ReportOptions.Basis))
        {
            options[ReportOptions.Basis.Name] = [basis];
        }

        var saysWhen = member.Options.ContainsKey(ReportOptions.Period.Name) || member.Options.ContainsKey(ReportOptions.AsOf.Name)
            || library.Says(member.Report, ReportOptions.Period, ReportOptions.AsOf);
        var own = saysWhen ? RequestText.Read(
            options, Desk.Today, Desk.Settings.Calendar, Desk.Settings.Currency, library.Selection).Period : period;
        _ = options.Remove(ReportOptions.Period.Name) | options.Remove(ReportOptions.AsOf.Name);
        return new RunMember(member.Name, member.Report, options, own, null);
    }

    /// <summary>Builds the report of a member. Throws a <see cref="ProblemException"/> where it cannot be.</summary>
    public Report Build(RunMember member, params IReadOnlyList<ReportFormat> formats)
    {
        var definition = Desk.Catalogue.Find(member.Report);
        return OpenReport.Build(definition, Desk.Read(definition, member.Options) with { Period = member.Period }, Reports, formats);
    }

    /// <summary>Whether anything has changed since an earlier revision that figures of the period may rest on.</summary>
    public bool MayHaveMovedSince(long revision) =>
        ChangesSince(revision) is null or { Count: > 0 } || HaveListsChangedSince(revision);

    /// <summary>Whether accounts, contacts or other lists are not as they were.</summary>
    public bool HaveListsChangedSince(long revision) => Revisions.ListsChangedSince(Book, revision);

    /// <summary>
    /// What the records of the period are not any more since an earlier revision; nothing where that is not one of this book's.
    /// </summary>
    public IReadOnlyList<RecordChange>? ChangesSince(long revision) => revision > Ledger.Revision ? null
        : [.. Revisions.ChangesSince(Book, revision).Where(change => (change.Was ?? change.Is) <= Days.To || change.Is <= Days.To)];

    /// <summary>How a report differs from what was kept of it: the figures that have moved; nothing where nothing was kept.</summary>
    public Report? MovedSince(string figures, Report now, Action<string> say) => RunRecord.Kept(figures, say, path =>
    {
        using var stream = File.OpenRead(path);
        return Movement.Between(JsonReport.Read(stream, Book.Settings.Currency), now);
    });
}
