using System.Text;
using Tomlyn.Syntax;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records.Cells;
using Vlei.Records.Maps;

namespace Vlei.Desk.Maps;

/// <summary>Reads maps: <c>maps/NAME.toml</c>.</summary>
public static class MapFile
{
    private const string Customers = "customers";
    private const string Suppliers = "suppliers";
    private const string Movements = "movements";
    private const string Balances = "balances";

    /// <summary>The keys above the tables.</summary>
    public static IReadOnlyList<FileKey> Keys { get; } =
    [
        new(
            "shape", FileKeyKind.Text, "What a row of the file is.") { IsRequired = true,
            Words = [.. Shape.All.Select(shape => shape.Name)] },
        new("sheet", FileKeyKind.Text, "The sheet of a workbook; without it, the one whose headings fit."),
        new("encoding", FileKeyKind.Text, "The encoding of a text.") { Words = TextDialect.Encodings },
        new("separator", FileKeyKind.Text, "What stands between two values of a text."),
        new("dates", FileKeyKind.Text, "The order of the parts of a day, whatever stands between them.")
        {
            Words = ["year-month-day", "day-month-year", "month-day-year", "serial"],
        },
        new("decimal-mark", FileKeyKind.Text, "A point or a comma; the other one may stand between thousands.") { Words = [".", ","] },
        new("documents", FileKeyKind.Text, "How lines are put together into documents.") { Words = SourceMap.Groupings },
        new("prefix", FileKeyKind.Text, "What ids of documents begin with, so that two files with the same numbers do not mix."),
        new("with", FileKeyKind.Text, "Whom the documents or payments are with.") { Words = [Customers, Suppliers] },
        new("signs", FileKeyKind.Text, "What a positive amount is, where there are no columns for debits and credits.")
        {
            Words = SourceMap.SignNames,
        },
        new("figures", FileKeyKind.Text, "What the months of a grid have: what moved in them, or balances at their ends.")
        {
            Words = [Movements, Balances],
        },
        new("day", FileKeyKind.Text, "The day of a trial balance, where its title does not say it: 2026-03-31."),
        .. SourceMap.Purposes.Select(purpose => new FileKey(
            purpose, FileKeyKind.Text,
            $"The account for {(purpose == "money" ? "money" : purpose == "opening" ? "what was there before" : purpose)}, "
                + "where rows do not name one: a code, or a code and a name.")),
    ];

    /// <summary>The tables, with what each says.</summary>
    public static IReadOnlyList<FileKey> Tables { get; } =
    [
        new(
            "columns", FileKeyKind.Text,
            "Which column is what: the role, and the heading of the column (\"column 3\" where there are none).")
        {
            IsRequired = true, Words = [.. ColumnRole.All.Select(role => role.Name)],
        },
        new("tags", FileKeyKind.Text, "Columns that are kept as tags: the name of the tag, and the heading."),
        new("types", FileKeyKind.Text, "Types of accounts: a word of the file, a code or a name, and the type."),
        new("accounts", FileKeyKind.Text, "Which account is meant: what stands in the file, and the code in the book."),
        new("contacts", FileKeyKind.Text, "Which contact is meant: what stands in the file, and the id in the book."),
        new("proof", FileKeyKind.Text, "Control totals by hand: a column, or documents, and what it must come to."),
    ];

    /// <summary>Reads one. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.</summary>
    public static SourceMap Read(KeptFile file) => Read(file.Read(), file.Name, file.Path);

