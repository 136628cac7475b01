using System.Collections.Concurrent;
using System.Globalization;
using Tomlyn.Syntax;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books.Kept;

/// <summary>
/// Reads report definitions: files that say which table or which other report they are made from, and which options it has
/// by itself. The standard ones are such files too.
/// </summary>
public static class ReportFile
{
    private const string Folder = "reports/";

    // Each report that is shown is looked for here, and of few is more asked.
    private static readonly Lazy<IReadOnlyList<FileKey>> OwnKeys = new(() =>
    [
        new(
            "from", FileKeyKind.Text,
            "The report or the table that it is made from: profit-loss, postings, or another kept report.") { IsRequired = true },
        new("title", FileKeyKind.Text, "Its title; that of the report which it is made from, where there is none here."),
        new("subject", FileKeyKind.Text, "The subject that vlei reports lists it under."),
        new("question", FileKeyKind.Text, "The question that it answers, for vlei reports."),
        new("asks", FileKeyKind.Text, "The field that a person must choose from each time: it is asked for on a terminal."),
        new("words", FileKeyKind.Texts, "Other words that people look for it by."),
        new("examples", FileKeyKind.Texts, "Options to try, each with what it is for behind a hash between blanks."),
        new("favourite", FileKeyKind.Flag, "Whether it stands first where reports are listed."),
        new("formats", FileKeyKind.Texts, "The formats that it is sent in; PDF, where nothing is said."),
        .. DeliveryKeys.Keys,
    ]);

    private static readonly Lazy<IReadOnlyList<FileKey>> AllKeys = new(() =>
        [.. Own, .. OptionKeys(ReportOptions.All.Except([ReportOptions.Title]))]);

    // Read once: a group of reports is made for hundreds of books.
    private static readonly ConcurrentDictionary<string, ReportDefinition> KnownStandard = new(StringComparer.Ordinal);

    /// <summary>The keys that say what the report is; all others are options of <c>vlei show</c>.</summary>
    public static IReadOnlyList<FileKey> Own => OwnKeys.Value;

    /// <summary>All keys of such a file: its own, and the options of <c>vlei show</c>.</summary>
    public static IReadOnlyList<FileKey> Keys => AllKeys.Value;

    /// <summary>The names of the standard definitions, by subject.</summary>
    public static IReadOnlyList<string> StandardNames => StandardFiles.NamesIn(Folder);

    /// <summary>The keys of a file that are options of reports.</summary>
    public static IEnumerable<FileKey> OptionKeys(IEnumerable<ReportOption> options) => options.Select(option => new FileKey(
        option.Name, option.ValueName is null ? FileKeyKind.Flag : option.Repeatable ? FileKeyKind.Texts : option.ValueName == "N"
            ? FileKeyKind.Number : FileKeyKind.Text,
        $"{option.Explained}.")
    {
        Words = option.OnlyWords ? option.Words : [],
    });

    /// <summary>The standard definition of that name; nothing where there is none.</summary>
    public static ReportDefinition? Standard(string name)
    {
        if (KnownStandard.TryGetValue(name, out var known))
        {
            return known;
        }

        return StandardFiles.TextOf(Folder, name) is not { } text ? null
            : KnownStandard[name] = Read(text, name, name + KeptFile.Ending, Library.Standard, () => [], isStandard: true).Definition;
    }

