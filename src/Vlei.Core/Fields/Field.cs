using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>Something that postings can be told apart by.</summary>
/// <param name="Name">Its name as people type it.</param>
/// <param name="Meaning">What it is, in a line.</param>
/// <param name="Read">Its values in a book.</param>
public sealed record Field(string Name, string Meaning, Func<ILedger, FieldValues> Read)
{
    /// <summary>What the name of every tag begins with.</summary>
    public const string TagPrefix = "tag.";

    /// <summary>What stands for "has none".</summary>
    public const string None = "none";

    private static readonly PostingField[] Tagged =
        [PostingField.Item, PostingField.Project, PostingField.Department, PostingField.Contact];

    /// <summary>Whether the values of a field of that name are chosen by their names, rather than by their ids.</summary>
    public static bool IsNameOf(string field) => field.EndsWith(".name", StringComparison.OrdinalIgnoreCase);

    /// <summary>All fields but the tags, which every book has its own of.</summary>
    public static IReadOnlyList<Field> All { get; } =
    [
        new("account", "The account, by its code", Accounts),
        new("account.name", "The name of the account", Accounts),
        new("account.type", "The type of the account", ledger => AccountWords(
            ledger, AccountTypes.Names, account => (int)account.Type)),
        new("account.cash-flow", "Where the cash flow shows the account: operating, investing or financing", ledger => AccountWords(
            ledger, ["operating", "investing", "financing"], account => (int)account.Activity)),
        .. Referring("contact", PostingField.Contact),
        .. Referring("project", PostingField.Project),
        .. Referring("department", PostingField.Department),
        .. Referring("item", PostingField.Item),
        new("kind", "The kind of the document", Kinds),
    ];

    /// <summary>The fields that a statement can have a column per value of; beside them the tags.</summary>
    public static IReadOnlyList<string> Spreading { get; } = ["project", "department", "contact", "item"];

    /// <summary>The field of that name. Throws a <see cref="ProblemException"/> that names the nearest where there is none.</summary>
    /// <param name="name">The name, in any case.</param>
    /// <param name="ledger">The book.</param>
    /// <param name="others">Other names that are known where it is asked for.</param>
    public static Field Named(string name, ILedger ledger, params IReadOnlyList<string> others)
    {
        if (!name.StartsWith(TagPrefix, StringComparison.OrdinalIgnoreCase))
        {
            return All.FirstOrDefault(field => field.Name.Equals(name, StringComparison.OrdinalIgnoreCase)) ?? OfRelated(name)
                ?? throw new ProblemException(
                    ProblemKind.Usage, $"There is no field {name}.",
                    Suggestion.DidYouMean(name, All.Select(field => field.Name).Concat(others))
                    ?? $"There are {Suggestion.Listed([.. All.Select(field => field.Name), "tag.NAME", .. others], "and")}.");
        }

        var tag = name[TagPrefix.Length..];
        var known = TagsIn(ledger).ToList();
        return known.Contains(tag)
            ? new Field($"{TagPrefix}{tag}", $"The tag {tag}", book => TagsOf(book, tag))
            : throw new ProblemException(
                ProblemKind.NotFound, $"No record has a tag {tag}.",
                Suggestion.DidYouMean(tag, known) ?? (known.Count == 0
                    ? "The records have no tags at all."
                    : $"There are {Suggestion.Listed(known, "and")}."));
    }

    // Whatever is said in words of a record that postings refer to, as tables know it: contact.kind, item.unit.
    private static Field? OfRelated(string name)
    {
        if (name.Split('.') is not [var relation, var part]
            || Related.FirstOrDefault(known => known.Name.Equals(relation, StringComparison.OrdinalIgnoreCase)) is not { Table: { } table, Column: var column }
            || table.Fields.FirstOrDefault(field => field.Name.Replace('_', '-').Equals(part, StringComparison.OrdinalIgnoreCase)) is not { } record
            || record.Type is FieldType.Decimal or FieldType.Integer)
        {
            return null;
        }

        return new Field(name.ToLowerInvariant(), record.Meaning, ledger => new RelatedRecords(ledger).Whole(table, record) is { Pool: { } pool } cells
            ? new FieldValues(
                [NoValue, .. Enumerable.Range(1, pool.Words.Count - 1).Select(number => new FieldValue(pool.Ids[number], pool.Names[number]))],
                [(column, [.. cells.Numbers.Select(number => (int)number)])])
            : throw new InvalidOperationException($"{name} has no words."));
    }

