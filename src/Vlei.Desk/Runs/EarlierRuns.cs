using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk.Runs;

/// <summary>An earlier period of a group whose figures are not what they were when it was last produced.</summary>
/// <param name="Days">The period.</param>
/// <param name="Moved">The reports that have moved, by their names in the group, each with its figures before and after.</param>
public sealed record EarlierRun(DateRange Days, IReadOnlyList<(string Name, Report Figures)> Moved)
{
    /// <summary>The names of the reports that have moved.</summary>
    public string Names => string.Join(", ", Moved.Select(report => report.Name));
}

/// <summary>Finds what has moved in periods that a group was produced for earlier.</summary>
public static class EarlierRuns
{
    /// <summary>Those that have moved, oldest first. A run whose records have not changed since is not looked at again.</summary>
    public static IReadOnlyList<EarlierRun> Moved(RunFolder folder, RunContext run, DateOnly today, Action<string> say)
    {
        var moved = new List<EarlierRun>();
        foreach (var name in folder.Periods)
        {
            if (RunRecord.Read(folder.PathIn(name, ""), say) is { } record && record.Days.To < run.Days.From
                && record.Revision != run.Ledger.Revision)
            {
                var then = run.For(record.Days, today);
                if (then.MayHaveMovedSince(record.Revision))
                {
                    moved.Add(new EarlierRun(record.Days, [.. record.Members.Where(member => member.Problem is null)
                        .Select(
                            member =>
                                (member.Name, Figures: MovedIn(then, folder.PathIn(name, RunRecord.FiguresOf(member.Name)), member, say)))
                        .Where(report => report.Figures is not null).Select(report => (report.Name, report.Figures!))]));
                }
            }
        }

        return [.. moved.Where(earlier => earlier.Moved.Count > 0).OrderBy(earlier => earlier.Days.From)];
    }

    // What can no longer be built has no figures to compare; its group says so when it is run.
    private static Report? MovedIn(RunContext run, string figures, RunMember member, Action<string> say)
    {
        try
        {
            return run.MovedSince(figures, run.Build(member, []), say) is { Rows.Count: > 0 } moved ? moved : null;
        }
        catch (ProblemException)
        {
            return null;
        }
    }
}