    /// <summary>
    /// Reads a definition. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.
    /// </summary>
    /// <param name="text">The text of the file.</param>
    /// <param name="key">The key of the report.</param>
    /// <param name="path">The path of the file, for messages.</param>
    /// <param name="sourceOf">The report or table of a name; nothing where there is none.</param>
    /// <param name="known">The names that there are, for messages.</param>
    /// <param name="isStandard">Whether it is one of those that every book has, rather than one that a person wrote.</param>
    public static KeptReport Read(
        string text, string key, string path, Func<string, ReportDefinition?> sourceOf, Func<IEnumerable<string>> known,
        bool isStandard = false)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadData);
        var values = toml.Head(Keys, DeliveryKeys.IsSchedule);
        var from = toml.Text(values, "from") ?? throw toml.Missing("from");
        var source = sourceOf(from) ?? throw toml.Wrong(
            values["from"].Span, $"there is no table and no report {from}.",
            Suggestion.DidYouMean(from, known()) ?? "vlei fields lists the tables, vlei reports the reports.");
        IReadOnlyList<ReportOption> options = source.Table is null || source.Options.Contains(ReportOptions.Detail)
            ? source.Options : [.. source.Options, ReportOptions.Detail];
        var folder = Path.GetDirectoryName(Path.GetDirectoryName(path)) ?? "";
        var own = OptionsIn(
            toml, values.Where(pair => Own.All(word => word.Name != pair.Key)),
            [.. options, .. source.Takes(ReportOptions.Period.Name) ? new[] { ReportOptions.Period } : [],
                .. LookOptions.All], source.Key, folder);
        var title = toml.Text(values, "title") ?? source.Title;
        var isDefault = key == from;
        var asks = toml.Text(values, "asks");
        return new KeptReport(
            new ReportDefinition
            {
                Key = key,
                Title = title,
                Subject = toml.Text(values, "subject") ?? (isDefault ? source.Subject : "Own reports"),
                Question = toml.Text(values, "question") ?? (isDefault ? source.Question : title),
                Words = [.. toml.Texts(values, "words"), .. isDefault ? source.Words : []],
                Options = options,
                Examples = [.. toml.Texts(values, "examples").Select(ExampleOf)],
                Table = source.Table,
                Each = source.Each,
                Asks = asks ?? source.Asks,
                Defaults = Core.RequestText.Kept(source, own, isStandard),
                Build = (context, request) => asks is null || IsNarrowed(request, own)
                    ? source.Build(context, request with { Title = request.Title ?? title }) with { Key = key }
                    : throw new ProblemException(
                        ProblemKind.Usage, $"{key} is of some {asks}, and it is not said which.",
                        $"Add --only {asks}=LIST; vlei fields {source.Table?.Name ?? source.Key}.{asks} --values lists what there is."),
            },
            from, own, toml.Flag(values, "favourite", otherwise: false))
        {
            Delivery = DeliveryKeys.Read(toml, values, [key]),
        };
    }

    // Whether a person chose something, besides what the file says itself.
    private static bool IsNarrowed(ReportRequest request, Dictionary<string, IReadOnlyList<string>> own)
    {
        var itsOwn = own.GetValueOrDefault(ReportOptions.Only.Name, []).Select(text => FieldChoice.Parse(text, isExcept: false).Field);
        return request.Where.Count > 0 || request.Choices.Any(choice => !itsOwn.Contains(choice.Field));
    }

    /// <summary>
    /// The options that keys of a file are. Throws a <see cref="ProblemException"/> where one does not apply, or is not written
    /// as it should be.
    /// </summary>
    /// <param name="toml">The file.</param>
    /// <param name="values">The keys and their values.</param>
    /// <param name="options">The options that apply.</param>
    /// <param name="source">What they apply to, for messages.</param>
    /// <param name="folder">The folder from where the files that it names are seen.</param>
    internal static Dictionary<string, IReadOnlyList<string>> OptionsIn(
        TomlText toml, IEnumerable<KeyValuePair<string, KeyValueSyntax>> values, IReadOnlyList<ReportOption> options, string source,
        string folder) =>
        values.ToDictionary(
            pair => pair.Key, pair => TextsOf(toml, options, source, pair.Key, pair.Value) is var texts && LookFiles.IsOfFile(pair.Key)
            ? [.. texts.Select(file => Path.GetFullPath(Path.Combine(folder, file)))] : texts);

    private static IReadOnlyList<string> TextsOf(
        TomlText toml, IReadOnlyList<ReportOption> options, string source, string name, KeyValueSyntax pair)
    {
        var option = options.FirstOrDefault(known => known.Name == name) ?? throw toml.Wrong(
            pair.Span, $"{name} does not apply to {source}.",
            "It takes "
            + Suggestion.Listed([.. options.Except(LookOptions.All).Select(known => known.Name), "what says how a report looks"], "and")
            + ".");
        IReadOnlyList<string>? texts = (pair.Value, option.ValueName) switch
        {
            (BooleanValueSyntax flag, null) => [flag.Value ? "true" : "false"],
            (BooleanValueSyntax flag, not null) when option.WhenBare is { } bare => [flag.Value ? bare : "none"],
            (FloatValueSyntax number, not null) when option == LookOptions.FontSize =>
                [number.Value.ToString("R", CultureInfo.InvariantCulture)],
            (StringValueSyntax { Value: { } text }, not null) => [text],
            (IntegerValueSyntax number, not null) => [number.Value.ToString(CultureInfo.InvariantCulture)],
            (ArraySyntax array, not null) when array.Items.All(item => item.Value is StringValueSyntax) && option.Repeatable =>
                [.. array.Items.Select(item => ((StringValueSyntax)item.Value!).Value!)],
            _ => null,
        };
        if (texts is null)
        {
            throw toml.Wrong(
                pair.Value!.Span, $"{name} is not written as it should be.",
                option.ValueName is null ? $"Write {name} = true, or leave it out." : option.Repeatable
                    ? $"Write {name} = \"…\", or {name} = [\"…\", \"…\"]." : $"Write {name} = \"…\".");
        }

        try
        {
            _ = LookText.Read(new Dictionary<string, IReadOnlyList<string>> { [name] = texts });
        }
        catch (ProblemException nonsense)
        {
            throw toml.Wrong(pair.Value!.Span, nonsense.Message.TrimStart('-'), nonsense.Advice);
        }

        return texts;
    }

    // An example is its options, a hash between blanks, and what they are for.
    private static (string Options, string Meaning) ExampleOf(string text) =>
        text.Split(" # ", 2) is [var options, var meaning] ? (options, meaning) : (text, "");
}
