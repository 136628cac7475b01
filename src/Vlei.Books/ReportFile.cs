using Tomlyn.Syntax;
using Vlei.Core;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Books;

/// <summary>
/// Reads report definitions: files that say which table or which other report they are made from, and which options it has
/// by itself. The standard ones are such files too.
/// </summary>
public static class ReportFile
{
    private const string Ending = ".toml";
    private const string Folder = "reports/";

    private static readonly string[] Own = ["from", "title", "subject", "question", "words", "examples"];

    /// <summary>The names of the standard definitions, by subject.</summary>
    public static IReadOnlyList<string> StandardNames { get; } =
        [.. typeof(ReportFile).Assembly.GetManifestResourceNames().Where(name => name.StartsWith(Folder, StringComparison.Ordinal))
            .Select(name => Path.GetFileNameWithoutExtension(name)).Order(StringComparer.Ordinal)];

    /// <summary>The standard definition of that name; nothing where there is none.</summary>
    public static ReportDefinition? Standard(string name)
    {
        using var standard = typeof(ReportFile).Assembly.GetManifestResourceStream($"{Folder}{name}{Ending}");
        if (standard is null)
        {
            return null;
        }

        using var reader = new StreamReader(standard);
        return Read(reader.ReadToEnd(), name, name + Ending);
    }

    /// <summary>
    /// Reads a definition. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.
    /// </summary>
    /// <param name="text">The text of the file.</param>
    /// <param name="key">The key of the report.</param>
    /// <param name="path">The path of the file, for messages.</param>
    public static ReportDefinition Read(string text, string key, string path)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadData);
        var values = toml.Known(toml.Document.KeyValues, [.. Own, .. ReportOptions.All.Select(option => option.Name)]);
        if (toml.Document.Tables.FirstOrDefault() is { } table)
        {
            throw toml.Wrong(table.Span, $"there is no table {table.Name}.", "Write every option as a line of its own, without brackets around a name.");
        }

        var from = toml.Text(values, "from") ?? throw toml.Missing("from");
        var source = StandardReports.Find(from) ?? throw toml.Wrong(
            values["from"].Span, $"there is no table and no report {from}.",
            Suggestion.DidYouMean(from, StandardReports.All.Select(report => report.Key)) ?? "vlei fields lists the tables, vlei reports the reports.");
        IReadOnlyList<ReportOption> options = source.Table is null ? source.Options : [.. source.Options, ReportOptions.Detail];
        var defaults = values.Where(pair => !Own.Contains(pair.Key)).ToDictionary(pair => pair.Key, pair => TextsOf(toml, options, source.Key, pair.Value));
        var title = toml.Text(values, "title") ?? throw toml.Missing("title");
        return new ReportDefinition
        {
            Key = key,
            Title = title,
            Subject = toml.Text(values, "subject") ?? "Own reports",
            Question = toml.Text(values, "question") ?? title,
            Words = toml.Texts(values, "words"),
            Options = options,
            Examples = [.. toml.Texts(values, "examples").Select(ExampleOf)],
            Table = source.Table,
            Defaults = defaults,
            Build = (context, request) => source.Table is { } of
                ? TableReport.Build(key, title, of, context, request)
                : source.Build(context, request with { Title = request.Title ?? title }) with { Key = key },
        };
    }

    private static IReadOnlyList<string> TextsOf(TomlText toml, IReadOnlyList<ReportOption> options, string source, KeyValueSyntax pair)
    {
        var name = pair.Key!.ToString().Trim();
        var option = options.FirstOrDefault(known => known.Name == name) ?? throw toml.Wrong(
            pair.Span, $"{name} does not apply to {source}.", $"It takes {Suggestion.Listed([.. options.Select(known => known.Name)], "and")}.");
        IReadOnlyList<string>? texts = (pair.Value, option.ValueName) switch
        {
            (BooleanValueSyntax flag, null) => [flag.Value ? "true" : "false"],
            (StringValueSyntax { Value: { } text }, not null) => [text],
            (IntegerValueSyntax number, not null) => [$"{number.Value}"],
            (ArraySyntax array, not null) when array.Items.All(item => item.Value is StringValueSyntax) && option.Repeatable =>
                [.. array.Items.Select(item => ((StringValueSyntax)item.Value!).Value!)],
            _ => null,
        };
        return texts ?? throw toml.Wrong(
            pair.Value!.Span, $"{name} is not written as it should be.",
            option.ValueName is null ? $"Write {name} = true, or leave it out." : option.Repeatable ? $"Write {name} = \"…\", or {name} = [\"…\", \"…\"]." : $"Write {name} = \"…\".");
    }

    // An example is its options, a hash between blanks, and what they are for.
    private static (string Options, string Meaning) ExampleOf(string text) =>
        text.Split(" # ", 2) is [var options, var meaning] ? (options, meaning) : (text, "");
}
