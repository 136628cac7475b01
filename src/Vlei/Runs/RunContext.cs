using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Commands;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Output;

namespace Vlei.Runs;

/// <summary>A book as one run sees it: its records, and the close of the last day of the period as the day that words are worked out from.</summary>
/// <param name="Book">The book.</param>
/// <param name="Library">What is kept for it.</param>
/// <param name="Ledger">Its records.</param>
/// <param name="Days">The days that the run is for.</param>
/// <param name="Today">The day that words like <c>last-month</c> are worked out from.</param>
internal sealed record RunContext(Book Book, Library Library, ILedger Ledger, DateRange Days, WorkingDay Today)
{
    /// <summary>What its reports know of it.</summary>
    public ReportContext Reports { get; } = ReportArguments.ContextOf(Book, Today, Ledger);

    /// <summary>The same for other days.</summary>
    public RunContext For(DateRange days, DateOnly today) => new(Book, Library, Ledger, days, WorkingDay.CloseOf(days, today));

    /// <summary>
    /// What a member of a group asks, for a period. It has the period of the group, unless it says another itself, or is a
    /// kept report that does.
    /// </summary>
    public RunMember Asked(ReportGroup group, GroupMember member, OpenPeriod period)
    {
        var definition = Catalogue.Find(Library, member.Report);
        ReportArguments.RefuseWhatDoesNotApply(member.Options.Keys, definition);
        var options = RequestText.Merged(definition.Defaults, member.Options).Where(option => option.Value.Count > 0).ToDictionary();
        if (group.Basis is { } basis && definition.Options.Contains(ReportOptions.Basis)
            && !member.Options.ContainsKey(ReportOptions.Basis.Name) && !Library.Says(member.Report, ReportOptions.Basis))
        {
            options[ReportOptions.Basis.Name] = [basis];
        }

        if (!SaysWhen(member.Options) && !Library.Says(member.Report, ReportOptions.Period, ReportOptions.AsOf))
        {
            _ = options.Remove(ReportOptions.Period.Name) | options.Remove(ReportOptions.AsOf.Name);
            return new RunMember(member.Name, member.Report, options, period, null);
        }

        var own = RequestText.Read(options, Today, Book.Settings.Calendar, Book.Settings.Currency, Library.Selection).Period;
        _ = options.Remove(ReportOptions.Period.Name) | options.Remove(ReportOptions.AsOf.Name);
        return new RunMember(member.Name, member.Report, options, own, null);

        static bool SaysWhen(IReadOnlyDictionary<string, IReadOnlyList<string>> asked) =>
            asked.ContainsKey(ReportOptions.Period.Name) || asked.ContainsKey(ReportOptions.AsOf.Name);
    }

    /// <summary>Builds the report of a member. Throws a <see cref="ProblemException"/> where it cannot be.</summary>
    public Report Build(RunMember member, IReadOnlyList<ReportFormat> formats)
    {
        var definition = Catalogue.Find(Library, member.Report);
        return ReportArguments.OfSums(definition, () => ReportArguments.Built(
            definition, Reports, ReportArguments.Request(definition, member.Options, Book.Settings, Library, Today) with { Period = member.Period }, formats));
    }

    /// <summary>Whether anything has changed since an earlier revision that figures of the period may rest on.</summary>
    public bool MayHaveMovedSince(long revision) =>
        ChangesSince(revision) is null or { Count: > 0 } || HaveListsChangedSince(revision);

    /// <summary>Whether accounts, contacts or other lists are not as they were.</summary>
    public bool HaveListsChangedSince(long revision) => Revisions.ListsChangedSince(Book, revision);

    /// <summary>What the records of the period are not any more since an earlier revision; nothing where that is not one of this book's.</summary>
    public IReadOnlyList<RecordChange>? ChangesSince(long revision) => revision > Ledger.Revision ? null
        : [.. Revisions.ChangesSince(Book, revision).Where(change => (change.Was ?? change.Is) <= Days.To || change.Is <= Days.To)];

    /// <summary>How a report differs from what was kept of it: the figures that have moved; nothing where nothing was kept.</summary>
    public Report? MovedSince(string figures, Report now)
    {
        if (!File.Exists(figures))
        {
            return null;
        }

        using var stream = File.OpenRead(figures);
        try
        {
            return Movement.Between(JsonReport.Read(stream, Book.Settings.Currency), now);
        }
        catch (Exception damaged) when (OptionsJson.IsDamage(damaged))
        {
            throw new ProblemException(ProblemKind.BadData, $"{figures} is damaged: {damaged.Message}", "Remove the folder, and the run is as if it had not been.", damaged);
        }
    }
}
