using System.Text;
using Tomlyn.Syntax;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>The text of a group's file, as it is written and changed.</summary>
public static class GroupText
{
    /// <summary>A new file, without reports yet.</summary>
    public static string New(string name) => $"""
        # vlei run {name}
        # Keys before the first report are of the group; vlei schema group says what each of them means.

        title = {TomlEdit.Quoted(name)}
        period = "last-month"

        """;

    /// <summary>The text with a report more, at its end.</summary>
    /// <param name="text">The text.</param>
    /// <param name="report">The report.</param>
    /// <param name="name">The name of its files; nothing for the report's own.</param>
    /// <param name="note">What to look at; nothing where nothing is said.</param>
    /// <param name="options">What is asked of it, as texts by the names of options.</param>
    public static string With(
        string text, string report, string? name, string? note, IReadOnlyDictionary<string, IReadOnlyList<string>> options)
    {
        var added = new StringBuilder(text.TrimEnd()).Append("\n\n[[report]]\n");
        Append("report", report);
        Append("name", name);
        Append("note", note);
        return ReportOptions.All.Where(option => options.ContainsKey(option.Name)).Aggregate(added, (lines, option) => lines.Append(
            null, $"{option.Name} = {ReportText.ValueOf(ReportFile.OptionKeys([option]).First(), options[option.Name])}\n")).ToString();

        void Append(string key, string? value) => added.Append(value is null ? "" : $"{key} = {TomlEdit.Quoted(value)}\n");
    }

    /// <summary>The text with another group more, at its end.</summary>
    public static string WithGroup(string text, string group) => $"{text.TrimEnd()}\n\n[[report]]\ngroup = {TomlEdit.Quoted(group)}\n";

    /// <summary>The text with one of its own keys said anew.</summary>
    public static string With(string text, KeptFile file, string key, IReadOnlyList<string> values) =>
        ReportText.With(text, file.Path, GroupFile.Keys.First(known => known.Name == key), values);

    /// <summary>
    /// The text with a report before another. Throws a <see cref="ProblemException"/> where there is none of the one name.
    /// </summary>
    public static string Moved(string text, KeptFile file, string name, string before)
    {
        var (place, other) = (PlaceOf(text, file, name), PlaceOf(text, file, before));
        var (from, to) = SpanOf(text, file, place);
        var moved = text[from..to].TrimEnd() + "\n\n";
        var (at, _) = SpanOf(text, file, other);
        return (place < other ? text[..from] + text[to..at] + moved + text[at..] : text[..at] + moved + text[at..from] + text[to..])
            .TrimEnd() + "\n";
    }

    /// <summary>The text without a report. Throws a <see cref="ProblemException"/> where there is none of that name.</summary>
    public static string Without(string text, KeptFile file, string name)
    {
        var (from, to) = SpanOf(text, file, PlaceOf(text, file, name));
        return text[..from] + text[to..];
    }

    private static int PlaceOf(string text, KeptFile file, string name)
    {
        var members = GroupFile.Read(file, text).Members;
        var place = members.Select(member => member.Name).ToList().IndexOf(name);
        if (place < 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, $"The group has no report {name}.",
                Suggestion.DidYouMean(name, members.Select(member => member.Name))
                    ?? $"It has {Suggestion.Listed([.. members.Select(member => member.Name)], "and")}.");
        }

        return place;
    }

    private static (int From, int To) SpanOf(string text, KeptFile file, int place)
    {
        List<TableSyntaxBase> tables = [.. TomlText.Parse(text, file.Path, ProblemKind.BadData).Document.Tables];
        var at = tables.IndexOf(tables.Where(GroupFile.IsMember).ElementAt(place));
        return (tables[at].Span.Start.Offset, at + 1 < tables.Count ? tables[at + 1].Span.Start.Offset : text.Length);
    }
}
