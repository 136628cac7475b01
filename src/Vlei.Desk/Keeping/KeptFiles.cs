using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk.Keeping;

/// <summary>Renaming and removing what is kept, and what of it stays on the same days.</summary>
public static class KeptFiles
{
    /// <summary>The options of a kept report that stay on the same days, with those days.</summary>
    public static IEnumerable<(string Option, string Date)> FixedDates(
        IReadOnlyDictionary<string, IReadOnlyList<string>> options, DateOnly today, FiscalCalendar calendar) =>
        from option in new[] { ReportOptions.Period, ReportOptions.AsOf }
        from text in options.GetValueOrDefault(option.Name, [])
        where Core.Calendar.FixedDates.IsFixed(text, today, calendar)
        select (option.Name, text);

    /// <summary>
    /// Gives a kept file another name. Throws where it is not there, or the new name is taken. Says what was done, and who still
    /// has the old one.
    /// </summary>
    public static IReadOnlyList<string> Rename(Library library, KeptFile file, string name)
    {
        RefuseMissing(file);
        var target = file.Shelf.Place(file.Kind, name);
        if (File.Exists(target.Path))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"There is a {file.Kind.Word} {name} already.", "Take another name, or remove that one first.");
        }

        target.Write(ReportText.Renamed(file.Read(), file.Name, name));
        File.Delete(file.Path);
        return [$"{file.Name} is {target.Path} now.", .. UsersOf(library, file)];
    }

    /// <summary>Removes a kept file. Throws where it is not there. Says what was done, and who still names it.</summary>
    public static IReadOnlyList<string> Remove(Library library, KeptFile file)
    {
        RefuseMissing(file);
        File.Delete(file.Path);
        return [$"{file.Path} is removed.", .. UsersOf(library, file)];
    }

    private static void RefuseMissing(KeptFile file)
    {
        if (!File.Exists(file.Path))
        {
            throw new ProblemException(
                ProblemKind.NotFound,
                $"There is no {file.Kind.Word} {file.Name} to change in {Path.Combine(file.Shelf.Folder, file.Kind.Folder)}.",
                Suggestion.DidYouMean(file.Name, file.Shelf.All(file.Kind).Select(known => known.Name))
                    ?? "vlei reports lists what is kept, and where.");
        }
    }

    private static IEnumerable<string> UsersOf(Library library, KeptFile file) =>
        library.All(KeptKind.Group).Concat(library.All(KeptKind.Report))
        .Where(user => Names(user, file)).Select(user => $"{user.Path} still names {file.Name}.");

    // A file that cannot be read names nothing.
    private static bool Names(KeptFile user, KeptFile named)
    {
        try
        {
            return (named.Kind == KeptKind.Report && user.Kind == KeptKind.Group && GroupFile.MembersOf(user).Contains(named.Name))
                || user.Read().Split('\n').Any(
                    line => line.TrimStart().StartsWith(named.Kind == KeptKind.Report ? "from" : "select", StringComparison.Ordinal)
                    && line.Split('"', '\'', ',').Contains(named.Name));
        }
        catch (ProblemException)
        {
            return false;
        }
    }
}
