using System.Globalization;
using System.Text;
using Tomlyn.Syntax;
using Vlei.Books.Kept;
using Vlei.Books.Store.Postgres;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Books;

/// <summary>Reads and writes <c>book.toml</c>. Whatever is not understood is refused, with its place in the file.</summary>
internal static class BookFile
{
    private static readonly string[] Keys =
        ["name", "currency", "fiscal-year-start", "basis", "clock", "language", "remittance", "settle", "library", Store];

    private const string Store = "store";
    private const string OldestFirst = "oldest-first";
    private const string LookTable = "look";

    // The language is said above, for all that is sent.
    private static readonly ReportOption[] Looks = [.. LookOptions.All.Except([LookOptions.Language])];

    /// <summary>Reads the file. Throws a <see cref="ProblemException"/> where it is not as it should be.</summary>
    public static BookSettings Read(string path) => Parse(File.ReadAllText(path), path);

    /// <summary>
    /// Reads a text as it stands in such a file. Throws a <see cref="ProblemException"/> where it is not as it should be.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="path">Where it is, or would be.</param>
    public static BookSettings Parse(string text, string path)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadConfiguration);
        if (toml.Document.Tables.FirstOrDefault(
            table => table is not TableSyntax || table.Name?.ToString().Trim() != LookTable) is { } other)
        {
            throw toml.Wrong(
                other.Span, $"there is no table [{other.Name}].",
                $"Expected {Suggestion.Listed(Keys, "and")}, and below them [{LookTable}].");
        }

        var values = toml.Known(toml.Document.KeyValues, Keys);
        return new BookSettings(
            toml.Text(values, "name") ?? throw toml.Missing("name"),
            CurrencyOf(toml, values),
            new FiscalCalendar(StartMonth(toml, values)),
            BasisOf(toml, values),
            Clock(toml, values))
        {
            Remittance = toml.Text(values, "remittance") ?? "",
            Language = toml.Text(values, "language") ?? "en",
            Look = LookOf(toml, Path.GetDirectoryName(path)!),
            Library = toml.Text(values, "library"),
            Store = StoreOf(toml, values),
            SettlesOldestFirst = toml.Text(values, "settle") switch
            {
                null => false,
                OldestFirst => true,
                _ => throw toml.Wrong(
                    values["settle"].Value!.Span, "there is no such way to settle.",
                    $"Write \"{OldestFirst}\", or take the line out: then the settlements of the records count."),
            },
        };
    }

    /// <summary>The text of a new file.</summary>
    public static string Write(BookSettings settings)
    {
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"""
            # What this book is. Lines that start with # are notes.

            name = {TomlEdit.Quoted(settings.Name)}
            currency = "{settings.Currency.Code}"

            # The month, 1 to 12, on whose first day the fiscal year starts.
            fiscal-year-start = {settings.Calendar.StartMonth}

            # accrual: when it is invoiced; cash: when it is paid. Reports can be told otherwise.
            basis = "{AccountingBases.NameOf(settings.Basis)}"

            """);
        if (settings.Clock is { } clock)
        {
            text.Append(CultureInfo.InvariantCulture, $"""

                # What day it is in this book: words like last-month start from it, and what is done is dated by it. Without this line it
                # is what the computer says.
                clock = {clock:yyyy-MM-dd}

                """);
        }

        if (settings.Remittance.Length > 0)
        {
            text.Append(CultureInfo.InvariantCulture, $"""

                # How customers pay; it stands at the foot of their statements of account.
                remittance = {TomlEdit.Quoted(settings.Remittance)}

                """);
        }

        if (settings.Library is { } library)
        {
            text.Append(CultureInfo.InvariantCulture, $"""

                # A folder of reports, selections, groups and layouts that this book shares with others.
                library = {TomlEdit.Quoted(library)}

                """);
        }

        if (settings.Store is { } store)
        {
            text.Append(CultureInfo.InvariantCulture, $"""

                # Where on a server its records are. A password never stands here.
                {Store} = {TomlEdit.Quoted(store)}

                """);
        }

        return text.ToString();
    }

    /// <summary>The text of such a file without saying where the records are.</summary>
    public static string WithoutStore(string text) => string.Join('\n', text.Split('\n').Where(line => !SaysStore(line)));

    // The key itself, and no text that begins with the same letters.
    private static bool SaysStore(string line) => line.TrimStart() is var own && own.StartsWith(Store, StringComparison.Ordinal)
        && own[Store.Length..].TrimStart().StartsWith('=');

    private static string? StoreOf(TomlText toml, Dictionary<string, KeyValueSyntax> values)
    {
        var text = toml.Text(values, Store);
        try
        {
            return text is null ? null : PostgresAddress.Parse(text).OfBook() is not null ? text : null;
        }
        catch (ProblemException wrong) when (wrong.Kind == ProblemKind.Usage)
        {
            throw toml.Wrong(values[Store].Value!.Span, wrong.Message, wrong.Advice);
        }
    }

    private static Currency CurrencyOf(TomlText toml, Dictionary<string, KeyValueSyntax> values)
    {
        var code = toml.Text(values, "currency") ?? throw toml.Missing("currency");
        return Currency.TryFind(code, out var currency)
            ? currency
            : throw toml.Wrong(values["currency"].Value!.Span, $"\"{code}\" is no currency.",
                Suggestion.DidYouMean(code, Currency.Codes) ?? "Write its ISO 4217 code, as ZAR.");
    }

    private static int StartMonth(TomlText toml, Dictionary<string, KeyValueSyntax> values) =>
        !values.TryGetValue("fiscal-year-start", out var pair) ? 1
        : pair.Value is IntegerValueSyntax { Value: >= 1 and <= 12 } month ? (int)month.Value
        : throw toml.Wrong(pair.Value!.Span, "fiscal-year-start is no month.", "Write a number from 1 to 12.");

    private static AccountingBasis BasisOf(TomlText toml, Dictionary<string, KeyValueSyntax> values) =>
        toml.Text(values, "basis") switch
        {
            null or "accrual" => AccountingBasis.Accrual,
            "cash" => AccountingBasis.Cash,
            _ => throw toml.Wrong(values["basis"].Value!.Span, "there is no such basis.", "Write \"accrual\" or \"cash\"."),
        };

    private static Dictionary<string, IReadOnlyList<string>> LookOf(TomlText toml, string folder)
    {
        var pairs = toml.Document.Tables.SelectMany(table => table.Items).ToList();
        return ReportFile.OptionsIn(toml, toml.Known(pairs, [.. Looks.Select(option => option.Name)]), Looks, $"[{LookTable}]", folder);
    }

    private static DateOnly? Clock(TomlText toml, Dictionary<string, KeyValueSyntax> values)
    {
        if (!values.TryGetValue("clock", out var pair))
        {
            return null;
        }

        var text = pair.Value!.ToString().Trim().Trim('"');
        return IsoText.TryDay(Encoding.UTF8.GetBytes(text), out var day)
            ? day
            : throw toml.Wrong(pair.Value.Span, "clock is no day.", "Write a day as 2026-06-30.");
    }
}