    private static readonly (string Name, RecordTable Table, PostingField Column)[] Related =
    [
        ("account", RecordTables.Accounts, PostingField.Account), ("contact", RecordTables.Contacts, PostingField.Contact),
        ("item", RecordTables.Items, PostingField.Item), ("project", RecordTables.Projects, PostingField.Project),
        ("department", RecordTables.Departments, PostingField.Department),
    ];

    private static IEnumerable<Field> Referring(string name, PostingField column) =>
    [
        new(name, $"The {name}, by its id", ledger => RecordsOf(ledger, column)),
        new($"{name}.name", $"The name of the {name}", ledger => RecordsOf(ledger, column)),
    ];

    private static FieldValues Accounts(ILedger ledger)
    {
        var codes = ledger.Accounts.ToDictionary(account => account.Key, account => account.Code);
        return Of(PostingField.Account, ledger.Accounts, account => account.Key, account => new FieldValue(
            account.Code, account.Name, account.ParentKey is { } parent ? codes[parent] : null));
    }

    private static FieldValues AccountWords(ILedger ledger, IReadOnlyList<string> words, Func<Account, int> wordOf)
    {
        var places = new int[ledger.Accounts.Select(account => account.Key).DefaultIfEmpty(0).Max() + 1];
        foreach (var account in ledger.Accounts)
        {
            places[account.Key] = wordOf(account) + 1;
        }

        return new FieldValues(
            [NoValue, .. words.Select(word => new FieldValue(word, word))], [(PostingField.Account, places)]);
    }

    private static FieldValues RecordsOf(ILedger ledger, PostingField column) => Of(
        column, ledger.Records(column), record => record.Key, record => new FieldValue(record.Id, record.Name));

    private static FieldValues Kinds(ILedger ledger) => Of(
        PostingField.Kind, DocumentKinds.Names, DocumentKinds.NumberOf, name => new FieldValue(name, name));

    private static FieldValue NoValue => new(None, "none");

    private static FieldValues Of<T>(
        PostingField column, IReadOnlyList<T> records, Func<T, int> keyOf, Func<T, FieldValue> valueOf)
    {
        var places = new int[records.Select(keyOf).DefaultIfEmpty(0).Max() + 1];
        for (var place = 0; place < records.Count; place++)
        {
            places[keyOf(records[place])] = place + 1;
        }

        return new FieldValues([NoValue, .. records.Select(valueOf)], [(column, places)]);
    }

    // The nearest record that has the tag says it: the line or its document, then what the line is about, then its account.
    private static FieldValues TagsOf(ILedger ledger, string tag)
    {
        var values = AllTags(ledger).Select(tags => tags.GetValueOrDefault(tag)).OfType<string>()
            .Distinct().Order(StringComparer.Ordinal).ToList();
        int PlaceOf(IReadOnlyDictionary<string, string> tags) =>
            tags.TryGetValue(tag, out var value) ? values.IndexOf(value) + 1 : 0;
        (PostingField, int[]) Source(PostingField column, IEnumerable<(int Key, IReadOnlyDictionary<string, string> Tags)> tagged)
        {
            var all = tagged.ToList();
            var places = new int[all.Select(record => record.Key).DefaultIfEmpty(0).Max() + 1];
            foreach (var (key, tags) in all)
            {
                places[key] = PlaceOf(tags);
            }

            return (column, places);
        }

        // A kind of record that nothing of has the tag need not be looked at.
        (PostingField Column, int[] Places)[] sources =
            [
                Source(PostingField.Tags, ledger.TagSets.Select((tags, key) => (key, tags))),
                .. Tagged.Select(column => Source(column, ledger.Records(column).Select(record => (record.Key, record.Tags)))),
                Source(PostingField.Account, ledger.Accounts.Select(account => (account.Key, account.Tags))),
            ];
        return new FieldValues(
            [NoValue, .. values.Select(value => new FieldValue(value, value))],
            [.. sources.Where(source => source.Column == PostingField.Account || source.Places.Any(place => place != 0))]);
    }

    /// <summary>The names of all tags of lines and of what they are about, in order.</summary>
    public static IEnumerable<string> TagsIn(ILedger ledger) =>
        AllTags(ledger).SelectMany(tags => tags.Keys).Distinct().Order(StringComparer.Ordinal);

    private static IEnumerable<IReadOnlyDictionary<string, string>> AllTags(ILedger ledger) => ledger.TagSets
        .Concat(Tagged.SelectMany(ledger.Records).Select(record => record.Tags))
        .Concat(ledger.Accounts.Select(account => account.Tags));
}
