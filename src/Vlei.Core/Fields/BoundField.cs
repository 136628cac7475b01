using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>A field in a book, ready to be read.</summary>
/// <param name="Field">The field.</param>
/// <param name="Read">What rows have in it.</param>
public sealed record BoundField(TableField Field, Func<RowSet, FieldCells> Read)
{
    private IReadOnlyList<FieldValue>? _values;

    /// <summary>How many decimals its numbers carry; 0 where they are whole.</summary>
    public required int Decimals { get; init; }

    /// <summary>The columns of the table that are all it is read from; nothing where records are looked up for the rows at hand.</summary>
    public IReadOnlyList<string>? Columns { get; init; }

    /// <summary>The same as columns of postings; nothing where it is read from something else besides.</summary>
    public IReadOnlyList<PostingField>? ColumnsOfPostings => PostingColumns.Found(Columns);

    /// <summary>
    /// How it is read to choose rows by it: a record is chosen by its name with what is part of it, though a name is shown alone.
    /// </summary>
    public Func<RowSet, FieldCells> Chosen { get; init; } = Read;

    /// <summary>The values that it can have, where it is in words that serve all rows; the first is none.</summary>
    public IReadOnlyList<FieldValue> Values => _values ??= Chosen(new RowSet(new RowBlock(0, _ => []))).Pool!.Values;

    /// <summary>Whether accounts have values of it.</summary>
    public bool IsOfAccounts => Columns?.Contains(PostingColumns.Account) ?? false;

    /// <summary>The places of the values that accounts themselves have; only where <see cref="IsOfAccounts"/>.</summary>
    public long[] PlacesIn(IReadOnlyList<Account> accounts) => Chosen(new RowSet(PostingColumns.BlockOf(accounts))).Numbers;
}
