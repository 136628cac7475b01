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

    /// <summary>The text without a report. Throws a <see cref="ProblemException"/> where there is none of that name.</summary>
    public static string Without(string text, KeptFile file, string name)
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

        List<TableSyntaxBase> tables = [.. TomlText.Parse(text, file.Path, ProblemKind.BadData).Document.Tables];
        var from = tables[place].Span.Start.Offset;
        var to = place + 1 < tables.Count ? tables[place + 1].Span.Start.Offset : text.Length;
        return text[..from] + text[to..];
    }
}
