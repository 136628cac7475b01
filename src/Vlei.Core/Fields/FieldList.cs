using System.Collections;
using Vlei.Core.Calendar;

namespace Vlei.Core.Fields;

/// <summary>
/// The fields of a table, each in one line with how it is read. A name that is not in the list cannot be read: there is no
/// other place that knows names.
/// </summary>
/// <typeparam name="TSource">What rows are read from, some at a time.</typeparam>
public class FieldList<TSource> : IEnumerable<TableField>
{
    private readonly List<TableField> _fields = [];
    private readonly Dictionary<string, Func<TSource, RowBlock, long[]>> _numbers = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Func<TSource, int, string>> _texts = new(StringComparer.Ordinal);

    /// <summary>Adds a field whose rows are whole numbers.</summary>
    /// <param name="field">The field.</param>
    /// <param name="read">Reads it; the block has the other columns of the same rows.</param>
    public void Add(TableField field, Func<TSource, RowBlock, long[]> read)
    {
        _fields.Add(field);
        _numbers.Add(field.Name, read);
    }

    /// <summary>Adds a field that is looked up elsewhere.</summary>
    public void Add(TableField field) => _fields.Add(field);

    /// <summary>Adds a column that is no field: what rows are told apart by and is not shown.</summary>
    public void AddHidden(string name, Func<TSource, RowBlock, long[]> read) => _numbers.Add(name, read);

    /// <summary>Adds a field of texts.</summary>
    public void Add(TableField field, Func<TSource, int, string> read)
    {
        _fields.Add(field);
        _texts.Add(field.Name, read);
    }

    /// <summary>Rows, read when they are asked for.</summary>
    /// <param name="source">What they are read from.</param>
    /// <param name="count">How many there are.</param>
    /// <param name="behind">
    /// The block that the source reads from, which has the columns that this list does not say; nothing where there is none.
    /// </param>
    /// <param name="some">What some of them are read from, by their places, where that reads less.</param>
    /// <param name="dates">The days that all of them lie within; nothing where that is not known.</param>
    public RowBlock BlockOf(
        TSource source, int count, RowBlock? behind = null, Func<int[], TSource>? some = null, DateRange? dates = null)
    {
        var block = default(RowBlock);
        block = new RowBlock(
            count, name => _numbers.TryGetValue(name, out var read) ? read(source, block!) : behind?[name] ?? throw Unknown(name), behind)
        {
            TextOf = (name, row) => _texts.TryGetValue(name, out var read) ? read(source, row) : throw Unknown(name),
            Dates = dates, Some = some is null ? null : places => BlockOf(some(places), places.Length, dates: dates),
        };
        return block;
    }

    /// <inheritdoc/>
    public IEnumerator<TableField> GetEnumerator() => _fields.GetEnumerator();

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private static InvalidOperationException Unknown(string name) => new($"There is no column {name}.");
}

/// <summary>The fields of a table whose rows are records at hand.</summary>
public sealed class RecordFields<TRecord> : FieldList<IReadOnlyList<TRecord>>
{
    /// <summary>Adds a field of whole numbers.</summary>
    public void Add(TableField field, Func<TRecord, long> of) => Add(field, (records, _) => [.. records.Select(of)]);

    /// <summary>Adds a field of texts.</summary>
    public void Add(TableField field, Func<TRecord, string> of) => Add(field, (records, row) => of(records[row]));

    /// <summary>The records as rows.</summary>
    public RowBlock BlockOf(IReadOnlyList<TRecord> records) => BlockOf(records, records.Count);
}
