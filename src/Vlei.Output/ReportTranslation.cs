using Vlei.Core.Fields;
using Vlei.Core.Languages;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// A report in another language: what the program says, as titles, headings and totals. What the records say, as the names of
/// accounts, stays as it is.
/// </summary>
internal static class ReportTranslation
{
    private const string TagPrefix = "tag.";
    private const string TypeKey = "type";

    // Columns whose words are ours: what documents, accounts and findings are, and why.
    private static readonly HashSet<string> OurWords =
        ["kind", "status", "state", "side", "type", "direction", "reason", "remark", "action", "promise", "low-point"];

    /// <summary>Translates a report.</summary>
    public static Report Of(Report report, Language language, NumberLook numbers)
    {
        string Say(string english) => numbers.WithDays(language.Say(english));
        var ours = report.Columns.Select(column => !column.Key.StartsWith(TagPrefix, StringComparison.Ordinal)
            && OurWords.Contains(column.Key.Split('.')[^1])).ToArray();
        var speaksEnglish = language == Language.English;
        return report with
        {
            Title = Say(report.Title),
            PeriodInWords = Say(report.PeriodInWords),
            Columns = [.. report.Columns.Select(column => column with { Heading = Say(column.Heading) })],
            Rows = speaksEnglish ? report.Rows : new RowList(report.Rows.Count, place => RowOf(report.Rows[place])),
            Checks = [.. report.Checks.Select(check => check with { Name = Say(check.Name), Column = Say(check.Column) })],
            Narrowed = [.. report.Narrowed.Select(line => speaksEnglish ? Say(line) : NarrowedIn(line, language, Say))],
            Notes = [.. report.Notes.Select(Say)],
            Foot = [.. report.Foot.Select(Say)],
        };

        // Some words mean something else where they say what an account is: income in "Share of income", expense as a document.
        string WordOf(int column, string word) => report.Columns[column].Key.EndsWith(TypeKey, StringComparison.Ordinal)
            && language.Knows($"{TypeKey} {word}") ? language.Say($"{TypeKey} {word}") : Say(word);

        ReportRow RowOf(ReportRow row) => row with
        {
            Label = row.Caption?.In(language, numbers.WithDays) ?? (RowLook.Of(row).IsStrong ? Say(row.Label) : row.Label),
            Cells = Array.TrueForAll(ours, isOurs => !isOurs) ? row.Cells
                : [
                    .. row.Cells.Select(
                        (cell, place) => ours[place] && cell.Words is { } words ? cell with { Words = WordOf(place, words) } : cell)],
        };
    }

    // Which field it is about stands as columns of it are headed; values are the records', but for those that are ours.
    private static string NarrowedIn(string line, Language language, Func<string, string> say)
    {
        var words = line.Split(' ', 3);
        if (words is not ["Only" or "Without", var field, var values] || field.StartsWith(TagPrefix, StringComparison.Ordinal))
        {
            return say(line);
        }

        var names = field.Split('.').Select(part => language.Say(
            $"{char.ToUpperInvariant(part[0])}{part[1..].Replace('-', ' ')}"));
        var isOurs = OurWords.Contains(field.Split('.')[^1]);
        var said = values.Split(", ").Select(value => isOurs || value == FieldNames.None ? say(value) : value);
        return language.Say($"{words[0]} {{0}}", [$"{string.Join(' ', names)} {string.Join(", ", said)}"]);
    }
}
