using Tomlyn.Syntax;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>Reads groups of reports.</summary>
public static class GroupFile
{
    /// <summary>The period of a group that says none.</summary>
    public const string DefaultPeriod = "last-month";

    /// <summary>The keys of the group itself.</summary>
    public static IReadOnlyList<FileKey> Keys { get; } =
    [
        new("title", FileKeyKind.Text, "Its title; its name, where there is none."),
        new(
            "period", FileKeyKind.Text,
            $"The period that it is produced for where vlei run is given none; {DefaultPeriod} where there is none here."),
        new(
            "basis", FileKeyKind.Text,
            "The basis of those of its reports that have one and are not kept with another.") { Words = ReportOptions.Basis.Words },
        new("notes", FileKeyKind.Texts, "What stands on its cover, a paragraph each."),
        new("cover", FileKeyKind.Flag, "Whether it has a cover, with its contents and notes; it has, where nothing is said."),
        new(
            "front", FileKeyKind.Text,
            "The page of panels that its text, its PDF and its web page begin with: summary, or one of the book's own."),
        new("questions", FileKeyKind.Flag, "Whether the open questions of the review (vlei check --review) stand on the cover."),
        new(
            "formats", FileKeyKind.Texts,
            "The formats that it is produced in where vlei run is given none; text, where there are none here."),
        .. DeliveryKeys.Keys,
    ];

    /// <summary>The keys of a report of the group; all others are options of <c>vlei show</c>.</summary>
    public static IReadOnlyList<FileKey> MemberKeys { get; } =
    [
        new("report", FileKeyKind.Text, "The report, standard or kept; or else a group."),
        new("group", FileKeyKind.Text, "In the place of a report: another group, all reports of which are produced here."),
        new("name", FileKeyKind.Text, "The name of its files; the report's own, where there is none here."),
        new("note", FileKeyKind.Text, "What to look at, for the reader."),
        .. ReportFile.OptionKeys(ReportOptions.All),
    ];

    /// <summary>
    /// The reports of a group. Throws a <see cref="ProblemException"/> that names the place where the file is not as it should
    /// be.
    /// </summary>
    public static IReadOnlyList<string> MembersOf(KeptFile file) =>
        [.. Read(file).Members.Where(member => !member.IsGroup).Select(member => member.Report)];

    /// <summary>Reads a group. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.</summary>
    public static ReportGroup Read(KeptFile file) => Read(file, file.Read());

    /// <summary>
    /// Reads a group with the reports of the groups in it in their places. Throws a <see cref="ProblemException"/> where it is not
    /// as it should be, where there is no such group, or where groups go round in a circle.
    /// </summary>
    public static ReportGroup Whole(KeptFile file, Library library)
    {
        var group = Read(file);
        var whole = group with { Members = [.. Members(group, [file.Name])] };
        whole.RefuseTwins(file.Path);
        return whole;

        IEnumerable<GroupMember> Members(ReportGroup outer, IReadOnlyList<string> within) => outer.Members.SelectMany(member =>
            !member.IsGroup ? [member]
            : within.Contains(member.Report) ? throw new ProblemException(
                ProblemKind.BadData, $"{member.Place}: the group {member.Report} has itself in it: {string.Join(" > ", within)}.",
                "Take it out of one of them.")
            : Members(
                Naming.Of(member.Place, () => Read(library.Named(KeptKind.Group, member.Report))), [.. within, member.Report]));
    }

    /// <summary>The same, with other text than the file has.</summary>
    public static ReportGroup Read(KeptFile file, string text)
    {
        var toml = TomlText.Parse(text, file.Path, ProblemKind.BadData);
        var head = toml.Known(toml.Document.KeyValues, [.. Keys.Select(key => key.Name)]);
        if (toml.Document.Tables.FirstOrDefault(
            table => !IsMember(table) && !DeliveryKeys.IsSchedule(table)) is { } other)
        {
            throw toml.Wrong(other.Span, $"there is no table {other.Name}.", "Write a report as [[report]], a schedule as [[schedule]].");
        }

        List<GroupMember> members = [.. toml.Document.Tables.Where(IsMember).Select(table => MemberOf(toml, table, file.Shelf.Folder))];

        // What is in the groups of a group is known when these are read.
        IReadOnlyList<string>? names = members.Exists(member => member.IsGroup) ? null : [.. members.Select(member => member.Name)];
        var group = new ReportGroup(file.Name, toml.Text(head, "title") ?? file.Name, members)
        {
            Path = file.Path,
            Period = toml.Text(head, "period") ?? DefaultPeriod,
            Basis = toml.Text(head, "basis") is not { } basis || ReportOptions.Basis.Words.Contains(basis) ? toml.Text(head, "basis")
                : throw toml.Wrong(head["basis"].Span, $"there is no basis {basis}.", "Write \"accrual\" or \"cash\"."),
            Notes = toml.Texts(head, "notes"),
            HasCover = toml.Flag(head, "cover", otherwise: true),
            Front = toml.Text(head, "front"),
            HasQuestions = toml.Flag(head, "questions", otherwise: false),
            Formats = toml.Texts(head, "formats"),
            Delivery = DeliveryKeys.Read(toml, head, names),
        };
        if (group.Members.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{file.Path}: the group has no report.",
                "Add one: [[report]], and below it report = \"profit-loss\".");
        }

        group.RefuseTwins(file.Path);
        foreach (var member in group.Members)
        {
            LookFiles.RefuseOutside(member.Options, file);
        }

        return group;
    }

    /// <summary>Whether a table is a report of the group.</summary>
    internal static bool IsMember(TableSyntaxBase table) => table is TableArraySyntax && table.Name?.ToString().Trim() == "report";

    private static GroupMember MemberOf(TomlText toml, TableSyntaxBase table, string folder)
    {
        var values = toml.Known(table.Items, [.. MemberKeys.Select(key => key.Name)]);
        if (toml.Text(values, "group") is { } inner)
        {
            return values.Keys.FirstOrDefault(key => key != "group") is { } other
                ? throw toml.Wrong(values[other].Span, $"{other} is of a report, and here is a group.", $"Write it in the group {inner}.")
                : new GroupMember(
                    inner, inner, "", new Dictionary<string, IReadOnlyList<string>>(), toml.PlaceOf(table.Span))
                { IsGroup = true };
        }

        var report = toml.Text(values, "report")
            ?? throw toml.Wrong(table.Span, "it is not said which report.", "Add a line: report = \"profit-loss\".");
        var name = toml.Text(values, "name") ?? report;
        _ = Naming.Of(toml.PlaceOf(table.Span), () =>
        {
            KeptFile.CheckName(KeptKind.Report, name);
            return name;
        });
        return new GroupMember(
            report, name, toml.Text(values, "note") ?? "",
            ReportFile.OptionsIn(
                toml, values.Where(pair => pair.Key is not ("report" or "name" or "note" or "group")), ReportOptions.All, report, folder),
                toml.PlaceOf(table.Span));
    }
}
