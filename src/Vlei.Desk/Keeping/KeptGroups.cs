using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;
using Vlei.Output;

namespace Vlei.Desk.Keeping;

/// <summary>Changes groups of reports: everything that a person wrote into their files stays.</summary>
/// <param name="desk">The book.</param>
public sealed class KeptGroups(ReportDesk desk)
{
    /// <summary>Adds a report to a group, which is made where it is not there. Says what was done.</summary>
    /// <param name="name">The group.</param>
    /// <param name="report">The report, with its options.</param>
    /// <param name="named">The name of its files; nothing for its own.</param>
    /// <param name="note">What to look at; nothing for no such note.</param>
    public string Add(string name, ReportOrder report, string? named, string? note)
    {
        var file = FileOf(name);
        if (desk.Library.FindReport(report.Name) is null && desk.Library.Find(KeptKind.Group, report.Name) is not null)
        {
            return Nested(file, report, named ?? note);
        }

        var definition = desk.Catalogue.Find(report.Name);
        var typed = LookFiles.Kept(report.Options, file.Shelf.Folder);
        ReportDesk.RefuseWhatDoesNotApply(typed.Keys, definition);
        return Written(
            file, GroupText.With(File.Exists(file.Path) ? file.Read() : GroupText.New(file.Name), report.Name, named, note, typed));
    }

    /// <summary>Says keys of a group anew. Says what was done.</summary>
    public string Set(string name, IReadOnlyDictionary<string, IReadOnlyList<string>> keys)
    {
        var file = Own(name);
        return Written(file, keys.Aggregate(file.Read(), (text, key) => GroupText.With(text, file, key.Key, key.Value)));
    }

    /// <summary>Puts a report before another, both by the names of their files. Says what was done.</summary>
    public string Move(string name, string named, string before)
    {
        var file = Own(name);
        return Written(file, GroupText.Moved(file.Read(), file, named, before));
    }

    /// <summary>Takes a report out of a group, by the name of its files. Says what was done.</summary>
    public string Drop(string name, string named)
    {
        var file = Own(name);
        return Written(file, GroupText.Without(file.Read(), file, named));
    }

    /// <summary>Removes a group; what it produced stays. Says what was done.</summary>
    public string Remove(string name)
    {
        var file = Own(name);
        File.Delete(file.Path);
        return $"{file.Path} is removed.";
    }

    private string Nested(KeptFile file, ReportOrder inner, string? said)
    {
        if (said is not null || inner.Options.Count > 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{inner.Name} is a group, and has its own names and options.", "Add it alone, or add a report.");
        }

        return Written(file, GroupText.WithGroup(File.Exists(file.Path) ? file.Read() : GroupText.New(file.Name), inner.Name));
    }

    private string Written(KeptFile file, string text)
    {
        var group = GroupFile.Read(file, text);
        _ = ReportFormat.Named(file.Path, group.Formats);
        _ = Naming.Of(file.Path, () => PeriodGrammar.Parse(group.Period, desk.Today, desk.Settings.Calendar));
        file.Write(text);
        return $"{file.Path} has {group.Members.Count} {(group.Members.Count == 1 ? "report" : "reports")}: vlei run {file.Name}";
    }

    private KeptFile FileOf(string name) => desk.Library.ShelfOf("book").Place(KeptKind.Group, name);

    // Those of others are changed where they are.
    private KeptFile Own(string name)
    {
        var file = FileOf(name);
        return File.Exists(file.Path) ? file : throw new ProblemException(
            ProblemKind.NotFound, $"The group {name} is not the book's own: {desk.Library.Named(KeptKind.Group, name).Path}.",
            "Change that file.");
    }
}
