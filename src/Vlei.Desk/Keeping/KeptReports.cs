using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Desk.Keeping;

/// <summary>What is asked of a report that is kept.</summary>
/// <param name="Typed">The options that are typed.</param>
/// <param name="Unset">The options and keys that are taken out again.</param>
/// <param name="Descriptions">The keys that say what the report is, with what they say.</param>
public sealed record KeepingOrder(
    IReadOnlyDictionary<string, IReadOnlyList<string>> Typed, IReadOnlyList<string> Unset,
    IReadOnlyList<(string Key, IReadOnlyList<string> Texts)> Descriptions)
{
    /// <summary>The report that it is made from; nothing for the one that was shown last.</summary>
    public string? From { get; init; }

    /// <summary>Whether it is what a standard report shows in the book, rather than a copy of another.</summary>
    public bool IsDefault { get; init; }
}

/// <summary>Keeps reports, and selections, under names: everything that a person wrote into their files stays.</summary>
/// <param name="desk">The book.</param>
public sealed class KeptReports(ReportDesk desk)
{
    private Library Library => desk.Library;

    /// <summary>
    /// Keeps a report, or changes one that is kept. Throws a <see cref="ProblemException"/> where it could not be shown.
    /// Says what was done.
    /// </summary>
    public IReadOnlyList<string> Keep(KeptFile file, KeepingOrder order)
    {
        var (text, own, typed) = Start(file, order);
        var start = Library.Read(file, text);
        ReportDesk.RefuseWhatDoesNotApply(typed.Keys, start.Definition with { Key = start.From });
        var wanted = RequestText.Typeable(RequestText.Merged(own, typed, start.Definition.Table is not null));
        foreach (var name in order.Unset)
        {
            if (ReportFile.Own.Skip(1).Any(key => key.Name == name))
            {
                text = Without(text, file, name);
                continue;
            }

            if (name.IndexOf(':') is > 0 and var colon && Unset(wanted, name[..colon], name[(colon + 1)..]))
            {
                continue;
            }

            _ = own.ContainsKey(name) ? wanted.Remove(name) : throw new ProblemException(
                ProblemKind.Usage, $"{file.Name} has no {name} to take out.",
                own.Count == 0 ? "It has no options of its own." : Suggestion.DidYouMean(name, own.Keys)
                    ?? $"It has {Suggestion.Listed([.. own.Keys], "and")}.");
        }

        text = ReportText.WithOptions(text, file.Path, own, LookFiles.Kept(wanted, file.Shelf.Folder));
        text = order.Descriptions.Aggregate(text, (left, said) =>
            ReportText.With(left, file.Path, ReportFile.Own.First(key => key.Name == said.Key), said.Texts));

        // What cannot be shown is not kept.
        var report = Library.Read(file, text);
        using (var ledger = Books.LedgerReader.Open(desk.Book))
        {
            _ = OpenReport.Build(report.Definition, desk.Read(report.Definition, report.Definition.Defaults), desk.ContextOf(ledger));
        }

        file.Write(text);
        return [$"{file.Path} is kept: vlei show {file.Name}",
            .. KeptFiles.FixedDates(report.Own, desk.Today.Date, desk.Settings.Calendar).Select(AlwaysOf)];
    }

    // only:contact is the one filter of that field; where:1 is the first predicate.
    private static bool Unset(Dictionary<string, IReadOnlyList<string>> wanted, string option, string which)
    {
        var texts = wanted.GetValueOrDefault(option, []);
        IReadOnlyList<string> left =
            [.. texts.Where((text, place) => !text.Split('=')[0].Trim().Equals(which, StringComparison.OrdinalIgnoreCase)
            && which != $"{place + 1}")];
        wanted[option] = left;
        return left.Count < texts.Count;
    }

    /// <summary>Keeps a selection, or changes one that is kept. Says what was done.</summary>
    public static IReadOnlyList<string> KeepSelection(KeptFile file, KeepingOrder order)
    {
        if (order.Typed.Keys.FirstOrDefault(name => SelectionFile.Keys.All(key => key.Name != name)) is { } other)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{other} does not belong to a selection.", "It has --only, --except and --where, and a --title.");
        }

        var text = File.Exists(file.Path) ? file.Read() : $"# --select {file.Name}\n\n";
        foreach (var key in SelectionFile.Keys.Where(key => order.Typed.ContainsKey(key.Name)))
        {
            text = ReportText.With(text, file.Path, key, order.Typed[key.Name]);
        }

        foreach (var (key, texts) in order.Descriptions)
        {
            text = ReportText.With(text, file.Path, SelectionFile.Keys.First(known => known.Name == key), texts);
        }

        text = order.Unset.Aggregate(text, (left, name) => Without(left, file, name));
        _ = SelectionFile.Read(file, text);
        file.Write(text);
        return [$"{file.Path} is kept: --select {file.Name}"];
    }

    private string AlwaysOf((string Option, string Date) asked) => $"Its {asked.Option} is always {asked.Date}"
        + (FixedDates.WordsFor(asked.Date, desk.Today.Date, desk.Settings.Calendar) is { } words
            ? $"; --{asked.Option} {words} is the same today, and moves on." : "; words like last-month move on.");

    // The text to start from, the options that it has, and what is asked: of the file that is changed, of the report that is
    // copied, or of the one that was shown last.
    private (string Text, IReadOnlyDictionary<string, IReadOnlyList<string>> Own,
        IReadOnlyDictionary<string, IReadOnlyList<string>> Typed) Start(
        KeptFile file, KeepingOrder order)
    {
        if (File.Exists(file.Path))
        {
            return order.From is null || order.IsDefault ? (file.Read(), Library.Read(file).Own, order.Typed) : throw new ProblemException(
                ProblemKind.Usage, $"There is a report {file.Name} already: {file.Path}.",
                "Leave --from out to change it, or remove it first.");
        }

        var (from, typed) = (order.From, order.Typed);
        if (from is null)
        {
            var last = RecentReports.Of(desk.Book).FirstOrDefault(shown => shown.Group is null) is { } latest ? latest
                : throw new ProblemException(
                ProblemKind.Usage, "It is not said which report to keep, and none was shown lately.", "Name it: --from profit-loss.");
            var isList = desk.Catalogue.Find(last.Name).Table is not null;
            (from, typed) = (last.Name, RequestText.Typeable(RequestText.Merged(last.Options, typed, isList))
                .Where(pair => pair.Value.Count > 0).ToDictionary());
        }

        if (!order.IsDefault && Library.Find(KeptKind.Report, from) is { } source)
        {
            return (ReportText.Copied(source.Read(), source.Path, source.Name, file.Name), Library.Read(source).Own, typed);
        }

        _ = desk.Catalogue.Find(from);
        return (ReportText.New(file.Name, from), new Dictionary<string, IReadOnlyList<string>>(), typed);
    }

    private static string Without(string text, KeptFile file, string name) =>
        ReportText.Without(text, file.Path, name) is var without && without != text
        ? without : throw new ProblemException(ProblemKind.Usage, $"{file.Name} has no {name} to take out.", "Leave it out.");
}