    /// <summary>The same from a text.</summary>
    /// <param name="text">The text.</param>
    /// <param name="name">The name of the map.</param>
    /// <param name="path">Where it is kept.</param>
    public static SourceMap Read(string text, string name, string path)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadData);
        var head = toml.Known(toml.Document.KeyValues, [.. Keys.Select(key => key.Name)]);
        var lines = Undecided(text);
        foreach (var (key, pair) in head)
        {
            lines[key] = pair.Span.Start.Line + 1;
        }

        var tables = new Dictionary<string, Dictionary<string, string>>();
        foreach (var table in toml.Document.Tables)
        {
            Take(toml, table, tables, lines);
        }

        var columns = tables.GetValueOrDefault("columns") ?? throw toml.Missing("[columns]");
        return new SourceMap
        {
            Name = name,
            Path = path,
            Shape = Shape.All.First(shape => shape.Name == (Word("shape") ?? throw toml.Missing("shape"))),
            Columns = columns.ToDictionary(column => ColumnRole.Find(column.Key)!, column => column.Value),
            Tags = Table("tags"),
            Sheet = toml.Text(head, "sheet"),
            Encoding = Word("encoding"),
            Separator = toml.Text(head, "separator") is { } separator ? separator.Length == 1 && separator[0] < 128 ? separator[0]
                : throw toml.Wrong(
                    head["separator"].Span, $"\"{separator}\" is no separator.", "Write one character: \";\" or \"\\t\".") : null,
            Dates = Word("dates") is { } dates ? (DateOrder)Place("dates", dates) : null,
            DecimalMark = Word("decimal-mark")?[0],
            Grouping = Word("documents") is { } grouping ? (DocumentGrouping)Place("documents", grouping) : DocumentGrouping.Number,
            Prefix = toml.Text(head, "prefix") ?? "",
            IsPurchase = Word("with") == Suppliers,
            Signs = Word("signs") is { } signs ? (AmountSigns)Place("signs", signs) : AmountSigns.Debit,
            HasBalances = Word("figures") == Balances,
            Day = toml.Text(head, "day") is { } day ? IsoText.TryDay(Encoding.UTF8.GetBytes(day), out var known) ? known
                : throw toml.Wrong(head["day"].Span, $"\"{day}\" is no day.", "Write a day as 2026-03-31.") : null,
            Posting = SourceMap.Purposes.Where(head.ContainsKey).ToDictionary(purpose => purpose, purpose => toml.Text(head, purpose)!),
            Types = Table("types"),
            Accounts = Table("accounts"),
            Contacts = Table("contacts"),
            Proof = Table("proof"),
            Lines = lines,
        };

        IReadOnlyDictionary<string, string> Table(string key) => tables.GetValueOrDefault(key) ?? [];
        int Place(string key, string word) => Keys.First(known => known.Name == key).Words.ToList().IndexOf(word);
        string? Word(string key)
        {
            var words = Keys.First(known => known.Name == key).Words;
            return toml.Text(head, key) is not { } word || words.Contains(word) ? toml.Text(head, key) : throw toml.Wrong(
                head[key].Span, $"{key} is not \"{word}\".", Suggestion.DidYouMean(word, words)
                    ?? $"It is {Suggestion.Listed(words, "or")}.");
        }
    }

    // Lines of keys that are not decided stand there as comments.
    private static Dictionary<string, long> Undecided(string text)
    {
        var lines = new Dictionary<string, long>();
        foreach (var (number, line) in text.Split('\n').Index())
        {
            foreach (var key in Keys.Where(key => line.StartsWith($"# {key.Name} = ", StringComparison.Ordinal)))
            {
                lines.TryAdd(key.Name, number + 1);
            }
        }

        return lines;
    }

    private static void Take(
        TomlText toml, TableSyntaxBase table, Dictionary<string, Dictionary<string, string>> tables, Dictionary<string, long> lines)
    {
        var name = table.Name!.ToString().Trim();
        var known = Tables.FirstOrDefault(known => known.Name == name) ?? throw toml.Wrong(
            table.Span, $"there is no table {name}.",
            Suggestion.DidYouMean(name, Tables.Select(table => table.Name))
            ?? $"Expected {Suggestion.Listed([.. Tables.Select(table => table.Name)], "or")}.");
        var values = new Dictionary<string, string>();
        if (!tables.TryAdd(name, values))
        {
            throw toml.Wrong(table.Span, $"the table {name} is there twice.", "Put both into one.");
        }

        foreach (var pair in table.Items.OfType<KeyValueSyntax>())
        {
            var key = KeyOf(pair);
            if (known.Words.Count > 0 && !known.Words.Contains(key))
            {
                throw toml.Wrong(
                    pair.Span, $"nothing is taken as {key}.",
                    Suggestion.DidYouMean(key, known.Words) ?? $"Expected {Suggestion.Listed(known.Words, "or")}.");
            }

            if (pair.Value is not StringValueSyntax { Value: { Length: > 0 } text } || !values.TryAdd(key, text))
            {
                throw toml.Wrong(pair.Span, $"{key} is no text, or is there twice.", $"Write it once, in quotes: {key} = \"…\".");
            }

            if (name == "types" && !AccountTypes.Names.Contains(text))
            {
                throw toml.Wrong(
                    pair.Value.Span, $"\"{text}\" is no type of account.",
                    Suggestion.DidYouMean(text, AccountTypes.Names) ?? $"It is {Suggestion.Listed(AccountTypes.Names, "or")}.");
            }

            lines[key] = pair.Span.Start.Line + 1;
        }
    }

    private static string KeyOf(KeyValueSyntax pair) =>
        pair.Key!.Key is StringValueSyntax { Value: { } quoted } ? quoted : pair.Key.ToString().Trim();
}
