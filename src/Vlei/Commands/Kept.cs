using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Commands;

/// <summary>What commands ask of kept files.</summary>
internal static class Kept
{
    /// <summary>The options of a kept report that stay on the same days, with those days.</summary>
    public static IEnumerable<(string Option, string Date)> FixedDates(
        IReadOnlyDictionary<string, IReadOnlyList<string>> options, DateOnly today, FiscalCalendar calendar) =>
        from option in new[] { ReportOptions.Period, ReportOptions.AsOf }
        from text in options.GetValueOrDefault(option.Name, [])
        where Core.Calendar.FixedDates.IsFixed(text, today, calendar)
        select (option.Name, text);

    /// <summary>Whether a file names another one; a file that cannot be read names nothing.</summary>
    public static bool Names(KeptFile user, KeptFile named)
    {
        try
        {
            return user.Kind == KeptKind.Group ? GroupFile.MembersOf(user).Contains(named.Name) : user.Read().Contains($"from = \"{named.Name}\"", StringComparison.Ordinal);
        }
        catch (ProblemException)
        {
            return false;
        }
    }
}
