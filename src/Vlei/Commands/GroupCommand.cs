using System.CommandLine;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Desk.Keeping;

namespace Vlei.Commands;

/// <summary><c>vlei group</c>: the groups, what is in one, and changing it.</summary>
internal static class GroupCommand
{
    private static readonly Argument<string?> Name = new("GROUP")
    {
        Description = "Which group; without one, all of them are listed",
        Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> Add = new("--add")
    {
        Description = "Add a report, with the options behind it, or another group; the group is made where it is not there",
        HelpName = "REPORT",
    };

    private static readonly Option<string?> As = new("--as")
    {
        Description = "With --add: the name of its files, where the report is in the group already",
        HelpName = "NAME",
    };

    private static readonly Option<string?> Note = new("--note")
    {
        Description = "With --add: what to look at, for the reader",
        HelpName = "TEXT",
    };

    private static readonly Option<string?> Drop = new("--drop")
    {
        Description = "Take a report out again, by the name of its files",
        HelpName = "NAME",
    };

    private static readonly Option<string[]> Formats = new("--formats")
    {
        Description = "The formats that it is produced in, with commas between them", HelpName = "LIST",
    };

    private static readonly Option<string?> Move = new("--move")
    {
        Description = "Put a report elsewhere: with --before",
        HelpName = "NAME",
    };

    private static readonly Option<string?> Before = new("--before")
    {
        Description = "With --move: before which report",
        HelpName = "NAME",
    };

    // Without a report that is added, these are of the group itself.
    private static readonly string[] OfGroup = [ReportOptions.Title.Name, ReportOptions.Period.Name, ReportOptions.Basis.Name];

    private static readonly Option<bool> Remove = new("--remove") { Description = "Remove the group; what it produced stays" };

    private static readonly Option[] Changes = [Add, Drop, Move, Remove];

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("group", "List the groups of reports, show one, or change one")
        {
            Examples =
            [
                ("vlei group", "all groups"),
                ("vlei group quarter-end --add profit-loss --by month --compare prior-year", "a report more, or the first of a new group"),
                ("vlei group quarter-end --add profit-loss --as by-department --by department --note \"Who earned it?\"",
                    "the same report again"),
                ("vlei group quarter-end", "what is in it"),
                ("vlei group quarter-end --title \"Quarter end\" --period last-quarter --formats pdf,xlsx", "what it is, and of what"),
                ("vlei group quarter-end --move by-department --before profit-loss", "another order"),
                ("vlei group quarter-end --drop by-department", "one less"),
                ("vlei group quarter-end --remove", "and away with it"),
            ],
        };
        Name.CompletionSources.Clear();
        Name.CompletionSources.Add(
            context => ReportArguments.LibraryOf(context).All(KeptKind.Group)
                .Select(file => new System.CommandLine.Completions.CompletionItem(file.Name)));
        command.Arguments.Add(Name);
        foreach (var option in Changes.Append(As).Append(Note).Append(Formats).Append(Before))
        {
            command.Options.Add(option);
        }

        var arguments = new ReportArguments(command, ReportCount.None);
        command.SetAction(result => Run(result, arguments));
        return command;
    }

    private static int Run(ParseResult result, ReportArguments arguments)
    {
        var desk = BookOptions.OpenDesk(result);
        var library = desk.Library;
        var typed = Changes.Where(option => result.GetResult(option) is { Implicit: false }).ToList();
        if (typed.Count > 1)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{typed[0].Name} and {typed[1].Name} do not go together.", "Do one after the other.");
        }

