using System.Globalization;
using System.Text;
using Tomlyn.Parsing;
using Tomlyn.Syntax;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>Reads and writes <c>book.toml</c>. Whatever is not understood is refused, with its place in the file.</summary>
internal static class BookFile
{
    private static readonly string[] Keys = ["name", "currency", "fiscal-year-start", "basis", "today"];

    /// <summary>Reads the file. Throws a <see cref="ProblemException"/> where it is not as it should be.</summary>
    public static BookSettings Read(string path)
    {
        var document = SyntaxParser.Parse(File.ReadAllText(path), path);
        if (document.HasErrors)
        {
            var first = document.Diagnostics.First();
            throw Wrong(path, first.Span, first.Message, "Write it as TOML has it: key = \"value\".");
        }

        if (document.Tables.FirstOrDefault() is { } table)
        {
            throw Wrong(path, table.Span, $"there is no table [{table.Name}].", $"Expected {Suggestion.Listed(Keys, "and")}.");
        }

        var values = document.KeyValues.ToDictionary(
            pair => pair.Key!.ToString().Trim(), pair => pair, StringComparer.Ordinal);
        foreach (var (key, pair) in values)
        {
            if (!Keys.Contains(key))
            {
                throw Wrong(
                    path, pair.Span, $"there is no key {key}.",
                    Suggestion.DidYouMean(key, Keys) ?? $"Expected {Suggestion.Listed(Keys, "and")}.");
            }
        }

        return new BookSettings(
            Text(path, values, "name") ?? throw Missing(path, "name"),
            CurrencyOf(path, values),
            new FiscalCalendar(StartMonth(path, values)),
            BasisOf(path, values),
            Today(path, values));
    }

    /// <summary>The text of a new file.</summary>
    public static string Write(BookSettings settings)
    {
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"""
            # What this book is. Lines that start with # are notes.

            name = {Quoted(settings.Name)}
            currency = "{settings.Currency.Code}"

            # The month, 1 to 12, on whose first day the fiscal year starts.
            fiscal-year-start = {settings.Calendar.StartMonth}

            # accrual: when it is invoiced; cash: when it is paid. Reports can be told otherwise.
            basis = "{AccountingBases.NameOf(settings.Basis)}"

            """);
        if (settings.Today is { } today)
        {
            text.Append(CultureInfo.InvariantCulture, $"""

                # Words like last-month are worked out from this day. Take the line out to use the clock.
                today = {today:yyyy-MM-dd}

                """);
        }

        return text.ToString();
    }

    private static string Quoted(string text)
    {
        var quoted = new StringBuilder("\"");
        foreach (var character in text)
        {
            quoted.Append(character switch
            {
                '"' => "\\\"",
                '\\' => "\\\\",
                < ' ' or '\u007f' => $"\\u{(int)character:X4}",
                _ => character.ToString(),
            });
        }

        return quoted.Append('"').ToString();
    }

    private static Currency CurrencyOf(string path, Dictionary<string, KeyValueSyntax> values)
    {
        var code = Text(path, values, "currency") ?? throw Missing(path, "currency");
        return Currency.TryFind(code, out var currency)
            ? currency
            : throw Wrong(
                path, values["currency"].Value!.Span, $"\"{code}\" is no currency.",
                Suggestion.DidYouMean(code, Currency.Codes) ?? "Write its ISO 4217 code, as ZAR.");
    }

    private static int StartMonth(string path, Dictionary<string, KeyValueSyntax> values) =>
        !values.TryGetValue("fiscal-year-start", out var pair) ? 1
        : pair.Value is IntegerValueSyntax { Value: >= 1 and <= 12 } month ? (int)month.Value
        : throw Wrong(path, pair.Value!.Span, "fiscal-year-start is no month.", "Write a number from 1 to 12.");

    private static AccountingBasis BasisOf(string path, Dictionary<string, KeyValueSyntax> values) =>
        Text(path, values, "basis") switch
        {
            null or "accrual" => AccountingBasis.Accrual,
            "cash" => AccountingBasis.Cash,
            _ => throw Wrong(path, values["basis"].Value!.Span, "there is no such basis.", "Write \"accrual\" or \"cash\"."),
        };

    private static DateOnly? Today(string path, Dictionary<string, KeyValueSyntax> values)
    {
        if (!values.TryGetValue("today", out var pair))
        {
            return null;
        }

        var text = pair.Value!.ToString().Trim().Trim('"');
        return IsoText.TryDay(Encoding.UTF8.GetBytes(text), out var day)
            ? day
            : throw Wrong(path, pair.Value.Span, "today is no day.", "Write a day as 2026-06-30.");
    }

    private static string? Text(string path, Dictionary<string, KeyValueSyntax> values, string key) =>
        !values.TryGetValue(key, out var pair) ? null
        : pair.Value is StringValueSyntax { Value: { Length: > 0 } text } ? text
        : throw Wrong(path, pair.Value!.Span, $"{key} is no text.", $"Write it in quotes: {key} = \"…\".");

    private static ProblemException Missing(string path, string key) => new(
        ProblemKind.BadConfiguration, $"{path}: the key {key} is missing.", $"Add a line: {key} = \"…\".");

    private static ProblemException Wrong(string path, SourceSpan at, string message, string advice) => new(
        ProblemKind.BadConfiguration, $"{path}:{at.Start.Line + 1}:{at.Start.Column + 1}: {message}", advice);
}
