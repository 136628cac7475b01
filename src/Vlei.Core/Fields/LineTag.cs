using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// A tag of postings: the nearest record that has it says it, the line or its document, then what the line is about, then its
/// account.
/// </summary>
internal sealed class LineTag
{
    // The records that postings refer to, the nearest first.
    private static readonly (PostingField Field, RecordTable Table)[] Near =
    [
        (PostingField.Item, RecordTables.Items), (PostingField.Project, RecordTables.Projects),
        (PostingField.Department, RecordTables.Departments), (PostingField.Contact, RecordTables.Contacts),
    ];

    private readonly IReadOnlyList<(string Column, int[] Places)> _sources;
    private readonly WordPool _pool;

    /// <summary>Looks the tag up. Throws a <see cref="ProblemException"/> that names the nearest where no record has it.</summary>
    public LineTag(ILedger ledger, string name)
    {
        var known = NamesIn(ledger).ToList();
        Name = known.Contains(name) ? name : throw new ProblemException(
            ProblemKind.NotFound, $"No record has a tag {name}.",
            Suggestion.DidYouMean(name, known) ?? (known.Count == 0
                ? "The records have no tags at all."
                : Suggestion.ThereAre(known)));
        string[] values =
        [
            .. AllIn(ledger).Select(tags => tags.GetValueOrDefault(name)).OfType<string>().Distinct().Order(StringComparer.Ordinal),
        ];
        _pool = new WordPool(["", .. values]);

        // A kind of record that nothing of has the tag need not be looked at.
        (string Column, int[] Places)[] sources =
            [
                Source(PostingField.Tags, ledger.TagSets.Select((tags, key) => (key, tags))),
                .. Near.Select(near => Source(near.Field, ledger.Tagged(near.Table))),
                Source(PostingField.Account, ledger.Accounts.Select(account => (account.Key.Value, account.Tags))),
            ];
        _sources = [.. sources.Where(source => source == sources[^1] || source.Places.Any(place => place != 0))];

        (string, int[]) Source(PostingField column, IEnumerable<(int Key, IReadOnlyDictionary<string, string> Tags)> tagged)
        {
            var all = tagged.ToList();
            var places = new int[all.Select(record => record.Key).DefaultIfEmpty(0).Max() + 1];
            foreach (var (key, tags) in all)
            {
                places[key] = tags.TryGetValue(name, out var value) ? Array.IndexOf(values, value) + 1 : 0;
            }

            return (PostingColumns.NameOf(column), places);
        }
    }

    /// <summary>Its name.</summary>
    public string Name { get; }

    /// <summary>The columns that it is read from; accounts are always one.</summary>
    public IReadOnlyList<string> Columns => [.. _sources.Select(source => source.Column)];

    /// <summary>The names of all tags of lines and of what they are about, in order.</summary>
    public static IEnumerable<string> NamesIn(ILedger ledger) =>
        AllIn(ledger).SelectMany(tags => tags.Keys).Distinct().Order(StringComparer.Ordinal);

    /// <summary>What postings have of it.</summary>
    public FieldCells Read(RowSet rows)
    {
        var numbers = new long[rows.Count];
        foreach (var (column, places) in _sources)
        {
            var keys = rows.Column(column);
            for (var row = 0; row < numbers.Length; row++)
            {
                if (numbers[row] == 0 && keys[row] < places.Length)
                {
                    numbers[row] = places[keys[row]];
                }
            }
        }

        return new FieldCells(numbers, _pool);
    }

    private static IEnumerable<IReadOnlyDictionary<string, string>> AllIn(ILedger ledger) => ledger.TagSets
        .Concat(Near.SelectMany(near => ledger.Tagged(near.Table)).Select(record => record.Tags))
        .Concat(ledger.Accounts.Select(account => account.Tags));
}