        if (result.GetValue(Move) is not null != result.GetValue(Before) is not null)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--move says which report, and --before where it goes.",
                "Give both: --move trial-balance --before notes.");
        }

        var own = OfGroupItself(result, arguments);
        if (result.GetValue(Name) is not { } name)
        {
            return typed.Count + own.Count == 0 ? List(library)
                : throw new ProblemException(
                    ProblemKind.Usage,
                    $"It is not said which group {(typed.Count > 0 ? typed[0].Name : $"--{own.Keys.First()}")} is for.",
                    "Name it: vlei group month-end …");
        }

        if (typed.Count + own.Count == 0)
        {
            Show(GroupFile.Read(library.Named(KeptKind.Group, name)));
            return ExitStatus.Done;
        }

        using var turn = FileTurn.Take(library.Find(KeptKind.Group, name)?.Shelf.Folder ?? desk.Book.Folder);
        if (typed.Count > 0)
        {
            Terminal.Say(Changed(result, arguments, new KeptGroups(desk), name));
        }

        if (own.Count > 0)
        {
            Terminal.Say(new KeptGroups(desk).Set(name, own));
        }

        return ExitStatus.Done;
    }

    // What is typed of the group itself: its title, period, basis and formats.
    private static Dictionary<string, IReadOnlyList<string>> OfGroupItself(ParseResult result, ReportArguments arguments)
    {
        var own = arguments.Typed(result).Where(pair => result.GetValue(Add) is null && OfGroup.Contains(pair.Key)).ToDictionary();
        if (result.GetValue(Formats) is { Length: > 0 } formats)
        {
            own["formats"] = [.. formats.SelectMany(list => list.Split(','))];
        }

        if (result.GetValue(Add) is null && arguments.TypedNames(result).Where(name => !own.ContainsKey(name)).Select(typed => $"--{typed}")
            .Concat(new Option[] { As, Note }.Where(option => result.GetResult(option) is { Implicit: false })
            .Select(option => option.Name)).FirstOrDefault() is { } alone)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{alone} is of a report that is added.",
                "Add it: --add REPORT. What else is in the file is changed there.");
        }

        return own;
    }

    private static string Changed(ParseResult result, ReportArguments arguments, KeptGroups groups, string name) =>
        result.GetValue(Move) is { } moved ? groups.Move(name, moved, result.GetValue(Before)!)
            : result.GetValue(Remove) ? groups.Remove(name)
            : result.GetValue(Add) is { } report
                ? groups.Add(name, new ReportOrder(report, arguments.Typed(result)), result.GetValue(As), result.GetValue(Note))
            : groups.Drop(name, result.GetValue(Drop)!);

    private static int List(Library library)
    {
        var files = library.All(KeptKind.Group);
        if (files.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, "There is no group yet.", "Make one: vlei group month-end --add profit-loss --compare prior-year");
        }

        using var output = Terminal.Output();
        foreach (var group in files.Select(GroupFile.Read))
        {
            output.WriteLine(
                $"{group.Name.PadRight(files.Max(file => file.Name.Length))}  {group.Title}, for {group.Period}: "
                + string.Join(", ", group.Members.Select(member => member.Name)));
        }

        return ExitStatus.Done;
    }

    private static void Show(ReportGroup group)
    {
        using var output = Terminal.Output();
        output.WriteLine($"{group.Title}, for {group.Period}{(group.Basis is { } basis ? $", {basis} basis" : "")}");
        if (group.Delivery.To.Count > 0)
        {
            output.WriteLine($"to {string.Join(", ", group.Delivery.To.Select(one => one.Text))}");
        }

        foreach (var schedule in group.Delivery.Schedules)
        {
            output.WriteLine($"by itself {schedule.Time.Text}{(schedule.Zone is { } zone ? $" {zone}" : "")}");
        }

        var width = group.Members.Max(member => member.Name.Length);
        foreach (var member in group.Members)
        {
            output.WriteLine(
                $"  {member.Name.PadRight(width)}  {(member.IsGroup ? "(a group)" : $"{member.Report}{OptionText.Of(member.Options)}")}");
            if (member.Note.Length > 0)
            {
                output.WriteLine($"  {new string(' ', width)}  {member.Note}");
            }
        }
    }
}
