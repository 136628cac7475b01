using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>The words that a field has, by number; the first stands for none.</summary>
/// <param name="words">The words as they are shown.</param>
/// <param name="ids">The ids of the records that they stand for, where they stand for records.</param>
/// <param name="names">What those records are called, where that is not what is shown.</param>
/// <param name="parents">The numbers of what each is part of, 0 for nothing; where there are such parts.</param>
public sealed class WordPool(
    IReadOnlyList<string> words, IReadOnlyList<string>? ids = null, IReadOnlyList<string>? names = null, IReadOnlyList<int>? parents = null)
{
    private readonly RecordNames? _records;

    /// <summary>The records of a table, as words.</summary>
    public WordPool(RecordNames records)
        : this(records.Shown, records.Ids, records.Names) => _records = records;

    /// <summary>The place of each in the order of words, equal ones together, where it is known; nothing where it is not.</summary>
    public IReadOnlyList<int>? Places => _records?.Places;

    /// <summary>The words as they are shown.</summary>
    public IReadOnlyList<string> Words => words;

    /// <summary>The ids of the records that they stand for; the words themselves where they stand for nothing else.</summary>
    public IReadOnlyList<string> Ids => ids ?? words;

    /// <summary>What the records that they stand for are called; the words themselves where they stand for nothing else.</summary>
    public IReadOnlyList<string> Names => names ?? words;

    /// <summary>Whether they stand for records, which have ids besides.</summary>
    public bool IsOfRecords => ids is not null;

    /// <summary>The numbers of what each is part of; nothing where there are no parts.</summary>
    public IReadOnlyList<int>? Parents => parents;

    /// <summary>What rows can be chosen by: the words with their ids and names, the first of which is none.</summary>
    public IReadOnlyList<FieldValue> Values
    {
        get
        {
            var values = new List<FieldValue>(words.Count) { new(FieldNames.None, FieldNames.None) };
            for (var number = 1; number < words.Count; number++)
            {
                values.Add(
                    new FieldValue(Ids[number], Names[number], parents is not null && parents[number] > 0 ? Ids[parents[number]] : null));
            }

            return values;
        }
    }

    /// <summary>Whether it serves all rows of the table, so that a number means the same in each block.</summary>
    public bool IsShared { get; init; } = true;

    /// <summary>A pool of whatever texts come, each once, with the number of each; for the rows at hand alone.</summary>
    public static FieldCells Of(IReadOnlyList<string?> texts)
    {
        var (words, known, numbers) = (new List<string> { "" }, new Dictionary<string, int>(StringComparer.Ordinal), new long[texts.Count]);
        for (var row = 0; row < numbers.Length; row++)
        {
            if (texts[row] is not { Length: > 0 } text)
            {
                continue;
            }

            // Rows of one document stand together.
            if (row > 0 && ReferenceEquals(text, texts[row - 1]))
            {
                numbers[row] = numbers[row - 1];
                continue;
            }

            if (!known.TryGetValue(text, out var number))
            {
                known[text] = number = words.Count;
                words.Add(text);
            }

            numbers[row] = number;
        }

        return new FieldCells(numbers, new WordPool(words) { IsShared = false });
    }
}

/// <summary>What rows have in a field.</summary>
/// <param name="Numbers">A number per row: what its type counts, or the number of a word.</param>
/// <param name="Pool">The words, where the field has words.</param>
public readonly record struct FieldCells(long[] Numbers, WordPool? Pool = null)
{
    /// <summary>The number that stands for nothing, where there are no words.</summary>
    public const long Nothing = long.MinValue;

    /// <summary>Whether a number stands for nothing.</summary>
    public bool IsNothing(long number) => Pool is null ? number == Nothing : number == 0;
}
