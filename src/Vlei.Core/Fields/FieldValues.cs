using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>A value that a field of a posting can have.</summary>
/// <param name="Id">The word by which it is chosen, and its key as a column.</param>
/// <param name="Name">What people call it; the same as the id where there is nothing else.</param>
/// <param name="Parent">The id of the value that it is part of, where it is part of one.</param>
public sealed record FieldValue(string Id, string Name, string? Parent = null);

/// <summary>
/// The values of a field in one book, and which of them each posting has. A posting that has none has the value at
/// place 0.
/// </summary>
public sealed class FieldValues
{
    private readonly IReadOnlyList<(PostingField Column, int[] Places)> _sources;

    /// <summary>Takes the values, the first of which stands for none.</summary>
    /// <param name="values">The values.</param>
    /// <param name="sources">
    /// The columns that say which value a posting has, and, for each key in such a column, the place of the value; the
    /// first column that gives one counts.
    /// </param>
    public FieldValues(IReadOnlyList<FieldValue> values, IReadOnlyList<(PostingField Column, int[] Places)> sources) =>
        (Values, _sources) = (values, sources);

    /// <summary>The values; the first is none.</summary>
    public IReadOnlyList<FieldValue> Values { get; }

    /// <summary>The columns that it reads.</summary>
    public IEnumerable<PostingField> Columns => _sources.Select(source => source.Column);

    /// <summary>The place of the value of each posting.</summary>
    public int[] PlacesIn(PostingMonth postings) => PlacesIn(postings.Count, column => postings[column]);

    /// <summary>The place of the value of each of as many rows, whose columns are those of postings.</summary>
    public int[] PlacesIn(int count, Func<PostingField, long[]> columnOf)
    {
        var places = new int[count];
        foreach (var (column, placeOf) in _sources)
        {
            var keys = columnOf(column);
            for (var posting = 0; posting < places.Length; posting++)
            {
                if (places[posting] == 0 && keys[posting] < placeOf.Length)
                {
                    places[posting] = placeOf[keys[posting]];
                }
            }
        }

        return places;
    }

    /// <summary>Whether accounts have values of it.</summary>
    public bool IsOfAccounts => Columns.Contains(PostingField.Account);

    /// <summary>The place of the value that an account itself has; only where <see cref="IsOfAccounts"/>.</summary>
    public int PlaceOf(Account account) =>
        _sources.First(source => source.Column == PostingField.Account).Places[account.Key];
}
